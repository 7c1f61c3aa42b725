using System.Net.Sockets;
using System.Text;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Logging;

namespace JustRight.Service.Tests;

/// <summary>A client that hangs up, at whatever moment, is no error of the service.</summary>
public sealed class HangUpTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task It_is_no_error_in_the_log()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var sheet = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "sheets", "thermograph.yaml"), Cancel);
        var body = $"Content-Type: application/yaml\r\nContent-Length: {Encoding.UTF8.GetByteCount(sheet)}\r\n\r\n";
        for (var i = 0; i < 10; i++)
        {
            await HangUpAsync(service, "POST /api/sheets?file=thermograph.yaml", body + sheet[..(sheet.Length / 2)],
                reset: i % 2 == 0);
            await HangUpAsync(service, "POST /api/sheets?file=thermograph.yaml", body[..20], reset: i % 2 == 0);
            await HangUpAsync(service, "POST /api/installs/thermograph-dataroom/verify", "Content-Length: 0\r\n\r\n",
                reset: i % 2 == 0);
            await HangUpAsync(service, "GET /api/installs", "\r\n", reset: i % 2 == 0);
            await HangUpAsync(service, "POST /api/backup", "Content-Type: application/json\r\nContent-Length: 2\r\n\r\n{}",
                reset: i % 2 == 0);
        }

        var job = await service.RunAsync("installs/thermograph-dataroom/verify");
        await HangUpAsync(service, $"GET /api/jobs/{job.Id}/events", "\r\n", reset: true);
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
        await service.StopAsync(); // so that all is written
        var log = string.Concat(Directory.GetFiles(Path.Combine(service.Data, "logs")).Select(File.ReadAllText));
        log.ShouldContain("/api/installs");
        log.Split('\n').Where(l => l.Contains("\"@l\":\"Error\"", StringComparison.Ordinal)).ShouldBeEmpty();
        service.Output.ShouldNotContain("   at ");
    }

    [Fact]
    public async Task A_transaction_that_it_ends_is_no_error_of_the_database()
    {
        var told = new List<string>();
        var options = new DbContextOptionsBuilder<AppDb>().LogTo(told.Add, LogLevel.Warning);
        AppDb.KeptIn(":memory:", options);
        await using var db = new AppDb(options.Options);
        await db.Database.OpenConnectionAsync(Cancel);
        using var client = new CancellationTokenSource();
        await using var transaction = await db.Database.BeginTransactionAsync(client.Token);
        await client.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => transaction.CommitAsync(client.Token));
        told.ShouldBeEmpty();
    }

    /// <summary>Sends a request, or the beginning of one, and is gone.</summary>
    private static async Task HangUpAsync(TestedService service, string request, string rest, bool reset)
    {
        using var client = new TcpClient();
        var address = new Uri(service.Address);
        await client.ConnectAsync(address.Host, address.Port, Cancel);
        if (reset) client.LingerState = new LingerOption(true, 0);
        var text = $"{request} HTTP/1.1\r\nHost: {address.Authority}\r\nAuthorization: Bearer {service.Token}\r\n{rest}";
        await client.GetStream().WriteAsync(Encoding.UTF8.GetBytes(text), Cancel);
        await Task.Delay(5, Cancel);
    }
}
