namespace JustRight.Core.Sheets;

/// <summary>The neutral names of what a product is told so that people can sign in.</summary>
public static class SettingKeys
{
#pragma warning disable CS1591 // each is explained in the table below
    public const string Address = "address", Addresses = "addresses", Host = "host", Hosts = "hosts", Port = "port";
    public const string Security = "security", Authorities = "trusted-authorities", Referrals = "referrals";
    public const string ConnectTimeout = "connect-timeout", AnswerTimeout = "answer-timeout";
    public const string BindName = "bind-name", BindPassword = "bind-password", PersonTemplate = "person-template";
    public const string ClientCertificate = "client-certificate", ClientKey = "client-key";
    public const string Base = "base", PeopleBase = "people-base", GroupsBase = "groups-base";
    public const string PeopleDepth = "people-depth", GroupsDepth = "groups-depth";
    public const string PeopleClass = "people-class", PeopleFilter = "people-filter", SignInFilter = "sign-in-filter";
    public const string PeopleType = "people-type", LogonName = "logon-name", DisplayName = "display-name";
    public const string GivenName = "given-name", Surname = "surname", Mail = "mail", UniqueId = "unique-id";
    public const string UserPrincipalName = "user-principal-name", Phone = "phone", Mobile = "mobile", Photo = "photo";
    public const string Language = "language", Department = "department", Company = "company", Office = "office";
    public const string JobTitle = "job-title", Manager = "manager", EmployeeNumber = "employee-number";
    public const string Description = "description";
    public const string MemberOf = "member-of", EnterGroup = "enter-group", EnterGroupName = "enter-group-name";
    public const string NestedGroups = "nested-groups", PrimaryGroup = "primary-group";
    public const string RoleGroup = "role-group", RoleGroupName = "role-group-name", RoleName = "role-name";
    public const string GroupClass = "group-class", GroupsFilter = "groups-filter", GroupName = "group-name";
    public const string Member = "member", MemberHolds = "member-holds";
    public const string PageSize = "page-size", Domain = "domain", ShortDomain = "short-domain";
#pragma warning restore CS1591

    /// <summary>Every key with what it is.</summary>
    public static readonly IReadOnlyList<(string Key, string Says)> All =
    [
        (Address, "the directory as one address (URL)"),
        (Addresses, "all servers of the directory as addresses (URLs), in the order in which to ask them"),
        (Host, "the name of the server"),
        (Hosts, "the names of all its servers, in the order in which to ask them"),
        (Port, "its TCP port"),
        (Security, "the protection of the connection: tls, start-tls or plain"),
        (Authorities, "the authorities whose certificates to trust"),
        (Referrals, "whether to follow referrals to other directories: yes or no"),
        (ConnectTimeout, "how long to wait for a connection, in seconds"),
        (AnswerTimeout, "how long to wait for an answer, in seconds"),
        (BindName, "the bind account"),
        (BindPassword, "its password, as a reference; a person types the password"),
        (PersonTemplate, "the name that a person binds with, with the product's placeholder for what they type"),
        (ClientCertificate, "the file of the certificate that the product binds with"),
        (ClientKey, "the file of its private key"),
        (Base, "the base for people and groups"),
        (PeopleBase, "the base for people; several, where the product takes several"),
        (GroupsBase, "the base for groups; several, where the product takes several"),
        (PeopleDepth, "how far below the base people are: subtree or one-level"),
        (GroupsDepth, "how far below the base groups are: subtree or one-level"),
        (PeopleClass, "the class of people"),
        (PeopleFilter, "who is found"),
        (SignInFilter, "who is found by the typed name, with the product's placeholder"),
        (PeopleType, "what people type: logon-name, upn, mail or short-name"),
        (LogonName, "the attribute with the name that a person types"),
        (DisplayName, "the attribute with the name to show"),
        (GivenName, "the attribute with the given name"),
        (Surname, "the attribute with the surname"),
        (Mail, "the attribute with the mail address"),
        (UniqueId, "the attribute that stays the same when a person is renamed or moved"),
        (UserPrincipalName, "the attribute with the userPrincipalName (name@domain)"),
        (Phone, "the attribute with the telephone number"),
        (Mobile, "the attribute with the mobile number"),
        (Photo, "the attribute with the photo"),
        (Language, "the attribute with the preferred language"),
        (Department, "the attribute with the department"),
        (Company, "the attribute with the company"),
        (Office, "the attribute with the office or site"),
        (JobTitle, "the attribute with the job title"),
        (Manager, "the attribute with the manager, a distinguished name"),
        (EmployeeNumber, "the attribute with the employee number"),
        (Description, "the attribute with a description"),
        (MemberOf, "the attribute with the groups that a person is in"),
        (EnterGroup, "the group whose members may sign in, by DN"),
        (EnterGroupName, "the same group by its name"),
        (NestedGroups, "whether members of nested groups count: yes or no"),
        (PrimaryGroup, "whether the primary group counts: yes or no"),
        (RoleGroup, "the groups whose members have a role, by DN"),
        (RoleGroupName, "the same groups by their names"),
        (RoleName, "the product's own name for a role"),
        (GroupClass, "the class of groups"),
        (GroupsFilter, "which groups an administrator sees"),
        (GroupName, "the attribute with the name of a group"),
        (Member, "the attribute with the members of a group"),
        (MemberHolds, "what that attribute holds: dn or logon-name"),
        (PageSize, "the number of objects per page"),
        (Domain, "the domain's DNS name"),
        (ShortDomain, "the domain's short name"),
    ];

    /// <summary>Those that are said of one role.</summary>
    public static readonly IReadOnlyList<string> OfRole = [RoleGroup, RoleGroupName, RoleName];

    /// <summary>Those that may have several values.</summary>
    public static readonly IReadOnlyList<string> Several =
        [Addresses, Hosts, PeopleBase, GroupsBase, RoleGroup, RoleGroupName, PeopleType];

    /// <summary>Those that are numbers.</summary>
    public static readonly IReadOnlyList<string> Numbers = [Port, ConnectTimeout, AnswerTimeout, PageSize];

    /// <summary>Those that are a number of seconds.</summary>
    public static readonly IReadOnlyList<string> Seconds = [ConnectTimeout, AnswerTimeout];

    /// <summary>Those that are yes or no.</summary>
    public static readonly IReadOnlyList<string> YesNo = [Referrals, NestedGroups, PrimaryGroup];

    /// <summary>What a key is, in words.</summary>
    public static string Says(string key) => All.First(k => k.Key == key).Says;
}
