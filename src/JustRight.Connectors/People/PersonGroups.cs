using System.DirectoryServices.Protocols;
using JustRight.Core.Estates;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Connectors.People;

/// <summary>
/// Which groups somebody is in, asked of the groups themselves: what people carry of it may be out of date, or not there.
/// </summary>
internal static class PersonGroups
{
    /// <summary>
    /// The groups that name the person, and with them the groups that those are in, and so on; rings end. The primary group of
    /// an AD-like directory names nobody, and is not among them.
    /// </summary>
    public static (IReadOnlyList<PeopleObject> Direct, IReadOnlyList<PeopleObject> All) Of(
        IPeopleSession session, PeopleDirectory directory, PeopleObject person)
    {
        var map = AttributeMap.Of(directory);
        var direct = Holding(session, directory, map, person);
        var all = new Dictionary<string, PeopleObject>(direct.ToDictionary(g => g.Dn), StringComparer.OrdinalIgnoreCase);
        var next = new Queue<PeopleObject>(map.MemberIsName ? direct : []);
        while (next.TryDequeue(out var inner))
            foreach (var outer in Holding(session, directory, map, inner).Where(o => all.TryAdd(o.Dn, o))) next.Enqueue(outer);
        return (direct, [.. all.Values]);
    }

    private static List<PeopleObject> Holding(
        IPeopleSession session, PeopleDirectory directory, AttributeMap map, PeopleObject member)
    {
        var value = map.MemberIsName ? member.Dn : member.First(map.LogonName) ?? "";
        var filter = new Filter.And(
            [
                new Filter.Same("objectClass", FilterValue.Of(map.GroupClass)),
                new Filter.Same(map.Member, FilterValue.Of(value))]).Text;
        return [.. session.Search(directory.Root.Text, SearchScope.Subtree, filter, SignInTestRun.OwnPageSize, map.GroupName)];
    }
}
