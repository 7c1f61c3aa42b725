using JustRight.Core.Directory.Descriptors;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>Random access lists that speak of what the trials try, in any order, with every kind of entry.</summary>
public sealed class RandomDescriptors(Random random, AccessScene scene)
{
    private static readonly string[] Attributes = [
        "description", "telephoneNumber", "info", "displayName", "member", "wWWHomePage", "msPKIAccountCredentials"];
    private static readonly string[] Classes = ["organizationalUnit", "user", "group", "computer", "contact", "inetOrgPerson"];

    private static readonly AccessRights[] Bits =
    [
        AccessRights.WriteProperty, AccessRights.ReadProperty, AccessRights.ControlAccess, AccessRights.ValidatedWrite,
        AccessRights.CreateChild, AccessRights.DeleteChild,
        AccessRights.Delete, AccessRights.WriteDacl, AccessRights.WriteOwner, AccessRights.ListContents, AccessRights.ReadControl,
        AccessRights.ListObject,
        AccessRights.GenericAll, AccessRights.GenericWrite, AccessRights.GenericRead, AccessRights.FullControl,
    ];

    private readonly Guid[] _guids =
    [
        .. Attributes.Select(a => scene.Schema.Attribute(a)!)
            .SelectMany(a => a.PropertySet is { } set ? [a.Id, set] : new[] { a.Id }),
        .. Classes.Select(c => scene.Schema.Class(c)!.Id),
        .. scene.Schema.Rights.Where(r =>
            r.Name is "User-Force-Change-Password" or "Self-Membership" or "User-Change-Password" or "Send-As")
            .Select(r => r.Id),
        Guid.Parse("0b1e5a4e-6d0b-4f0e-9d3c-1f6f4b0a7c11"), // nothing's
    ];

    private readonly Guid[] _classes = [.. Classes.Select(c => scene.Schema.Class(c)!.Id)];

    /// <summary>A descriptor that keeps administrators in charge, with up to nine random entries after that.</summary>
    public SecurityDescriptor Next(bool inheritable)
    {
        var owner = random.Next(3) == 0 ? scene.Accounts[random.Next(scene.Accounts.Count)].Object.Sid : scene.AdminGroup;
        List<Ace> aces = [Ace.Allow(
            scene.AdminGroup, AccessRights.FullControl, flags: inheritable ? AceFlags.ContainerInherit : AceFlags.None)];
        for (var i = random.Next(10); i > 0; i--) aces.Add(NextAce(inheritable));
        var control = DescriptorControl.DaclPresent | DescriptorControl.SelfRelative | (
            random.Next(3) == 0 ? DescriptorControl.None : DescriptorControl.DaclProtected);
        return new SecurityDescriptor(control, owner, scene.AdminGroup, Acl.Of(aces), null);
    }

    public Ace NextAce(bool inheritable)
    {
        var mask = AccessRights.None;
        for (var i = random.Next(1, 4); i > 0; i--) mask |= Bits[random.Next(Bits.Length)];
        if (random.Next(4) > 0) mask &= (AccessRights)0xFFFFF; // the wide generic ones now and then only
        if (mask == AccessRights.None) mask = AccessRights.WriteProperty;
        var denies = random.Next(4) == 0;
        var isObject = random.Next(5) < 3;
        var trustee = scene.Trustees[random.Next(scene.Trustees.Count)];
        var flags = AceFlags.None;
        if (inheritable) flags = (AceFlags)random.Next(16);
        else if (random.Next(10) == 0) flags = AceFlags.ContainerInherit | AceFlags.InheritOnly;
        return new Ace(
            isObject ? denies ? AceType.DenyObject : AceType.AllowObject : denies ? AceType.Deny : AceType.Allow, flags, mask,
            trustee)
        {
            ObjectType = isObject && random.Next(5) > 0 ? _guids[random.Next(_guids.Length)] : null,
            InheritedObjectType = isObject && random.Next(3) == 0 ? _classes[random.Next(_classes.Length)] : null,
        };
    }
}
