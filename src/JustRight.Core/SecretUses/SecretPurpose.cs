namespace JustRight.Core.SecretUses;

/// <summary>What a secret is used for.</summary>
public enum SecretPurpose
{
    /// <summary>Signing in to a domain controller to read and change the directory.</summary>
    Directory,

    /// <summary>Signing in to a host over SSH.</summary>
    Host,

    /// <summary>Signing in to a database instance.</summary>
    Instance,

    /// <summary>Binding to a directory of people to read it.</summary>
    PeopleDirectory,

    /// <summary>Signing in to the mail server.</summary>
    Mail,

    /// <summary>Signing the calls of a webhook. The secret itself is not sent.</summary>
    Webhook,

    /// <summary>Trying one sign-in as the account whose password it is.</summary>
    SignInTest,

    /// <summary>Being set as the password of an account that services of a host run as.</summary>
    ServiceAccount,
}

/// <summary>The names of <see cref="SecretPurpose"/> in the API and in what is stored, and what each is in words.</summary>
public static class SecretPurposeNames
{
    private static readonly Dictionary<SecretPurpose, (string Name, string Words)> Table = new()
    {
        [SecretPurpose.Directory] = ("directory", "reads and changes the directory"),
        [SecretPurpose.Host] = ("host", "signs in to the host"),
        [SecretPurpose.Instance] = ("instance", "signs in to the instance"),
        [SecretPurpose.PeopleDirectory] = ("people-directory", "reads the people of"),
        [SecretPurpose.Mail] = ("mail", "sends"),
        [SecretPurpose.Webhook] = ("webhook", "signs"),
        [SecretPurpose.SignInTest] = ("sign-in-test", "tests a sign-in to"),
        [SecretPurpose.ServiceAccount] = ("service-account", "sets the account of services on the host"),
    };

    /// <summary>The name of a purpose.</summary>
    public static string Name(this SecretPurpose purpose) => Table[purpose].Name;

    /// <summary>What it does with the secret; what it does it to follows.</summary>
    public static string Words(this SecretPurpose purpose) => Table[purpose].Words;

    /// <summary>The purpose of a name; throws when there is none of that name.</summary>
    public static SecretPurpose Read(string name) => Table.Single(n => n.Value.Name == name).Key;
}
