namespace JustRight.Core.Directory.Schema;

/// <summary>
/// A small part of the schema that every AD-like directory has [MS-ADSC, MS-ADA1 to MS-ADA3], one thing a line:
/// <c>a</c> attribute, GUID, property set, <c>c</c>onfidential or <c>s</c>ystem-only; <c>c</c> class, GUID, parent, kind,
/// auxiliaries,
/// followed by <c>d</c> the descriptor its objects start with and <c>m</c> the attributes it holds; <c>r</c> right, GUID,
/// e<c>x</c>tended, <c>v</c>alidated or <c>p</c>roperty set, classes, title.
/// </summary>
internal static class BuiltInSchemaData
{
    public const string Text = """
        a accountExpires bf967915-0de6-11d0-a285-00aa003049e2 4c164200-20c0-11d0-a768-00aa006e0529 -
        a adminCount bf967918-0de6-11d0-a285-00aa003049e2 - -
        a assistant 0296c11c-40da-11d1-a9c0-0000f80367c1 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a badPwdCount bf96792e-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a businessCategory bf967931-0de6-11d0-a285-00aa003049e2 - -
        a c bf967945-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a carLicense d4159c92-957d-4a87-8a67-8d2934e01649 - -
        a cn bf96793f-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a co f0f8ffa7-1191-11d0-a060-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a comment bf967a6a-0de6-11d0-a285-00aa003049e2 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a company f0f8ff88-1191-11d0-a060-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a countryCode 5fd42471-1262-11d0-a060-00aa006c33ed 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a department bf96794f-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a departmentNumber be9ef6ee-cbc7-4f22-b27b-96967e7ee585 - -
        a description bf967950-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a displayName bf967953-0de6-11d0-a285-00aa003049e2 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a displayNamePrintable bf967954-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a distinguishedName bf9679e4-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 s
        a division fe6136a0-2073-11d0-a9c2-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a dNSHostName 72e39547-7b18-11d1-adef-00c04fd8d5cd 72e39547-7b18-11d1-adef-00c04fd8d5cd -
        a employeeID bf967962-0de6-11d0-a285-00aa003049e2 - -
        a employeeNumber a8df73ef-c5ea-11d1-bbcb-0080c76670c0 - -
        a employeeType a8df73f0-c5ea-11d1-bbcb-0080c76670c0 - -
        a facsimileTelephoneNumber bf967974-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a gidNumber c5b95f0c-ec9e-41c4-849c-b46597ed6696 - -
        a givenName f0f8ff8e-1191-11d0-a060-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a gPLink f30e3bbe-9ff0-11d1-b603-0000f80367c1 - -
        a gPOptions f30e3bbf-9ff0-11d1-b603-0000f80367c1 - -
        a groupType 9a9a021e-4a5b-11d1-a9c3-0000f80367c1 - -
        a homeDirectory bf967985-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a homeDrive bf967986-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a homePhone f0f8ffa1-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a info bf96793e-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a initials f0f8ff90-1191-11d0-a060-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a ipPhone 4d146e4a-48d4-11d1-a9c3-0000f80367c1 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a isCriticalSystemObject 00fbf30d-91fe-11d1-aebc-0000f80367c1 - -
        a jpegPhoto bac80572-09c4-4fa9-9ae6-7628d7adbe0e - -
        a l bf9679a2-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a lastLogon bf967997-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a lastLogonTimestamp c0e20a04-0e5a-4ff3-9482-5efeaecd7060 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a legacyExchangeDN 28630ebc-41d5-11d1-a9c1-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a location 09dcb79f-165f-11d0-a064-00aa006c33ed - -
        a lockoutTime 28630ebf-41d5-11d1-a9c1-0000f80367c1 - -
        a loginShell a553d12c-3231-4c5e-8adf-8d189697721e - -
        a logonHours bf9679ab-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a mail bf967961-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a managedBy 0296c120-40da-11d1-a9c0-0000f80367c1 - -
        a manager bf9679b5-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a member bf9679c0-0de6-11d0-a285-00aa003049e2 bc0ac240-79a9-11d0-9020-00c04fc2d4cf -
        a memberOf bf967991-0de6-11d0-a285-00aa003049e2 bc0ac240-79a9-11d0-9020-00c04fc2d4cf s
        a memberUid 03dab236-672e-4f61-ab64-f77d2dc2ffab - -
        a middleName bf9679f2-0de6-11d0-a285-00aa003049e2 - -
        a mobile f0f8ffa3-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a msDS-AllowedToActOnBehalfOfOtherIdentity 3f78c3e5-f79a-46bd-a0b8-9d18116ddc79 4c164200-20c0-11d0-a768-00aa006e0529 s
        a msDS-AllowedToDelegateTo 800d94d7-b7a1-42a1-b14d-7cae1423d07f e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a msDS-GroupMSAMembership 888eedd6-ce04-df40-b462-b8a50e41ba38 - -
        a msDS-ManagedPasswordInterval f8758ef7-ac76-8843-a2ee-a26b4dcaf409 - s
        a msDS-SupportedEncryptionTypes 20119867-1d04-4ab7-9371-cfc3d5df0afd 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a msFVE-RecoveryPassword 43061ac1-c8ad-4ccc-b785-2bfac20fc60a - c
        a name bf967a0e-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 s
        a notes 6d05fb41-246b-11d0-a9c8-00aa006c33ed e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a nTSecurityDescriptor bf9679e3-0de6-11d0-a285-00aa003049e2 - -
        a o bf9679ef-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a objectCategory 26d97369-6070-11d1-a9c6-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a objectClass bf9679e5-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 s
        a objectGUID bf9679e7-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 s
        a objectSid bf9679e8-0de6-11d0-a285-00aa003049e2 59ba2f42-79a2-11d0-9020-00c04fc2d3cf s
        a operatingSystem 3e978925-8c01-11d0-afda-00c04fd930c9 - -
        a operatingSystemVersion 3e978926-8c01-11d0-afda-00c04fd930c9 - -
        a otherHomePhone f0f8ffa2-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a otherMailbox 0296c123-40da-11d1-a9c0-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a otherMobile 0296c11e-40da-11d1-a9c0-0000f80367c1 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a otherPager f0f8ffa4-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a otherTelephone f0f8ffa5-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a ou bf9679f0-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a pager f0f8ffa6-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a personalTitle 16775858-47f3-11d1-a9c3-0000f80367c1 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a physicalDeliveryOfficeName bf9679f7-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a postalAddress bf9679fc-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a postalCode bf9679fd-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a postOfficeBox bf9679fb-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a primaryGroupID bf967a00-0de6-11d0-a285-00aa003049e2 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a profilePath bf967a05-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a proxyAddresses bf967a06-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a pwdLastSet bf967a0a-0de6-11d0-a285-00aa003049e2 4c164200-20c0-11d0-a768-00aa006e0529 -
        a registeredAddress bf967a10-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a roomNumber 81d7f8c2-e327-4a0d-91c6-b42d4009115f - -
        a sAMAccountName 3e0abfd0-126a-11d0-a060-00aa006c33ed 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a sAMAccountType 6e7b626c-64f2-11d0-afd2-00c04fd930c9 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a scriptPath bf9679a8-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a seeAlso bf967a31-0de6-11d0-a285-00aa003049e2 - -
        a servicePrincipalName f3a64788-5306-11d1-a9c5-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a showInAddressBook 3e74f60e-3e73-11d1-a9c0-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a sn bf967a41-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a st bf967a39-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a street bf967a3a-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a streetAddress f0f8ff84-1191-11d0-a060-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a telephoneNumber bf967a49-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a textEncodedORAddress a8df7489-c5ea-11d1-bbcb-0080c76670c0 - -
        a thumbnailPhoto 8d3bca50-1d7e-11d0-a081-00aa006c33ed 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a title bf967a55-0de6-11d0-a285-00aa003049e2 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a uid 0bb0fca0-1e89-429f-901a-1413894d9f59 59ba2f42-79a2-11d0-9020-00c04fc2d3cf -
        a uidNumber 850fcc8f-9c6b-47e1-b671-7c654be4d5b3 - -
        a unicodePwd bf9679e1-0de6-11d0-a285-00aa003049e2 - -
        a unixHomeDirectory bc2dba12-000f-464d-bf1d-0808465d8843 - -
        a unixUserPassword 612cb747-c0e8-4f92-9221-fdd5f15b550d - c
        a url 9a9a0221-4a5b-11d1-a9c3-0000f80367c1 e45795b3-9455-11d1-aebd-0000f80367c1 -
        a userAccountControl bf967a68-0de6-11d0-a285-00aa003049e2 4c164200-20c0-11d0-a768-00aa006e0529 -
        a userCertificate bf967a7f-0de6-11d0-a285-00aa003049e2 77b5b886-944a-11d1-aebd-0000f80367c1 -
        a userParameters bf967a6d-0de6-11d0-a285-00aa003049e2 4c164200-20c0-11d0-a768-00aa006e0529 -
        a userPassword bf967a6e-0de6-11d0-a285-00aa003049e2 - -
        a userPrincipalName 28630ebb-41d5-11d1-a9c1-0000f80367c1 e48d0154-bcf8-11d1-8702-00c04fb96050 -
        a userWorkstations bf9679d7-0de6-11d0-a285-00aa003049e2 5f202010-79a5-11d0-9020-00c04fc2d4cf -
        a whenChanged bf967a77-0de6-11d0-a285-00aa003049e2 - s
        a whenCreated bf967a78-0de6-11d0-a285-00aa003049e2 - s
        a wWWHomePage bf967a7a-0de6-11d0-a285-00aa003049e2 e45795b3-9455-11d1-aebd-0000f80367c1 -
        c top bf967ab7-0de6-11d0-a285-00aa003049e2 top 2 -
        m cn description displayName displayNamePrintable distinguishedName isCriticalSystemObject memberOf name nTSecurityDescriptor objectCategory
        m objectClass objectGUID proxyAddresses url whenChanged whenCreated wWWHomePage
        c domain 19195a5a-6da0-11d0-afd3-00c04fd930c9 top 2 -
        c domainDNS 19195a5b-6da0-11d0-afd3-00c04fd930c9 domain 1 samDomain
        m managedBy
        c container bf967a8b-0de6-11d0-a285-00aa003049e2 top 1 -
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPLCLORC;;;AU)
        m cn
        c organizationalUnit bf967aa5-0de6-11d0-a285-00aa003049e2 top 1 -
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(OA;;CCDC;bf967a86-0de6-11d0-a285-00aa003049e2;;AO)(OA;;CCDC;bf967aba-0de6-11d0-a285-00aa003049e2;;AO)(OA;;CCDC;bf967a9c-0de6-11d0-a285-00aa003049e2;;AO)(OA;;CCDC;bf967aa8-0de6-11d0-a285-00aa003049e2;;PO)(A;;RPLCLORC;;;AU)(A;;LCRPLORC;;;ED)(OA;;CCDC;4828CC14-1437-45bc-9B07-AD6F015E5F28;;AO)
        m businessCategory c co countryCode facsimileTelephoneNumber gPLink gPOptions l managedBy ou physicalDeliveryOfficeName postalAddress postalCode
        m postOfficeBox registeredAddress seeAlso st street telephoneNumber userPassword
        c builtinDomain bf967a81-0de6-11d0-a285-00aa003049e2 top 1 samDomainBase
        c person bf967aa7-0de6-11d0-a285-00aa003049e2 top 0 -
        m cn seeAlso sn telephoneNumber userPassword
        c organizationalPerson bf967aa4-0de6-11d0-a285-00aa003049e2 person 0 -
        m assistant c co comment company countryCode department division employeeID facsimileTelephoneNumber givenName homePhone initials ipPhone l mail
        m manager middleName mobile msDS-AllowedToActOnBehalfOfOtherIdentity msDS-AllowedToDelegateTo o otherHomePhone otherMailbox otherMobile otherPager
        m otherTelephone ou pager personalTitle physicalDeliveryOfficeName postalAddress postalCode postOfficeBox registeredAddress st street streetAddress
        m thumbnailPhoto title
        c user bf967aba-0de6-11d0-a285-00aa003049e2 organizationalPerson 1 mailRecipient,posixAccount,securityPrincipal,shadowAccount
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;AO)(A;;RPLCLORC;;;PS)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;CR;ab721a54-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;CR;ab721a56-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;RPWP;77B5B886-944A-11d1-AEBD-0000F80367C1;;PS)(OA;;RPWP;E45795B2-9455-11d1-AEBD-0000F80367C1;;PS)(OA;;RPWP;E45795B3-9455-11d1-AEBD-0000F80367C1;;PS)(OA;;RP;037088f8-0ae1-11d2-b422-00a0c968f939;;RS)(OA;;RP;4c164200-20c0-11d0-a768-00aa006e0529;;RS)(OA;;RP;bc0ac240-79a9-11d0-9020-00c04fc2d4cf;;RS)(A;;RC;;;AU)(OA;;RP;59ba2f42-79a2-11d0-9020-00c04fc2d3cf;;AU)(OA;;RP;77B5B886-944A-11d1-AEBD-0000F80367C1;;AU)(OA;;RP;E45795B3-9455-11d1-AEBD-0000F80367C1;;AU)(OA;;RP;e48d0154-bcf8-11d1-8702-00c04fb96050;;AU)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;WD)(OA;;RP;5f202010-79a5-11d0-9020-00c04fc2d4cf;;RS)(OA;;RPWP;bf967a7f-0de6-11d0-a285-00aa003049e2;;CA)(OA;;RP;46a9b11d-60ae-405a-b7e8-ff8a58d456d2;;S-1-5-32-560)(OA;;WPRP;6db69a1c-9422-11d1-aebd-0000f80367c1;;S-1-5-32-561)(OA;;WPRP;5805bc62-bdc9-4428-a5e2-856a0f4c185e;;S-1-5-32-561)
        m accountExpires adminCount badPwdCount businessCategory carLicense departmentNumber displayName employeeNumber employeeType givenName homeDirectory
        m homeDrive homePhone initials jpegPhoto lastLogon lastLogonTimestamp lockoutTime logonHours mail manager mobile msDS-SupportedEncryptionTypes o pager
        m primaryGroupID profilePath pwdLastSet roomNumber scriptPath servicePrincipalName uid unicodePwd userAccountControl userCertificate userParameters
        m userPrincipalName userWorkstations
        c inetOrgPerson 4828cc14-1437-45bc-9b07-ad6f015e5f28 user 1 -
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;AO)(A;;RPLCLORC;;;PS)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;CR;ab721a54-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;CR;ab721a56-1e2f-11d0-9819-00aa0040529b;;PS)(OA;;RPWP;77B5B886-944A-11d1-AEBD-0000F80367C1;;PS)(OA;;RPWP;E45795B2-9455-11d1-AEBD-0000F80367C1;;PS)(OA;;RPWP;E45795B3-9455-11d1-AEBD-0000F80367C1;;PS)(OA;;RP;037088f8-0ae1-11d2-b422-00a0c968f939;;RS)(OA;;RP;4c164200-20c0-11d0-a768-00aa006e0529;;RS)(OA;;RP;bc0ac240-79a9-11d0-9020-00c04fc2d4cf;;RS)(A;;RC;;;AU)(OA;;RP;59ba2f42-79a2-11d0-9020-00c04fc2d3cf;;AU)(OA;;RP;77B5B886-944A-11d1-AEBD-0000F80367C1;;AU)(OA;;RP;E45795B3-9455-11d1-AEBD-0000F80367C1;;AU)(OA;;RP;e48d0154-bcf8-11d1-8702-00c04fb96050;;AU)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;WD)(OA;;RP;5f202010-79a5-11d0-9020-00c04fc2d4cf;;RS)(OA;;RPWP;bf967a7f-0de6-11d0-a285-00aa003049e2;;CA)(OA;;RP;46a9b11d-60ae-405a-b7e8-ff8a58d456d2;;S-1-5-32-560)(OA;;WPRP;6db69a1c-9422-11d1-aebd-0000f80367c1;;S-1-5-32-561)(OA;;WPRP;5805bc62-bdc9-4428-a5e2-856a0f4c185e;;S-1-5-32-561)
        m businessCategory carLicense departmentNumber displayName employeeNumber employeeType givenName homePhone initials jpegPhoto mail manager mobile o
        m pager roomNumber uid userCertificate
        c computer bf967a86-0de6-11d0-a285-00aa003049e2 user 1 -
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;AO)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPCRLCLORCSDDT;;;CO)(OA;;WP;4c164200-20c0-11d0-a768-00aa006e0529;;CO)(A;;RPLCLORC;;;AU)(OA;;CR;ab721a53-1e2f-11d0-9819-00aa0040529b;;WD)(A;;CCDC;;;PS)(OA;;CCDC;bf967aa8-0de6-11d0-a285-00aa003049e2;;PO)(OA;;RPWP;bf967a7f-0de6-11d0-a285-00aa003049e2;;CA)(OA;;SW;f3a64788-5306-11d1-a9c5-0000f80367c1;;PS)(OA;;RPWP;77B5B886-944A-11d1-AEBD-0000F80367C1;;PS)(OA;;SW;72e39547-7b18-11d1-adef-00c04fd8d5cd;;PS)(OA;;SW;72e39547-7b18-11d1-adef-00c04fd8d5cd;;CO)(OA;;SW;f3a64788-5306-11d1-a9c5-0000f80367c1;;CO)(OA;;WP;3e0abfd0-126a-11d0-a060-00aa006c33ed;bf967a86-0de6-11d0-a285-00aa003049e2;CO)(OA;;WP;5f202010-79a5-11d0-9020-00c04fc2d4cf;bf967a86-0de6-11d0-a285-00aa003049e2;CO)(OA;;WP;bf967950-0de6-11d0-a285-00aa003049e2;bf967a86-0de6-11d0-a285-00aa003049e2;CO)(OA;;WP;bf967953-0de6-11d0-a285-00aa003049e2;bf967a86-0de6-11d0-a285-00aa003049e2;CO)(OA;;RP;46a9b11d-60ae-405a-b7e8-ff8a58d456d2;;S-1-5-32-560)
        m cn dNSHostName location managedBy operatingSystem operatingSystemVersion
        c contact 5cb41ed0-0e4c-11d0-a286-00aa003049e2 organizationalPerson 1 mailRecipient
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPLCLORC;;;AU)
        m cn notes
        c group bf967a9c-0de6-11d0-a285-00aa003049e2 top 1 mailRecipient,posixGroup,securityPrincipal
        d D:(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;;RPLCLORC;;;AU)(A;;RPWPCRCCDCLCLORCWOWDSDDTSW;;;AO)(A;;RPLCLORC;;;PS)(OA;;CR;ab721a55-1e2f-11d0-9819-00aa0040529b;;AU)(OA;;RP;46a9b11d-60ae-405a-b7e8-ff8a58d456d2;;S-1-5-32-560)
        m adminCount groupType mail managedBy member
        c mailRecipient bf967aa1-0de6-11d0-a285-00aa003049e2 top 3 -
        m cn info legacyExchangeDN showInAddressBook telephoneNumber textEncodedORAddress userCertificate
        c securityPrincipal bf967ab0-0de6-11d0-a285-00aa003049e2 top 3 -
        m nTSecurityDescriptor objectSid sAMAccountName sAMAccountType
        c samDomain bf967a90-0de6-11d0-a285-00aa003049e2 top 3 samDomainBase
        m description gPLink gPOptions
        c samDomainBase bf967a91-0de6-11d0-a285-00aa003049e2 top 3 -
        m nTSecurityDescriptor objectSid
        c foreignSecurityPrincipal 89e31c12-8530-11d0-afda-00c04fd930c9 top 1 -
        m objectSid
        c msDS-ManagedServiceAccount ce206244-5827-4a86-ba1c-1c0c386c1b64 computer 1 -
        c msDS-GroupManagedServiceAccount 7b8b558a-93a5-4af7-adca-c017e67f1057 computer 1 -
        m msDS-GroupMSAMembership msDS-ManagedPasswordInterval
        c posixAccount ad44bb41-67d5-4d88-b575-7b20674e76d8 top 3 -
        m cn description gidNumber homeDirectory loginShell uid uidNumber unixHomeDirectory unixUserPassword userPassword
        c posixGroup 2a9350b8-062c-4ed0-9903-dde10d06deba top 3 -
        m cn description gidNumber memberUid unixUserPassword userPassword
        c shadowAccount 5b6d8467-1a18-4174-b350-9cc6e7b4ac8d top 3 -
        m description uid userPassword
        r Allowed-To-Authenticate 68b1d179-0d15-4d4f-ab71-46152e79a7bc x computer,inetOrgPerson,msDS-ManagedServiceAccount,user Allowed To Authenticate
        r Apply-Group-Policy edacfd8f-ffb3-11d1-b41d-00a0c968f939 x - Apply Group Policy
        r DNS-Host-Name-Attributes 72e39547-7b18-11d1-adef-00c04fd8d5cd p computer,msDS-GroupManagedServiceAccount,msDS-ManagedServiceAccount DNS Host Name Attributes
        r DS-Replication-Get-Changes 1131f6aa-9c07-11d1-f79f-00c04fc2dcd2 x domainDNS DS Replication Get Changes
        r DS-Replication-Get-Changes-All 1131f6ad-9c07-11d1-f79f-00c04fc2dcd2 x domainDNS DS Replication Get Changes All
        r Domain-Other-Parameters b8119fd0-04f6-4762-ab7a-4986c76b3f9a p domainDNS Other Domain Parameters (for use by SAM)
        r Domain-Password c7407360-20bf-11d0-a768-00aa006e0529 p domain,domainDNS Domain Password & Lockout Policies
        r Email-Information e45795b2-9455-11d1-aebd-0000f80367c1 p group,user Phone and Mail Options
        r General-Information 59ba2f42-79a2-11d0-9020-00c04fc2d3cf p user General Information
        r MS-TS-GatewayAccess ffa6f046-ca4b-4feb-b40d-04dfee722543 p computer,msDS-ManagedServiceAccount MS-TS-GatewayAccess
        r Membership bc0ac240-79a9-11d0-9020-00c04fc2d4cf p user Group Membership
        r Personal-Information 77b5b886-944a-11d1-aebd-0000f80367c1 p computer,contact,msDS-ManagedServiceAccount,user Personal Information
        r Private-Information 91e647de-d96f-4b70-9557-d63ff4f3ccd8 p inetOrgPerson,user Private Information
        r Public-Information e48d0154-bcf8-11d1-8702-00c04fb96050 p computer,msDS-ManagedServiceAccount,user Public Information
        r RAS-Information 037088f8-0ae1-11d2-b422-00a0c968f939 p user Remote Access Information
        r Reanimate-Tombstones 45ec5156-db7e-47bb-b53f-dbeb2d03c40f x domainDNS Reanimate Tombstones
        r Receive-As ab721a56-1e2f-11d0-9819-00aa0040529b x computer,msDS-ManagedServiceAccount,user Receive As
        r Self-Membership bf9679c0-0de6-11d0-a285-00aa003049e2 v group Self Membership
        r Send-As ab721a54-1e2f-11d0-9819-00aa0040529b x computer,msDS-ManagedServiceAccount,user Send As
        r Terminal-Server-License-Server 5805bc62-bdc9-4428-a5e2-856a0f4c185e p inetOrgPerson,user Terminal Server License Server
        r Unexpire-Password ccc2dc7d-a6ad-4a7a-8846-c04e3cc53501 x domainDNS Unexpire Password
        r User-Account-Restrictions 4c164200-20c0-11d0-a768-00aa006e0529 p computer,msDS-GroupManagedServiceAccount,msDS-ManagedServiceAccount,user Account Restrictions
        r User-Change-Password ab721a53-1e2f-11d0-9819-00aa0040529b x computer,msDS-ManagedServiceAccount,user Change Password
        r User-Force-Change-Password 00299570-246d-11d0-a768-00aa006e0529 x computer,msDS-ManagedServiceAccount,user Reset Password
        r User-Logon 5f202010-79a5-11d0-9020-00c04fc2d4cf p user Logon Information
        r Validated-DNS-Host-Name 72e39547-7b18-11d1-adef-00c04fd8d5cd v computer,msDS-GroupManagedServiceAccount,msDS-ManagedServiceAccount Validated DNS Host Name
        r Validated-MS-DS-Additional-DNS-Host-Name 80863791-dbe9-4eb8-837e-7f0ab55d9ac7 v computer Validated write to MS DS Additional DNS Host Name
        r Validated-MS-DS-Behavior-Version d31a8757-2447-4545-8081-3bb610cacbf2 v - Validated write to MS DS behavior version
        r Validated-SPN f3a64788-5306-11d1-a9c5-0000f80367c1 v computer,msDS-ManagedServiceAccount Validated SPN
        r Web-Information e45795b3-9455-11d1-aebd-0000f80367c1 p contact,user Web Information
        """;
}
