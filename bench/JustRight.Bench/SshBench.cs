using System.Diagnostics;
using System.Globalization;
using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.Ssh;
using JustRight.Core.Estates;
using JustRight.Formats.Estates;
using JustRight.Formats.Hosts;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>
/// A survey of simulated hosts over SSH, sixteen at a time, against a plain SSH client that runs the collecting script on the same
/// hosts, sixteen at a time. Needs what ./test hosts installs; both sides spend nearly all their time in the hosts' PowerShell.
/// </summary>
internal static class SshBench
{
    private const int AtATime = 16;

    /// <summary>Measures both, in turn.</summary>
    public static async Task<int> RunAsync(int count)
    {
        var names = Enumerable.Range(1, count).Select(i => string.Create(CultureInfo.InvariantCulture, $"fm-line{i:000}")).ToArray();
        await using var hosts = await SimulatedHosts.StartAsync(names);
        var estate = Estate(names, hosts);
        var connector = new SshHosts(estate, new OneSecret(hosts.PrivateKey), _ => null, TimeProvider.System);
        var plain = await TimeAsync(names, n => PlainAsync(n, hosts));
        var ours = await TimeAsync(names, async n =>
        {
            var read = await connector.ReadAsync(n, CancellationToken.None);
            if (read.Services.Count == 0) throw new InvalidOperationException($"{n} gave no services.");
        });
        Console.WriteLine($"{count} hosts, {AtATime} at a time: plain client {plain:0.0} s, survey {ours:0.0} s, ratio {ours / plain:0.00} (the mark is 1.30)");
        return 0;
    }

    private static async Task<double> TimeAsync(string[] names, Func<string, Task> read)
    {
        var clock = Stopwatch.StartNew();
        await Parallel.ForEachAsync(names, new ParallelOptions { MaxDegreeOfParallelism = AtATime }, async (name, _) => await read(name));
        return clock.Elapsed.TotalSeconds;
    }

    private static async Task PlainAsync(string name, SimulatedHosts hosts)
    {
        string[] arguments =
        [
            "-q", "-i", hosts.KeyFile, "-p", hosts.Port.ToString(CultureInfo.InvariantCulture), "-o", "StrictHostKeyChecking=no", "-o", "UserKnownHostsFile=/dev/null", $"{SimulatedHosts.User}@{hosts.AddressOf(name)}",
            "powershell.exe -NoProfile -NonInteractive -Command \"& ([scriptblock]::Create([Text.Encoding]::UTF8.GetString([Convert]::FromBase64String([Console]::In.ReadLine()))))\"",
        ];
        var end = await Programs.RunAsync("ssh", arguments, Convert.ToBase64String(Encoding.UTF8.GetBytes(HostScripts.Collect)) + "\n");
        if (!end.Output.Contains("host-facts", StringComparison.Ordinal)) throw new InvalidOperationException($"{name}: {end.Error}");
    }

    private static Estate Estate(string[] names, SimulatedHosts hosts)
    {
        var text = $$"""
            estate: 1
            name: lines
            title: Lines
            domain: { dns: fennmoor.example, short: FENNMOOR }
            directory: { reach: none }
            branches: { accounts: "OU=Service Accounts,DC=fennmoor,DC=example" }
            naming: { accounts: "svc-{account}", groups: "app-{group}", accounts-in: accounts, groups-in: accounts }
            host-access: { timeout-seconds: 300 }
            hosts:
            {{string.Join('\n', names.Select(n => $"  {n}: {hosts.Yaml(n)}"))}}
            """;
        return EstateReader.Read(Encoding.UTF8.GetBytes(text), "lines.yaml").Estate ?? throw new InvalidOperationException("The estate is not sound.");
    }
}
