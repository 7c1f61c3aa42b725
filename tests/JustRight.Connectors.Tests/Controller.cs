using System.Diagnostics;
using System.Security.Cryptography;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Ldap;
using JustRight.Core.Estates;
using JustRight.Tests.Shared;

namespace JustRight.Connectors.Tests;

/// <summary>
/// A real AD-compatible controller on a loopback address of its own, in a folder of its own, with a certificate from an
/// authority of its own. It is started once for all tests and stopped by process id.
/// </summary>
public class Controller : IAsyncLifetime
{
    /// <summary>The address in its certificate. Not "localhost": the LDAP library checks that name as the machine's own.</summary>
    public const string Address = "127.0.0.1";

    /// <summary>The address of a second controller, which shares the certificate.</summary>
    public const string SecondAddress = "127.0.0.3";

    private readonly string _folder = Directory.CreateTempSubdirectory("justright-controller-").FullName;
    private Process? _process;

    /// <summary>Its other services start after the directory answers; in these first seconds it drops a connection now and then.</summary>
    private static readonly TimeSpan StillStarting = TimeSpan.FromSeconds(4);

    /// <summary>The domain it serves.</summary>
    public static Domain Domain { get; } = new("fennmoor.example", "FENNMOOR");

    /// <summary>The administrator's password; made anew for each run.</summary>
    public string Password { get; } = "Aa1-" + RandomNumberGenerator.GetHexString(16);

    /// <summary>The folder of this run.</summary>
    internal string Folder => _folder;

    /// <summary>The folder with the authority's certificate.</summary>
    public string CaFolder => Path.Combine(_folder, "ca");

    /// <summary>A folder with another authority's certificate.</summary>
    public string WrongCaFolder => Path.Combine(_folder, "wrong-ca");

    /// <summary>The authority that its certificate is from.</summary>
    protected TestAuthority Authority { get; } = new("Fennmoor test authority");

    /// <summary>An authority that nobody trusts.</summary>
    protected TestAuthority Stranger { get; } = new("Another authority");

    /// <summary>The certificate it shows.</summary>
    protected string CertificateFile => Path.Combine(_folder, "server.pem");

    /// <summary>The certificate's key.</summary>
    protected string KeyFile => Path.Combine(_folder, "server.key");

    /// <summary>Further options to start it with.</summary>
    protected virtual IEnumerable<string> MoreOptions => [];

    /// <summary>The administrator's sign-in.</summary>
    public LdapTarget Target => new(Domain, Address, 636, CaFolder, "Administrator@fennmoor.example", new NewPassword(Password));

    public async ValueTask InitializeAsync()
    {
        MakeCertificates();
        var state = Path.Combine(_folder, "state");
        await RunAsync("samba-tool", "domain", "provision", $"--targetdir={state}", "--realm=FENNMOOR.EXAMPLE", "--domain=FENNMOOR", $"--adminpass={Password}", "--server-role=dc",
            "--dns-backend=NONE", "--host-name=fm-dc01", $"--host-ip={Address}", $"--option=interfaces={Address}/8", "--option=bind interfaces only=yes");
        Start(CertificateFile, KeyFile);
        await WaitAsync();
    }

    /// <summary>Starts the controller with a certificate.</summary>
    protected void Start(string certificateFile, string keyFile)
    {
        string[] arguments =
        [
            "-i", "-M", "single", "-s", Path.Combine(_folder, "state", "etc", "smb.conf"), "--option=server services=ldap, cldap, kdc, rpc, s3fs, winbindd",
            $"--option=tls certfile={certificateFile}", $"--option=tls keyfile={keyFile}", $"--option=tls cafile={CaFolder}/ca.pem",
            $"--option=pid directory={_folder}", "--option=log level=0", .. MoreOptions,
        ];
        var start = new ProcessStartInfo("samba", arguments) { RedirectStandardOutput = true, RedirectStandardError = true, RedirectStandardInput = true };
        _process = Process.Start(start) ?? throw new InvalidOperationException("samba did not start.");
        _process.OutputDataReceived += (_, _) => { };
        _process.ErrorDataReceived += (_, _) => { };
        _process.BeginOutputReadLine();
        _process.BeginErrorReadLine();
    }

    /// <summary>Stops the controller; its folder stays.</summary>
    protected void Stop()
    {
        if (_process is { HasExited: false }) _process.Kill(entireProcessTree: true);
        _process?.WaitForExit();
        _process?.Dispose();
        _process = null;
    }

    public ValueTask DisposeAsync()
    {
        Stop();
        Authority.Dispose();
        Stranger.Dispose();
        GC.SuppressFinalize(this);
        Directory.Delete(_folder, true);
        return ValueTask.CompletedTask;
    }

    /// <summary>Runs samba-tool against this controller's own database; for what no connector should be able to do.</summary>
    public Task ToolAsync(params string[] arguments) => RunAsync("samba-tool", [.. arguments, "-s", Path.Combine(_folder, "state", "etc", "smb.conf")]);

    private void MakeCertificates()
    {
        Authority.WriteTo(CaFolder);
        Stranger.WriteTo(WrongCaFolder);
        Authority.Issue(CertificateFile, KeyFile, [Address, SecondAddress], 60);
    }

    private async Task WaitAsync()
    {
        for (var i = 0; i < 120; i++)
        {
            if (_process!.HasExited) throw new InvalidOperationException($"samba ended with code {_process.ExitCode}.");
            try
            {
                await new LdapDirectory(Target, new DirectorySchemas(), TimeProvider.System).NamesInUseAsync(["Administrator"], CancellationToken.None);
                await Task.Delay(StillStarting);
                return;
            }
            catch (ConnectorException e) when (e.Failure is ConnectorFailure.Unreachable or ConnectorFailure.NotTrusted && i < 119)
            {
                // Not up yet: its ports open before its TLS answers.
                await Task.Delay(500);
            }
        }

        throw new InvalidOperationException("The controller did not answer within a minute.");
    }

    internal static async Task RunAsync(string program, params string[] arguments)
    {
        using var process = Process.Start(new ProcessStartInfo(program, arguments) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var output = process.StandardOutput.ReadToEndAsync();
        var error = process.StandardError.ReadToEndAsync();
        await process.WaitForExitAsync();
        if (process.ExitCode != 0) throw new InvalidOperationException($"{program} {arguments[0]} {arguments[1]} failed: {await output} {await error}");
    }
}
