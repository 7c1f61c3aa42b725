using JustRight.Core.Directory;

namespace JustRight.Simulation.People;

/// <summary>What the simulated directories say of their attributes and classes, in the form of RFC 4512.</summary>
internal static class SimulationPeopleSchema
{
    private const string Prefix = "1.3.6.1.4.1.1466.115.121.1.";

    private static readonly string[] Texts = [
        "cn", "name", "sAMAccountName", "userPrincipalName", "displayName", "givenName", "sn", "mail", "description",
        "department", "title", "company", "employeeID", "uid"];
    private static readonly string[] Numbers = ["userAccountControl", "groupType", "primaryGroupID"];
    private static readonly string[] Names = ["memberOf", "member", "objectCategory", "distinguishedName"];

    private static readonly string[] OfAdLike =
    [
        "( 2.5.4.0 NAME 'objectClass' SYNTAX '" + Prefix + "38' )",
        "( 1.2.840.113556.1.4.868 NAME 'isCriticalSystemObject' SYNTAX '" + Prefix + "7' )",
        "( 1.2.840.113556.1.4.2 NAME 'objectGUID' SYNTAX '" + Prefix + "40' )",
        .. Texts.Select((n, i) => $"( 1.2.840.113556.1.2.{9000 + i} NAME '{n}' SYNTAX '{Prefix}15' )"),
        .. Numbers.Select((n, i) => $"( 1.2.840.113556.1.2.{9100 + i} NAME '{n}' SYNTAX '{Prefix}27' )"),
        .. Names.Select((n, i) => $"( 1.2.840.113556.1.2.{9200 + i} NAME '{n}' SYNTAX '{Prefix}12' )"),
    ];

    private static readonly string[] OfInetOrgPerson =
    [
        "( 2.5.4.0 NAME 'objectClass' EQUALITY objectIdentifierMatch SYNTAX " + Prefix + "38 )",
        "( 2.5.4.41 NAME 'name' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15 )",
        "( 2.5.4.3 NAME ( 'cn' 'commonName' ) SUP name )", "( 2.5.4.4 NAME ( 'sn' 'surname' ) SUP name )",
        "( 2.5.4.42 NAME ( 'givenName' 'gn' ) SUP name )", "( 2.5.4.11 NAME ( 'ou' 'organizationalUnitName' ) SUP name )",
        "( 2.5.4.10 NAME ( 'o' 'organizationName' ) SUP name )", "( 2.5.4.12 NAME 'title' SUP name )",
        "( 0.9.2342.19200300.100.1.1 NAME ( 'uid' 'userid' ) EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15{256} )",
        "( 0.9.2342.19200300.100.1.3 NAME ( 'mail' 'rfc822Mailbox' ) EQUALITY caseIgnoreIA5Match SUBSTR caseIgnoreIA5SubstringsMatch SYNTAX " + Prefix + "26{256} )",
        "( 2.5.4.13 NAME 'description' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15 )",
        "( 2.16.840.1.113730.3.1.241 NAME 'displayName' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15 )",
        "( 2.16.840.1.113730.3.1.3 NAME 'employeeNumber' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15 )",
        "( 2.16.840.1.113730.3.1.4 NAME 'employeeType' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX " + Prefix + "15 )",
        "( 2.5.4.49 NAME 'distinguishedName' EQUALITY distinguishedNameMatch SYNTAX " + Prefix + "12 )",
        "( 2.5.4.31 NAME 'member' SUP distinguishedName )",
        "( 1.2.840.113556.1.2.102 NAME 'memberOf' EQUALITY distinguishedNameMatch SYNTAX " + Prefix + "12 )",
        "( 2.5.4.50 NAME 'uniqueMember' EQUALITY uniqueMemberMatch SYNTAX " + Prefix + "34 )",
        "( 1.3.6.1.1.1.1.12 NAME 'memberUid' EQUALITY caseExactIA5Match SUBSTR caseExactIA5SubstringsMatch SYNTAX " + Prefix + "26 )",
        "( 1.3.6.1.1.16.4 NAME 'entryUUID' EQUALITY UUIDMatch SYNTAX 1.3.6.1.1.16.1 )",
        "( 2.5.4.35 NAME 'userPassword' EQUALITY octetStringMatch SYNTAX " + Prefix + "40{128} )",
    ];

    private static readonly string[] AdLikeClasses =
    [
        "( 2.5.6.0 NAME 'top' ABSTRACT )", "( 2.5.6.6 NAME 'person' SUP top )",
        "( 2.5.6.7 NAME 'organizationalPerson' SUP person )", "( 1.2.840.113556.1.5.9 NAME 'user' SUP organizationalPerson )",
        "( 1.2.840.113556.1.3.30 NAME 'computer' SUP user )", "( 1.2.840.113556.1.5.8 NAME 'group' SUP top )",
        "( 2.5.6.5 NAME 'organizationalUnit' SUP top )", "( 1.2.840.113556.1.3.23 NAME 'container' SUP top )",
    ];

    private static readonly string[] InetOrgPersonClasses =
    [
        "( 2.5.6.0 NAME 'top' ABSTRACT )", "( 2.5.6.6 NAME 'person' SUP top )",
        "( 2.5.6.7 NAME 'organizationalPerson' SUP person )",
        "( 2.16.840.1.113730.3.2.2 NAME 'inetOrgPerson' SUP organizationalPerson )",
        "( 2.5.6.9 NAME 'groupOfNames' SUP top )", "( 2.5.6.17 NAME 'groupOfUniqueNames' SUP top )",
        "( 1.3.6.1.1.1.2.2 NAME 'posixGroup' SUP top )", "( 2.5.6.5 NAME 'organizationalUnit' SUP top )",
        "( 2.5.6.4 NAME 'organization' SUP top )", "( 1.3.6.1.4.1.1466.344 NAME 'dcObject' SUP top )",
    ];

    /// <summary>The descriptions of a family.</summary>
    public static (IReadOnlyList<string> AttributeTypes, IReadOnlyList<string> ObjectClasses) Of(DirectoryFamily family) =>
        family == DirectoryFamily.AdLike ? (OfAdLike, AdLikeClasses) : (OfInetOrgPerson, InetOrgPersonClasses);
}
