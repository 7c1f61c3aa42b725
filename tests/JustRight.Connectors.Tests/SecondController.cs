using System.Diagnostics;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Ldap;

namespace JustRight.Connectors.Tests;

/// <summary>
/// A second controller of the same domain, joined to the first on another loopback address. It replicates only when told to, so
/// that a test sees the time in between. The names of both stand in the hosts file while it lives.
/// </summary>
public sealed class SecondController(Controller first) : IAsyncLifetime
{
    private const string Hosts = "/etc/hosts";
    private const string HostsLine = $"{Controller.Address} fm-dc01.fennmoor.example fm-dc01 # just right tests\n{Controller.SecondAddress} fm-dc02.fennmoor.example fm-dc02 # just right tests\n";
    private Process? _process;

    /// <summary>The first controller as a target, with this one behind it.</summary>
    public LdapTarget Both => first.Target with { Others = [Target] };

    /// <summary>This controller.</summary>
    public LdapTarget Target => first.Target with { Controller = Controller.SecondAddress };

    private string Configuration => Path.Combine(first.Folder, "second", "etc", "smb.conf");

    public async ValueTask InitializeAsync()
    {
        foreach (var name in new[] { "second-pid", "second-rpc" }) Directory.CreateDirectory(Path.Combine(first.Folder, name));
        var kerberos = Path.Combine(first.Folder, "krb5.conf");
        await File.WriteAllTextAsync(
            kerberos,
            $"[libdefaults]\n default_realm = FENNMOOR.EXAMPLE\n dns_lookup_kdc = false\n dns_lookup_realm = false\n[realms]\n FENNMOOR.EXAMPLE = {{\n  kdc = {Controller.Address}\n }}\n[domain_realm]\n .fennmoor.example = FENNMOOR.EXAMPLE\n");
        Environment.SetEnvironmentVariable("KRB5_CONFIG", kerberos);
        await File.AppendAllTextAsync(Hosts, HostsLine);
        await AddressAsync("add");
        await Controller.RunAsync(
            "samba-tool", "domain", "join", "fennmoor.example", "DC", "--server=fm-dc01.fennmoor.example", $"--targetdir={Path.Combine(first.Folder, "second")}", $"-UAdministrator%{first.Password}",
            "--dns-backend=NONE", "--option=netbios name=fm-dc02", $"--option=interfaces={Controller.SecondAddress}/8", "--option=bind interfaces only=yes",
            $"--option=pid directory={first.Folder}/second-pid", $"--option=ncalrpc dir={first.Folder}/second-rpc");
        string[] arguments =
        [
            "-i", "-M", "single", "-s", Configuration, "--option=server services=ldap", $"--option=tls certfile={first.Folder}/server.pem", $"--option=tls keyfile={first.Folder}/server.key",
            $"--option=tls cafile={first.CaFolder}/ca.pem", $"--option=pid directory={first.Folder}/second-pid", $"--option=ncalrpc dir={first.Folder}/second-rpc", "--option=log level=0",
        ];
        _process = Process.Start(new ProcessStartInfo("samba", arguments) { RedirectStandardOutput = true, RedirectStandardError = true, RedirectStandardInput = true })!;
        _process.OutputDataReceived += (_, _) => { };
        _process.ErrorDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
        for (var i = 0; i < 120; i++)
        {
            try
            {
                await new LdapDirectory(Target, new DirectorySchemas(), TimeProvider.System).NamesInUseAsync(["Administrator"], CancellationToken.None);
                return;
            }
            catch (ConnectorException e) when (e.Failure is ConnectorFailure.Unreachable or ConnectorFailure.NotTrusted && i < 119)
            {
                await Task.Delay(500);
            }
        }
    }

    /// <summary>Lets this controller have what the first one has.</summary>
    public Task CatchUpAsync() => Controller.RunAsync(
        "samba-tool", "drs", "replicate", "fm-dc02.fennmoor.example", "fm-dc01.fennmoor.example", "DC=fennmoor,DC=example", "--local", "-s", Configuration, $"-UAdministrator%{first.Password}");

    public async ValueTask DisposeAsync()
    {
        if (_process is { HasExited: false }) _process.Kill(entireProcessTree: true);
        _process?.Dispose();
        await AddressAsync("del");
        await File.WriteAllTextAsync(Hosts, (await File.ReadAllTextAsync(Hosts)).Replace(HostsLine, "", StringComparison.Ordinal));
    }

    private static async Task AddressAsync(string verb)
    {
        using var process = Process.Start("ip", ["addr", verb, $"{Controller.SecondAddress}/8", "dev", "lo"]);
        await process.WaitForExitAsync(); // an address that is there already is as good
    }
}
