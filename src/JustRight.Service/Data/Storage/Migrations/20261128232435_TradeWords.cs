using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace JustRight.Service.Data.Storage.Migrations
{
    /// <summary>Tables and columns in the words of today; what stands in them, <see cref="Upgrades.TradeWords"/> brings up to date.</summary>
    public partial class TradeWords : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameTable(
                name: "Notices",
                newName: "Notifications");

            migrationBuilder.RenameIndex(
                name: "IX_Notices_Key",
                table: "Notifications",
                newName: "IX_Notifications_Key");

            migrationBuilder.RenameColumn(
                name: "Giver",
                table: "Steps",
                newName: "Team");

            migrationBuilder.RenameColumn(
                name: "LeaningJson",
                table: "Reviews",
                newName: "CountsJson");

            migrationBuilder.RenameColumn(
                name: "LeaningJson",
                table: "Fits",
                newName: "CountsJson");

            migrationBuilder.RenameColumn(
                name: "ReleasedBy",
                table: "Jobs",
                newName: "ApprovedBy");

            migrationBuilder.RenameColumn(
                name: "ReleasedAt",
                table: "Jobs",
                newName: "ApprovedAt");

            migrationBuilder.RenameColumn(
                name: "NoticeId",
                table: "DeliveryRow",
                newName: "NotificationId");

            migrationBuilder.RenameIndex(
                name: "IX_DeliveryRow_NoticeId",
                table: "DeliveryRow",
                newName: "IX_DeliveryRow_NotificationId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.RenameColumn(
                name: "Team",
                table: "Steps",
                newName: "Giver");

            migrationBuilder.RenameColumn(
                name: "CountsJson",
                table: "Reviews",
                newName: "LeaningJson");

            migrationBuilder.RenameColumn(
                name: "CountsJson",
                table: "Fits",
                newName: "LeaningJson");

            migrationBuilder.RenameColumn(
                name: "ApprovedBy",
                table: "Jobs",
                newName: "ReleasedBy");

            migrationBuilder.RenameColumn(
                name: "ApprovedAt",
                table: "Jobs",
                newName: "ReleasedAt");

            migrationBuilder.RenameColumn(
                name: "NotificationId",
                table: "DeliveryRow",
                newName: "NoticeId");

            migrationBuilder.RenameIndex(
                name: "IX_DeliveryRow_NotificationId",
                table: "DeliveryRow",
                newName: "IX_DeliveryRow_NoticeId");

            migrationBuilder.RenameTable(
                name: "Notifications",
                newName: "Notices");

            migrationBuilder.RenameIndex(
                name: "IX_Notifications_Key",
                table: "Notices",
                newName: "IX_Notices_Key");
        }
    }
}
