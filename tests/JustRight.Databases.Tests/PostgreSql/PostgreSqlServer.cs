using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using JustRight.Connectors;
using JustRight.Connectors.PostgreSql;
using JustRight.Core.Conditions;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Rights.Directory;
using JustRight.Core.Surveys;
using JustRight.Databases.Tests.SqlServer;
using JustRight.PretendInstance.Wire;
using Npgsql;

namespace JustRight.Databases.Tests.PostgreSql;

/// <summary>A real PostgreSQL server in a folder of its own, on a loopback port of its own, with TLS and a rule of sign-in for the tests' roles.</summary>
public sealed class PostgreSqlServer : IAsyncDisposable
{
    public const string Instance = "fm-pg01";
    public const string Password = "Loopback-Only-1";
    private static readonly Origin Line = new("estate.yaml", 1, 1);
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-postgresql-").FullName;
    private readonly string _programs = Directory.EnumerateDirectories("/usr/lib/postgresql").OrderByDescending(d => d, StringComparer.Ordinal).Select(d => Path.Combine(d, "bin")).First(d => File.Exists(Path.Combine(d, "initdb")));

    public PostgreSqlServer()
    {
        Port = FreePort();
        using var certificate = PretendCertificate.New();
        CertificateFile = Path.Combine(_folder, "server.pem");
        File.WriteAllText(CertificateFile, certificate.ExportCertificatePem());
        File.WriteAllText(Path.Combine(_folder, "server.key"), System.Security.Cryptography.X509Certificates.RSACertificateExtensions.GetRSAPrivateKey(certificate)!.ExportPkcs8PrivateKeyPem());
        File.WriteAllText(Path.Combine(_folder, "password"), Password);
        Run("chown", ["-R", Owner, _folder], asOwner: false);
        Run("chmod", ["600", Path.Combine(_folder, "server.key")], asOwner: false);
        Run(Path.Combine(_programs, "initdb"), ["-D", Data, "-U", "postgres", "-A", "scram-sha-256", "--pwfile", Path.Combine(_folder, "password"), "-E", "UTF8", "--locale", "C.UTF-8", "--no-sync"]);
        Configure("""
            hostssl all all 127.0.0.1/32 scram-sha-256
            hostgssenc all +domain_roles 0.0.0.0/0 gss include_realm=1 map=domain
            hostssl all all 0.0.0.0/0 reject
            """, """
            domain /^(.*)@FENNMOOR\.EXAMPLE$ \1
            domain svc-old@FENNMOOR.EXAMPLE legacy
            """);
        Start();
    }

    public int Port { get; }

    public string CertificateFile { get; }

    private string Data => Path.Combine(_folder, "data");

    private static string Owner => Environment.UserName == "root" ? "postgres" : Environment.UserName;

    public EstateInstance Estate(string signInAs = "postgres", string? certificate = null) => new(Instance, "fm-pg01", "postgresql", DottedNumber.TryParse("15", out var release) ? release : null, Reach.Tls, Line)
    {
        Tls = new InstanceReach("localhost", Port, certificate ?? CertificateFile, signInAs, "pg", TimeSpan.FromSeconds(20)),
    };

    public PostgreSqlInstances Connector(EstateInstance instance, string? password = Password) => new(
        new Estate(
            "test", "Test", new Domain("fennmoor.example", "FENNMOOR"), new DirectoryReach(Reach.None, null, 636, null, null, null, Line), [],
            new Naming("a", "g", "d", "x", "x", new Dictionary<string, string>(), new Dictionary<string, Origin>(), Line), [], [instance], new HouseRules([], null, []), Line),
        (_, _) => Task.FromResult(password is null ? null : new NewPassword(password)), TimeProvider.System);

    public Task<InstanceSnapshot> ReadAsync(string signInAs = "postgres")
    {
        var instance = Estate(signInAs);
        return Connector(instance).ReadAsync(instance, TestContext.Current.CancellationToken);
    }

    public async Task<NpgsqlConnection> OpenAsync(string database = "postgres", string role = "postgres")
    {
        var connection = new NpgsqlConnection($"Host=localhost;Port={Port};Database={database};Username={role};Password={Password};SSL Mode=VerifyFull;Root Certificate={CertificateFile};Pooling=false;Include Error Detail=true");
        await connection.OpenAsync(TestContext.Current.CancellationToken);
        return connection;
    }

    public async Task RunAsync(string sql, string database = "postgres", string role = "postgres")
    {
        await using var connection = await OpenAsync(database, role);
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }

    public void Configure(string rules, string names)
    {
        WriteOwned("pg_hba.conf", "local all all trust\n" + rules);
        WriteOwned("pg_ident.conf", names);
    }

    public void Start() => Run(Path.Combine(_programs, "pg_ctl"), ["-D", Data, "-w", "-t", "60", "-l", Path.Combine(_folder, "log"), "-o", $"-p {Port} -c listen_addresses=127.0.0.1 -c unix_socket_directories={_folder} -c ssl=on -c ssl_cert_file={CertificateFile} -c ssl_key_file={Path.Combine(_folder, "server.key")} -c fsync=off -c deadlock_timeout=100ms", "start"]);

    public void Stop(string how = "immediate") => Run(Path.Combine(_programs, "pg_ctl"), ["-D", Data, "-w", "-m", how, "stop"]);

    public ValueTask DisposeAsync()
    {
        Stop();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    private void WriteOwned(string name, string text)
    {
        var file = Path.Combine(_folder, name);
        File.WriteAllText(file, text + "\n");
        Run("cp", [file, Path.Combine(Data, name)]);
    }

    /// <summary>The server refuses to run as root: then it runs as the account that its package made.</summary>
    private static void Run(string program, string[] arguments, bool asOwner = true)
    {
        var drop = asOwner && Environment.UserName == "root";
        var start = new ProcessStartInfo(drop ? "setpriv" : program, drop ? [$"--reuid={Owner}", $"--regid={Owner}", "--clear-groups", program, .. arguments] : arguments) { RedirectStandardError = true, RedirectStandardOutput = !arguments.Contains("start"), WorkingDirectory = "/" };
        using var process = Process.Start(start)!;
        process.WaitForExit();
        if (process.ExitCode != 0) throw new InvalidOperationException($"{program} {string.Join(' ', arguments)}: {process.StandardError.ReadToEnd()}");
    }

    private static int FreePort()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
