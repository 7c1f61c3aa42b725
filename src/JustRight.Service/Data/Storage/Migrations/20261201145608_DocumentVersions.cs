using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class DocumentVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "DocumentVersions",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Kind = table.Column<string>(type: "TEXT", nullable: false),
                    Name = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    File = table.Column<string>(type: "TEXT", nullable: false),
                    Text = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<string>(type: "TEXT", nullable: false),
                    By = table.Column<string>(type: "TEXT", nullable: false),
                    RemovedAt = table.Column<string>(type: "TEXT", nullable: true),
                    RemovedBy = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DocumentVersions", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_DocumentVersions_Kind_Name_Number",
                table: "DocumentVersions",
                columns: new[] { "Kind", "Name", "Number" },
                unique: true);
            // what is there now is the first that is known
            migrationBuilder.Sql(
                """
                INSERT INTO "DocumentVersions" ("Kind", "Name", "Number", "File", "Text", "At", "By")
                SELECT "Kind", "Name", 1, "File", "Text", "AddedAt", "AddedBy" FROM "Documents";
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "DocumentVersions");
        }
    }
}
