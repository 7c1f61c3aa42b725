using JustRight.Connectors;
using JustRight.Connectors.PostgreSql;
using JustRight.Core.Conditions;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Surveys;
using Npgsql;

namespace JustRight.Tests.Shared;

/// <summary>
/// A real PostgreSQL server in a folder of its own, on a loopback port of its own, with TLS and a rule of sign-in for the tests'
/// roles.
/// </summary>
public sealed class PostgreSqlServer : IAsyncDisposable
{
    /// <summary>The instance that it is in an estate.</summary>
    public const string Instance = "fm-pg01";

    /// <summary>The superuser's password.</summary>
    public const string Password = "Loopback-Only-1";

    private static readonly Origin Line = new("estate.yaml", 1, 1);
    private static readonly string ProgramFolder = Directory.EnumerateDirectories("/usr/lib/postgresql")
        .OrderByDescending(d => d, StringComparer.Ordinal).Select(d => Path.Combine(d, "bin"))
        .First(d => File.Exists(Path.Combine(d, "initdb")));

    private readonly string _folder = Directory.CreateTempSubdirectory("justright-postgresql-").FullName;

    /// <summary>Lays it and starts it.</summary>
    public PostgreSqlServer()
    {
        using var authority = new TestAuthority("The PostgreSQL server's authority");
        authority.WriteTo(_folder);
        authority.Issue(In("server.pem"), In("server.key"), ["localhost", "127.0.0.1"], 30);
        File.WriteAllText(In("password"), Password);
        Run("chown", ["-R", Owner, _folder], asOwner: false);
        Run(Tool("initdb"), [
            "-D", Data, "-U", "postgres", "-A", "scram-sha-256", "--pwfile", In("password"), "-E", "UTF8", "--locale", "C.UTF-8",
            "--no-sync",
        ]);
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

    /// <summary>Where it listens.</summary>
    public int Port { get; } = Loopback.FreePort();

    /// <summary>The certificate to trust.</summary>
    public string CertificateFile => In("ca.pem");

    private string Data => In("data");

    private static string Owner => Environment.UserName == "root" ? "postgres" : Environment.UserName;

    /// <summary>It as an instance of an estate.</summary>
    public EstateInstance Estate(string signInAs = "postgres", string? certificate = null) =>
        new(Instance, "fm-pg01", "postgresql", DottedNumber.TryParse("15", out var release) ? release : null, Reach.Tls, Line)
        {
            Tls = new InstanceReach("localhost", Port, certificate ?? CertificateFile, signInAs, "pg", TimeSpan.FromMinutes(2)),
        };

    /// <summary>Our connector for it.</summary>
    public PostgreSqlInstances Connector(EstateInstance instance, string? password = Password) => new(
        new Estate(
            "test", "Test", new Domain("fennmoor.example", "FENNMOOR"),
            new DirectoryReach(Reach.None, null, 636, null, null, null, Line), [],
            new Naming("a", "g", "d", "x", "x", new Dictionary<string, string>(), new Dictionary<string, Origin>(), Line), [],
            [instance], new OrganizationRules([], null, []), Line),
        new OneSecret(password), TimeProvider.System);

    /// <summary>What our connector reads of it.</summary>
    public Task<InstanceSnapshot> ReadAsync(string signInAs = "postgres")
    {
        var instance = Estate(signInAs);
        return Connector(instance).ReadAsync(instance, TestContext.Current.CancellationToken);
    }

    /// <summary>An ordinary connection.</summary>
    public async Task<NpgsqlConnection> OpenAsync(
        string database = "postgres", string role = "postgres", SslMode mode = SslMode.VerifyFull)
    {
        var connection = new NpgsqlConnection(new NpgsqlConnectionStringBuilder
        {
            Host = "localhost",
            Port = Port,
            Database = database,
            Username = role,
            Password = Password,
            SslMode = mode,
            RootCertificate = mode == SslMode.VerifyFull ? CertificateFile : null,
            Pooling = false,
            IncludeErrorDetail = true,
        }.ConnectionString);
        await connection.OpenAsync(TestContext.Current.CancellationToken);
        return connection;
    }

    /// <summary>Runs statements through an ordinary connection.</summary>
    public async Task RunAsync(string sql, string database = "postgres", string role = "postgres")
    {
        await using var connection = await OpenAsync(database, role);
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }

    /// <summary>Writes its rules of sign-in and its maps of names; they count from the next start.</summary>
    public void Configure(string rules, string names)
    {
        WriteOwned("pg_hba.conf", "local all all trust\n" + rules);
        WriteOwned("pg_ident.conf", names);
    }

    /// <summary>Tells it to go by its rules of sign-in as they are now, and waits until it does.</summary>
    public async Task ReloadAsync()
    {
        await using var before = await OpenAsync();
        var loaded = await LoadedAsync(before);
        await RunAsync("SELECT pg_reload_conf()");
        await Waiting.UntilAsync("the server goes by its new rules", async () =>
        {
            await using var connection = await OpenAsync();
            return await LoadedAsync(connection) != loaded;
        });
    }

    private static async Task<string> LoadedAsync(NpgsqlConnection connection)
    {
        await using var command = new NpgsqlCommand("SELECT pg_conf_load_time()::text", connection);
        return (string)(await command.ExecuteScalarAsync(TestContext.Current.CancellationToken))!;
    }

    /// <summary>Starts it.</summary>
    public void Start() => Run(Tool("pg_ctl"), [
        "-D", Data, "-w", "-t", "300", "-l", In("log"), "-o",
        $"-p {Port} -c listen_addresses=127.0.0.1 -c unix_socket_directories={_folder} -c fsync=off -c deadlock_timeout=100ms " +
        $"-c ssl=on -c ssl_cert_file={In("server.pem")} -c ssl_key_file={In("server.key")}",
        "start",
    ]);

    /// <summary>Stops it.</summary>
    public void Stop(string how = "immediate") => Run(Tool("pg_ctl"), ["-D", Data, "-w", "-t", "300", "-m", how, "stop"]);

    /// <inheritdoc/>
    public ValueTask DisposeAsync()
    {
        Stop();
        Directory.Delete(_folder, recursive: true);
        return ValueTask.CompletedTask;
    }

    private string In(string file) => Path.Combine(_folder, file);

    private static string Tool(string name) => Path.Combine(ProgramFolder, name);

    private void WriteOwned(string name, string text)
    {
        var file = In(name);
        File.WriteAllText(file, text + "\n");
        Run("cp", [file, Path.Combine(Data, name)]);
    }

    /// <summary>The server refuses to run as root: then it runs as the account that its package made.</summary>
    private static void Run(string program, string[] arguments, bool asOwner = true)
    {
        var drop = asOwner && Environment.UserName == "root";
        string[] owned = [$"--reuid={Owner}", $"--regid={Owner}", "--clear-groups", program, .. arguments];
        var start = new System.Diagnostics.ProcessStartInfo(drop ? "setpriv" : program, drop ? owned : arguments)
        {
            RedirectStandardError = true,
            RedirectStandardOutput = !arguments.Contains("start"), // the server would keep it open
            WorkingDirectory = "/",
        };
        using var process = System.Diagnostics.Process.Start(start)!;
        process.WaitForExit();
        if (process.ExitCode != 0)
            throw new InvalidOperationException($"{program} {string.Join(' ', arguments)}: {process.StandardError.ReadToEnd()}");
    }
}
