namespace JustRight.Core.Directory.Descriptors;

/// <summary>The control bits of a descriptor [MS-DTYP 2.4.6].</summary>
[Flags]
public enum DescriptorControl : ushort
{
    /// <summary>None.</summary>
    None = 0,

    /// <summary>The owner was filled in by default.</summary>
    OwnerDefaulted = 0x1,

    /// <summary>The group was filled in by default.</summary>
    GroupDefaulted = 0x2,

    /// <summary>There is an access list, or its absence is meant: with no list, all is allowed.</summary>
    DaclPresent = 0x4,

    /// <summary>The access list was filled in by default.</summary>
    DaclDefaulted = 0x8,

    /// <summary>There is an audit list.</summary>
    SaclPresent = 0x10,

    /// <summary>The audit list was filled in by default.</summary>
    SaclDefaulted = 0x20,

    /// <summary>Trusted server.</summary>
    DaclTrusted = 0x40,

    /// <summary>Server security.</summary>
    ServerSecurity = 0x80,

    /// <summary>Inheritance of the access list was asked for.</summary>
    DaclInheritRequired = 0x100,

    /// <summary>Inheritance of the audit list was asked for.</summary>
    SaclInheritRequired = 0x200,

    /// <summary>The access list takes part in inheritance.</summary>
    DaclAutoInherited = 0x400,

    /// <summary>The audit list takes part in inheritance.</summary>
    SaclAutoInherited = 0x800,

    /// <summary>The access list inherits nothing.</summary>
    DaclProtected = 0x1000,

    /// <summary>The audit list inherits nothing.</summary>
    SaclProtected = 0x2000,

    /// <summary>The resource manager's byte is valid.</summary>
    ResourceManagerValid = 0x4000,

    /// <summary>The parts follow the header.</summary>
    SelfRelative = 0x8000,
}

/// <summary>A list of entries, in stored order [MS-DTYP 2.4.5].</summary>
/// <param name="Revision">2, or 4 where entries name object types.</param>
public sealed record Acl(byte Revision, IReadOnlyList<Ace> Aces)
{
    /// <summary>The revision of lists whose entries name no object types.</summary>
    public const byte PlainRevision = 2;

    /// <summary>The revision of lists whose entries may name object types.</summary>
    public const byte ObjectRevision = 4;

    /// <summary>A list with the revision its entries ask for.</summary>
    public static Acl Of(IReadOnlyList<Ace> aces) =>
        new(aces.Any(a => a.IsObject || !a.IsKnown) ? ObjectRevision : PlainRevision, aces);

    /// <inheritdoc/>
    public bool Equals(Acl? other) => other is not null && Revision == other.Revision && Aces.SequenceEqual(other.Aces);

    /// <inheritdoc/>
    public override int GetHashCode() => Aces.Aggregate(Aces.Count, (hash, ace) => HashCode.Combine(hash, ace));
}

/// <summary>A security descriptor: owner, group, access list and audit list [MS-DTYP 2.4.6].</summary>
/// <param name="Owner">Its owner, or empty.</param>
/// <param name="Group">Its group, or empty.</param>
/// <param name="Dacl">The access list. Null with <see cref="DescriptorControl.DaclPresent"/> allows all; null without it means
/// that it was not given; an empty list allows nothing. The three are kept apart.</param>
/// <param name="Sacl">The audit list.</param>
public sealed record SecurityDescriptor(DescriptorControl Control, Sid Owner, Sid Group, Acl? Dacl, Acl? Sacl)
{
    /// <summary>The control bits that say what the access list inherits, and whether it is there.</summary>
    public const DescriptorControl OfDacl = DescriptorControl.DaclPresent | DescriptorControl.DaclInheritRequired
        | DescriptorControl.DaclAutoInherited | DescriptorControl.DaclProtected;

    /// <summary>Whether the access list inherits nothing.</summary>
    public bool IsProtected => Control.HasFlag(DescriptorControl.DaclProtected);

    /// <summary>Whether an access list, or its meant absence, was given.</summary>
    public bool HasDacl => Control.HasFlag(DescriptorControl.DaclPresent);

    /// <summary>The entries of the access list.</summary>
    public IReadOnlyList<Ace> Entries => Dacl?.Aces ?? [];

    /// <summary>
    /// The access list alone, without owner, group and audit list: what is sent to change it, and what is kept of it.
    /// </summary>
    public SecurityDescriptor DaclOnly => new(
        Control & (DescriptorControl.SelfRelative | OfDacl),
        default, default, Dacl, null);

    /// <summary>The descriptor with another access list.</summary>
    public SecurityDescriptor WithEntries(IReadOnlyList<Ace> aces) => this with
    {
        Dacl = Acl.Of(aces),
        Control = Control | DescriptorControl.DaclPresent,
    };

    /// <summary>The descriptor with inheritance switched on or off, its entries untouched.</summary>
    public SecurityDescriptor WithProtection(bool isProtected) =>
        this with
        {
            Control = isProtected ? Control | DescriptorControl.DaclProtected : Control & ~DescriptorControl.DaclProtected,
        };
}
