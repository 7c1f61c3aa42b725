using System.Diagnostics;
using JustRight.Connectors.Directories.Ldap;

namespace JustRight.Connectors.Tests;

/// <summary>
/// A second controller of the same domain, joined to the first on another loopback address. It replicates only when told to, so
/// that a test sees the time in between. The names of both stand in the hosts file while it lives.
/// </summary>
public sealed class SecondController(Controller first) : IAsyncLifetime
{
    private const string Hosts = "/etc/hosts";
    private static readonly string HostsLine = $"""
        {Controller.Address} fm-dc01.fennmoor.example fm-dc01 # just right tests
        {Controller.SecondAddress} fm-dc02.fennmoor.example fm-dc02 # just right tests

        """;

    private Process? _process;

    /// <summary>The first controller as a target, with this one behind it.</summary>
    public LdapTarget Both => first.Target with { Others = [Target] };

    /// <summary>This controller.</summary>
    public LdapTarget Target => first.Target with { Controller = Controller.SecondAddress };

    private string Configuration => Path.Combine(first.Folder, "second", "etc", "smb.conf");

    private string[] OwnFolders =>
        [$"--option=pid directory={first.Folder}/second-pid", $"--option=ncalrpc dir={first.Folder}/second-rpc"];

    public async ValueTask InitializeAsync()
    {
        foreach (var name in new[] { "second-pid", "second-rpc" }) Directory.CreateDirectory(Path.Combine(first.Folder, name));
        var kerberos = Path.Combine(first.Folder, "krb5.conf");
        await File.WriteAllTextAsync(kerberos, $$"""
            [libdefaults]
             default_realm = FENNMOOR.EXAMPLE
             dns_lookup_kdc = false
             dns_lookup_realm = false
            [realms]
             FENNMOOR.EXAMPLE = {
              kdc = {{Controller.Address}}
             }
            [domain_realm]
             .fennmoor.example = FENNMOOR.EXAMPLE

            """);
        Environment.SetEnvironmentVariable("KRB5_CONFIG", kerberos);
        await File.AppendAllTextAsync(Hosts, HostsLine);
        await AddressAsync("add");
        await Programs.MustRunAsync("samba-tool", [
            "domain", "join", "fennmoor.example", "DC", "--server=fm-dc01.fennmoor.example", $"--targetdir={first.Folder}/second",
            $"-UAdministrator%{first.Password}", "--dns-backend=NONE", "--option=netbios name=fm-dc02",
            $"--option=interfaces={Controller.SecondAddress}/8", "--option=bind interfaces only=yes", .. OwnFolders,
        ]);
        _process = Programs.Serve("samba", [
            "-i", "-M", "single", "-s", Configuration, "--option=server services=ldap", "--option=log level=0",
            $"--option=tls certfile={first.Folder}/server.pem", $"--option=tls keyfile={first.Folder}/server.key",
            $"--option=tls cafile={first.CaFolder}/ca.pem", .. OwnFolders,
        ]);
        await Controller.AnsweringAsync(Target, () => _process.HasExited);
    }

    /// <summary>Lets this controller have what the first one has.</summary>
    public Task CatchUpAsync() => Programs.MustRunAsync(
        "samba-tool", "drs", "replicate", "fm-dc02.fennmoor.example", "fm-dc01.fennmoor.example", "DC=fennmoor,DC=example",
        "--local", "-s", Configuration, $"-UAdministrator%{first.Password}");

    public async ValueTask DisposeAsync()
    {
        if (_process is not null) await _process.EndAsync();
        await LeaveAsync();
        await AddressAsync("del");
        var hosts = await File.ReadAllTextAsync(Hosts);
        await File.WriteAllTextAsync(Hosts, hosts.Replace(HostsLine, "", StringComparison.Ordinal));
    }

    /// <summary>The domain knows nothing of it afterwards: what comes later is asked of a domain with one controller.</summary>
    private Task LeaveAsync() => first.ToolAsync("domain", "demote", "--remove-other-dead-server=FM-DC02");

    /// <summary>An address that is there already is as good.</summary>
    private static Task<ProgramEnd> AddressAsync(string verb) =>
        Programs.RunAsync("ip", ["addr", verb, $"{Controller.SecondAddress}/8", "dev", "lo"]);
}
