namespace JustRight.Core.SignIn.SignInTests;

/// <summary>What is behind a check of a sign-in test that does not pass: each with a remedy of its own.</summary>
public enum SignInCause
{
    /// <summary>The server's name has no address.</summary>
    NameUnknown,

    /// <summary>The service may not connect there.</summary>
    NotAllowedThere,

    /// <summary>No address answers on the port.</summary>
    Silent,

    /// <summary>Of several addresses one does not answer.</summary>
    AddressSilent,

    /// <summary>The port is open, and what answers is no directory.</summary>
    NotADirectory,

    /// <summary>TLS from the start is asked of a port that begins without it.</summary>
    PlainPort,

    /// <summary>StartTLS is asked of a port that begins with TLS.</summary>
    TlsPort,

    /// <summary>The directory refuses StartTLS.</summary>
    StartTlsRefused,

    /// <summary>TLS did not come about, and the port is no other kind of port.</summary>
    TlsFailed,

    /// <summary>A version of TLS that is no longer safe.</summary>
    OldTls,

    /// <summary>Passwords would go unencrypted, and nobody wrote down why.</summary>
    Unprotected,

    /// <summary>The directory wants an encrypted connection.</summary>
    ProtectionRequired,

    /// <summary>The certificate has expired.</summary>
    CertificateExpired,

    /// <summary>The certificate is not valid yet.</summary>
    CertificateNotYetValid,

    /// <summary>The certificate is for another name.</summary>
    CertificateName,

    /// <summary>The certificate is from an authority that is not trusted.</summary>
    CertificateAuthority,

    /// <summary>The certificate is not good for another reason.</summary>
    CertificateOther,

    /// <summary>Of several addresses one shows another certificate, which is not good.</summary>
    AddressCertificate,

    /// <summary>What the product has to be told is not known yet.</summary>
    NotKnownYet,

    /// <summary>A password that the test would need is not known here.</summary>
    PasswordNotKnown,

    /// <summary>A password that is kept is not allowed for this use.</summary>
    PasswordWithheld,

    /// <summary>The name or the password is wrong; a directory does not tell which.</summary>
    WrongPassword,

    /// <summary>The name is none that the directory takes.</summary>
    BadName,

    /// <summary>The account is locked.</summary>
    Locked,

    /// <summary>The account is disabled.</summary>
    Disabled,

    /// <summary>The account has expired.</summary>
    AccountExpired,

    /// <summary>The account's password has expired.</summary>
    PasswordExpired,

    /// <summary>The account's password must be changed first.</summary>
    MustChangePassword,

    /// <summary>The account may not sign in at this time, or from this machine.</summary>
    NotHereOrNow,

    /// <summary>The directory refuses the sign-in for another reason.</summary>
    SignInRefused,

    /// <summary>The directory takes the caller for nobody.</summary>
    TakenForNobody,

    /// <summary>A branch is not there, or may not be seen.</summary>
    BaseMissing,

    /// <summary>The directory does not hold a branch, and refers to another one.</summary>
    BaseElsewhere,

    /// <summary>Parts of a branch are in another directory.</summary>
    PartsElsewhere,

    /// <summary>The bind account may not search there.</summary>
    MayNotSearch,

    /// <summary>The directory gives too few objects in an answer, and the product does not ask page by page.</summary>
    SizeLimit,

    /// <summary>The directory does not give its answers page by page.</summary>
    PagingRefused,

    /// <summary>The directory refuses a search for another reason.</summary>
    SearchRefused,

    /// <summary>The group whose members may sign in is not there.</summary>
    GroupMissing,

    /// <summary>The group whose members may sign in has none.</summary>
    GroupEmpty,

    /// <summary>People do not carry the groups they are in, and the filter asks for that.</summary>
    NoBackLink,

    /// <summary>The group is somebody's primary group, which is no membership that a filter finds.</summary>
    PrimaryGroup,

    /// <summary>Somebody is in the group through another one, which does not count here.</summary>
    OnlyNested,

    /// <summary>Somebody is not in the group.</summary>
    NotInGroup,

    /// <summary>Nobody has the name.</summary>
    NotInDirectory,

    /// <summary>Somebody is outside the base.</summary>
    OutsideBase,

    /// <summary>Two below the base have the same name.</summary>
    TwiceBelowBase,

    /// <summary>Somebody below the base and somebody outside it have the same name.</summary>
    InTwoPlaces,

    /// <summary>Somebody has nothing in the attribute that people are to type.</summary>
    NothingToType,

    /// <summary>What somebody is to type means another person too.</summary>
    SharedName,

    /// <summary>An attribute that the product reads is empty for somebody, or may not be read.</summary>
    AttributeEmpty,

    /// <summary>An attribute that the product reads is not in the catalog of the forest.</summary>
    NotInCatalog,

    /// <summary>Not of the class, or without the attributes, that the filter asks for.</summary>
    NotForFilter,

    /// <summary>Nobody is found by the filter.</summary>
    NobodyFound,

    /// <summary>Others are found than those expected.</summary>
    NotAsExpected,

    /// <summary>The install does not say what is expected.</summary>
    NothingExpected,

    /// <summary>Somebody who must not be able to sign in is.</summary>
    Enters,

    /// <summary>Built-in groups are in the list.</summary>
    BuiltInGroups,

    /// <summary>The account can or holds more than it needs.</summary>
    HoldsMore,

    /// <summary>A password that will expire.</summary>
    PasswordExpires,

    /// <summary>People who did not sign in can read.</summary>
    AnonymousReading,

    /// <summary>The directory does not say.</summary>
    NotSaid,

    /// <summary>Only the product itself can show it.</summary>
    OnlyTheProduct,

    /// <summary>The directory did not answer in time.</summary>
    TooSlow,

    /// <summary>The connection broke.</summary>
    Broken,

    /// <summary>The test had taken too long, and was not made.</summary>
    OutOfTime,

    /// <summary>An error of the product's own or of the directory.</summary>
    Unexpected,
}
