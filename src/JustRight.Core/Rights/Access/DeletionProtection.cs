using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// The protection from accidental deletion: entries of its own that deny deleting it to Everyone, and one on its parent
/// that denies Everyone to delete what is below. It stops a slip of the hand, not somebody who may write the list.
/// </summary>
public static class DeletionProtection
{
    private const AccessRights OfObject = AccessRights.Delete | AccessRights.DeleteTree;

    /// <summary>Whether an entry of the object's own denies deleting it to Everyone.</summary>
    public static bool IsOn(SecurityDescriptor list) => list.Entries.Any(IsProtection);

    /// <summary>What switches the protection on: nothing that is there already.</summary>
    /// <param name="tree">The object and its parent.</param>
    /// <param name="at">The object.</param>
    public static IReadOnlyList<DirectoryChange> Set(AccessTree tree, int at, string domain)
    {
        var changes = new List<DirectoryChange>();
        var denied = tree.DescriptorOf(at)!.Entries.Where(IsProtection)
            .Aggregate(AccessRights.None, (bits, e) => bits | e.Mask.Mapped());
        if ((OfObject & ~denied) != 0) changes.Add(Deny(tree, at, OfObject, domain));
        if (tree.ParentOf(at) is >= 0 and var parent && tree.DescriptorOf(parent) is { } above
            && !above.Entries.Any(e => IsDenial(e) && e.Mask.Mapped().HasFlag(AccessRights.DeleteChild)))
            changes.Add(Deny(tree, parent, AccessRights.DeleteChild, domain));
        return changes;
    }

    /// <summary>What switches the protection on of an OU that was just made: its own access list says nothing yet.</summary>
    public static IReadOnlyList<DirectoryChange> OfNew(string domain, DistinguishedName dn)
    {
        var own = Denial(dn.Text, OfObject);
        return dn.Parent is { } parent ? [own, Denial(parent.Text, AccessRights.DeleteChild)] : [own];

        AddAccessRule Denial(string at, AccessRights rights) =>
            new(domain, at, DenialOf(rights), AceWords.What(rights, null, null, DirectorySchema.Empty));
    }

    /// <summary>Whether a rule denies everybody to delete what is below an object, as the protection of each of its children
    /// does.</summary>
    public static bool ProtectsChildren(AccessRule rule) =>
        rule.Denies && rule.Principal == WellKnownSids.NameOf(Sid.Everyone) && rule.ObjectType is null
            && rule.Rights == AccessRights.DeleteChild;

    /// <summary>
    /// What lifts it: the object's own entries that deny deleting it. The one on the parent protects its other children too,
    /// and stays: it stops nobody who may delete the object itself.
    /// </summary>
    public static IReadOnlyList<DirectoryChange> Lift(AccessTree tree, int at, string domain)
    {
        var changes = new List<DirectoryChange>();
        var list = tree.DescriptorOf(at)!;
        while (list.Entries.FirstOrDefault(IsProtection) is { IsKnown: true } ace)
        {
            var rule = AccessRule.Of(ace, WellKnownSids.NameOf(Sid.Everyone)!);
            (list, var position) = AclEditor.Remove(list, ace);
            changes.Add(new RemoveAccessRule(domain, tree[at].Dn, rule, Words(rule, tree.Schema), position));
        }

        return changes;
    }

    private static bool IsProtection(Ace ace) => IsDenial(ace) && (ace.Mask.Mapped() & OfObject) != 0;

    private static bool IsDenial(Ace ace) =>
        ace is { IsKnown: true, Denies: true, IsInherited: false, IsEffective: true, ObjectType: null }
            && ace.Trustee == Sid.Everyone;

    private static AddAccessRule Deny(AccessTree tree, int at, AccessRights rights, string domain)
    {
        var rule = DenialOf(rights);
        return new AddAccessRule(domain, tree[at].Dn, rule, Words(rule, tree.Schema));
    }

    private static AccessRule DenialOf(AccessRights rights) =>
        new(WellKnownSids.NameOf(Sid.Everyone)!, true, rights, null, null, AceFlags.None);

    private static string Words(AccessRule rule, DirectorySchema schema) =>
        AceWords.What(rule.Rights, rule.ObjectType, rule.InheritedBy, schema);
}
