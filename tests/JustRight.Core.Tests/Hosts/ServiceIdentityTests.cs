using JustRight.Core.Hosts;

namespace JustRight.Core.Tests.Hosts;

public sealed class ServiceIdentityTests
{
    [Theory]
    [InlineData("", IdentityKind.LocalSystem, @"FM-LINE01$")]
    [InlineData("LocalSystem", IdentityKind.LocalSystem, @"FM-LINE01$")]
    [InlineData(@"NT AUTHORITY\SYSTEM", IdentityKind.LocalSystem, @"FM-LINE01$")]
    [InlineData(@".\LocalSystem", IdentityKind.LocalSystem, @"FM-LINE01$")]
    [InlineData(@"NT AUTHORITY\NetworkService", IdentityKind.NetworkService, @"FM-LINE01$")]
    [InlineData(@"NT AUTHORITY\NETWORK SERVICE", IdentityKind.NetworkService, @"FM-LINE01$")]
    [InlineData(@"nt authority\localservice", IdentityKind.LocalService, null)]
    [InlineData(@"NT SERVICE\WheylineSender", IdentityKind.Virtual, @"FM-LINE01$")]
    [InlineData(@"IIS APPPOOL\Wheyline", IdentityKind.Virtual, @"FM-LINE01$")]
    [InlineData(@"FENNMOOR\svc-line", IdentityKind.DomainUser, "svc-line")]
    [InlineData("svc-line@fennmoor.example", IdentityKind.DomainUser, "svc-line")]
    [InlineData(@"FENNMOOR\gm-line$", IdentityKind.Managed, "gm-line$")]
    [InlineData(@".\keeper", IdentityKind.LocalUser, null)]
    [InlineData(@"FM-LINE01\keeper", IdentityKind.LocalUser, null)]
    public void What_a_name_means_and_what_other_hosts_take_it_for(string account, IdentityKind kind, string? network)
    {
        var identity = ServiceIdentity.Parse(account, "fm-line01");
        (identity.Kind, identity.OnNetwork("fm-line01.fennmoor.example")).ShouldBe((kind, network));
    }

    [Theory]
    [InlineData("fm-curing-hall01", "FM-CURING-HALL0$")] // sixteen characters
    [InlineData("fm-curing-hall1", "FM-CURING-HALL1$")]
    [InlineData("fm-curing-hall01.fennmoor.example", "FM-CURING-HALL0$")]
    public void A_computer_account_has_at_most_fifteen_characters_of_the_host(string host, string account) =>
        ServiceIdentity.ComputerAccount(host).ShouldBe(account);

    [Theory]
    [InlineData(@"FM-CURING-HALL0\keeper", IdentityKind.LocalUser)]
    [InlineData(@"fm-curing-hall01\keeper", IdentityKind.LocalUser)]
    [InlineData(@"FM-CURING-HALL\keeper", IdentityKind.DomainUser)]
    public void A_user_of_a_host_with_a_long_name_is_known_by_its_short_one(string account, IdentityKind kind) =>
        ServiceIdentity.Parse(account, "fm-curing-hall01").Kind.ShouldBe(kind);

    [Theory]
    [InlineData("LocalSystem", "the host itself: it may do everything on this host", @"FENNMOOR\FM-LINE01$")]
    [InlineData("NetworkService", "a built-in identity with few rights on this host", @"FENNMOOR\FM-LINE01$")]
    [InlineData("LocalService", "a built-in identity with few rights on this host", "nobody: it is anonymous there")]
    [InlineData(
        @"NT SERVICE\X", "an identity of its own, which only this host knows, with few rights here", @"FENNMOOR\FM-LINE01$")]
    [InlineData(
        @"FENNMOOR\gm-line$", "an account of the domain whose password the directory keeps", @"FENNMOOR\gm-line$")]
    [InlineData(@"FENNMOOR\svc-line", "an account of the domain", @"FENNMOOR\svc-line")]
    [InlineData(@".\keeper", "a user of this host alone", "nobody: it is anonymous there")]
    public void Each_identity_is_explained(string account, string told, string seen) =>
        ServiceIdentity.Parse(account, "fm-line01").Explained("fm-line01", "FENNMOOR").ShouldBe(
            $"{told}; other hosts see {seen}");
}
