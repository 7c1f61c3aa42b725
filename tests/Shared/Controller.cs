using System.Diagnostics;
using JustRight.Connectors;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Core.Estates;

namespace JustRight.Tests.Shared;

/// <summary>
/// A real AD-compatible controller on a loopback address of its own, in a folder of its own, with a certificate from an
/// authority of its own. It is unpacked from the machine's archive, started once for all tests and stopped by process id.
/// </summary>
public class Controller : IAsyncLifetime
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-controller-").FullName;
    private Process? _process;
    private FileStream? _turn;

    /// <summary>
    /// The address in its certificate. Parts of the tests that run side by side each have one of their own. Not "localhost": the
    /// LDAP library checks that name as the machine's own.
    /// </summary>
    public static string Address { get; } = Environment.GetEnvironmentVariable("JUSTRIGHT_TEST_CONTROLLER") ?? "127.0.0.1";

    /// <summary>The address of a second controller, which shares the certificate.</summary>
    public const string SecondAddress = "127.0.0.3";

    /// <summary>The domain it serves.</summary>
    public static Domain Domain { get; } = new("fennmoor.example", "FENNMOOR");

    /// <summary>The administrator's password; known once it is started.</summary>
    public string Password { get; private set; } = "";

    /// <summary>The folder of this run.</summary>
    public string Folder => _folder;

    /// <summary>The folder with the authority's certificate.</summary>
    public string CaFolder => Path.Combine(_folder, "ca");

    /// <summary>A folder with another authority's certificate.</summary>
    public string WrongCaFolder => Path.Combine(_folder, "wrong-ca");

    /// <summary>The authority that its certificate is from.</summary>
    protected TestAuthority Authority { get; } = new("Fennmoor test authority");

    /// <summary>An authority that nobody trusts.</summary>
    protected TestAuthority Untrusted { get; } = new("Another authority");

    /// <summary>The certificate it shows.</summary>
    protected string CertificateFile => Path.Combine(_folder, "server.pem");

    /// <summary>The certificate's key.</summary>
    protected string KeyFile => Path.Combine(_folder, "server.key");

    /// <summary>Further options to start it with.</summary>
    protected virtual IEnumerable<string> MoreOptions => [];

    /// <summary>The administrator's sign-in.</summary>
    public LdapTarget Target => new(Domain, Address, 636, CaFolder, "Administrator@fennmoor.example", new NewPassword(Password));

    private string Configuration => Path.Combine(_folder, "state", "etc", "smb.conf");

    /// <inheritdoc/>
    public virtual async ValueTask InitializeAsync()
    {
        // Two of them at once were seen to break connections off, at any address; why is not known. They take turns.
        _turn = await ControllerArchive.LockAsync("turn");
        LdapLibrary.WaitThroughSignals(); // for the connections that tests open by themselves
        MakeCertificates();
        Password = await ControllerArchive.UnpackAsync(Path.Combine(_folder, "state"));
        await StartAsync(CertificateFile, KeyFile);
    }

    /// <summary>Starts the controller with a certificate, and returns when it answers.</summary>
    protected Task StartAsync(string certificateFile, string keyFile)
    {
        _process = Programs.Serve("samba", [
            "-i", "-M", "single", "-s", Configuration, "--option=server services=ldap, cldap, kdc, rpc, s3fs, winbindd",
            $"--option=interfaces={Address}/8", "--option=bind interfaces only=yes", $"--option=tls certfile={certificateFile}",
            $"--option=tls keyfile={keyFile}", $"--option=tls cafile={CaFolder}/ca.pem", $"--option=pid directory={_folder}",
            $"--option=ncalrpc dir={_folder}/rpc", $"--option=winbindd socket directory={_folder}/winbindd",
            "--option=log level=0", .. MoreOptions,
        ]);
        return AnsweringAsync();
    }

    /// <summary>Stops the controller; its folder stays.</summary>
    protected async Task StopAsync()
    {
        if (_process is not null) await _process.EndAsync();
        _process = null;
    }

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await StopAsync();
        Authority.Dispose();
        Untrusted.Dispose();
        GC.SuppressFinalize(this);
        Directory.Delete(_folder, true);
        _turn?.Dispose();
    }

    /// <summary>Runs samba-tool against this controller's own database; for what no connector should be able to do.</summary>
    public Task ToolAsync(params string[] arguments) => Programs.MustRunAsync("samba-tool", [.. arguments, "-s", Configuration]);

    /// <summary>Waits until a controller answers: its ports open before its TLS does.</summary>
    public static Task AnsweringAsync(LdapTarget target, Func<bool> ended)
    {
        var directory = new LdapDirectory(target, new DirectorySchemas(), TimeProvider.System);
        return Waiting.UntilAsync($"{target.Controller} answers", async () =>
        {
            if (ended()) throw new InvalidOperationException($"The controller at {target.Controller} ended.");
            try
            {
                await directory.NamesInUseAsync(["Administrator"], default);
                return true;
            }
            catch (ConnectorException e) when (e.Failure is ConnectorFailure.Unreachable or ConnectorFailure.NotTrusted)
            {
                return false;
            }
        });
    }

    /// <summary>Waits until this controller answers.</summary>
    protected virtual Task AnsweringAsync() => AnsweringAsync(Target, () => _process!.HasExited);

    private void MakeCertificates()
    {
        Authority.WriteTo(CaFolder);
        Untrusted.WriteTo(WrongCaFolder);
        Authority.Issue(CertificateFile, KeyFile, [Address, SecondAddress], 60);
    }
}
