using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// That an account may not change its own password is no flag in a directory: it is two entries on its access list that deny
/// the right <em>Change Password</em> to Everyone and to Self [MS-ADTS 2.2.16, ADS_UF_PASSWD_CANT_CHANGE].
/// </summary>
public static class OwnPasswordChange
{
    // [MS-ADTS 5.1.3.2.1, User-Change-Password]
    private static readonly Guid ChangePassword = new("ab721a53-1e2f-11d0-9819-00aa0040529b");

    /// <summary>The two entries.</summary>
    public static IReadOnlyList<AccessRule> Denials { get; } =
        [.. new[] { Sid.Everyone, Sid.Self }.Select(s =>
            new AccessRule(WellKnownSids.NameOf(s)!, true, AccessRights.ControlAccess, ChangePassword, null, AceFlags.None))];

    /// <summary>Whether both stand on a list.</summary>
    public static bool IsForbidden(SecurityDescriptor list) =>
        new[] { Sid.Everyone, Sid.Self }.All(trustee => list.Entries.Any(e =>
        e is { IsEffective: true, Denies: true } && e.Trustee == trustee && e.Mask.Mapped().HasFlag(AccessRights.ControlAccess)
            && (e.ObjectType is null || e.ObjectType == ChangePassword)));
}
