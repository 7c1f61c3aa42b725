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
    private readonly SlapdSettings _settings;
    private Process? _process;
    private bool _shut;

    public ContractorsServer()
        : this(new SlapdSettings())
    {
    }

    internal ContractorsServer(SlapdSettings settings) => _settings = settings;

    /// <inheritdoc/>
    public string Keeper => $"cn=keeper,{Root}";

    /// <inheritdoc/>
    public string KeeperPassword { get; } = RandomNumberGenerator.GetHexString(24);

    /// <inheritdoc/>
    public PeopleDirectory Directory => new(
        "contractors", DirectoryFamily.InetOrgPerson, Address, Offers,
        DistinguishedName.Parse(Root), DistinguishedName.Parse($"ou=People,{Root}"), DistinguishedName.Parse($"ou=Groups,{Root}"), GroupKind.GroupOfNames, true, new Core.Faults.Origin("test", 1, 1))
    {
        Reach = Reach.Ldaps,
        CaFolder = Path.Combine(_folder, "ca"),
    };

    private Dictionary<WireSecurity, int> Offers
    {
        get
        {
            var offers = new Dictionary<WireSecurity, int>
            {
                [WireSecurity.StartTls] = _ports.Plain,
                [WireSecurity.Plain] = _ports.Plain,
            };
            if (_settings.Tls) offers[WireSecurity.Tls] = _ports.Tls;
            return offers;
        }
    }

    public async ValueTask InitializeAsync()
    {
        _authority.WriteTo(Path.Combine(_folder, "ca"));
        using (var untrusted = new TestAuthority("Nobody's authority")) untrusted.Issue(File("untrusted.pem"), File("untrusted.key"), [Address], 60);
        _authority.Issue(File("good.pem"), File("good.key"), [Address], 60);
        _authority.Issue(File("ended.pem"), File("ended.key"), [Address], -1);
        _authority.Issue(File("not-yet.pem"), File("not-yet.key"), [Address], 60, begun: -2);
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

    /// <summary>Starts it anew with what is only set when everything is written.</summary>
    public Task ShutAsync()
    {
        _shut = true;
        return StartAsync("good");
    }

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
            moduleload ppolicy
            pidfile {File("slapd.pid")}
            {(_settings.Tls ? $"TLSCACertificateFile {File("ca/ca.pem")}" : "")}
            {(_settings.Tls ? $"TLSCertificateFile {File(certificate + ".pem")}" : "")}
            {(_settings.Tls ? $"TLSCertificateKeyFile {File(certificate + ".key")}" : "")}
            sizelimit {_settings.SizeLimit}
            {_settings.Everywhere}
            {(_shut ? _settings.Shut : "")}
            database mdb
            maxsize 4294967296
            suffix "{Root}"
            rootdn "{Keeper}"
            rootpw {KeeperPassword}
            directory {File("db")}
            index objectClass,uid,cn,memberOf,member eq
            dbnosync
            {(_settings.MemberOf ? "overlay memberof" : "")}
            {(_settings.PasswordPolicy ? $"overlay ppolicy\nppolicy_default cn=usual,ou=Services,{Root}\nppolicy_use_lockout" : "")}
            access to attrs=userPassword by self write by anonymous auth by * none
            {_settings.Access}
            """);
        _process = await SlapdServer.StartAsync(File("slapd.conf"), $"{(_settings.Tls ? $"ldaps://{Address}:{_ports.Tls}/ " : "")}ldap://{Address}:{_ports.Plain}/", _ports.Plain);
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

/// <summary>How the directory is set up.</summary>
public sealed record SlapdSettings
{
    /// <summary>Whether it has a certificate.</summary>
    public bool Tls { get; init; } = true;

    /// <summary>Whether people carry the groups they are in.</summary>
    public bool MemberOf { get; init; } = true;

    /// <summary>Whether it has rules for passwords, and says what is wrong with one.</summary>
    public bool PasswordPolicy { get; init; }

    /// <summary>How many objects it gives.</summary>
    public string SizeLimit { get; init; } = "size.soft=500 size.hard=500 size.pr=2000 size.prtotal=unlimited";

    /// <summary>Who reads what.</summary>
    public string Access { get; init; } = "access to * by users read by * none";

    /// <summary>What else stands before the database.</summary>
    public string Everywhere { get; init; } = "";

    /// <summary>What is added before the database when everything is written.</summary>
    public string Shut { get; init; } = "";
}
