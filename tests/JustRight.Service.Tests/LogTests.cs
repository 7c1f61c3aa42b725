using System.Globalization;
using System.Net.Http.Json;
using System.Security.Cryptography;
using System.Text.Json;
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

    [Theory]
    [InlineData("FENNMOOR", true)]
    [InlineData("fennmoor", true)]
    [InlineData("sheets%", false)] // it stands for nothing but itself
    [InlineData("fenn_oor", false)]
    [InlineData("fenn|oor", false)]
    [InlineData("100%_|", true)]
    public async Task It_is_searched_as_people_type_and_every_sign_stands_for_itself(string text, bool found)
    {
        await using var service = await PreparedData.Demo.StartAsync();
        using (var told = await service.Http.PostAsJsonAsync(
            "/api/estates/fennmoor/passwords/svc-curd-cards/places",
            new PlaceOrder("", "a page", "100%_|", "nothing", null), ContractsJson.Default.PlaceOrder))
            told.EnsureSuccessStatusCode();
        var entries = (await service.GetAsync(
            $"log?search={Uri.EscapeDataString(text)}", ContractsJson.Default.LogPage)).Items;
        entries.Any().ShouldBe(found);
    }

    [Fact]
    public async Task Entries_that_are_rewritten_together_with_their_hashes_meet_a_signed_head()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.StopAsync(); // which signs the head
        await service.RestartAsync();
        await service.SetSecretAsync("later", "one more entry");
        var before = await service.GetAsync("log/check", ContractsJson.Default.LogCheckView);
        before.ShouldSatisfyAllConditions(
            c => c.Sound.ShouldBeTrue(), c => c.Heads.ShouldBeGreaterThan(0), c => c.SignedUpTo.ShouldNotBeNull());

        await RewriteAsync(service, 3);
        var check = await service.GetAsync("log/check", ContractsJson.Default.LogCheckView);
        check.BrokenAt.ShouldBeNull("the chain alone follows");
        check.Sound.ShouldBeFalse();
        check.Fault.ShouldNotBeNull().ShouldContain("entries up to there were rewritten, with their hashes");
    }

    [Fact]
    public async Task An_anchor_shows_a_tail_that_was_cut_off_with_its_heads()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.SetSecretAsync("later", "one more entry");
        var anchor = await service.Http.GetStringAsync("/api/log/anchor", Cancel);
        var holds = await CheckAsync(service, anchor);
        (holds.Sound, holds.AnchorHolds).ShouldBe((true, true));
        await service.SetSecretAsync("later-still", "and one more");
        (await CheckAsync(service, anchor)).Sound.ShouldBeTrue("the log goes on");

        await ExecuteAsync(service, "DELETE FROM LogHeads");
        await ExecuteAsync(service, "DELETE FROM Log WHERE Number > 5");
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView))
            .Sound.ShouldBeTrue("nothing that is left tells");
        var check = await CheckAsync(service, anchor);
        check.Sound.ShouldBeFalse();
        check.Fault.ShouldNotBeNull().ShouldContain("the end of the log was cut off");
        check = await CheckAsync(service, "{\"payload\":\"x\"}");
        check.Fault.ShouldBe("The anchor is not signed with the key of this service.");
    }

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static async Task<LogCheckView> CheckAsync(TestedService service, string anchor)
    {
        var order = new LogAnchor(anchor);
        using var response = await service.Http.PostAsJsonAsync("/api/log/check", order, ContractsJson.Default.LogAnchor, Cancel);
        return (await response.Content.ReadFromJsonAsync(ContractsJson.Default.LogCheckView, Cancel))!;
    }

    private static async Task ExecuteAsync(TestedService service, string sql)
    {
        await using var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")}");
        await db.OpenAsync(Cancel);
        await using var command = db.CreateCommand();
        command.CommandText = sql;
        (await command.ExecuteNonQueryAsync(Cancel)).ShouldBeGreaterThan(0);
    }

    /// <summary>
    /// Changes what an entry says, and makes every hash from there on anew: as somebody would who knows the code.
    /// </summary>
    private static async Task RewriteAsync(TestedService service, long number)
    {
        await ExecuteAsync(service, $"UPDATE Log SET Detail = 'nothing to see' WHERE Number = {number}");
        await using var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")}");
        await db.OpenAsync(Cancel);
        var rows = new List<(long Number, DateTimeOffset At, string Who, string Action, string Subject, string Detail)>();
        await using (var read = db.CreateCommand())
        {
            read.CommandText = "SELECT Number, At, Who, Action, Subject, Detail FROM Log ORDER BY Number";
            await using var reader = await read.ExecuteReaderAsync(Cancel);
            while (await reader.ReadAsync(Cancel))
            {
                rows.Add((
                    reader.GetInt64(0), DateTimeOffset.Parse(reader.GetString(1), CultureInfo.InvariantCulture),
                    reader.GetString(2), reader.GetString(3),
                    reader.GetString(4), reader.GetString(5)));
            }
        }

        var hash = new string('0', 64);
        foreach (var row in rows)
        {
            hash = Convert.ToHexStringLower(SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes<object[]>(
                [
                    hash, row.Number, row.At.UtcDateTime.ToString("O", CultureInfo.InvariantCulture), row.Who, row.Action,
                    row.Subject, row.Detail,
                ])));
            await using var write = db.CreateCommand();
            write.CommandText = $"UPDATE Log SET Hash = '{hash}' WHERE Number = {row.Number}";
            await write.ExecuteNonQueryAsync(Cancel);
        }
    }
}
