namespace JustRight.Connectors.Tests;

/// <summary>A Kerberos client with a ticket cache of its own, against the test's controller.</summary>
internal sealed class Kerberos : IDisposable
{
    private readonly string _folder;
    private readonly (string, string)[] _environment;

    public Kerberos(string folder)
    {
        _folder = Directory.CreateDirectory(Path.Combine(folder, $"kerberos-{Guid.NewGuid():N}")).FullName;
        var configuration = Path.Combine(_folder, "krb5.conf");
        File.WriteAllText(configuration, $$"""
            [libdefaults]
             default_realm = FENNMOOR.EXAMPLE
             dns_lookup_kdc = false
             dns_lookup_realm = false
             dns_canonicalize_hostname = false
             rdns = false
            [realms]
             FENNMOOR.EXAMPLE = {
              kdc = {{Controller.Address}}
             }
            [domain_realm]
             .fennmoor.example = FENNMOOR.EXAMPLE

            """);
        _environment = [("KRB5_CONFIG", configuration), ("KRB5CCNAME", $"FILE:{Path.Combine(_folder, "cache")}")];
    }

    /// <summary>Signs in; the tickets of an earlier sign-in are let go.</summary>
    public async Task SignInAsync(string account, string password) =>
        (await Programs.RunAsync("kinit", [$"{account}@FENNMOOR.EXAMPLE"], password + "\n", _environment)).Ended("kinit");

    /// <summary>Whether the controller gives a ticket for a service principal name.</summary>
    public async Task<bool> TicketAsync(string name) =>
        (await Programs.RunAsync("kvno", [$"{name}@FENNMOOR.EXAMPLE"], "", _environment)).Code == 0;

    /// <inheritdoc/>
    public void Dispose() => Directory.Delete(_folder, true);
}
