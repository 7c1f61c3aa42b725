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

    private GroupMembers(bool byName, string logonName, HashSet<string> direct, HashSet<string> all) =>
        (_byName, _logonName, _direct, _all) = (byName, logonName, direct, all);

    /// <summary>How many are in it directly.</summary>
    public int Count => _direct.Count;

    /// <summary>
    /// Looks the members up, once. Before a search that comes page by page: some servers keep the place of one such search in a
    /// connection alone.
    /// </summary>
    public static GroupMembers Known(SignInTestRun run, IPeopleSession session) =>
        run.Members ??= Of(run, session, run.Plan.EnterDn!);

    /// <summary>Whether somebody is in the group, as the product sees it.</summary>
    /// <param name="nested">Whether those count that are in it through other groups.</param>
    public bool Has(PeopleObject person, bool nested) => (nested ? _all : _direct).Contains(
        _byName ? ComparedName.KeyOf(person.Dn) : person.First(_logonName) ?? "");

    private static GroupMembers Of(SignInTestRun run, IPeopleSession session, string group)
    {
        var map = run.Map;
        var values = session.Read(group, map.Member)?.All(map.Member) ?? [];
        var direct = values.Select(KeyOf).ToHashSet(StringComparer.Ordinal);
        if (!map.MemberIsName) return new GroupMembers(false, map.LogonName, direct, direct);

        // All groups in a few pages, instead of asking for each member whether it is one.
        var inside = new Dictionary<string, List<string>>(StringComparer.Ordinal);
        foreach (var one in session.Search(
            run.Plan.Directory.Root.Text, true, new Filter.Same("objectClass", FilterValue.Of(map.GroupClass)).Text,
            SignInTestRun.OwnPageSize, map.Member))
            inside[ComparedName.KeyOf(one.Dn)] = [.. one.All(map.Member).Select(KeyOf)];
        var all = direct.ToHashSet(StringComparer.Ordinal);
        var next = new Queue<string>(direct.Where(inside.ContainsKey));
        while (next.TryDequeue(out var name))
            foreach (var member in inside[name].Where(m => all.Add(m) && inside.ContainsKey(m))) next.Enqueue(member);
        return new GroupMembers(true, map.LogonName, direct, all);

        string KeyOf(string member) => map.MemberIsName ? ComparedName.KeyOf(WithoutNumber(member)) : member;
    }

    /// <summary>A name without the bits that <c>uniqueMember</c> may have behind it [RFC 4517 3.3.21].</summary>
    private static string WithoutNumber(string value) =>
        value.EndsWith("'B", StringComparison.Ordinal) && value.LastIndexOf("#'", StringComparison.Ordinal) is > 0 and var at
            ? value[..at]
            : value;
}
