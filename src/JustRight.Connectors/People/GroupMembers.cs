using System.DirectoryServices.Protocols;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Connectors.People;

/// <summary>
/// Who is in the group whose members may enter, as the group has it: names compared as directories compare them, logon names
/// with regard to case, as <c>memberUid</c> has it [RFC 2307].
/// </summary>
internal sealed class GroupMembers
{
    private readonly bool _byName;
    private readonly string _logonName;
    private readonly HashSet<string> _direct;
    private readonly HashSet<string> _all;
    private readonly string? _primaryToken;

    /// <param name="primaryToken">What those have as their primary group whose primary group it is; null where that does not
    /// count.</param>
    private GroupMembers(
        bool byName, string logonName, HashSet<string> direct, HashSet<string> all, string? primaryToken) =>
        (_byName, _logonName, _direct, _all, _primaryToken) = (byName, logonName, direct, all, primaryToken);

    /// <summary>How many are in it directly.</summary>
    public int Count => _direct.Count;

    /// <summary>
    /// Looks the members up, once. Before a search that comes page by page: some servers keep the place of one such search in a
    /// connection alone.
    /// </summary>
    public static GroupMembers Known(SignInTestRun run, IPeopleSession session) => Known(run, session, run.Plan.EnterDn!);

    /// <summary>As the other, of any group.</summary>
    public static GroupMembers Known(SignInTestRun run, IPeopleSession session, string group) =>
        run.Members.TryGetValue(ComparedName.KeyOf(group), out var known)
            ? known
            : run.Members[ComparedName.KeyOf(group)] = Of(run, session, group);

    /// <summary>The attributes of somebody that <see cref="Has"/> looks at.</summary>
    public static IReadOnlyList<string> Needs(SignInTestRun run) => [run.Map.LogonName, "primaryGroupID"];

    /// <summary>Whether somebody is in the group, as the product sees it.</summary>
    /// <param name="nested">Whether those count that are in it through other groups.</param>
    public bool Has(PeopleObject person, bool nested) => (nested ? _all : _direct).Contains(
        _byName ? ComparedName.KeyOf(person.Dn) : person.First(_logonName) ?? "")
        || (_primaryToken is not null && _primaryToken == person.First("primaryGroupID"));

    private static GroupMembers Of(SignInTestRun run, IPeopleSession session, string group)
    {
        var map = run.Map;
        var read = session.Read(group, map.Member, "primaryGroupToken");
        var direct = (read?.All(map.Member) ?? []).Select(KeyOf).ToHashSet(StringComparer.Ordinal);
        var token = run.Plan.Wants.CountsPrimaryGroup ? read?.First("primaryGroupToken") : null;
        if (!map.MemberIsName) return new GroupMembers(false, map.LogonName, direct, direct, null);
        var inside = run.AllGroups ??= AllGroups(run, session);
        var all = direct.ToHashSet(StringComparer.Ordinal);
        var next = new Queue<string>(direct.Where(inside.ContainsKey));
        while (next.TryDequeue(out var name))
            foreach (var member in inside[name].Where(m => all.Add(m) && inside.ContainsKey(m))) next.Enqueue(member);
        return new GroupMembers(true, map.LogonName, direct, all, token);

        string KeyOf(string member) => map.MemberIsName ? ComparedName.KeyOf(WithoutNumber(member)) : member;
    }

    /// <summary>All groups in a few pages, instead of asking for each member whether it is one.</summary>
    private static Dictionary<string, List<string>> AllGroups(SignInTestRun run, IPeopleSession session)
    {
        var inside = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        foreach (var one in session.Search(
            run.Plan.Directory.Root.Text, SearchScope.Subtree,
            new Filter.Same("objectClass", FilterValue.Of(run.Map.GroupClass)).Text, SignInTestRun.OwnPageSize, run.Map.Member))
            inside[ComparedName.KeyOf(one.Dn)] = [.. one.All(run.Map.Member).Select(m => ComparedName.KeyOf(WithoutNumber(m)))];
        return inside;
    }

    /// <summary>A name without the bits that <c>uniqueMember</c> may have behind it [RFC 4517 3.3.21].</summary>
    private static string WithoutNumber(string value) =>
        value.EndsWith("'B", StringComparison.Ordinal) && value.LastIndexOf("#'", StringComparison.Ordinal) is > 0 and var at
            ? value[..at]
            : value;
}
