using System.Collections.Concurrent;
using System.Security.Cryptography.X509Certificates;
using JustRight.Connectors;
using JustRight.Connectors.SqlServer;
using JustRight.Core.Conditions;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Surveys;
using JustRight.SimulatedInstance.Engine;
using JustRight.SimulatedInstance.Wire;

namespace JustRight.Databases.Tests.SqlServer;

/// <summary>A simulated instance behind its wire, the estate that names it, and the connector with the engine maker's real client library.</summary>
internal sealed class SimulatedScene : IDisposable
{
    public const string Instance = "fm-sql09";
    public const string Reader = "jr_reader";
    private const string Password = "Simulated-Only-1";
    private static readonly Origin Line = new("estate.yaml", 1, 1);
    private readonly X509Certificate2 _certificate = SimulatedCertificate.New();
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-simulated-").FullName;
    private readonly ConcurrentDictionary<string, DomainPrincipal> _domain = new(StringComparer.OrdinalIgnoreCase);
    private uint _rid = 5000;

    /// <param name="reader">What the connector's login is given, as a script; null for what it needs to read and to grant.</param>
    public SimulatedScene(bool caseSensitive = false, string? reader = null, string release = "16.0")
    {
        Engine = new SimulatedEngine(
            new SimulatedBirth(Instance, release, caseSensitive, name => _domain.GetValueOrDefault(name)), Password);
        Engine.AddLogin(Reader, Password);
        Engine.Run(reader ?? $"ALTER SERVER ROLE [sysadmin] ADD MEMBER [{Reader}]");
        Listener = new SimulatedListener(Engine, _certificate);
        CertificateFile = Path.Combine(_folder, "instance.pem");
        File.WriteAllText(CertificateFile, _certificate.ExportCertificatePem());
        Estate = EstateOf(CertificateFile, "localhost");
        Connector = ConnectorTo(Estate);
    }

    public SimulatedEngine Engine { get; }

    public SimulatedListener Listener { get; private set; }

    public string CertificateFile { get; }

    public Estate Estate { get; }

    public SqlServerInstances Connector { get; private set; }

    /// <summary>A name of the domain, with a SID of its own.</summary>
    public string Account(string name, bool isGroup = false)
    {
        var full = name.Contains('\\', StringComparison.Ordinal) ? name : $@"FENNMOOR\{name}";
        _domain[full] = new DomainPrincipal(Sid.Parse("S-1-5-21-11-22-33").Append(_rid++), isGroup);
        return full;
    }

    public Sid SidOf(string account) => _domain[account].Sid;

    /// <summary>The directory deletes an account, or makes it anew with another SID.</summary>
    public void Remake(string account) =>
        _domain[account] = new DomainPrincipal(Sid.Parse("S-1-5-21-11-22-33").Append(_rid++), false);

    /// <summary>The domain gets another name; its accounts keep their SIDs.</summary>
    public string Rename(string account, string to)
    {
        _domain.TryRemove(account, out var kept);
        _domain[to] = kept!;
        return to;
    }

    public Estate EstateOf(string? certificate, string address, int? port = null) => new(
        "test", "Test", new Domain("fennmoor.example", "FENNMOOR"), new DirectoryReach(
            Reach.None, null, 636, null, null, null, Line), [],
        new Naming("a", "g", "d", "x", "x", new Dictionary<string, string>(), new Dictionary<string, Origin>(), Line), [],
        [
            new EstateInstance(
                Instance, "fm-sql01", "sqlserver", DottedNumber.TryParse("16.0", out var release) ? release : null, Reach.Tls,
                Line)
            {
                Tls = new InstanceReach(address, port ?? Listener.Port, certificate, Reader, "sql", TimeSpan.FromMinutes(2)),
            },
        ],
        new OrganizationRules([], null, []), Line);

    public SqlServerInstances ConnectorTo(Estate estate, string? password = Password, Func<string, Sid?>? sidOf = null) =>
        new(
            estate, new OneSecret(password), sidOf ?? (name => _domain.TryGetValue(name, out var found) ? found.Sid : null),
            TimeProvider.System);

    public Task<InstanceSnapshot> ReadAsync() => Connector.ReadAsync(Estate.Instances[0], TestContext.Current.CancellationToken);

    /// <summary>The instance is stopped and started: clients are cut off, what was committed stays.</summary>
    public void Restart()
    {
        var port = Listener.Port;
        Listener.Dispose();
        Listener = new SimulatedListener(Engine, _certificate, port);
    }

    public void Dispose()
    {
        Listener.Dispose();
        Engine.Dispose();
        _certificate.Dispose();
        Directory.Delete(_folder, recursive: true);
    }
}
