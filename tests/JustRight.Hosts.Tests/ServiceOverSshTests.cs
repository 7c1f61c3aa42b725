using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using JustRight.Contracts;

namespace JustRight.Hosts.Tests;

/// <summary>The service, end to end, with one host of the demo's estate over real SSH: Wheyline's sender is swapped there.</summary>
public sealed class ServiceOverSshTests
{
    private const string Password = "typed-by-the-keeper-7c1f";
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_sender_on_a_host_over_SSH_is_given_its_account_restarted_and_seen()
    {
        await using var hosts = await SimulatedHosts.StartAsync("fm-line01");
        hosts.Change("fm-line01", s =>
        {
            s["principals"]!.AsArray()
                .Add(new JsonObject { ["name"] = "svc-whey-sender", ["sid"] = SimulatedHostState.Domain + "-1243", ["groups"] = new JsonArray(), ["password"] = Password });
            foreach (var (from, to) in new[] { ("LineHub", "WheylineScale"), ("LineSender", "WheylineSender") })
                s["services"]!.AsArray().Single(v => v!["name"]!.GetValue<string>() == from)!["name"] = to;
            s["services"]!.AsArray()[1]!["waits"] = new JsonArray("Tcpip");
            s["services"]!.AsArray()[1]!["start"] = "automatic";
        });
        await using var service = await PreparedData.Demo.StartAsync();
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
            .Replace("fm-line01: {}", $"fm-line01: {hosts.Yaml("fm-line01")}", StringComparison.Ordinal);
        (await service.AddAsync("estates", "fennmoor.yaml", Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();
        foreach (var (name, value) in new[] { ("host-key", hosts.PrivateKey), ("svc-whey-sender", Password) })
        {
            await service.SetSecretAsync(name, value);
            await service.AllowAsync(name);
        }

        var granted = await service.GrantAllAsync("wheyline-lines");
        granted.State.ShouldBe("done", granted.Message);
        granted.Steps.ShouldContain(s =>
            s.Place == "fm-line01" && s.Words.StartsWith("restart", StringComparison.Ordinal) && s.State == "made"
                && s.After == @"WheylineSender runs as FENNMOOR\svc-whey-sender");
        hosts.MadeOn("fm-line01").ShouldBe(["set SeServiceLogonRight", "stop WheylineSender", "start WheylineSender"]);
        var host = await service.GetAsync("estates/fennmoor/hosts/fm-line01", ContractsJson.Default.HostView);
        (host.Reach, host.System, host.ReadBy)
            .ShouldBe(("ssh", "PRETEND Windows Server 2022 10.0.20348", @"FENNMOOR\host-reader"));
        host.Services.Single(s => s.Name == "WheylineSender").RunsNowAs.ShouldBe(@"FENNMOOR\svc-whey-sender");

        var removed = await service.GrantAllAsync("wheyline-lines", remove: true);
        removed.Message!.ShouldEndWith("now just right as far as seen, 1 unseen");
        await service.StopAsync();
        foreach (var file in service.DataFiles)
        {
            var bytes = Encoding.Latin1.GetString(await File.ReadAllBytesAsync(file, Cancel));
            bytes.ShouldNotContain(Password, customMessage: file);
            bytes.ShouldNotContain("PRIVATE KEY", customMessage: file);
        }

        service.Output.ShouldNotContain(Password);
    }
}
