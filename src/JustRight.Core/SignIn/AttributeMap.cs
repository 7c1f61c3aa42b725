using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Sheets;

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
    /// <summary>The attributes of people that products ask for, by neutral name; null where the family has none.</summary>
    private static readonly IReadOnlyList<(string Key, string? AdLike, string? InetOrgPerson)> OfPeople =
    [
        (SettingKeys.DisplayName, "displayName", "cn"),
        (SettingKeys.GivenName, "givenName", "givenName"),
        (SettingKeys.Surname, "sn", "sn"),
        (SettingKeys.Mail, "mail", "mail"),
        (SettingKeys.UniqueId, "objectGUID", "entryUUID"),
        (SettingKeys.UserPrincipalName, "userPrincipalName", null),
        (SettingKeys.Phone, "telephoneNumber", "telephoneNumber"),
        (SettingKeys.Mobile, "mobile", "mobile"),
        (SettingKeys.Photo, "thumbnailPhoto", "jpegPhoto"),
        (SettingKeys.Language, "preferredLanguage", "preferredLanguage"),
        (SettingKeys.Department, "department", "departmentNumber"),
        (SettingKeys.Company, "company", "o"),
        (SettingKeys.Office, "physicalDeliveryOfficeName", "physicalDeliveryOfficeName"),
        (SettingKeys.JobTitle, "title", "title"),
        (SettingKeys.Manager, "manager", "manager"),
        (SettingKeys.EmployeeNumber, "employeeID", "employeeNumber"),
        (SettingKeys.Description, "description", "description"),
    ];

    /// <summary>The neutral names of the attributes of people, which an estate may keep elsewhere.</summary>
    public static IEnumerable<string> Keys => OfPeople.Select(a => a.Key).Prepend(SettingKeys.LogonName);

    /// <summary>The attribute that a directory keeps something in; null where its family has none.</summary>
    /// <param name="key">A neutral name, one of <see cref="Keys"/>.</param>
    public static string? AttributeOf(PeopleDirectory directory, string key)
    {
        if (directory.Attributes.TryGetValue(key, out var own)) return own;
        var adLike = directory.Family == DirectoryFamily.AdLike;
        if (key == SettingKeys.LogonName) return adLike ? "sAMAccountName" : "uid";
        var (_, inAdLike, inInetOrgPerson) = OfPeople.First(a => a.Key == key);
        return adLike ? inAdLike : inInetOrgPerson;
    }

    /// <summary>The attribute that holds what people type; null where the family has none.</summary>
    public static string? TypedIn(PeopleDirectory directory, TypedForm form) => form switch
    {
        TypedForm.LogonName => AttributeOf(directory, SettingKeys.LogonName),
        TypedForm.Upn => AttributeOf(directory, SettingKeys.UserPrincipalName),
        TypedForm.Mail => AttributeOf(directory, SettingKeys.Mail),
        TypedForm.ShortName => directory.IsOfDomain ? AttributeOf(directory, SettingKeys.LogonName) : null,
    };

    /// <summary>The map of a directory.</summary>
    public static AttributeMap Of(PeopleDirectory directory)
    {
        var (logonName, shown, id) = (
            AttributeOf(directory, SettingKeys.LogonName)!, AttributeOf(directory, SettingKeys.DisplayName)!,
            AttributeOf(directory, SettingKeys.UniqueId)!);
        if (directory.Family == DirectoryFamily.AdLike)
            return new AttributeMap("user", logonName, shown, id, "memberOf", "group", "cn", "member", true);
        var (groupClass, member) = directory.Groups switch
        {
            GroupKind.GroupOfUniqueNames => ("groupOfUniqueNames", "uniqueMember"),
            GroupKind.PosixGroup => ("posixGroup", "memberUid"),
            GroupKind.GroupOfNames => ("groupOfNames", "member"),
            GroupKind.Group => ("group", "member"),
        };
        return new AttributeMap(
            "inetOrgPerson", logonName, shown, id, directory.BackLink ? "memberOf" : null, groupClass, "cn", member,
            directory.Groups != GroupKind.PosixGroup);
    }

    /// <summary>The attributes that a survey of people and groups reads, so that filters can be tried against it.</summary>
    public static IReadOnlyList<string> Surveyed(PeopleDirectory directory) =>
    [
        .. (directory.Family == DirectoryFamily.AdLike ? OfAdLike : OfInetOrgPerson)
            .Concat(directory.Attributes.Values).Distinct(StringComparer.OrdinalIgnoreCase),
    ];

    private static readonly IReadOnlyList<string> OfAdLike =
    [
        "objectClass", "objectCategory", "cn", "name", "sAMAccountName", "userPrincipalName", "displayName", "givenName", "sn",
        "mail", "memberOf", "member", "userAccountControl", "groupType", "isCriticalSystemObject", "description", "department",
        "title", "company", "employeeID", "primaryGroupID", "distinguishedName",
    ];

    private static readonly IReadOnlyList<string> OfInetOrgPerson =
    [
        "objectClass", "cn", "uid", "displayName", "givenName", "sn", "mail", "memberOf", "member", "uniqueMember",
        "memberUid", "description", "ou", "o", "title", "employeeNumber", "employeeType", "uidNumber", "gidNumber",
    ];
}
