using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Connectors.People;

/// <summary>Who is in a group, where people do not carry their groups and the product looks it up in the group.</summary>
internal static class GroupMembers
{
    /// <summary>
    /// Looks the members up, once. Before a search that comes page by page: some servers keep the place of one such search in a
    /// connection alone.
    /// </summary>
    public static HashSet<string> Known(SignInTestRun run, IPeopleSession session) =>
        run.Members ??= Of(run, session, run.Plan.EnterDn!);

    /// <summary>Whether somebody is in the group that may enter, as the product sees it.</summary>
    public static bool Has(SignInTestRun run, IPeopleSession session, PeopleObject person) =>
        Known(run, session).Contains(run.Map.MemberIsName ? person.Dn : person.First(run.Map.LogonName) ?? "");

    /// <summary>
    /// The members, by distinguished name or logon name as the directory keeps them; with those of groups inside where the
    /// product follows them.
    /// </summary>
    private static HashSet<string> Of(SignInTestRun run, IPeopleSession session, string group)
    {
        if (session.Read(group, run.Map.Member) is not { } top) return [];
        var members = top.All(run.Map.Member).ToHashSet(StringComparer.OrdinalIgnoreCase);
        if (!run.Plan.NestedCount || !run.Map.MemberIsName) return members;

        // All groups in a few pages, instead of asking for each member whether it is one.
        var inside = session.Search(
            run.Plan.Directory.Root.Text, true, new Filter.Same("objectClass", FilterValue.Of(run.Map.GroupClass)).Text,
            SignInTestRun.OwnPageSize, run.Map.Member)
            .ToDictionary(g => g.Dn, g => g.All(run.Map.Member), StringComparer.OrdinalIgnoreCase);
        var next = new Queue<string>(members.Where(inside.ContainsKey));
        while (next.TryDequeue(out var dn))
            foreach (var member in inside[dn].Where(m => members.Add(m) && inside.ContainsKey(m))) next.Enqueue(member);
        return members;
    }
}
