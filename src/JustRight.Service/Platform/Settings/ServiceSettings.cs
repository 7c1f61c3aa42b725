using JustRight.Core.SecretUses;

namespace JustRight.Service.Platform.Settings;

/// <summary>
/// What can be set of the service, under the configuration section <c>JustRight</c> or as <c>--JustRight:Name value</c>.
/// </summary>
public sealed class ServiceSettings
{
    /// <summary>The folder that holds the database, the keys, the logs and the simulation; made when missing.</summary>
    public string Data { get; set; } = Path.Combine(
        Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.DoNotVerify),
        "justright");

    /// <summary>
    /// The folder with the built console; the one beside the program where there is one, else the API alone is served.
    /// </summary>
    public string? Console { get; set; } = Beside("console");

    /// <summary>The folder with the simulation's first states, one file an estate.</summary>
    public string SimulationStates { get; set; } = Path.Combine(AppContext.BaseDirectory, "simulation");

    /// <summary>
    /// How many one-time sign-in links to print at the start, 0 to 5. The first start prints one whatever is set.
    /// </summary>
    public int SignInLinks { get; set; }

    /// <summary>
    /// How many answers of traces are kept of each estate; an older trace keeps its line in the list. At least 1.
    /// </summary>
    public int TracesKept { get; set; } = 100;

    /// <summary>
    /// Where people reach the service when that is not where it listens, such as <c>https://justright.fennmoor.example</c>: it
    /// decides the host, the check of the origin, secure cookies and links. Null for where it listens.
    /// </summary>
    public string? PublicAddress { get; set; }

    /// <summary>How it is reached from beyond its machine.</summary>
    public TlsSettings Tls { get; set; } = new();

    /// <summary>What encrypts the keys in the data folder.</summary>
    public KeySettings Keys { get; set; } = new();

    /// <summary>Where the service may connect to.</summary>
    public OutboundSettings Outbound { get; set; } = new();

    /// <summary>Whether this is a demo: only then do simulated people sign in.</summary>
    public bool Demo { get; set; }

    /// <summary>With which directory people sign in to the console.</summary>
    public DirectorySignInSettings DirectorySignIn { get; set; } = new();

    /// <summary>The mail server that carries notices.</summary>
    public MailSettings Mail { get; set; } = new();

    /// <summary>
    /// For rehearsing a crash, with the simulation only: <c>number:stage</c> at which carrying out stops and waits to be
    /// killed. See
    /// docs/operations.md.
    /// </summary>
    public string? RehearseHaltAt { get; set; }

    private static string? Beside(string folder) =>
        Path.Combine(AppContext.BaseDirectory, folder) is var beside && Directory.Exists(beside) ? beside : null;

    /// <summary>The database file.</summary>
    public string DatabaseFile => Path.Combine(Data, "justright.db");
}

/// <summary>Where the service may connect to, under <c>JustRight:Outbound</c>.</summary>
public sealed class OutboundSettings
{
    /// <summary>
    /// Host names, <c>*.example</c> for all below one, addresses and networks; none by default, and then nothing is connected
    /// to.
    /// </summary>
    public IList<string> Allow { get; set; } = [];
}

/// <summary>How mail leaves the organization, under <c>JustRight:Mail</c>.</summary>
public sealed class MailSettings
{
    /// <summary>The server; null for none.</summary>
    public string? Host { get; set; }

    /// <summary>Its port: 587 for submission [RFC 6409].</summary>
    public int Port { get; set; } = 587;

    /// <summary>Whom mail comes from.</summary>
    public string From { get; set; } = "";

    /// <summary><c>from-the-start</c> for a port that speaks TLS at once; otherwise it is asked for [RFC 3207].</summary>
    public string? Tls { get; set; }

    /// <summary>The name to sign in with; null for none.</summary>
    public string? SignInAs { get; set; }

    /// <summary>The name of the secret, kept by the service, that holds its password.</summary>
    public string? Secret { get; set; }

    /// <summary>Whether TLS is spoken from the first byte.</summary>
    public bool IsTlsFromTheStart => Tls == "from-the-start";

    /// <summary>What the secret is used for.</summary>
    public SecretUse Use => new(
        SecretPurpose.Mail, "", "mail", $"{Host}:{Port}", SignInAs ?? "", IsTlsFromTheStart
            ? "tls"
            : "start-tls", "the authorities of this machine");
}
