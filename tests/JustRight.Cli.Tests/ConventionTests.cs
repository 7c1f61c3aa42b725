using System.Text.Json;

namespace JustRight.Cli.Tests;

/// <summary>What every command of the client does alike: JSON, and completion.</summary>
public sealed class ConventionTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom";

    [Fact]
    public async Task Every_command_gives_json_that_parses()
    {
        await RunAsync("verify", Install);
        string[][] commands =
        [
            ["sheet", "check", DemoFile("sheets/thermograph.yaml")], ["sheet", "add", DemoFile("sheets/thermograph.yaml")], ["sheet", "list"], ["sheet", "show", "thermograph@4.2"],
            ["estate", "check", DemoFile("estates/fennmoor.yaml")], ["estate", "list"], ["estate", "show", "fennmoor"], ["install", "list"], ["install", "show", Install],
            ["plan", Install], ["survey", "fennmoor"], ["verify", Install], ["why", Install, "poller"], ["grant", Install, "--list"], ["grant", Install, "--yes"],
            ["log", "list"], ["log", "check"], ["token", "list"], ["token", "make", "night", "--role", "reader"], ["token", "revoke", "night"], ["secret", "list"],
            ["password", "list", Install], ["trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber"], ["fix", "no-such", "1-spot", "--yes"], ["compare", "fennmoor", "OU=Fennmoor,DC=fennmoor,DC=example"], ["ldif", Install], ["ldif", Install, "--remove"], ["protect", "fennmoor", "people"], ["undo", "no-such", "--yes"],
            ["sheet", "show", "no-such@1"], // errors as well
        ];
        foreach (var command in commands)
        {
            var result = await RunAsync([.. command, "--json"]);
            Should.NotThrow(() => JsonDocument.Parse(result.Out), $"{string.Join(' ', command)}: {result.Out}{result.Error}");
            result.Error.ShouldBeEmpty(string.Join(' ', command));
        }
    }

    [Fact]
    public async Task Tab_completes_commands_and_names()
    {
        (await RunAsync("[suggest:12]", "justright ve")).Out.ShouldContain("verify");
        // A tab is given two seconds: a busy machine completes at the next one.
        await Waiting.UntilAsync("names are completed", async () =>
            (await RunAsync("[suggest:17]", "justright verify ")).Out.Contains(Install, StringComparison.Ordinal));
        (await RunAsync("completion", "bash")).Out.ShouldContain("complete -o default -F _justright justright");
    }

    private static string DemoFile(string path) => Path.Combine(Checkout.Top, "demo-data", path);
}
