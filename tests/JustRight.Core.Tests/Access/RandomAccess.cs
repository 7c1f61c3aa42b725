using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Tests.Access;

/// <summary>Generators of descriptors that the text form can hold, and of ones with entries not understood.</summary>
internal static class RandomAccess
{
    private static readonly Sid[] Trustees =
    [
        Sid.Everyone, Sid.AuthenticatedUsers, Sid.Self, Sid.CreatorOwner, Sid.OwnerRights, Sid.Parse("S-1-5-32-544"), Sid.Parse(
            "S-1-5-21-1-2-3-1107"), Sid.Parse(
            "S-1-0x123456789ABC-7-8"),
    ];

    private static readonly Gen<Guid?> MaybeGuid = Gen.OneOf(Gen.Const((Guid?)null), Gen.Guid.Select(g => (Guid?)g));

    public static readonly Gen<Ace> KnownAce = Gen.Select(
        Gen.OneOfConst(Enum.GetValues<AceType>()), Gen.Byte.Select(b =>
            (AceFlags)(b & 0xDF)), Gen.UInt.Select(m => (AccessRights)m), Gen.OneOfConst(Trustees), MaybeGuid, MaybeGuid,
        (type, flags, mask, trustee, objectType, inheritedType) =>
        {
            var ace = new Ace(type, flags, mask, trustee);
            return ace.IsObject ? ace with { ObjectType = objectType, InheritedObjectType = inheritedType } : ace;
        });

    public static readonly Gen<Ace> AnyAce = Gen.Frequency(
        (9, KnownAce),
        (1, Gen.Select(
            Gen.Byte[9, 200], Gen.Byte, Gen.Byte.Array[0, 40],
            (type, flags, body) => new Ace((AceType)type, (AceFlags)flags, AccessRights.None, default)
            {
                RawBody = Convert.ToHexString(body),
            })));

    public static Gen<SecurityDescriptor> Descriptor(Gen<Ace> ace) => Gen.Select(
        Gen.OneOfConst(Trustees), Gen.Bool, Gen.Bool, List(ace), List(ace), Gen.Int[0, 7], Gen.Int[0, 7],
        (sid, hasOwner, hasGroup, dacl, sacl, daclBits, saclBits) =>
        {
            var control = DescriptorControl.SelfRelative;
            if (dacl.Present)
                control |= DescriptorControl.DaclPresent | Bits(
                    daclBits, DescriptorControl.DaclProtected, DescriptorControl.DaclInheritRequired,
                    DescriptorControl.DaclAutoInherited);
            if (sacl.Present)
                control |= DescriptorControl.SaclPresent | Bits(
                    saclBits, DescriptorControl.SaclProtected, DescriptorControl.SaclInheritRequired,
                    DescriptorControl.SaclAutoInherited);
            return new SecurityDescriptor(control, hasOwner ? sid : default, hasGroup ? sid : default, dacl.Acl, sacl.Acl);
        });

    private static Gen<(bool Present, Acl? Acl)> List(Gen<Ace> ace) => Gen.Frequency(
        (1, Gen.Const((false, (Acl?)null))), // absent
        (1, Gen.Const((true, (Acl?)null))), // null
        (6, ace.Array[0, 6].Select(a => (true, (Acl?)Acl.Of(a))))); // empty, or with entries

    private static DescriptorControl Bits(int bits, DescriptorControl a, DescriptorControl b, DescriptorControl c) =>
        ((bits & 1) != 0 ? a : 0) | ((bits & 2) != 0 ? b : 0) | ((bits & 4) != 0 ? c : 0);
}
