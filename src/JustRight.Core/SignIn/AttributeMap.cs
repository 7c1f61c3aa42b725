using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Core.SignIn;

/// <summary>Which attributes carry what, and which classes hold whom, in a directory.</summary>
/// <param name="PeopleClass">The class of people.</param>
/// <param name="LogonName">What a person types to sign in.</param>
/// <param name="DisplayName">The name to show.</param>
/// <param name="UniqueId">What stays the same when a person is renamed or moved.</param>
/// <param name="MemberOf">The groups that a person is in, as the person carries them; null where people carry none.</param>
/// <param name="GroupClass">The class of groups.</param>
/// <param name="GroupName">The name of a group.</param>
/// <param name="Member">Who is in a group, as the group carries it.</param>
/// <param name="MemberIsName">Whether that holds distinguished names; otherwise logon names.</param>
public sealed record AttributeMap(
    string PeopleClass, string LogonName, string DisplayName, string UniqueId, string? MemberOf, string GroupClass,
    string GroupName, string Member, bool MemberIsName)
{
    /// <summary>A person's mail address; the same in both families, as are the next two.</summary>
    public const string Mail = "mail";

    /// <summary>A person's given name.</summary>
    public const string GivenName = "givenName";

    /// <summary>A person's surname.</summary>
    public const string Surname = "sn";

    /// <summary>The map of a directory.</summary>
    public static AttributeMap Of(PeopleDirectory directory)
    {
        if (directory.Family == DirectoryFamily.AdLike)
            return new AttributeMap(
                "user", "sAMAccountName", "displayName", "objectGUID", "memberOf", "group", "cn", "member", true);
        var (groupClass, member) = directory.Groups switch
        {
            GroupKind.GroupOfUniqueNames => ("groupOfUniqueNames", "uniqueMember"),
            GroupKind.PosixGroup => ("posixGroup", "memberUid"),
            _ => ("groupOfNames", "member"),
        };
        return new AttributeMap(
            "inetOrgPerson", "uid", "cn", "entryUUID", directory.BackLink ? "memberOf" : null, groupClass, "cn", member,
            directory.Groups != GroupKind.PosixGroup);
    }

    /// <summary>The attributes that a survey of people and groups reads, so that filters can be tried against it.</summary>
    public static IReadOnlyList<string> Surveyed(DirectoryFamily family) => family == DirectoryFamily.AdLike
        ? ["objectClass", "objectCategory", "cn", "name", "sAMAccountName", "userPrincipalName", "displayName", "givenName", "sn", "mail", "memberOf", "member", "userAccountControl", "groupType", "isCriticalSystemObject",
            "description", "department", "title", "company", "employeeID", "primaryGroupID", "distinguishedName"]
        : [
            "objectClass", "cn", "uid", "displayName", "givenName", "sn", "mail", "memberOf", "member", "uniqueMember",
            "memberUid", "description", "ou", "o", "title", "employeeNumber", "employeeType", "uidNumber", "gidNumber"];
}
