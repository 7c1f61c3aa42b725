using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;

namespace JustRight.Core.Rights.Access;

/// <summary>Entries of access lists in words.</summary>
public static class AceWords
{
    private static readonly (AccessRights Bit, string All, string One)[] Bits =
    [
        (AccessRights.ReadProperty, "read every attribute", "read {0}"),
        (AccessRights.WriteProperty, "write every attribute", "write {0}"),
        (AccessRights.ValidatedWrite, "use every validated write", "use the validated write {0}"),
        (AccessRights.ControlAccess, "use every extended right", "{0}"),
        (AccessRights.CreateChild, "create children of every class", "create {0}"),
        (AccessRights.DeleteChild, "delete children of every class", "delete {0}"),
        (AccessRights.Delete, "delete it", "delete it"),
        (AccessRights.DeleteTree, "delete it with all below it", "delete it with all below it"),
        (AccessRights.ListContents, "list its children", "list its children"),
        (AccessRights.ListObject, "see it", "see it"),
        (AccessRights.ReadControl, "read its access list", "read its access list"),
        (AccessRights.WriteDacl, "change its access list", "change its access list"),
        (AccessRights.WriteOwner, "take ownership", "take ownership"),
    ];

    /// <summary>What an entry lets or forbids, without saying whom.</summary>
    public static string What(AccessRights mask, Guid? objectType, Guid? inheritedBy, DirectorySchema schema)
    {
        var mapped = mask.Mapped();
        var name = objectType is { } id ? schema.NameOf(id) : null;
        List<string> words;
        if ((mapped & AccessRights.FullControl) == AccessRights.FullControl)
            words = [name is null ? "do everything" : $"do everything with {name}"];
        else
            words = [.. Bits.Where(b => mapped.HasFlag(b.Bit)).Select(b =>
                name is null
                    ? b.All
                    : string.Format(
                        System.Globalization.CultureInfo.InvariantCulture, b.One,
                        b.Bit == AccessRights.ControlAccess ? name.ToLowerInvariant() : name)).Distinct()];
        if (words.Count == 0) words = [$"use the bits 0x{(uint)mask:x}"];
        return string.Join(", ", words) + (inheritedBy is { } of ? $" of {schema.NameOf(of)}" : "");
    }

    /// <summary>A whole entry: <c>allow FENNMOOR\svc-rounds: write mail of user</c>.</summary>
    /// <param name="nameOf">The name of a SID.</param>
    public static string Of(Ace ace, DirectorySchema schema, Func<Sid, string> nameOf)
    {
        if (!ace.IsKnown) return ace.ToString();
        var marks = new List<string>();
        if (ace.IsInherited) marks.Add("inherited");
        if (!ace.IsEffective) marks.Add("only for what is below");
        else if (!ace.Flags.HasFlag(AceFlags.ContainerInherit)) marks.Add("here only");
        return $"{(ace.Denies ? "deny" : ace.Allows ? "allow" : "audit")} {nameOf(ace.Trustee)}: {What(ace.Mask, ace.ObjectType, ace.InheritedObjectType, schema)}{(marks.Count == 0 ? "" : $" ({string.Join(", ", marks)})")}";
    }
}
