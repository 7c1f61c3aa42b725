using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>The child that inherits.</summary>
/// <param name="Owner">Its owner, for whom Creator Owner stands.</param>
/// <param name="Group">Its group, for which Creator Group stands.</param>
/// <param name="Classes">The GUIDs of its most specific structural class and of its auxiliary classes.</param>
public sealed record Heir(Sid Owner, Sid Group, IReadOnlyList<Guid> Classes);

/// <summary>
/// What a child's access list becomes when its parent's changes [MS-DTYP 2.5.3.4.2, MS-ADTS 6.1.3]. Every child in a directory
/// is a container.
/// </summary>
public static class Inheritance
{
    private const AceFlags AllInherit = AceFlags.ObjectInherit | AceFlags.ContainerInherit | AceFlags.NoPropagate | AceFlags.InheritOnly;

    /// <summary>
    /// The child's descriptor after its parent got a new list: its own entries, then what it inherits. A protected child stays
    /// as it is.
    /// </summary>
    public static SecurityDescriptor Apply(SecurityDescriptor child, Acl? parent, IReadOnlyList<Guid> classes)
    {
        if (child.IsProtected || child is { HasDacl: true, Dacl: null }) return child;
        List<Ace> entries = [
            .. child.Entries.Where(a => !a.IsInherited), .. From(parent, new Heir(child.Owner, child.Group, classes))];
        return child.WithEntries(entries) with
        {
            Control = child.Control | DescriptorControl.DaclPresent | DescriptorControl.DaclAutoInherited,
        };
    }

    /// <summary>The entries that a child inherits, in the parent's order.</summary>
    public static List<Ace> From(Acl? parent, Heir heir)
    {
        var inherited = new List<Ace>();
        foreach (var ace in parent?.Aces ?? []) Inherit(ace, heir, inherited);
        return inherited;
    }

    /// <summary>One entry of the parent gives none, one or two of the child's.</summary>
    private static void Inherit(Ace ace, Heir heir, List<Ace> to)
    {
        var forContainers = ace.Flags.HasFlag(AceFlags.ContainerInherit);
        if (!forContainers && !ace.Flags.HasFlag(AceFlags.ObjectInherit)) return;
        var applies = forContainers && (ace.InheritedObjectType is not { } only || heir.Classes.Contains(only));
        if (ace.Flags.HasFlag(AceFlags.NoPropagate))
        {
            // It goes no further: the child keeps only the copy that counts for itself, if it counts at all.
            if (applies) to.Add(Resolved(ace, heir));
            return;
        }

        var kept = ace with { Flags = ace.Flags | AceFlags.Inherited };
        if (!applies)
        {
            to.Add(kept with { Flags = kept.Flags | AceFlags.InheritOnly }); // on its way to the grandchildren
            return;
        }

        if (!NeedsResolving(ace))
        {
            to.Add(kept with { Flags = kept.Flags & ~AceFlags.InheritOnly });
            return;
        }

        // It splits: a copy with owner and bits filled in counts here, the original goes on to the grandchildren.
        to.Add(Resolved(ace, heir));
        to.Add(kept with { Flags = kept.Flags | AceFlags.InheritOnly });
    }

    private static bool NeedsResolving(Ace ace) =>
        ace.IsKnown && (ace.Trustee == Sid.CreatorOwner || ace.Trustee == Sid.CreatorGroup || ace.Mask.HasGeneric());

    /// <summary>
    /// The copy that counts for the child alone. Its class has been matched, so it no longer names one; with no GUID left it is
    /// a plain entry.
    /// </summary>
    private static Ace Resolved(Ace ace, Heir heir)
    {
        var flags = (ace.Flags & ~AllInherit) | AceFlags.Inherited;
        if (!ace.IsKnown) return ace with { Flags = flags };
        return ace with
        {
            Flags = flags,
            Mask = ace.Mask.Mapped(),
            Trustee = ace.Trustee == Sid.CreatorOwner ? heir.Owner : ace.Trustee == Sid.CreatorGroup ? heir.Group : ace.Trustee,
            InheritedObjectType = null,
            Type = ace.ObjectType is not null ? ace.Type : ace.Type switch
            {
                AceType.AllowObject => AceType.Allow,
                AceType.DenyObject => AceType.Deny,
                AceType.AuditObject => AceType.Audit,
                AceType.AlarmObject => AceType.Alarm,
                var plain => plain,
            },
        };
    }
}
