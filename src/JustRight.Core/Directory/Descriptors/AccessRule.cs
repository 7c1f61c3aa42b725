namespace JustRight.Core.Directory.Descriptors;

/// <summary>
/// An entry to be put into an access list or taken out of it, before it is known which SID its principal has: the plan names
/// accounts that do not exist yet.
/// </summary>
/// <param name="Principal"><c>DOMAIN\name</c>, or a SID.</param>
/// <param name="Denies">Whether it denies.</param>
/// <param name="Rights">The bits.</param>
/// <param name="ObjectType">The attribute, property set, right or child class it is limited to.</param>
/// <param name="InheritedBy">The class of object below that inherits it.</param>
/// <param name="Flags">How it is inherited.</param>
public sealed record AccessRule(
    string Principal, bool Denies, AccessRights Rights, Guid? ObjectType, Guid? InheritedBy, AceFlags Flags)
{
    /// <summary>Its stable identity.</summary>
    public string Key => $"{(Denies ? "deny" : "allow")} {Principal} {(uint)Rights:x} {ObjectType} {InheritedBy} {(byte)Flags:x}";

    /// <summary>The entry, once the principal's SID is known.</summary>
    public Ace ToAce(Sid trustee)
    {
        var isObject = ObjectType is not null || InheritedBy is not null;
        var type = Denies ? isObject ? AceType.DenyObject : AceType.Deny : isObject ? AceType.AllowObject : AceType.Allow;
        return new Ace(type, Flags, Rights, trustee) { ObjectType = ObjectType, InheritedObjectType = InheritedBy };
    }

    /// <summary>The rule of an entry that was found.</summary>
    public static AccessRule Of(Ace ace, string principal) =>
        new(principal, ace.Denies, ace.Mask, ace.ObjectType, ace.InheritedObjectType, ace.Flags & ~AceFlags.Inherited);
}
