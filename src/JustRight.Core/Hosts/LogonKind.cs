using System.Collections.Frozen;
using JustRight.Core.Directory;

namespace JustRight.Core.Hosts;

/// <summary>
/// The kinds of log-on by which an account comes to a host, and what each puts into its token [MS-DTYP 2.4.2.4].
/// </summary>
public static class LogonKind
{
    private static readonly FrozenDictionary<string, IReadOnlyList<Sid>> Groups = new (string Type, string[] Sids)[]
    {
        ("service", ["S-1-5-6"]), ("batch", ["S-1-5-3"]), ("interactive", ["S-1-5-4"]), (
            "remote", ["S-1-5-14", "S-1-5-4"]), ("network", ["S-1-5-2"]),
    }.ToFrozenDictionary(g => g.Type, g => (IReadOnlyList<Sid>)[.. g.Sids.Select(Sid.Parse)], StringComparer.Ordinal);

    /// <summary>The group that a log-on of this type puts into the token.</summary>
    /// <param name="type">A type of <see cref="LogonRights"/>; a remote one is also interactive.</param>
    public static IReadOnlyList<Sid> GroupsOf(string type) =>
        Groups.GetValueOrDefault(type) ?? throw new ArgumentException($"'{type}' is not a log-on type.", nameof(type));

    /// <summary>Every type of log-on.</summary>
    public static IReadOnlyList<string> All { get; } = ["service", "batch", "interactive", "remote", "network"];
}
