using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// A situation of policies in a line: containers from the top, each with its links, link number 1 first. A container with
/// <c>#</c> blocks; a link with <c>!</c> is enforced, with <c>-</c> disabled. Policies A to E name the right; N names nothing;
/// X no longer exists; H has its computer half off; F is filtered; U may be filtered or not; T has no template that could be read.
/// </summary>
internal static class PolicyScene
{
    public const string Right = "SeBatchLogonRight";

    private static readonly string[] Names = ["A", "B", "C", "D", "E", "N", "H", "F", "U", "T"];

    public static string IdOf(string name) => PolicyLink.IdOf(new Guid(name[0], 0, 0, new byte[8]));

    public static IReadOnlyDictionary<string, GroupPolicy> Policies { get; } = Names.ToDictionary(IdOf, n => new GroupPolicy(
        IdOf(n), n, n == "H", null, n switch
        {
            "N" => [new PolicyList(
            "SeAuditPrivilege", [])],
            "T" => null,
            _ => [new PolicyList(Right, [n])]
        }));

    public static IReadOnlyList<PolicyContainer> Chain(string text) =>
    [
        .. text.Split('|', StringSplitOptions.TrimEntries).Select(part =>
        {
            var (name, links) = (part.Split(':')[0].Trim(), part.Split(':')[1].Split(' ', StringSplitOptions.RemoveEmptyEntries));
            return new PolicyContainer(
                name.TrimEnd('#'),
                PolicyLink.Write(
                    links.Select(l =>
                        new PolicyLink(
                            IdOf(l.Trim('!', '-')), l.Contains('-', StringComparison.Ordinal),
                            l.Contains('!', StringComparison.Ordinal))),
                    "DC=x"),
                name.EndsWith('#'));
        }),
    ];

    public static PolicyFilter Filter(GroupPolicy policy) => policy.Name switch
    {
        "F" => new PolicyFilter(false, "filtered"),
        "U" => new PolicyFilter(null, "unknown"),
        _ => new PolicyFilter(true, ""),
    };

    /// <summary>The winner's name; <c>host</c> when the host's own list counts, <c>?</c> when that cannot be said.</summary>
    public static string Winner(string text)
    {
        var governance = Governance.Of(PolicyOrder.Of(Chain(text), Policies, Filter), Policies, Right);
        return governance.Unseen is not null ? "?" : governance.Policy?.Name ?? "host";
    }
}
