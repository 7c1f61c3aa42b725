using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class LogText : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // an index of what the log says, kept by the database itself; the log is only ever added to
            migrationBuilder.Sql(
                """
                CREATE VIRTUAL TABLE "LogText" USING fts5(
                    "Who", "Action", "Subject", "Detail", content = 'Log', content_rowid = 'Number', tokenize = 'trigram');
                """);
            migrationBuilder.Sql(
                """
                CREATE TRIGGER "LogTextAdded" AFTER INSERT ON "Log" BEGIN
                    INSERT INTO "LogText" (rowid, "Who", "Action", "Subject", "Detail")
                    VALUES (new."Number", new."Who", new."Action", new."Subject", new."Detail");
                END;
                """);
            migrationBuilder.Sql("""INSERT INTO "LogText" ("LogText") VALUES ('rebuild');""");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.Sql("""DROP TRIGGER "LogTextAdded";""");
            migrationBuilder.Sql("""DROP TABLE "LogText";""");
        }
    }
}
