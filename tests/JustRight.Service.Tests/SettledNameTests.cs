using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>A name that was free in one estate is settled there, and says nothing in another.</summary>
public sealed class SettledNameTests
{
    private const string Install = "thermograph-dataroom";
    private const string Estate = "estates/fennmoor.yaml";

    [Fact]
    public async Task An_install_that_moves_takes_no_names_along_and_finds_its_own_again()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        await service.RunAsync("estates/fennmoor/survey");
        var patterned = Text(Estate, "accounts: svc-{product}-{account}", "accounts: s-{product}-{account}");
        (await service.AddAsync("estates", "fennmoor.yaml", patterned)).EnsureSuccessStatusCode();
        (await NamesAsync(service)).ShouldContain("svc-thermo-poller", "it was settled by the survey");

        var other = Text(
            Estate, "name: fennmoor", "name: lane", "accounts: svc-{product}-{account}", "accounts: l-{product}-{account}");
        (await service.AddAsync("estates", "lane.yaml", other)).EnsureSuccessStatusCode();
        await MoveAsync(service, "lane");
        (await NamesAsync(service)).ShouldContain("l-thermo-poller");
        await MoveAsync(service, "fennmoor");
        (await NamesAsync(service)).ShouldContain("svc-thermo-poller");
    }

    private static async Task MoveAsync(TestedService service, string estate) =>
        (await service.AddAsync(
            "installs", "moved.yaml", Text($"installs/{Install}.yaml", "estate: fennmoor", $"estate: {estate}")))
            .EnsureSuccessStatusCode();

    private static async Task<IEnumerable<string>> NamesAsync(TestedService service) =>
        (await service.GetAsync($"installs/{Install}/plan", ContractsJson.Default.PlanView)).Accounts.Select(a => a.Name);

    private static byte[] Text(string file, params string[] replacements)
    {
        var text = File.ReadAllText(Path.Combine(Checkout.Top, "demo-data", file));
        for (var i = 0; i < replacements.Length; i += 2)
        {
            text.ShouldContain(replacements[i]);
            text = text.Replace(replacements[i], replacements[i + 1], StringComparison.Ordinal);
        }

        return Encoding.UTF8.GetBytes(text);
    }
}
