using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Tests.SignIn;

/// <summary>Small schemas of both families, in the words of real servers.</summary>
internal static class PeopleSchemas
{
    public static AttributeSchema InetOrgPerson { get; } = SchemaDescriptions.Read(
        DirectoryFamily.InetOrgPerson,
        [
            "( 2.5.4.0 NAME 'objectClass' DESC 'RFC4512: object classes of the entity' EQUALITY objectIdentifierMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.38 )",
            "( 2.5.4.41 NAME 'name' DESC 'RFC4519: common supertype of name attributes' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.15{32768} )",
            "( 2.5.4.3 NAME ( 'cn' 'commonName' ) DESC 'RFC4519: common name(s) for which the entity is known by' SUP name )",
            "( 2.5.4.4 NAME ( 'sn' 'surname' ) DESC 'RFC2256: last (family) name(s) for which the entity is known by' SUP name )",
            "( 2.5.4.11 NAME ( 'ou' 'organizationalUnitName' ) SUP name )",
            "( 0.9.2342.19200300.100.1.1 NAME ( 'uid' 'userid' ) DESC 'RFC4519: user identifier' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.15{256} )",
            "( 0.9.2342.19200300.100.1.3 NAME ( 'mail' 'rfc822Mailbox' ) EQUALITY caseIgnoreIA5Match SUBSTR caseIgnoreIA5SubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.26{256} )",
            "( 2.5.4.13 NAME 'description' EQUALITY caseIgnoreMatch SUBSTR caseIgnoreSubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.15{1024} )",
            "( 2.5.4.20 NAME 'telephoneNumber' EQUALITY telephoneNumberMatch SUBSTR telephoneNumberSubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.50{32} )",
            "( 2.5.4.49 NAME 'distinguishedName' EQUALITY distinguishedNameMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.12 )",
            "( 2.5.4.31 NAME 'member' SUP distinguishedName )",
            "( 1.2.840.113556.1.2.102 NAME 'memberOf' EQUALITY distinguishedNameMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.12 NO-USER-MODIFICATION USAGE dSAOperation )",
            "( 1.3.6.1.1.1.1.0 NAME 'uidNumber' EQUALITY integerMatch ORDERING integerOrderingMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.27 SINGLE-VALUE )",
            "( 2.5.4.24 NAME 'x121Address' EQUALITY numericStringMatch SUBSTR numericStringSubstringsMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.36{15} )",
            "( 2.5.4.34 NAME 'seeAlso' SUP distinguishedName )",
            "( 2.5.18.1 NAME 'createTimestamp' EQUALITY generalizedTimeMatch ORDERING generalizedTimeOrderingMatch SYNTAX 1.3.6.1.4.1.1466.115.121.1.24 )",
            "( 1.3.6.1.1.16.4 NAME 'entryUUID' EQUALITY UUIDMatch ORDERING UUIDOrderingMatch SYNTAX 1.3.6.1.1.16.1 )",
            "( 0.9.2342.19200300.100.1.60 NAME 'jpegPhoto' DESC 'RFC2798: a JPEG image' SYNTAX 1.3.6.1.4.1.1466.115.121.1.28 )",
        ],
        [
            "( 2.5.6.6 NAME 'person' SUP top STRUCTURAL MUST ( sn $ cn ) )",
            "( 2.5.6.7 NAME 'organizationalPerson' SUP person STRUCTURAL )",
            "( 2.16.840.1.113730.3.2.2 NAME 'inetOrgPerson' SUP organizationalPerson STRUCTURAL MAY ( audio $ mail ) )",
            "( 2.5.6.14 NAME 'device' SUP top STRUCTURAL )", "( 2.5.6.9 NAME 'groupOfNames' SUP top STRUCTURAL )", "( 1.3.6.1.1.1.2.0 NAME 'posixAccount' SUP top AUXILIARY )",
        ]);

    public static AttributeSchema AdLike { get; } = SchemaDescriptions.Read(
        DirectoryFamily.AdLike,
        [
            "( 2.5.4.0 NAME 'objectClass' SYNTAX '1.3.6.1.4.1.1466.115.121.1.38' NO-USER-MODIFICATION )",
            .. new[] { ("cn", "15"), ("sAMAccountName", "15"), ("mail", "15"), ("displayName", "15"), ("objectGUID", "40"), (
                "userAccountControl",
                "27"), ("groupType", "27"), ("memberOf", "12"), ("member", "12"), ("objectCategory", "12"), (
                "isCriticalSystemObject", "7") }
                .Select((a, i) =>
                    $"( 1.2.840.113556.1.4.{i} NAME '{a.Item1}' SYNTAX '1.3.6.1.4.1.1466.115.121.1.{a.Item2}' SINGLE-VALUE )"),
        ],
        [
            "( 1.2.840.113556.1.5.9 NAME 'user' SUP organizationalPerson STRUCTURAL MAY (msDS-X $ uid ) )",
            "( 1.2.840.113556.1.5.8 NAME 'group' SUP top )"]);
}
