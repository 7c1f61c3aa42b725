using System.Collections.Frozen;

namespace JustRight.Core.Hosts;

/// <summary>The log-on rights and their denying twins [MS-LSAD 3.1.1.2.2].</summary>
public static class LogonRights
{
    private static readonly (string Type, string Constant, string Deny, string Words, string DenyWords)[] Table =
    [
        ("service", "SeServiceLogonRight", "SeDenyServiceLogonRight", "log on as a service", "deny log on as a service"),
        ("batch", "SeBatchLogonRight", "SeDenyBatchLogonRight", "log on as a batch job", "deny log on as a batch job"),
        ("interactive", "SeInteractiveLogonRight", "SeDenyInteractiveLogonRight", "log on locally", "deny log on locally"),
        (
            "remote", "SeRemoteInteractiveLogonRight", "SeDenyRemoteInteractiveLogonRight", "log on through remote desktop",
            "deny log on through remote desktop"),
        ("network", "SeNetworkLogonRight", "SeDenyNetworkLogonRight", "be reached over the network",
            "deny access over the network"),
    ];

    private static readonly FrozenDictionary<string, (string Type, bool Denies)> Constants =
        Table.SelectMany(r => new[] { (r.Constant, Of: (r.Type, false)), (r.Deny, Of: (r.Type, true)) })
            .ToFrozenDictionary(r => r.Item1, r => r.Of, StringComparer.OrdinalIgnoreCase);

    /// <summary>The type (<c>service</c>) of a constant, and whether it is the denying twin; null for anything else.</summary>
    public static (string Type, bool Denies)? OfConstant(string constant)
    {
        return Constants.TryGetValue(constant, out var known) ? known : null;
    }

    /// <summary>The constant that grants a type.</summary>
    public static string Constant(string type) => Row(type).Constant;

    /// <summary>The constant that denies a type.</summary>
    public static string DenyConstant(string type) => Row(type).Deny;

    /// <summary>The type in words.</summary>
    public static string Words(string type) => Row(type).Words;

    /// <summary>The denying twin of a type in words.</summary>
    public static string DenyWords(string type) => Row(type).DenyWords;

    private static (string Type, string Constant, string Deny, string Words, string DenyWords) Row(string type) =>
        Array.Find(Table, r => r.Type == type) is { Type: not null } row
            ? row
            : throw new ArgumentException($"'{type}' is not a log-on type.", nameof(type));
}
