using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>A service that has judged the demo, and a product that needs the same on eight hosts and has it on two.</summary>
public sealed class MatrixScene : IAsyncLifetime
{
    /// <summary>The install of that product.</summary>
    public const string Gathered = "chillmap-hosts";

    private const string Sheet = """
        sheet: 1
        product: chillmap
        release: "1.0"
        title: Chillmap
        source: made up for the tests
        places:
          rooms: { kind: host, count: 1 or more }
          doors: { kind: host, count: 1 or more }
        accounts:
          listener:
            purpose: Listens to the cold rooms
            needs:
              - { logon: service, on: rooms, why: runs its service }
              - { local-group: Performance Monitor Users, on: rooms, why: reads the counters }
              - { local-group: Event Log Readers, on: doors, why: reads the logs }
        """;

    private const string Install = """
        install: 1
        name: chillmap-hosts
        product: chillmap
        release: "1.0"
        estate: fennmoor
        stage: planned
        places:
          rooms: [fm-temp01, fm-line01, fm-tally01, fm-round01, fm-rec01, fm-book01, fm-book02, fm-roster01]
          doors: [fm-gate01, fm-brine01]
        """;

    /// <summary>The service.</summary>
    public TestedService Service { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        Service = await PreparedData.Demo.StartAsync();
        (await Service.AddAsync("sheets", "chillmap.yaml", Encoding.UTF8.GetBytes(Sheet))).EnsureSuccessStatusCode();
        (await Service.AddAsync("installs", "chillmap-hosts.yaml", Encoding.UTF8.GetBytes(Install))).EnsureSuccessStatusCode();
        await Service.RunAsync($"installs/{Gathered}/verify");
        var give = (await Service.GetAsync($"installs/{Gathered}/worklist", ContractsJson.Default.WorklistView)).Give;
        var steps = give.Where(s => s.Team == "directory" || IsLogonAt(s, "fm-temp01") || IsLogonAt(s, "fm-line01"));
        await Service.RunAsync($"installs/{Gathered}/grant", new GrantOrder(false, [.. steps.Select(s => s.Id)]));
    }

    public ValueTask DisposeAsync() => Service.DisposeAsync();

    private static bool IsLogonAt(StepView step, string host) =>
        step.Place == host && step.Words.Contains("log on as a service", StringComparison.OrdinalIgnoreCase);
}
