namespace JustRight.Core.Directory.Descriptors;

/// <summary>The types of access control entries that are understood [MS-DTYP 2.4.4.1]; others are kept as they came.</summary>
public enum AceType : byte
{
    /// <summary>Allows.</summary>
    Allow = 0,

    /// <summary>Denies.</summary>
    Deny = 1,

    /// <summary>Audits.</summary>
    Audit = 2,

    /// <summary>Reserved.</summary>
    Alarm = 3,

    /// <summary>Allows, and may name an attribute, property set, right or class.</summary>
    AllowObject = 5,

    /// <summary>Denies, and may name an attribute, property set, right or class.</summary>
    DenyObject = 6,

    /// <summary>Audits, and may name an attribute, property set, right or class.</summary>
    AuditObject = 7,

    /// <summary>Reserved.</summary>
    AlarmObject = 8,
}

/// <summary>How an entry is inherited [MS-DTYP 2.4.4.1].</summary>
[Flags]
public enum AceFlags : byte
{
    /// <summary>Not at all.</summary>
    None = 0,

    /// <summary>By children that are no containers; directory objects all are containers.</summary>
    ObjectInherit = 0x1,

    /// <summary>By containers.</summary>
    ContainerInherit = 0x2,

    /// <summary>By children, not by grandchildren.</summary>
    NoPropagate = 0x4,

    /// <summary>It does not count for the object that carries it.</summary>
    InheritOnly = 0x8,

    /// <summary>It was inherited.</summary>
    Inherited = 0x10,

    /// <summary>Audits success.</summary>
    AuditSuccess = 0x40,

    /// <summary>Audits failure.</summary>
    AuditFailure = 0x80,
}

/// <summary>One access control entry [MS-DTYP 2.4.4].</summary>
/// <param name="Type">Its type, which may be one that is not understood here.</param>
/// <param name="Trustee">To whom it applies; empty when the type is not understood.</param>
public sealed record Ace(AceType Type, AceFlags Flags, AccessRights Mask, Sid Trustee)
{
    /// <summary>The attribute, property set, validated write, extended right or child class it names, or null for all.</summary>
    public Guid? ObjectType { get; init; }

    /// <summary>
    /// The class of object that inherits it, or null for all. Not consulted when judging, only when inheriting.
    /// </summary>
    public Guid? InheritedObjectType { get; init; }

    /// <summary>For types that are not understood: everything after the header, in hex, written back as it came.</summary>
    public string? RawBody { get; init; }

    /// <summary>Whether the type is understood.</summary>
    public bool IsKnown => RawBody is null;

    /// <summary>Whether it is one of the types that may name an object type.</summary>
    public bool IsObject => Type is AceType.AllowObject or AceType.DenyObject or AceType.AuditObject or AceType.AlarmObject;

    /// <summary>Whether it allows.</summary>
    public bool Allows => Type is AceType.Allow or AceType.AllowObject;

    /// <summary>Whether it denies.</summary>
    public bool Denies => Type is AceType.Deny or AceType.DenyObject;

    /// <summary>Whether it came from above.</summary>
    public bool IsInherited => Flags.HasFlag(AceFlags.Inherited);

    /// <summary>Whether it counts for the object that carries it.</summary>
    public bool IsEffective => !Flags.HasFlag(AceFlags.InheritOnly);

    /// <summary>An entry that allows.</summary>
    /// <param name="trustee">Whom.</param>
    /// <param name="mask">What.</param>
    /// <param name="objectType">On what, or null for all.</param>
    /// <param name="inheritedBy">The class of object below that inherits it, or null for all.</param>
    /// <param name="flags">How it is inherited.</param>
    public static Ace Allow(
        Sid trustee, AccessRights mask, Guid? objectType = null, Guid? inheritedBy = null, AceFlags flags = AceFlags.None) =>
        new(objectType is null && inheritedBy is null ? AceType.Allow : AceType.AllowObject, flags, mask, trustee)
        {
            ObjectType = objectType,
            InheritedObjectType = inheritedBy,
        };

    /// <inheritdoc/>
    public override string ToString() => Sddl.WriteAce(this) ?? $"(an ACE of the unknown type {(byte)Type})";
}
