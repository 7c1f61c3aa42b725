using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Hosts;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Bench;

/// <summary>Made-up hosts with 50 lists of rights and 40 services each, below branches with policies, and one install that needs log-on, privilege, group and service on every one.</summary>
internal sealed class SyntheticHosts(int hosts)
{
    private const int Services = 40;
    private const int HostsOfBranch = 50;
    private static readonly Sid DomainSid = Sid.Parse("S-1-5-21-1-2-3");
    private static readonly Sid Account = DomainSid.Append(1001);
    private static readonly Sid Administrators = Sid.Parse("S-1-5-32-544");
    private static readonly Origin Line = new("synthetic.yaml", 1, 1);
    private static readonly string[] Constants = [
        .. Privileges.Constants,
        .. new[] { "service", "batch", "interactive", "remote", "network" }.SelectMany(t =>
            new[] { LogonRights.Constant(t), LogonRights.DenyConstant(t) }),
        "SeUnknownOneRight", "SeUnknownTwoRight", "SeUnknownThreeRight", "SeUnknownFourRight", "SeUnknownFiveRight"];

    /// <summary>The plan: four needs and a service on every host.</summary>
    public Plan Plan()
    {
        var grants = new List<PlannedGrant>();
        var services = new List<PlannedService>();
        for (var h = 0; h < hosts; h++)
        {
            foreach (var right in new Right[] { new LogonRight(Host(h), "service"), new LogonRight(Host(h), "batch"), new PrivilegeRight(
                Host(h),
                "SeIncreaseQuotaPrivilege"), new LocalGroupRight(Host(h), "Administrators"), Ask(h,
                ServiceAspect.Identity), Ask(h, ServiceAspect.Restarted), Ask(h, ServiceAspect.Order) })
                grants.Add(new PlannedGrant(
                    $"a/{right.Key}", "a", right, "web", null, GivenBy.Us, Until.Always, Team.Host, null, null, Line));
            services.Add(new PlannedService("service-20", Host(h), "web", "a", null, ["service-10"], GivenBy.Us, Line));
        }

        return new Plan(
            "hosts", "sample@1", "Sample", "synthetic", "FENNMOOR", "fennmoor.example", Stage.Installed, [], [],
            [new PlannedAccount("a", "svc-a", null, "", "", WorksAs.Service, false, true, Line)], grants, [], [], [])
        {
            Services = services,
        };
    }

    /// <summary>The survey.</summary>
    public Survey Survey()
    {
        var at = new DateTimeOffset(2026, 11, 25, 0, 0, 0, TimeSpan.Zero);
        var principals = new List<DirectoryPrincipal> { new(
            Account, PrincipalKind.User, "svc-a", "CN=svc-a,DC=x") { PrimaryGroupRid = 513 }, new(
            DomainSid.Append(513), PrincipalKind.Group, "Domain Users", "CN=Domain Users,DC=x") };
        for (var h = 0; h < hosts; h++)
            principals.Add(new DirectoryPrincipal(
                DomainSid.Append((uint)(10_000 + h)), PrincipalKind.Computer, ServiceIdentity.ComputerAccount(Host(h)),
                $"CN={Host(h)},OU=B{h / HostsOfBranch},DC=x")
            { PrimaryGroupRid = 515 });
        var policies = Enumerable.Range(0, (hosts / HostsOfBranch) + 1).Select(b => new GroupPolicy(
            PolicyLink.IdOf(new Guid(
                b + 1, 0, 0, new byte[8])), $"policy {b}", false, "O:BAG:BAD:(A;;RPCR;;;AU)", [new PolicyList(
                "SeBatchLogonRight", [$"*{Account}", "*S-1-5-32-544"])])
        {
            Groups = [],
        }).ToList();
        var containers = policies.Select((p, b) =>
            new PolicyContainer($"OU=B{b},DC=x", PolicyLink.Write([new PolicyLink(p.Id, false, false)], "DC=x"), false))
            .ToList();
        var directory = new DirectorySnapshot("FENNMOOR", DomainSid, "dc", at, principals, [], null)
        {
            Policies = new PolicySnapshot(containers, [], policies, null),
        };
        return new Survey("synthetic", at, false, directory, [.. Enumerable.Range(0, hosts).Select(h => Read(h, at))], []);
    }

    private static ServiceRight Ask(int host, ServiceAspect aspect) =>
        new(new ServiceAsked(Host(host), "service-20", aspect), aspect.ToString());

    private static string Host(int number) => string.Create(CultureInfo.InvariantCulture, $"h{number:00000}");

    private static HostSnapshot Read(int number, DateTimeOffset at) => new(
        Host(number), at, null, [
            new LocalGroup("Administrators", Administrators, [Account, DomainSid.Append(512)]),
            new LocalGroup("Users", Sid.Parse("S-1-5-32-545"), [DomainSid.Append(513)])],
        [.. Constants.Select(c =>
            new LogonList(
                c,
                c.StartsWith("SeDeny", StringComparison.Ordinal) ? []
                    : c is "SeServiceLogonRight" or "SeBatchLogonRight" ? [Administrators, Account]
                    : [Administrators, Sid.Parse("S-1-5-19")]))], [])
    {
        Services = [.. Enumerable.Range(0, Services).Select(s =>
            new HostService(
                $"service-{s}", s == 20 ? @"FENNMOOR\svc-a" : "LocalSystem", ServiceStart.Automatic, true,
                s % 10 == 0 && s > 0 ? [$"service-{s - 10}"] : [])
            {
                RunsNowAs = s == 20 ? @"FENNMOOR\svc-a" : "LocalSystem",
                RunsSince = at,
            })],
    };
}
