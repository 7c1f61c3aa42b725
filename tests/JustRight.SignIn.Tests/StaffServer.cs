using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.SignIn.Tests;

/// <summary>The real AD-compatible controller, which also takes passwords in plain text, as some still do.</summary>
public sealed class StaffServer : Controller, IPeopleServer
{
    private const string Root = "DC=fennmoor,DC=example";

    /// <inheritdoc/>
    protected override IEnumerable<string> MoreOptions => ["--option=ldap server require strong auth=no"];

    /// <inheritdoc/>
    public PeopleDirectory Directory => new(
        "staff", DirectoryFamily.AdLike, Address, new Dictionary<WireSecurity,
        int>
        { [WireSecurity.Tls] = 636, [WireSecurity.StartTls] = 389, [WireSecurity.Plain] = 389 },
        DistinguishedName.Parse(Root),
        DistinguishedName.Parse($"OU=People,{Root}"), DistinguishedName.Parse($"OU=Groups,{Root}"), GroupKind.Group, true,
        new Core.Faults.Origin("test", 1, 1))
    {
        IsOfDomain = true,
        Reach = Reach.Ldaps,
        CaFolder = CaFolder,
        MostInOneAnswer = 1000,
    };

    /// <inheritdoc/>
    public async Task ShowAsync(string certificate)
    {
        await StopAsync();
        var (file, key) = certificate == "good"
            ? (CertificateFile, KeyFile)
            : (Path.Combine(Folder, certificate + ".pem"), Path.Combine(Folder, certificate + ".key"));
        if (certificate == "ended") Authority.Issue(file, key, [Address], -1);
        if (certificate == "other-name") Authority.Issue(file, key, ["fm-dc09.fennmoor.example"], 60);
        if (certificate == "untrusted") Untrusted.Issue(file, key, [Address], 60);
        await StartAsync(file, key);
    }

    /// <summary>Whatever certificate it shows.</summary>
    protected override Task AnsweringAsync() => Waiting.UntilAsync("the controller answers over TLS", async () =>
        (await new LdapPeopleDirectory(Directory).LookAsync(WireSecurity.Tls, CancellationToken.None))
            .Addresses.Any(a => a.Tls is not null));

    /// <inheritdoc/>
    public string Keeper => "Administrator@fennmoor.example";

    /// <inheritdoc/>
    public string KeeperPassword => Password;
}
