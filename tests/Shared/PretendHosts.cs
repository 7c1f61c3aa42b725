using System.Diagnostics;
using System.Net;
using System.Net.Sockets;
using System.Text.Json.Nodes;

namespace JustRight.Tests.Shared;

/// <summary>
/// PRETEND Windows hosts behind real SSH servers on loopback, each at an address of its own, with real PowerShell as their
/// shell. One server listens at no more than sixteen addresses, so many hosts need several.
/// </summary>
internal sealed class PretendHosts : IAsyncDisposable
{
    private const int AddressesAServer = 16;
    private readonly string _folder = Directory.CreateTempSubdirectory("pretend-hosts").FullName;
    private readonly List<Process> _servers = [];
    private readonly Dictionary<string, string> _addresses = new(StringComparer.OrdinalIgnoreCase);

    private PretendHosts()
    {
    }

    /// <summary>The port all of them listen on.</summary>
    public int Port { get; private init; }

    /// <summary>The fingerprint of the key all of them show.</summary>
    public string HostKey { get; private set; } = "";

    /// <summary>A private key that lets its owner in.</summary>
    public string PrivateKey { get; private set; } = "";

    /// <summary>The file of that key.</summary>
    public string KeyFile => Path.Combine(_folder, "user");

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
    public static string Module => Path.Combine(Checkout.Top, "tests", "PretendHost", "PretendHost.psm1");

    /// <summary>Starts hosts.</summary>
    public static async Task<PretendHosts> StartAsync(params string[] names)
    {
        if (!File.Exists(PowerShell)) throw new FileNotFoundException("PowerShell is not installed for the tests: run ./test hosts once.", PowerShell);
        var hosts = new PretendHosts { Port = FreePort() };
        await hosts.BeginAsync(names);
        return hosts;
    }

    /// <summary>The address of a host.</summary>
    public string AddressOf(string name) => _addresses[name];

    /// <summary>A host's state.</summary>
    public JsonObject State(string name) => JsonNode.Parse(File.ReadAllText(StatePath(name)))!.AsObject();

    /// <summary>The file of a host's state.</summary>
    public string StatePath(string name) => Path.Combine(_folder, _addresses[name] + ".json");

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
        $"{{ reach: ssh, address: {_addresses[name]}, port: {Port}, host-key: \"{key ?? HostKey}\", sign-in-as: {user ?? User}, secret: {secret} }}";

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        foreach (var server in _servers)
        {
            server.Kill(entireProcessTree: true);
            await server.WaitForExitAsync();
            server.Dispose();
        }

        Directory.Delete(_folder, recursive: true);
    }

    private async Task BeginAsync(string[] names)
    {
        // The server refuses to start without this folder of its package, where it runs with all rights.
        if (Environment.UserName == "root") Directory.CreateDirectory("/run/sshd");
        await RunAsync("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", Path.Combine(_folder, "host"));
        await RunAsync("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", Path.Combine(_folder, "user"));
        File.Copy(Path.Combine(_folder, "user.pub"), Path.Combine(_folder, "authorized"));
        PrivateKey = await File.ReadAllTextAsync(Path.Combine(_folder, "user"));
        // The user with a password is known to these servers alone: nothing of the machine's own users is touched.
        await File.WriteAllTextAsync(Users, await File.ReadAllTextAsync("/etc/passwd") + $"{PasswordUser}:x:{await RunAsync("id", "-u")}:{await RunAsync("id", "-g")}::{_folder}:/bin/sh\n");
        await File.WriteAllTextAsync(Passwords, $"{PasswordUser}:{await RunAsync("openssl", "passwd", "-6", Password)}:19000:0:99999:7:::\n");
        HostKey = (await RunAsync("ssh-keygen", "-l", "-f", Path.Combine(_folder, "host.pub"))).Split(' ')[1];
        for (var i = 0; i < names.Length; i++)
        {
            _addresses[names[i]] = $"127.7.{i / 250}.{(i % 250) + 1}";
            await File.WriteAllTextAsync(StatePath(names[i]), PretendHostState.New(names[i]).ToJsonString());
        }

        foreach (var (group, number) in names.Chunk(AddressesAServer).Select((g, n) => (g, n))) Start(group, number);
        foreach (var name in names) await WaitForAsync(_addresses[name]);
    }

    private string Users => Path.Combine(_folder, "passwd");

    private string Passwords => Path.Combine(_folder, "shadow");

    private void Start(string[] names, int number)
    {
        var config = Path.Combine(_folder, $"sshd-{number}.conf");
        File.WriteAllLines(config, [
            .. names.Select(n => $"ListenAddress {_addresses[n]}:{Port}"), $"HostKey {Path.Combine(_folder, "host")}", $"AuthorizedKeysFile {Path.Combine(_folder, "authorized")}",
            $"PidFile {Path.Combine(_folder, $"sshd-{number}.pid")}", "StrictModes no", "UsePAM no", "PermitRootLogin yes", "PasswordAuthentication yes", "KbdInteractiveAuthentication no", "MaxStartups 100", "LogLevel ERROR",
            $"SetEnv PRETEND_HOSTS={_folder} PRETEND_POWERSHELL={PowerShell} PRETEND_MODULE={Module}", $"ForceCommand {Path.Combine(Checkout.Top, "tests", "PretendHost", "pretend-shell")}",
        ]);
        var start = new ProcessStartInfo("/usr/sbin/sshd") { ArgumentList = { "-D", "-e", "-f", config }, RedirectStandardError = true };
        (start.Environment["LD_PRELOAD"], start.Environment["NSS_WRAPPER_PASSWD"], start.Environment["NSS_WRAPPER_GROUP"], start.Environment["NSS_WRAPPER_SHADOW"]) = ("libnss_wrapper.so", Users, "/etc/group", Passwords);
        _servers.Add(Process.Start(start)!);
    }

    private async Task WaitForAsync(string address)
    {
        for (var attempt = 0; ; attempt++)
        {
            try
            {
                using var probe = new TcpClient();
                await probe.ConnectAsync(IPAddress.Parse(address), Port);
                return;
            }
            catch (SocketException) when (attempt < 100)
            {
                await Task.Delay(50);
            }
        }
    }

    private static async Task<string> RunAsync(string command, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(command, arguments) { RedirectStandardOutput = true })!;
        var output = await process.StandardOutput.ReadToEndAsync();
        await process.WaitForExitAsync();
        return process.ExitCode == 0 ? output.Trim() : throw new InvalidOperationException($"{command} ended with {process.ExitCode}.");
    }

    private static int FreePort()
    {
        using var probe = new TcpListener(IPAddress.Loopback, 0);
        probe.Start();
        return ((IPEndPoint)probe.LocalEndpoint).Port;
    }
}
