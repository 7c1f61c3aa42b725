using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class EstateOfSettledNames : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_SettledNames_Install_Kind_Key",
                table: "SettledNames");

            migrationBuilder.AddColumn<string>(
                name: "Estate",
                table: "SettledNames",
                type: "TEXT",
                nullable: true);

            migrationBuilder.CreateIndex(
                name: "IX_SettledNames_Install_Estate_Kind_Key",
                table: "SettledNames",
                columns: new[] { "Install", "Estate", "Kind", "Key" },
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_SettledNames_Install_Estate_Kind_Key",
                table: "SettledNames");

            migrationBuilder.DropColumn(
                name: "Estate",
                table: "SettledNames");

            migrationBuilder.CreateIndex(
                name: "IX_SettledNames_Install_Kind_Key",
                table: "SettledNames",
                columns: new[] { "Install", "Kind", "Key" },
                unique: true);
        }
    }
}
