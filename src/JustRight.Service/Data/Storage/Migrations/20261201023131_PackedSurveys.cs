using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <inheritdoc />
    public partial class PackedSurveys : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // what is kept stays as it is, text in a column of bytes: the upgrade of the same name packs it
            migrationBuilder.RenameColumn(
                name: "Json",
                table: "Surveys",
                newName: "Packed");

            migrationBuilder.AlterColumn<byte[]>(
                name: "Packed",
                table: "Surveys",
                type: "BLOB",
                nullable: false,
                oldClrType: typeof(string),
                oldType: "TEXT");

            migrationBuilder.CreateIndex(
                name: "IX_Steps_At",
                table: "Steps",
                column: "At");

            migrationBuilder.CreateIndex(
                name: "IX_Notifications_Estate_Id",
                table: "Notifications",
                columns: new[] { "Estate", "Id" });

            migrationBuilder.CreateIndex(
                name: "IX_Jobs_State",
                table: "Jobs",
                column: "State");

            migrationBuilder.CreateIndex(
                name: "IX_Jobs_Subject_Kind",
                table: "Jobs",
                columns: new[] { "Subject", "Kind" });

            migrationBuilder.CreateIndex(
                name: "IX_Fits_SurveyId",
                table: "Fits",
                column: "SurveyId");

            migrationBuilder.CreateIndex(
                name: "IX_DeliveryRow_State",
                table: "DeliveryRow",
                column: "State");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropIndex(
                name: "IX_Steps_At",
                table: "Steps");

            migrationBuilder.DropIndex(
                name: "IX_Notifications_Estate_Id",
                table: "Notifications");

            migrationBuilder.DropIndex(
                name: "IX_Jobs_State",
                table: "Jobs");

            migrationBuilder.DropIndex(
                name: "IX_Jobs_Subject_Kind",
                table: "Jobs");

            migrationBuilder.DropIndex(
                name: "IX_Fits_SurveyId",
                table: "Fits");

            migrationBuilder.DropIndex(
                name: "IX_DeliveryRow_State",
                table: "DeliveryRow");

            migrationBuilder.AlterColumn<string>(
                name: "Packed",
                table: "Surveys",
                type: "TEXT",
                nullable: false,
                oldClrType: typeof(byte[]),
                oldType: "BLOB");

            migrationBuilder.RenameColumn(
                name: "Packed",
                table: "Surveys",
                newName: "Json");
        }
    }
}
