using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class Summaries : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "EstateMarks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Estate = table.Column<string>(type: "TEXT", nullable: false),
                    Changed = table.Column<long>(type: "INTEGER", nullable: false),
                    Replanned = table.Column<long>(type: "INTEGER", nullable: false),
                    Judged = table.Column<long>(type: "INTEGER", nullable: false),
                    Written = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_EstateMarks", x => x.Id);
                });

            migrationBuilder.CreateTable(
                name: "Summaries",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    Install = table.Column<string>(type: "TEXT", nullable: false),
                    Estate = table.Column<string>(type: "TEXT", nullable: false),
                    Sheet = table.Column<string>(type: "TEXT", nullable: false),
                    Title = table.Column<string>(type: "TEXT", nullable: false),
                    Stage = table.Column<string>(type: "TEXT", nullable: false),
                    Simulated = table.Column<bool>(type: "INTEGER", nullable: false),
                    Missing = table.Column<int>(type: "INTEGER", nullable: false),
                    Pending = table.Column<int>(type: "INTEGER", nullable: false),
                    Unseen = table.Column<int>(type: "INTEGER", nullable: false),
                    Excess = table.Column<int>(type: "INTEGER", nullable: false),
                    CountsJson = table.Column<string>(type: "TEXT", nullable: true),
                    Next = table.Column<string>(type: "TEXT", nullable: false),
                    SurveyedAt = table.Column<string>(type: "TEXT", nullable: true),
                    RemovableAt = table.Column<string>(type: "TEXT", nullable: true),
                    RemarksJson = table.Column<string>(type: "TEXT", nullable: false),
                    Basis = table.Column<string>(type: "TEXT", nullable: true),
                    JudgedAt = table.Column<string>(type: "TEXT", nullable: true),
                    HoldsUntil = table.Column<string>(type: "TEXT", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Summaries", x => x.Id);
                });

            migrationBuilder.CreateIndex(
                name: "IX_EstateMarks_Estate",
                table: "EstateMarks",
                column: "Estate",
                unique: true);

            migrationBuilder.CreateIndex(
                name: "IX_Summaries_Estate",
                table: "Summaries",
                column: "Estate");

            migrationBuilder.CreateIndex(
                name: "IX_Summaries_HoldsUntil",
                table: "Summaries",
                column: "HoldsUntil");

            migrationBuilder.CreateIndex(
                name: "IX_Summaries_Install",
                table: "Summaries",
                column: "Install",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "EstateMarks");

            migrationBuilder.DropTable(
                name: "Summaries");
        }
    }
}
