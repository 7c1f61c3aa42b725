namespace JustRight.Core.Sheets;

/// <summary>The neutral names of what products want to be told, in the order in which they are shown.</summary>
public static class SettingKeys
{
#pragma warning disable CS1591 // each is explained in the table below
    public const string Address = "address", Host = "host", Port = "port", Security = "security", Authorities = "trusted-authorities";
    public const string BindName = "bind-name", BindPassword = "bind-password";
    public const string Base = "base", PeopleBase = "people-base", GroupsBase = "groups-base";
    public const string PeopleClass = "people-class", PeopleFilter = "people-filter", SignInFilter = "sign-in-filter";
    public const string LogonName = "logon-name", DisplayName = "display-name", GivenName = "given-name", Surname = "surname", Mail = "mail", UniqueId = "unique-id";
    public const string MemberOf = "member-of", EnterGroup = "enter-group", EnterGroupName = "enter-group-name", NestedGroups = "nested-groups";
    public const string GroupClass = "group-class", GroupsFilter = "groups-filter", GroupName = "group-name", Member = "member", MemberHolds = "member-holds";
    public const string PageSize = "page-size", Domain = "domain", ShortDomain = "short-domain";
#pragma warning restore CS1591

    /// <summary>Every key with what it is.</summary>
    public static readonly IReadOnlyList<(string Key, string Says)> All =
    [
        (Address, "the directory as one address (URL)"),
        (Host, "the name of the server"),
        (Port, "its TCP port"),
        (Security, "the protection of the connection: tls, start-tls or plain"),
        (Authorities, "the authorities whose certificates to trust"),
        (BindName, "the bind account"),
        (BindPassword, "its password, as a reference; a person types the password"),
        (Base, "the base for people and groups"),
        (PeopleBase, "the base for people"),
        (GroupsBase, "the base for groups"),
        (PeopleClass, "the class of people"),
        (PeopleFilter, "who is found"),
        (SignInFilter, "who is found by the typed name, with the product's placeholder"),
        (LogonName, "the attribute with the name that a person types"),
        (DisplayName, "the attribute with the name to show"),
        (GivenName, "the attribute with the given name"),
        (Surname, "the attribute with the surname"),
        (Mail, "the attribute with the mail address"),
        (UniqueId, "the attribute that stays the same when a person is renamed or moved"),
        (MemberOf, "the attribute with the groups that a person is in"),
        (EnterGroup, "the group whose members may sign in, by DN"),
        (EnterGroupName, "the same group by its name"),
        (NestedGroups, "whether members of nested groups count: yes or no"),
        (GroupClass, "the class of groups"),
        (GroupsFilter, "which groups an administrator sees"),
        (GroupName, "the attribute with the name of a group"),
        (Member, "the attribute with the members of a group"),
        (MemberHolds, "what that attribute holds: dn or logon-name"),
        (PageSize, "the number of objects per page"),
        (Domain, "the domain's DNS name"),
        (ShortDomain, "the domain's short name"),
    ];

    /// <summary>What a key is, in words.</summary>
    public static string Says(string key) => All.First(k => k.Key == key).Says;
}
