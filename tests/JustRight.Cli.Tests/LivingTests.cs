using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using JustRight.Tests.Shared;

namespace JustRight.Cli.Tests;

/// <summary>Living with an install, from the client: exceptions, reviews, the calendar, files, the watch, four eyes; what it prints, and its exit codes.</summary>
public sealed class LivingTests : IAsyncLifetime
{
    private const string Install = "quernstone-sql01";
    private ServiceProcess _service = null!;

    private static string Day(int days) => DateTime.UtcNow.AddDays(days).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    public async ValueTask InitializeAsync()
    {
        _service = await ServiceProcess.StartAsync();
        await _service.AddDemoAsync();
        (await RunAsync("token", "claim", _service.Links[1])).Code.ShouldBe(0);
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task What_is_accepted_and_reviewed_ends_up_in_files()
    {
        (await RunAsync("review", "add", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain($"justright verify {Install}"));
        await RunAsync("verify", Install);
        (await RunAsync("verify", Install)).Code.ShouldBe(1);
        (await RunAsync("exception", "allow", Install, "watcher", "no such right", "--why", "x", "--until", Day(9))).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("sysadmin on fm-sql01 (spare)"));
        (await RunAsync("exception", "allow", Install, "watcher", "sysadmin", "--why", "x", "--until", "soon")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("'soon' is not a day"));
        (await RunAsync("exception", "allow", Install, "watcher", "sysadmin", "--why", "until the next release", "--until", Day(90), "--by", "Maud Ferris")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Maud Ferris"));
        (await RunAsync("verify", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0, "all that is off is accepted"), r => r.Out.ShouldContain("1 too much, accepted"), r => r.Out.ShouldContain("accepted by Maud Ferris until"));
        var fit = JsonDocument.Parse((await RunAsync("history", Install, "--json")).Out).RootElement[0].GetProperty("number").GetInt32();
        (await RunAsync("review", "add", Install, "--fit", $"{fit}", "--by", "Jory Lind", "--again-by", Day(100))).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Jory Lind looked at fit"));
        (await RunAsync("review", "list", Install)).Out.ShouldContain("accepted by Maud Ferris until");
        (await RunAsync("calendar", "fennmoor")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("exception"), r => r.Out.ShouldContain("review"));

        foreach (var (line, name, begins) in new[]
        {
            ("report {0} --form xlsx --to {1}", "q.xlsx", "PK"), ("report {0} --form csv --to {1}", "q.csv", "\ufeffaccount,"), ("review sheet {0} --to {1}", "q.html", "<!DOCTYPE html>"), ("evidence write {0} --to {1}", "q.json", "{\"payload\""), ("calendar fennmoor --to {1}", "q.ics", "BEGIN:VCALENDAR"),
        })
        {
            var file = Path.Combine(_service.Data, name);
            (await RunAsync(string.Format(CultureInfo.InvariantCulture, line, Install, file).Split(' '))).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("is written"));
            System.Text.Encoding.UTF8.GetString(await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken)).ShouldStartWith(begins);
        }

        (await RunAsync("report", Install)).Out.ShouldStartWith("# Quernstone database watch");
        (await RunAsync("evidence", "key")).Out.ShouldStartWith("-----BEGIN PUBLIC KEY-----");
        (await RunAsync("report", Install, "--form", "xlsx", "--to", "/no/such/folder/q.xlsx")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("cannot be written"));
        (await RunAsync("exception", "end", Install, "1")).Out.ShouldContain("ended by");
        (await RunAsync("drift", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("no longer accepted"));
    }

    [Fact]
    public async Task The_watch_and_four_eyes_say_what_they_wait_for()
    {
        (await RunAsync("watch", "fennmoor")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Nobody watches fennmoor"), r => r.Out.ShouldContain("service-accounts@fennmoor.example"));
        (await RunAsync("watch", "fennmoor", "--now")).Out.ShouldContain("fennmoor was surveyed");
        (await RunAsync("notices", "fennmoor", "--remind")).Code.ShouldBe(0);
        var estate = Path.Combine(_service.Data, "fennmoor.yaml");
        await File.WriteAllTextAsync(estate, await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), TestContext.Current.CancellationToken) + "  four-eyes: yes\n", TestContext.Current.CancellationToken);
        (await RunAsync("estate", "add", estate)).Code.ShouldBe(0);
        var proposed = await RunAsync("grant", "tallystick-dataroom", "--yes");
        proposed.ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("another granter releases it"));
        var id = JsonDocument.Parse((await RunAsync("proposal", "list", "--json")).Out).RootElement[0].GetProperty("id").GetString()!;
        (await RunAsync("proposal", "list")).Out.ShouldContain("waits for another's release");
        (await RunAsync("proposal", "release", id, "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("another releases it"));
        (await RunAsync("proposal", "carry-out", id)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Nobody has released it yet"));
        (await RunAsync("proposal", "withdraw", id)).Out.ShouldContain("withdrawn by");
        (await RunAsync("proposal", "list")).Out.ShouldContain("Nothing waits for a release.");
    }

    private async Task<(int Code, string Out, string Error)> RunAsync(params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(Path.Combine(Checkout.Top, ".build", "client", "justright"), arguments)
        {
            RedirectStandardOutput = true,
            RedirectStandardError = true,
            RedirectStandardInput = true,
            Environment = { ["JUSTRIGHT_ADDRESS"] = _service.Address, ["JUSTRIGHT_SETTINGS"] = Path.Combine(_service.Data, "client.json") },
        })!;
        process.StandardInput.Close();
        var (output, error) = (process.StandardOutput.ReadToEndAsync(), process.StandardError.ReadToEndAsync());
        await process.WaitForExitAsync();
        return (process.ExitCode, await output, await error);
    }
}
