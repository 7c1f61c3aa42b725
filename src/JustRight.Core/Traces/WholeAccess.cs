using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Traces;

/// <summary>The kinds of thing that can be done to one object.</summary>
public enum ObjectActKind
{
    /// <summary>To the object itself: delete it, change its access list.</summary>
    Itself,

    /// <summary>An extended right.</summary>
    ExtendedRight,

    /// <summary>A validated write.</summary>
    ValidatedWrite,

    /// <summary>Writing an attribute.</summary>
    Write,

    /// <summary>Reading an attribute.</summary>
    Read,

    /// <summary>Creating a child of a class.</summary>
    Create,

    /// <summary>Deleting a child of a class.</summary>
    DeleteChild,
}

/// <summary>One thing that can be done to an object, and what decides it for an account.</summary>
/// <param name="What">What, in words: <c>write mail</c>.</param>
/// <param name="By">The entry that decided; null where none did.</param>
/// <param name="Number">The entry's place in the list where it stands, from 1; 0 where none decided.</param>
/// <param name="At">The object in whose list the entry was found: the object itself, or the one above it for deleting; -1 where
/// that was not read.</param>
/// <param name="From">Where an inherited entry stands as a direct one; the same as <paramref name="At"/> otherwise.</param>
public sealed record ObjectAct(
    ObjectActKind Kind, string What, AccessAnswer Answer, AccessReason Reason, Ace? By, int Number, int At, int From);

/// <summary>Everything that an account can do to one object, and everything it cannot.</summary>
public static class WholeAccess
{
    private static readonly string[] UsualChildren =
    [
        "computer", "contact", "container", "group", "inetOrgPerson", "msDS-GroupManagedServiceAccount",
        "msDS-ManagedServiceAccount", "organizationalUnit", "user",
    ];

    private static readonly (AccessRights Bits, string Words)[] OfObject =
    [
        (AccessRights.ListContents, "list its children"), (AccessRights.ReadControl, "read its access list"),
        (AccessRights.WriteDacl, "change its access list"), (AccessRights.WriteOwner, "take ownership"),
        (AccessRights.DeleteTree, "delete it with all below it"),
    ];

    /// <summary>Everything, kind by kind; nothing when the object's class is not in the schema.</summary>
    /// <param name="sweep">The account over the tree.</param>
    /// <param name="index">The object.</param>
    public static IReadOnlyList<ObjectAct> Of(AccessSweep sweep, int index)
    {
        var (tree, schema) = (sweep.Tree, sweep.Tree.Schema);
        if (schema.Class(tree[index].Class) is not { } of) return [];
        var attributes = schema.AttributesOf(of.Name);
        var acts = new List<ObjectAct>();
        foreach (var (bits, words) in OfObject) acts.Add(Ask(ObjectActKind.Itself, words, AccessQuestion.Simple(bits)));
        acts.Insert(0, Delete(sweep, index, of));
        foreach (var right in schema.RightsOf(of.Name, ControlRightKinds.ExtendedRight))
            acts.Add(Ask(ObjectActKind.ExtendedRight, right.Title, AccessQuestion.Extended(right)));
        foreach (var right in schema.RightsOf(of.Name, ControlRightKinds.ValidatedWrite))
            acts.Add(Ask(ObjectActKind.ValidatedWrite, right.Title, AccessQuestion.Validated(right.Id)));
        foreach (var attribute in attributes.Where(a => !a.IsSystemOnly))
            acts.Add(Ask(ObjectActKind.Write, $"write {attribute.Name}", AccessQuestion.Write(attribute, of)));
        foreach (var attribute in attributes)
            acts.Add(Ask(ObjectActKind.Read, $"read {attribute.Name}", AccessQuestion.Read(attribute, of)));
        foreach (var child in tree.IsContainer(index) ? UsualChildren.Select(schema.Class).OfType<SchemaClass>() : [])
        {
            acts.Add(Ask(ObjectActKind.Create, $"create a {child.Name}", AccessQuestion.CreateChild(child)));
            acts.Add(Ask(ObjectActKind.DeleteChild, $"delete a {child.Name}", AccessQuestion.DeleteChild(child)));
        }

        return acts;

        ObjectAct Ask(ObjectActKind kind, string what, AccessQuestion question) =>
            Told(tree, kind, what, sweep.Ask(index, question), index);
    }

    /// <summary>By its own list or by that of the object above [MS-ADTS 3.1.1.5.5.1].</summary>
    private static ObjectAct Delete(AccessSweep sweep, int index, SchemaClass of)
    {
        var own = sweep.Ask(index, AccessQuestion.Simple(AccessRights.Delete));
        var above = sweep.Tree.ParentOf(index);
        var parents = above < 0 ? own : sweep.Ask(above, AccessQuestion.DeleteChild(of));
        var byParent = own.Answer != AccessAnswer.Yes && above >= 0
            && (parents.Answer == AccessAnswer.Yes || (own.Answer == AccessAnswer.No && parents.Answer == AccessAnswer.Unknown));
        return Told(
            sweep.Tree, ObjectActKind.Itself, "delete it", byParent ? parents : own, byParent ? above : index);
    }

    private static ObjectAct Told(AccessTree tree, ObjectActKind kind, string what, AccessDecision decision, int at)
    {
        if (tree.DescriptorOf(at) is not { } list) return new(kind, what, decision.Answer, decision.Reason, null, 0, -1, -1);
        if (decision.Entry < 0) return new(kind, what, decision.Answer, decision.Reason, null, 0, at, at);
        var ace = list.Entries[decision.Entry];
        return new(
            kind, what, decision.Answer, decision.Reason, ace, decision.Entry + 1, at, EntryOrigin.Of(tree, at, ace).Index);
    }
}
