using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Core.SecretUses;

/// <summary>The uses of secrets that an estate asks for. Connectors state the same when they ask for a secret.</summary>
public static class EstateSecretUses
{
    /// <summary>What stands for the anchor of a plain connection.</summary>
    public const string NothingProves = "nothing proves the other end";

    /// <summary>Signing in to a controller.</summary>
    /// <param name="place"><c>host:port</c>.</param>
    /// <param name="authorities">The content of the authorities that are trusted.</param>
    public static SecretUse OfController(Estate estate, string place, string authorities) => new(
        SecretPurpose.Directory, estate.Name, estate.Domain.DnsName, place, estate.Directory.SignInAs ?? "", "ldaps",
        authorities);

    /// <summary>The controllers of an estate as <c>host:port</c>, in the order in which they are asked.</summary>
    public static IReadOnlyList<string> ControllersOf(DirectoryReach reach) =>
    [
        $"{reach.Controller}:{reach.Port}",
        .. reach.MoreControllers.Select(c => c.Contains(':', StringComparison.Ordinal) ? c : $"{c}:{reach.Port}"),
    ];

    /// <summary>Signing in to a host over SSH.</summary>
    public static SecretUse OfHost(Estate estate, string host, SshReach reach) => new(
        SecretPurpose.Host, estate.Name, host, $"{reach.Address}:{reach.Port}", reach.SignInAs, "ssh",
        $"host key {reach.HostKey}");

    /// <summary>Signing in to a database instance.</summary>
    /// <param name="authority">The content of the certificate that is trusted.</param>
    public static SecretUse OfInstance(Estate estate, string instance, InstanceReach reach, string authority) => new(
        SecretPurpose.Instance, estate.Name, instance, $"{reach.Address}:{reach.Port}", reach.SignInAs, "tls", authority);

    /// <summary>Binding to a directory of people.</summary>
    public static SecretUse OfPeople(string estate, PeopleDirectory directory, WireSecurity security, string authorities) => new(
        SecretPurpose.PeopleDirectory, estate, directory.Key, Place(directory, security), directory.SignInAs ?? "",
        security.Word(), authorities);

    /// <summary>Trying a product's sign-in with the password of the account that it binds as.</summary>
    public static SecretUse OfSignInTest(
        string estate, PeopleDirectory directory, WireSecurity security, string account, string authorities) => new(
        SecretPurpose.SignInTest, estate, directory.Key, Place(directory, security), account, security.Word(), authorities);

    /// <summary>Trying whether the directory takes the password of an account.</summary>
    /// <param name="account"><c>DOMAIN\name</c>.</param>
    public static SecretUse OfPasswordTest(Estate estate, string account, string authorities) => new(
        SecretPurpose.SignInTest, estate.Name, estate.Domain.DnsName, ControllersOf(estate.Directory)[0], account,
        "ldaps", authorities);

    /// <summary>Setting the account of services on a host over SSH.</summary>
    /// <param name="account"><c>DOMAIN\name</c>.</param>
    public static SecretUse OfServiceAccount(Estate estate, string host, SshReach reach, string account) => new(
        SecretPurpose.ServiceAccount, estate.Name, host, $"{reach.Address}:{reach.Port}", account, "ssh",
        $"host key {reach.HostKey}");

    /// <summary>The same for a host by name; null where it is not reached over SSH: then nothing leaves this process.</summary>
    public static SecretUse? OfServiceAccount(Estate estate, string host, string account) =>
        estate.Host(host) is { Ssh: { } ssh } known ? OfServiceAccount(estate, known.Name, ssh, account) : null;

    /// <summary>Signing what is sent to a webhook.</summary>
    public static SecretUse OfWebhook(string estate, Uri address) => new(
        SecretPurpose.Webhook, estate, "notifications", address.AbsoluteUri, "", address.Scheme,
        "the signature proves us, not the other end");

    /// <summary>Everything that the file of an estate asks a secret for, with the name of the secret.</summary>
    /// <param name="anchorOfFolder">The content of the authorities in a folder.</param>
    /// <param name="anchorOfFile">The content of a certificate's file; null stands for the authorities of the machine.</param>
    public static IEnumerable<(string Secret, SecretUse Use)> Of(
        Estate estate, Func<string?, string> anchorOfFolder, Func<string?, string> anchorOfFile)
    {
        if (estate.Directory is { Reach: Reach.Ldaps, Secret: { } directorySecret } directory)
        {
            foreach (var place in ControllersOf(directory))
                yield return (directorySecret, OfController(estate, place, anchorOfFolder(directory.CaFolder)));
        }

        foreach (var host in estate.Hosts)
            if (host.Ssh is { } ssh)
                yield return (ssh.Secret, OfHost(estate, host.Name, ssh));

        foreach (var instance in estate.Instances)
            if (instance.Tls is { } tls)
                yield return (tls.Secret, OfInstance(estate, instance.Name, tls, anchorOfFile(tls.Certificate)));

        foreach (var people in estate.PeopleDirectories)
        {
            if (people is { Reach: Reach.Ldaps, Secret: { } peopleSecret })
            {
                var security = BestOf(people);
                var authorities = security == WireSecurity.Plain ? NothingProves : anchorOfFolder(people.CaFolder);
                yield return (peopleSecret, OfPeople(estate.Name, people, security, authorities));
            }
        }

        if (estate.Rules.Notifications is { Webhook: { } webhook, WebhookSecret: { } webhookSecret })
            yield return (webhookSecret, OfWebhook(estate.Name, webhook));
    }

    /// <summary>The best way of reaching a directory of people: with TLS where it offers that.</summary>
    public static WireSecurity BestOf(PeopleDirectory directory) => directory.Offers.Keys.Order().First();

    private static string Place(PeopleDirectory directory, WireSecurity security) =>
        $"{directory.Host}:{directory.Offers[security]}";
}
