using System.Diagnostics;
using JustRight.Connectors;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;
using JustRight.Formats.Estates;
using JustRight.Simulation;
using JustRight.Simulation.Laying;

namespace JustRight.Bench;

/// <summary>A rehearsal of an estate with 2,000 hosts and 20,000 accounts: laid, surveyed, and one change made in it.</summary>
internal static class RehearsalBench
{
    private const int Hosts = 2_000, Accounts = 20_000, Branches = 200;
    private const string Domain = "S-1-5-21-1-2-3", Root = "DC=fennmoor,DC=example";

    public static async Task<int> RunAsync()
    {
        var (estate, faults) = EstateReader.Read(System.Text.Encoding.UTF8.GetBytes(EstateText()), "large.yaml");
        if (estate is null) throw new InvalidOperationException(faults[0].ToString());
        var survey = new Survey("large", DateTimeOffset.UtcNow, false, Directory(), [], []);
        var folder = System.IO.Directory.CreateTempSubdirectory("justright-rehearsal-").FullName;
        try
        {
            var path = Path.Combine(folder, "large.json");
            foreach (var (what, surveyed) in new[] { ("as is usual", (Survey?)null), ("as surveyed", survey) })
            {
                var clock = Stopwatch.StartNew();
                SimulationFile.Lay(path, EstateState.Lay(estate, [], surveyed, []).State);
                Say($"laid, {what}", clock, new FileInfo(path).Length);
            }

            var file = SimulationFile.Open(path, path);
            var connectors = new EstateConnectors(
                new SimulationDirectory(file, TimeProvider.System), new SimulationHosts(file, TimeProvider.System),
                new SimulationInstances(file, TimeProvider.System));
            var reading = Stopwatch.StartNew();
            await EstateSurveyor.TakeAsync(estate, connectors, new SurveyAims([], []), TimeProvider.System, _ => { }, default);
            Say("surveyed", reading, null);
            var changing = Stopwatch.StartNew();
            await connectors.MakeAsync(new Core.Changes.CreateBranch("fennmoor.example", $"OU=New,{Root}"), null, default);
            Say("one change", changing, null);
            return 0;
        }
        finally
        {
            System.IO.Directory.Delete(folder, true);
        }
    }

    private static string EstateText() => $$"""
        estate: 1
        name: large
        title: Large
        domain: { dns: fennmoor.example, short: FENNMOOR }
        directory: { reach: simulation }
        branches: { accounts: "OU=B0,{{Root}}" }
        naming: { accounts: "svc-{account}", groups: "app-{group}", accounts-in: accounts, groups-in: accounts }
        hosts:
        {{string.Join('\n', Enumerable.Range(0, Hosts).Select(i => $"  fm-h{i:0000}: {{}}"))}}
        """;

    private static DirectorySnapshot Directory()
    {
        var domain = Sid.Parse(Domain);
        var principals = Enumerable.Range(0, Accounts).Select(i =>
            new DirectoryPrincipal(domain.Append((uint)(5000 + i)), PrincipalKind.User, $"a{i}",
                $"CN=a{i},OU=B{i % Branches},{Root}")
            {
                PrimaryGroupRid = DirectorySnapshot.DomainUsersRid,
            });
        var branches = Enumerable.Range(0, Branches).Select(i => $"OU=B{i},{Root}").ToList();
        return new DirectorySnapshot("FENNMOOR", domain, "a bench", DateTimeOffset.UtcNow, [.. principals], branches, null);
    }

    private static void Say(string what, Stopwatch clock, long? bytes) => Console.WriteLine(
        $"{what,-20} {clock.Elapsed.TotalSeconds,6:0.00} s{(bytes is { } b ? $"   {b / 1e6:0.0} MB" : "")}");
}
