using System.Diagnostics;
using System.Security.Cryptography;
using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.SignIn.Tests;

/// <summary>A real inetOrgPerson directory on loopback, in a folder of its own, with certificates from an authority of its own. It is stopped by process id.</summary>
public sealed class ContractorsServer : IPeopleServer, IAsyncLifetime
{
    private const string Address = "127.0.0.1", Root = "dc=contractors,dc=fennmoor,dc=example";
    private readonly string _folder = System.IO.Directory.CreateTempSubdirectory("justright-contractors-").FullName;
    private readonly TestAuthority _authority = new("Contractors test authority");
    private readonly (int Tls, int Plain) _ports = (Loopback.FreePort(), Loopback.FreePort());
    private Process? _process;

    /// <inheritdoc/>
    public string Keeper => $"cn=keeper,{Root}";

    /// <inheritdoc/>
    public string KeeperPassword { get; } = RandomNumberGenerator.GetHexString(24);

    /// <inheritdoc/>
    public PeopleDirectory Directory => new(
        "contractors", DirectoryFamily.InetOrgPerson, Address, new Dictionary<WireSecurity, int> { [WireSecurity.Tls] = _ports.Tls, [WireSecurity.StartTls] = _ports.Plain, [WireSecurity.Plain] = _ports.Plain },
        DistinguishedName.Parse(Root), DistinguishedName.Parse($"ou=People,{Root}"), DistinguishedName.Parse($"ou=Groups,{Root}"), GroupKind.GroupOfNames, true, new Core.Faults.Origin("test", 1, 1))
    {
        Reach = Reach.Ldaps,
        CaFolder = Path.Combine(_folder, "ca"),
    };

    public async ValueTask InitializeAsync()
    {
        _authority.WriteTo(Path.Combine(_folder, "ca"));
        using (var untrusted = new TestAuthority("Nobody's authority")) untrusted.Issue(File("untrusted.pem"), File("untrusted.key"), [Address], 60);
        _authority.Issue(File("good.pem"), File("good.key"), [Address], 60);
        _authority.Issue(File("ended.pem"), File("ended.key"), [Address], -1);
        _authority.Issue(File("other-name.pem"), File("other-name.key"), ["fm-ldap09.fennmoor.example"], 60);
        System.IO.Directory.CreateDirectory(File("db"));
        await StartAsync("good");
        using var connection = this.Write();
        connection.Add(Root, ("objectClass", ["dcObject", "organization"]), ("dc", ["contractors"]), ("o", ["Contractors of Fennmoor"]));
        connection.Add($"ou=People,{Root}", ("objectClass", ["organizationalUnit"]));
        connection.Add($"ou=Groups,{Root}", ("objectClass", ["organizationalUnit"]));
        connection.Add($"ou=Services,{Root}", ("objectClass", ["organizationalUnit"]));
    }

    /// <inheritdoc/>
    public Task ShowAsync(string certificate) => StartAsync(certificate);

    /// <summary>Starts it anew with another certificate: good, ended, other-name, untrusted.</summary>
    private async Task StartAsync(string certificate)
    {
        await StopAsync();
        await System.IO.File.WriteAllTextAsync(File("slapd.conf"), $"""
            include /etc/ldap/schema/core.schema
            include /etc/ldap/schema/cosine.schema
            include /etc/ldap/schema/inetorgperson.schema
            include /etc/ldap/schema/nis.schema
            modulepath /usr/lib/ldap
            moduleload back_mdb
            moduleload memberof
            pidfile {File("slapd.pid")}
            TLSCACertificateFile {File("ca/ca.pem")}
            TLSCertificateFile {File(certificate + ".pem")}
            TLSCertificateKeyFile {File(certificate + ".key")}
            sizelimit size.soft=500 size.hard=500 size.pr=2000 size.prtotal=unlimited
            database mdb
            maxsize 4294967296
            suffix "{Root}"
            rootdn "{Keeper}"
            rootpw {KeeperPassword}
            directory {File("db")}
            index objectClass,uid,cn,memberOf,member eq
            dbnosync
            overlay memberof
            access to attrs=userPassword by self write by anonymous auth by * none
            access to * by users read by * none
            """);
        _process = await SlapdServer.StartAsync(File("slapd.conf"), $"ldaps://{Address}:{_ports.Tls}/ ldap://{Address}:{_ports.Plain}/", _ports.Plain);
    }

    public async ValueTask DisposeAsync()
    {
        await StopAsync();
        _authority.Dispose();
        System.IO.Directory.Delete(_folder, true);
    }

    private async Task StopAsync()
    {
        if (_process is null) return;
        await _process.EndAsync();
        _process = null;
    }

    private string File(string name) => Path.Combine(_folder, name);
}
