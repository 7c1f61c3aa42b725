using JustRight.Connectors.Tests;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Directory;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Objects;

namespace JustRight.SignIn.Tests;

/// <summary>The real AD-compatible controller, which also takes passwords in plain text, as some still do.</summary>
public sealed class StaffServer : Controller, IPeopleServer
{
    private const string Root = "DC=fennmoor,DC=example";

    /// <inheritdoc/>
    protected override IEnumerable<string> MoreOptions => ["--option=ldap server require strong auth=no"];

    /// <inheritdoc/>
    public PeopleDirectory Directory => new(
        "staff", DirectoryFamily.AdLike, Address, new Dictionary<WireSecurity, int> { [WireSecurity.Tls] = 636, [WireSecurity.StartTls] = 389, [WireSecurity.Plain] = 389 }, DistinguishedName.Parse(Root),
        DistinguishedName.Parse($"OU=People,{Root}"), DistinguishedName.Parse($"OU=Groups,{Root}"), GroupKind.Group, true, new Core.Faults.Origin("test", 1, 1))
    {
        Reach = Reach.Ldaps,
        CaFolder = CaFolder,
        MostInOneAnswer = 1000,
    };

    /// <inheritdoc/>
    public string Keeper => "Administrator@fennmoor.example";

    /// <inheritdoc/>
    public string KeeperPassword => Password;
}
