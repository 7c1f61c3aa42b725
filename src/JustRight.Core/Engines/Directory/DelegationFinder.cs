using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;

namespace JustRight.Core.Engines.Directory;

/// <summary>
/// Finds what was delegated: entries put on an object itself that let an account or group change something, and ownership.
/// What the directory gives its own groups from the start goes by the name of the group and is not listed.
/// </summary>
internal static class DelegationFinder
{
    private const int AlikeAtMost = 5; // more objects with the same entry are named by their branch
    private const uint FirstOwnRid = 1000; // below are the principals that every domain has [MS-DTYP 2.4.2.4]

    /// <summary>The ends of paths, one for each entry and for each owner.</summary>
    public static IEnumerable<RightTail> Find(AccessTree tree, MembershipGraph graph)
    {
        var byDescriptor = new (List<Ace> Entries, Sid Owner)?[tree.DescriptorCount];
        var entries = new Dictionary<Ace, List<int>>();
        var owners = new Dictionary<Sid, List<int>>();
        for (var index = 0; index < tree.Count; index++)
        {
            var id = tree.DescriptorIdOf(index);
            if (id < 0) continue;
            var (own, owner) = byDescriptor[id] ??= Of(tree.Distinct(id));
            foreach (var ace in own) Add(entries, ace, index);
            if (!owner.IsEmpty) Add(owners, owner, index);
        }

        foreach (var (ace, at) in entries)
        {
            var rule = AccessRule.Of(ace, AccessNames.Of(graph, ace.Trustee));
            var words = AceWords.What(ace.Mask, ace.ObjectType, ace.InheritedObjectType, tree.Schema);
            foreach (var (where, objects) in Places(tree, at))
            {
                var by = new PathStep(
                    StepKind.Entry, objects == 1 ? $"entry on {where}" : $"ACEs on {objects} objects below {where}");
                yield return new RightTail(ace.Trustee, new EntryRight(words, where, rule, objects), [by], null);
            }
        }

        foreach (var (owner, at) in owners)
            foreach (var (where, objects) in Places(tree, at))
                yield return new RightTail(
                    owner, new OwnerRight(where, objects),
                    [new PathStep(
                        StepKind.Entry, objects == 1 ? $"owner of {where}" : $"owner of {objects} objects below {where}")],
                    null);
    }

    private static (List<Ace> Entries, Sid Owner) Of(SecurityDescriptor descriptor) => (
        [.. descriptor.Entries.Where(a =>
            a.Allows && !a.IsInherited && IsOwn(a.Trustee) && (a.Mask.Mapped() & EntryReach.Changing) != 0).Distinct()],
        IsOwn(descriptor.Owner) ? descriptor.Owner : default);

    private static bool IsOwn(Sid sid) =>
        sid.Rid >= FirstOwnRid && sid.ToString().StartsWith("S-1-5-21-", StringComparison.Ordinal);

    private static IEnumerable<(string Where, int Objects)> Places(AccessTree tree, List<int> at)
    {
        if (at.Count <= AlikeAtMost) return at.Select(i => (tree[i].Dn, 1));
        var common = tree.AtAndAbove(at[0]).ToList();
        foreach (var index in at.Skip(1))
        {
            var above = tree.AtAndAbove(index).ToHashSet();
            common.RemoveAll(c => !above.Contains(c));
        }

        return [(common.Count > 0 ? tree[common[0]].Dn : tree[at[0]].Dn, at.Count)];
    }

    private static void Add<T>(Dictionary<T, List<int>> lists, T key, int index) where T : notnull =>
        (lists.TryGetValue(key, out var list) ? list : lists[key] = []).Add(index);
}
