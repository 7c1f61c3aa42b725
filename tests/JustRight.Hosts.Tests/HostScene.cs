using System.Text;
using JustRight.Connectors;
using JustRight.Connectors.Ssh;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Formats.Estates;

[assembly: CollectionBehavior(DisableTestParallelization = true)]

namespace JustRight.Hosts.Tests;

/// <summary>A few simulated hosts that the tests of one class share, with the connector that reaches them.</summary>
public sealed class HostScene : IAsyncLifetime
{
    internal SimulatedHosts Hosts { get; private set; } = null!;

    public async ValueTask InitializeAsync() => Hosts = await SimulatedHosts.StartAsync([.. Enumerable.Range(1, 8).Select(i => $"fm-line0{i}")]);

    public ValueTask DisposeAsync() => Hosts.DisposeAsync();

    /// <summary>The connector for one host, which starts anew.</summary>
    internal SshHosts Fresh(string host, int timeoutSeconds = 60, string? key = null, string? secret = null)
    {
        Hosts.Change(host, s =>
        {
            var state = SimulatedHostState.New(host);
            s.Clear();
            foreach (var (name, value) in state.ToList()) s[name] = value?.DeepClone();
        });
        return Reaching($"  {host}: {Hosts.Yaml(host, key: key)}", timeoutSeconds, secret ?? Hosts.PrivateKey);
    }

    /// <summary>A connector for the hosts of an estate.</summary>
    /// <param name="hosts">The lines of its hosts.</param>
    /// <param name="secret">The secret of all of them; empty for none.</param>
    internal static SshHosts Reaching(string hosts, int timeoutSeconds, string secret) =>
        new(Estate(hosts, timeoutSeconds), new OneSecret(secret.Length == 0 ? null : secret), _ => null, TimeProvider.System);

    /// <summary>An estate with hosts.</summary>
    internal static Estate Estate(string hosts, int timeoutSeconds, int sideBySide = 16)
    {
        var (estate, faults) = EstateReader.Read(Encoding.UTF8.GetBytes($$"""
            estate: 1
            name: lines
            title: Fennmoor's milk lines
            domain: { dns: fennmoor.example, short: FENNMOOR }
            directory: { reach: none }
            branches: { accounts: "OU=Service Accounts,DC=fennmoor,DC=example" }
            naming: { accounts: "svc-{account}", groups: "app-{group}", accounts-in: accounts, groups-in: accounts }
            host-access: { timeout-seconds: {{timeoutSeconds}}, side-by-side: {{sideBySide}} }
            hosts:
            {{hosts}}
            """), "lines.yaml");
        faults.ShouldBeEmpty();
        return estate!;
    }

    /// <summary>Looks, makes, looks again; as a grant does.</summary>
    internal static async Task<(Observation Before, Observation After)> MakeAsync(SshHosts hosts, HostChange change, string? password = null)
    {
        var before = await hosts.ObserveAsync(change, TestContext.Current.CancellationToken);
        before.State.ShouldBe(ObservedState.NotDone, before.Seen);
        await hosts.MakeAsync(change, password is null ? null : new NewPassword(password), TestContext.Current.CancellationToken);
        return (before, await hosts.ObserveAsync(change, TestContext.Current.CancellationToken));
    }
}
