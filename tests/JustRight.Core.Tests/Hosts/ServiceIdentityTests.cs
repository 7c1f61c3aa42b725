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
}
