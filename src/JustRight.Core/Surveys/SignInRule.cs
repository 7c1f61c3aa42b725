namespace JustRight.Core.Surveys;

/// <summary>From which addresses a rule of sign-in is for.</summary>
public enum SignInAddress
{
    /// <summary>From any.</summary>
    All,

    /// <summary>From any of IPv4.</summary>
    AllOfV4,

    /// <summary>From any of IPv6.</summary>
    AllOfV6,

    /// <summary>From the server's own machine.</summary>
    Loopback,

    /// <summary>From some others.</summary>
    Some,
}

/// <summary>A rule of who may sign in how [PostgreSQL, The pg_hba.conf File]. The first that fits counts.</summary>
/// <param name="Type">How one comes: <c>local</c> (the machine's own socket), <c>host</c> (by any network connection),
/// <c>hostssl</c>, <c>hostgssenc</c>, …</param>
/// <param name="Databases">Names, or <c>all</c>, <c>sameuser</c>, <c>samerole</c>, <c>replication</c>.</param>
/// <param name="Users">Names, <c>all</c>, or <c>+role</c> for members of a role.</param>
/// <param name="Method">Such as <c>gss</c>, <c>ldap</c>, <c>reject</c>.</param>
/// <param name="Options">Such as <c>map=domain</c>, <c>include_realm=true</c>, as the server shows them: what is not shown is
/// off.</param>
public sealed record SignInRule(
    string Type, IReadOnlyList<string> Databases, IReadOnlyList<string> Users, SignInAddress Address, string Method,
    IReadOnlyList<string> Options)
{
    /// <summary>The type of a rule for the machine's own socket.</summary>
    public const string OwnMachine = "local";

    /// <summary>The method of a rule that asks for a ticket.</summary>
    public const string Ticket = "gss";

    /// <summary>The method of a rule that asks for a ticket, of a server on Windows.</summary>
    public const string WindowsTicket = "sspi";

    /// <summary>The method of a rule that asks the directory whether the password is right.</summary>
    public const string Password = "ldap";

    /// <summary>The addresses as the file has them.</summary>
    public string AddressWords { get; init; } = "";

    /// <summary>Whether names are handed on with their realm: the server shows it where it is so, and nothing where it is
    /// not.</summary>
    public bool IncludesRealm => Option("include_realm") is "true" or "1";

    /// <summary>The value of an option, or null when it is not shown.</summary>
    public string? Option(string name) =>
        Options.Select(o => o.Split('=', 2)).FirstOrDefault(o => o.Length == 2 && o[0] == name)?[1];
}

/// <summary>A line of a name map [PostgreSQL, User Name Maps].</summary>
/// <param name="SystemName">The name outside; with a slash before it a pattern whose first group <c>\1</c> stands for.</param>
/// <param name="Role">The role.</param>
public sealed record NameMapLine(string Map, string SystemName, string Role);
