using JustRight.Core.Directory;

namespace JustRight.Core.Hosts;

/// <summary>The kinds of identity a service can run as.</summary>
public enum IdentityKind
{
    /// <summary>The host itself, with every right on it [MS-DTYP 2.4.2.4, S-1-5-18].</summary>
    LocalSystem,

    /// <summary>A weak identity that is nobody on the network, S-1-5-19.</summary>
    LocalService,

    /// <summary>A weak identity that is the computer account on the network, S-1-5-20.</summary>
    NetworkService,

    /// <summary>An identity of one service, <c>NT SERVICE\name</c>; the computer account on the network.</summary>
    Virtual,

    /// <summary>A managed account of the domain, whose password the directory keeps: <c>DOMAIN\name$</c>.</summary>
    Managed,

    /// <summary>A user of the domain.</summary>
    DomainUser,

    /// <summary>A user of the host alone, nobody elsewhere.</summary>
    LocalUser,
}

/// <summary>What a service runs as: on its host, and to the network.</summary>
/// <param name="Kind">Its kind.</param>
/// <param name="Name">The logon name for accounts of the domain, without the domain; the name in full for all others.</param>
public sealed record ServiceIdentity(IdentityKind Kind, string Name)
{
    private const int MostOfName = 15;
    private static readonly string[] VirtualDomains = ["NT SERVICE\\", "IIS APPPOOL\\", "NT TASK\\"];

    /// <summary>
    /// Reads what a host calls the account of a service [MS-SCMR 2.2.15]: <c>LocalSystem</c>,
    /// <c>NT AUTHORITY\NetworkService</c>, <c>.\user</c>, <c>DOMAIN\user</c>, <c>user@domain</c>. Empty stands for LocalSystem.
    /// </summary>
    /// <param name="text">The name.</param>
    /// <param name="host">The host, since <c>HOST\user</c> is a user of its own.</param>
    public static ServiceIdentity Parse(string text, string host)
    {
        var bare = text.Trim();
        switch (bare.Replace(" ", "", StringComparison.Ordinal).ToUpperInvariant())
        {
            case "" or "LOCALSYSTEM" or ".\\LOCALSYSTEM" or "NTAUTHORITY\\SYSTEM" or "NTAUTHORITY\\LOCALSYSTEM" or "SYSTEM":
                return new ServiceIdentity(IdentityKind.LocalSystem, "LocalSystem");
            case "NTAUTHORITY\\LOCALSERVICE" or "LOCALSERVICE":
                return new ServiceIdentity(IdentityKind.LocalService, "LocalService");
            case "NTAUTHORITY\\NETWORKSERVICE" or "NETWORKSERVICE":
                return new ServiceIdentity(IdentityKind.NetworkService, "NetworkService");
        }

        if (VirtualDomains.Any(d => bare.StartsWith(d, StringComparison.OrdinalIgnoreCase)))
            return new ServiceIdentity(IdentityKind.Virtual, bare);
        var slash = bare.IndexOf('\\', StringComparison.Ordinal);
        if (slash >= 0 && (bare[..slash] == "." || IsHost(bare[..slash], host)))
            return new ServiceIdentity(IdentityKind.LocalUser, bare[(slash + 1)..]);
        var name = slash >= 0 ? bare[(slash + 1)..] : bare.Split('@')[0];
        return new ServiceIdentity(name.EndsWith('$') ? IdentityKind.Managed : IdentityKind.DomainUser, name);
    }

    /// <summary>Whether a short name that a host gives itself means a host: it is cut at fifteen characters.</summary>
    public static bool IsHost(string told, string host)
    {
        var first = host.Split('.')[0];
        return string.Equals(told, first, StringComparison.OrdinalIgnoreCase)
            || string.Equals(told, Short(first), StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>Whether it is an account of the domain.</summary>
    public bool IsOfDomain => Kind is IdentityKind.Managed or IdentityKind.DomainUser;

    /// <summary>
    /// The SIDs a process of it carries on its host beside Everyone and Authenticated Users, for the built-in identities; empty
    /// for accounts, whose SIDs the directory knows.
    /// </summary>
    public IReadOnlyList<Sid> LocalSids => Kind switch
    {
        IdentityKind.LocalSystem => [Sid.Parse("S-1-5-18"), Sid.Parse("S-1-5-32-544")],
        IdentityKind.LocalService => [Sid.Parse("S-1-5-19"), Sid.Parse("S-1-5-6"), Sid.Parse("S-1-5-32-545")],
        IdentityKind.NetworkService => [Sid.Parse("S-1-5-20"), Sid.Parse("S-1-5-6"), Sid.Parse("S-1-5-32-545")],
        IdentityKind.Virtual => [Sid.Parse("S-1-5-80-0"), Sid.Parse("S-1-5-6"), Sid.Parse("S-1-5-32-545")],
        IdentityKind.Managed or IdentityKind.DomainUser or IdentityKind.LocalUser => [],
    };

    /// <summary>What it is, what it may do on its host, and what other hosts take it for, in one sentence.</summary>
    /// <param name="host">The host it runs on.</param>
    /// <param name="domain">The domain's short name.</param>
    public string Explained(string host, string domain)
    {
        var network = OnNetwork(host) is { } name
            ? $"other hosts see {domain}\\{name}"
            : "other hosts see nobody: it is anonymous there";
        return Kind switch
        {
            IdentityKind.LocalSystem => $"the host itself: it may do everything on this host; {network}",
            IdentityKind.LocalService => $"a built-in identity with few rights on this host; {network}",
            IdentityKind.NetworkService => $"a built-in identity with few rights on this host; {network}",
            IdentityKind.Virtual => $"an identity of its own, which only this host knows, with few rights here; {network}",
            IdentityKind.Managed => $"an account of the domain whose password the directory keeps; {network}",
            IdentityKind.DomainUser => $"an account of the domain; {network}",
            IdentityKind.LocalUser => $"a user of this host alone; {network}",
        };
    }

    /// <summary>What other hosts take it for, in words: the logon name of an account, or null for nobody.</summary>
    /// <param name="host">The host it runs on.</param>
    public string? OnNetwork(string host) => Kind switch
    {
        IdentityKind.LocalService or IdentityKind.LocalUser => null,
        IdentityKind.LocalSystem or IdentityKind.NetworkService or IdentityKind.Virtual => ComputerAccount(host),
        IdentityKind.Managed or IdentityKind.DomainUser => Name,
    };

    /// <summary>
    /// The logon name of a host's computer account: its short name, at most fifteen characters of it [MS-NRPC 3.1.1, NetBIOS
    /// names].
    /// </summary>
    public static string ComputerAccount(string host) => Short(host.Split('.')[0]).ToUpperInvariant() + "$";

    private static string Short(string name) => name.Length <= MostOfName ? name : name[..MostOfName];

    /// <inheritdoc/>
    public override string ToString() => Kind == IdentityKind.LocalUser ? $"the host's own user {Name}" : Name;
}
