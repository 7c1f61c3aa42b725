using JustRight.Contracts;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>The log's chain shows what was done to it behind the service's back.</summary>
public sealed class LogTests
{
    [Theory]
    [InlineData("UPDATE Log SET Detail = 'nothing' WHERE Number = 3", 3)]
    [InlineData("UPDATE Log SET Who = 'somebody else' WHERE Number = 1", 1)]
    [InlineData("DELETE FROM Log WHERE Number = 2", 2)]
    [InlineData("UPDATE Log SET Hash = (SELECT Hash FROM Log WHERE Number = 1) WHERE Number = 4", 4)]
    public async Task A_changed_or_missing_entry_breaks_the_chain(string sql, long at)
    {
        await using var service = await PreparedData.Demo.StartAsync();
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        await using (var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")}"))
        {
            await db.OpenAsync();
            await using var command = db.CreateCommand();
            command.CommandText = sql;
            (await command.ExecuteNonQueryAsync()).ShouldBe(1);
        }

        var check = await service.GetAsync("log/check", ContractsJson.Default.LogCheckView);
        (check.Sound, check.BrokenAt).ShouldBe((false, at));
    }
}
