using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Proofs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(
                name: "ErasedAt",
                table: "Confirmations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ErasedBy",
                table: "Confirmations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Proof",
                table: "Confirmations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ProofHash",
                table: "Confirmations",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "ProofSalt",
                table: "Confirmations",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ErasedAt",
                table: "Confirmations");

            migrationBuilder.DropColumn(
                name: "ErasedBy",
                table: "Confirmations");

            migrationBuilder.DropColumn(
                name: "Proof",
                table: "Confirmations");

            migrationBuilder.DropColumn(
                name: "ProofHash",
                table: "Confirmations");

            migrationBuilder.DropColumn(
                name: "ProofSalt",
                table: "Confirmations");
        }
    }
}
