namespace JustRight.Cli.Tests;

/// <summary>What every command of the client does alike: completion.</summary>
public sealed class CompletionTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom";

    [Fact]
    public async Task Tab_completes_commands_and_names()
    {
        (await RunAsync("[suggest:12]", "justright ve")).Out.ShouldContain("verify");
        // A tab is given two seconds: a busy machine completes at the next one.
        await Waiting.UntilAsync("names are completed", async () =>
            (await RunAsync("[suggest:17]", "justright verify ")).Out.Contains(Install, StringComparison.Ordinal));
        (await RunAsync("completion", "bash")).Out.ShouldContain("complete -o default -F _justright justright");
    }
}
