using System.Diagnostics;
using System.Text.Json.Nodes;

namespace JustRight.Tests.Shared;

/// <summary>
/// PRETEND Windows hosts behind real SSH servers on loopback, each at an address of its own, with real PowerShell as their
/// shell. One SSH server listens at no more than sixteen addresses, so many hosts need several; one PowerShell serves all of
/// them.
/// </summary>
public sealed class SimulatedHosts : IAsyncDisposable
{
    private const int AddressesAServer = 16;
    private readonly string _folder = Directory.CreateTempSubdirectory("simulated-hosts").FullName;
    private readonly List<Process> _servers = [];
    private readonly Dictionary<string, string> _addresses = new(StringComparer.OrdinalIgnoreCase);

    private SimulatedHosts()
    {
    }

    /// <summary>The port all of them listen on.</summary>
    public int Port { get; } = Loopback.FreePort();

    /// <summary>The fingerprint of the key all of them show.</summary>
    public string HostKey { get; private set; } = "";

    /// <summary>A private key that lets its owner in.</summary>
    public string PrivateKey { get; private set; } = "";

    /// <summary>The file of that key.</summary>
    public string KeyFile => In("user");

    /// <summary>The user to sign in as.</summary>
    public static string User => Environment.UserName;

    /// <summary>A user who may also sign in by password.</summary>
    public const string PasswordUser = "fm-hands";

    /// <summary>That user's password.</summary>
    public string Password { get; } = Guid.NewGuid().ToString("N") + " ü\"";

    /// <summary>Where they keep their state and find the templates of their policies.</summary>
    public string Folder => _folder;

    /// <summary>Real PowerShell, as the tests installed it.</summary>
    public static string PowerShell => Path.Combine(Checkout.Top, ".build", "powershell", "pwsh");

    /// <summary>The module that stands in for the Windows commands.</summary>
    public static string Module => Path.Combine(Stand, "SimulatedHost.psm1");

    private static string Stand => Path.Combine(Checkout.Top, "tests", "SimulatedHost");

    /// <summary>Starts hosts.</summary>
    public static async Task<SimulatedHosts> StartAsync(params string[] names)
    {
        if (!File.Exists(PowerShell))
            throw new FileNotFoundException("PowerShell is not installed for the tests: run ./test hosts once.", PowerShell);
        var hosts = new SimulatedHosts();
        await hosts.BeginAsync(names);
        return hosts;
    }

    /// <summary>The address of a host.</summary>
    public string AddressOf(string name) => _addresses[name];

    /// <summary>A host's state.</summary>
    public JsonObject State(string name) => JsonNode.Parse(File.ReadAllText(StatePath(name)))!.AsObject();

    /// <summary>The file of a host's state.</summary>
    public string StatePath(string name) => In(_addresses[name] + ".json");

    /// <summary>Changes a host's state.</summary>
    public void Change(string name, Action<JsonObject> change)
    {
        var state = State(name);
        change(state);
        File.WriteAllText(StatePath(name), state.ToJsonString());
    }

    /// <summary>What was made on a host, in order.</summary>
    public IReadOnlyList<string> MadeOn(string name) => [.. State(name)["made"]!.AsArray().Select(m => m!.GetValue<string>())];

    /// <summary>The estate's lines for a host.</summary>
    public string Yaml(string name, string secret = "host-key", string? key = null, string? user = null) =>
        $"{{ reach: ssh, address: {_addresses[name]}, port: {Port}, host-key: \"{key ?? HostKey}\", " +
        $"sign-in-as: {user ?? User}, secret: {secret} }}";

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        foreach (var server in _servers) await server.EndAsync();
        Directory.Delete(_folder, recursive: true);
    }

    private string In(string file) => Path.Combine(_folder, file);

    private async Task BeginAsync(string[] names)
    {
        // The server refuses to start without this folder of its package, where it runs with all rights.
        if (Environment.UserName == "root") Directory.CreateDirectory("/run/sshd");
        await MakeUsersAsync();
        for (var i = 0; i < names.Length; i++)
        {
            _addresses[names[i]] = $"127.7.{i / 250}.{(i % 250) + 1}";
            await File.WriteAllTextAsync(StatePath(names[i]), SimulatedHostState.New(names[i]).ToJsonString());
        }

        var shell = Loopback.FreePort();
        string[] serve = ["-NoProfile", "-NonInteractive", "-File", Path.Combine(Stand, "serve.ps1"), $"{shell}"];
        _servers.Add(Programs.Serve(PowerShell, serve, [
            ("HOME", _folder), ("PRETEND_MODULE", Module), ("USERDOMAIN", "FENNMOOR"), ("USERNAME", "host-reader"),
            ("POWERSHELL_TELEMETRY_OPTOUT", "1"), ("POWERSHELL_UPDATECHECK", "Off"), ("DOTNET_CLI_TELEMETRY_OPTOUT", "1"),
        ]));
        foreach (var (group, number) in names.Chunk(AddressesAServer).Select((g, n) => (g, n))) Listen(group, number, shell);
        await WaitForAsync("127.0.0.1", shell);
        foreach (var name in names) await WaitForAsync(_addresses[name], Port);
    }

    private async Task MakeUsersAsync()
    {
        await Programs.MustRunAsync("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", In("host"));
        await Programs.MustRunAsync("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", KeyFile);
        File.Copy(KeyFile + ".pub", In("authorized"));
        PrivateKey = await File.ReadAllTextAsync(KeyFile);
        HostKey = (await Programs.MustRunAsync("ssh-keygen", "-l", "-f", In("host.pub"))).Split(' ')[1];
        // The user with a password is known to these servers alone: nothing of the machine's own users is touched.
        var (user, group) = ((await Programs.MustRunAsync("id", "-u")).Trim(), (await Programs.MustRunAsync("id", "-g")).Trim());
        var users = await File.ReadAllTextAsync("/etc/passwd");
        await File.WriteAllTextAsync(In("passwd"), users + $"{PasswordUser}:x:{user}:{group}::{_folder}:/bin/sh\n");
        var hash = (await Programs.MustRunAsync("openssl", "passwd", "-6", Password)).Trim();
        await File.WriteAllTextAsync(In("shadow"), $"{PasswordUser}:{hash}:19000:0:99999:7:::\n");
    }

    private void Listen(string[] names, int number, int shell)
    {
        var config = In($"sshd-{number}.conf");
        File.WriteAllLines(config, [
            .. names.Select(n => $"ListenAddress {_addresses[n]}:{Port}"),
            $"HostKey {In("host")}", $"AuthorizedKeysFile {In("authorized")}", $"PidFile {In($"sshd-{number}.pid")}",
            "StrictModes no", "UsePAM no", "PermitRootLogin yes", "PasswordAuthentication yes", "KbdInteractiveAuthentication no",
            "MaxStartups 100", "LogLevel ERROR", $"SetEnv PRETEND_HOSTS={_folder} PRETEND_SHELL={shell}",
            $"ForceCommand {Path.Combine(Stand, "simulated-shell")}",
        ]);
        _servers.Add(Programs.Serve("/usr/sbin/sshd", ["-D", "-e", "-f", config], [
            ("LD_PRELOAD", "libnss_wrapper.so"), ("NSS_WRAPPER_PASSWD", In("passwd")), ("NSS_WRAPPER_GROUP", "/etc/group"),
            ("NSS_WRAPPER_SHADOW", In("shadow")),
        ]));
    }

    private static Task WaitForAsync(string address, int port) =>
        Waiting.UntilAsync($"{address}:{port} answers", () => Loopback.AnswersAsync(port, address));
}
