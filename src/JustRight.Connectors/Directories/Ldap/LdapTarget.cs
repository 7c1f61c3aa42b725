using JustRight.Core.Estates;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>An AD-like controller to talk to over LDAP with TLS from the start.</summary>
/// <param name="Domain">The domain it serves.</param>
/// <param name="Controller">Its host name, which its certificate must carry.</param>
/// <param name="Port">TCP port.</param>
/// <param name="CaFolder">A folder with PEM certificates of the authorities to trust, and no others.</param>
/// <param name="SignInAs">The account to bind as.</param>
/// <param name="Password">Its password.</param>
public sealed record LdapTarget(
    Domain Domain, string Controller, int Port, string CaFolder, string SignInAs, NewPassword Password)
{
    /// <summary>Further controllers of the domain, asked in this order when this one does not answer.</summary>
    public IReadOnlyList<LdapTarget> Others { get; init; } = [];

    /// <summary>Why nothing may be sent there: the password is not allowed for it. Null where it may.</summary>
    public string? Refusal { get; init; }

    /// <summary>Where it is, for messages.</summary>
    public string Place => $"{Controller}:{Port}";
}
