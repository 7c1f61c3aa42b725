using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Runs : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AlterColumn<string>(
                name: "ChangeJson",
                table: "Steps",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.AddColumn<string>(
                name: "By",
                table: "Steps",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<bool>(
                name: "ByPerson",
                table: "Steps",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "HangsOn",
                table: "Steps",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<bool>(
                name: "IsNeeded",
                table: "Steps",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsSaid",
                table: "Steps",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "IsTriedAgain",
                table: "Steps",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<bool>(
                name: "OnlySettles",
                table: "Steps",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "RenewalJson",
                table: "Steps",
                type: "TEXT",
                nullable: true);

            migrationBuilder.AddColumn<int>(
                name: "Undoes",
                table: "Steps",
                type: "INTEGER",
                nullable: true);

            migrationBuilder.AddColumn<string>(
                name: "Window",
                table: "Steps",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AlterColumn<string>(
                name: "BookJson",
                table: "Renewals",
                type: "TEXT",
                nullable: true,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.AddColumn<bool>(
                name: "CanGoBack",
                table: "Jobs",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "StoppedBy",
                table: "Jobs",
                type: "TEXT",
                nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "By",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "ByPerson",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "HangsOn",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "IsNeeded",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "IsSaid",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "IsTriedAgain",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "OnlySettles",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "RenewalJson",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "Undoes",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "Window",
                table: "Steps");

            migrationBuilder.DropColumn(
                name: "CanGoBack",
                table: "Jobs");

            migrationBuilder.DropColumn(
                name: "StoppedBy",
                table: "Jobs");

            migrationBuilder.AlterColumn<string>(
                name: "ChangeJson",
                table: "Steps",
                type: "TEXT",
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "TEXT",
                oldNullable: true);

            migrationBuilder.AlterColumn<string>(
                name: "BookJson",
                table: "Renewals",
                type: "TEXT",
                nullable: false,
                defaultValue: "",
                oldClrType: typeof(string),
                oldType: "TEXT",
                oldNullable: true);
        }
    }
}
