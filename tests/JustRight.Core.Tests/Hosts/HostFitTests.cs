using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

/// <summary>What verdicts on servers mean: privileges, tokens by kind of log-on, policies that govern, services, machines in place of accounts.</summary>
public sealed class HostFitTests
{
    private const string Batch = "SeBatchLogonRight";
    private const string Network = @"NT AUTHORITY\NetworkService";
    private const string Poller = @"FENNMOOR\svc-poller";
    private static readonly string[] Administrators = ["S-1-5-32-544"];

    [Fact]
    public void A_privilege_held_through_Administrators_is_met_and_one_without_a_holder_is_not()
    {
        var scene = new FitScene().Account()
            .Host(
                "fm-temp01", ["svc-poller"], ("SeIncreaseQuotaPrivilege", Administrators),
                ("SeAssignPrimaryTokenPrivilege", ["S-1-5-19"]))
            .Need(R.Admin()).Need(R.Privilege("SeIncreaseQuotaPrivilege")).Need(R.Privilege("SeAssignPrimaryTokenPrivilege"));
        var (fit, worklist) = scene.Run();
        Of(fit, R.Privilege("SeIncreaseQuotaPrivilege")).Paths[0].ToString()
            .ShouldBe(@"FENNMOOR\svc-poller -> fm-temp01\Administrators -> set the memory quota of processes on fm-temp01");
        Of(fit, R.Privilege("SeAssignPrimaryTokenPrivilege")).Verdict.ShouldBe(Verdict.Missing);
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(
            new GrantPrivilege("fm-temp01", "SeAssignPrimaryTokenPrivilege", Poller));
    }

    [Fact]
    public void A_privilege_that_comes_with_a_group_still_to_be_given_is_not_given_twice()
    {
        var (_, worklist) = new FitScene().Account().Host("fm-temp01", [], ("SeIncreaseQuotaPrivilege", Administrators))
            .Need(R.Admin()).Need(R.Privilege("SeIncreaseQuotaPrivilege")).Run();
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBeOfType<AddLocalGroupMember>();
    }

    [Fact]
    public void A_privilege_that_nobody_needs_is_excess_and_can_be_taken_away()
    {
        var (fit, worklist) = new FitScene().Account()
            .Host("fm-temp01", [], ("SeDebugPrivilege", ["svc-poller"]), ("SeServiceLogonRight", ["svc-poller"]))
            .Need(R.Service()).Run();
        Of(fit, R.Privilege("SeDebugPrivilege")).Verdict.ShouldBe(Verdict.Excess);
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RevokePrivilege("fm-temp01", "SeDebugPrivilege", Poller));
    }

    [Theory]
    [InlineData(true, Verdict.Met)]
    [InlineData(false, Verdict.Missing)]
    public void What_the_log_on_itself_brings_counts_only_for_who_may_log_on_so(bool mayLogOn, Verdict verdict)
    {
        var need = Of(
            new FitScene().Account()
                .Host(
                    "fm-temp01", [], ("SeImpersonatePrivilege", ["S-1-5-6"]),
                    ("SeServiceLogonRight", mayLogOn ? ["svc-poller"] : []))
                .Need(R.Service()).Need(R.Privilege("SeImpersonatePrivilege")).Judge(),
            R.Privilege("SeImpersonatePrivilege"));
        need.Verdict.ShouldBe(verdict);
        if (mayLogOn)
            need.Paths[0].ToString()
                .ShouldBe(@"FENNMOOR\svc-poller -> log on as a service on fm-temp01 -> act as a client that signed in to it on fm-temp01");
    }

    [Fact]
    public void The_group_Batch_brings_nothing_to_an_account_that_works_as_a_service()
    {
        var scene = new FitScene().Account()
            .Host("fm-temp01", [], ("SeImpersonatePrivilege", ["S-1-5-3"]), (Batch, ["svc-poller"])).Need(R.Batch())
            .Need(R.Privilege("SeImpersonatePrivilege"));
        Of(scene.Judge(), R.Privilege("SeImpersonatePrivilege")).Verdict.ShouldBe(Verdict.Missing);
    }

    [Fact]
    public void On_a_controller_the_groups_are_the_domains()
    {
        var scene = new FitScene().Account().Host("fm-dc01", []);
        scene.Directory(d =>
            d with
            {
                Principals = [
                    .. d.Principals,
                    new DirectoryPrincipal(
                        Sid.Parse("S-1-5-32-544"), PrincipalKind.Group, "Administrators",
                        "CN=Administrators,CN=Builtin,DC=fennmoor,DC=example")
                    {
                        Members = [scene.SidOf("svc-poller")],
                    }],
            })
            .Of(
                "fm-dc01",
                h => h with
                {
                    Role = HostRole.Controller,
                    LocalGroups = [],
                    LogonLists = [new LogonList(Batch, [Sid.Parse("S-1-5-32-544")])],
                })
            .Need(R.Admin("fm-dc01")).Need(R.Batch("fm-dc01"));
        var fit = scene.Judge();
        Of(fit, R.Admin("fm-dc01")).Verdict.ShouldBe(Verdict.Met);
        Of(fit, R.Batch("fm-dc01")).Paths[0].ToString()
            .ShouldBe(@"FENNMOOR\svc-poller -> FENNMOOR\Administrators -> log on as a batch job on fm-dc01");
    }

    [Fact]
    public void A_group_needed_on_a_controller_is_given_in_the_domain()
    {
        var (_, worklist) = new FitScene().Account().Group("Administrators").Host("fm-dc01", [])
            .Of("fm-dc01", h => h with { Role = HostRole.Controller, LocalGroups = [] }).Need(R.Admin("fm-dc01")).Run();
        var step = worklist.Give.ShouldHaveSingleItem();
        (step.Change, step.Why)
            .ShouldBe((
                new AddMember("FENNMOOR", "Administrators", "svc-poller"),
                "because; fm-dc01 is a domain controller, so this applies to every domain controller"));
    }

    [Fact]
    public void Case_30_held_now_and_not_on_the_policys_list_lasts_until_the_next_refresh()
    {
        var (fit, worklist) = Governed(held: true, onList: false).Run();
        var need = Of(fit, R.Batch());
        (need.Verdict, need.Reason, need.Governed!.Gives).ShouldBe((Verdict.Met, "held, until the next policy refresh", false));
        need.Notes.ShouldHaveSingleItem().ShouldContain("policy Servers governs it");
        var change = worklist.Give[0].Change.ShouldBeOfType<ChangePolicyList>();
        change.Entries.ShouldBe(["*S-1-5-32-544", $"*{new FitScene().Account().SidOf("svc-poller")}"]);
        (change.OldEntries[0], change.Hosts.Count).ShouldBe(("*S-1-5-32-544", 2));
        worklist.Give[1].Change.ShouldBeOfType<RefreshPolicy>();
    }

    [Fact]
    public void Not_held_and_on_the_policys_list_waits_only_for_the_refresh()
    {
        var (fit, worklist) = Governed(held: false, onList: true).Run();
        (Of(fit, R.Batch()).Verdict, Of(fit, R.Batch()).Reason)
            .ShouldBe((Verdict.Missing, "policy Servers gives it, from the next policy refresh on"));
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBeOfType<RefreshPolicy>();
    }

    [Fact]
    public void Held_and_on_the_policys_list_is_simply_met()
    {
        var (fit, worklist) = Governed(held: true, onList: true).Run();
        (Of(fit, R.Batch()).Reason, Of(fit, R.Batch()).Notes.Count, worklist.Give.Count).ShouldBe(("held", 0, 0));
    }

    [Fact]
    public void Neither_held_nor_on_the_list_goes_into_the_policy_and_not_onto_the_host()
    {
        var (fit, worklist) = Governed(held: false, onList: false).Run();
        Of(fit, R.Batch()).Reason.ShouldBe(
            "svc-poller does not hold it; policy Servers governs it, and its list lacks svc-poller");
        worklist.Give.Select(s => s.Change.GetType()).ShouldBe([typeof(ChangePolicyList), typeof(RefreshPolicy)]);
    }

    [Fact]
    public void What_setup_gives_and_a_policy_takes_back_goes_into_the_policy_before_setup()
    {
        var (fit, worklist) = Governed(held: false, onList: false, GivenBy.Setup).Run();
        (Of(fit, R.Batch()).Verdict, Of(fit, R.Batch()).Reason)
            .ShouldBe((Verdict.Pending, "setup gives it, and policy Servers takes it back"));
        worklist.Give[0].Change.ShouldBeOfType<ChangePolicyList>();
    }

    [Fact]
    public void Whether_a_policy_governs_is_not_known_when_its_template_was_not_read()
    {
        var need = Of(
            Governed(held: true, onList: false)
                .Directory(d =>
                    d with
                    {
                        Policies = d.Policies! with
                        {
                            Policies = [d.Policies.Policies[0] with { Lists = null, ListsUnread = "no copy" }],
                        },
                    })
                .Judge(),
            R.Batch());
        need.Verdict.ShouldBe(Verdict.Met);
        need.Notes.ShouldHaveSingleItem().ShouldContain("the template of policy Servers could not be read: no copy");
    }

    [Fact]
    public void A_list_that_the_policy_brings_through_a_local_group_counts()
    {
        var scene = new FitScene().Account().Computer("fm-temp01").Host("fm-temp01", ["svc-poller"], (Batch, Administrators))
            .Policy("Servers", Batch, "*S-1-5-32-544").Need(R.Admin()).Need(R.Batch());
        var need = Of(scene.Judge(), R.Batch());
        (need.Reason, need.Governed!.Gives).ShouldBe(("held", true));
    }

    [Fact]
    public void A_host_read_too_long_ago_makes_what_rests_on_it_unseen()
    {
        var scene = new FitScene { Rules = new OrganizationRules([], null, []) { HostFactsNoOlderThan = TimeSpan.FromHours(24) } }.Account()
            .Host("fm-temp01", ["svc-poller"]).Host("fm-temp02", ["svc-poller"]).Need(R.Admin()).Need(R.Admin("fm-temp02"));
        var fit = scene.Of("fm-temp01", h => h with { ReadAt = FitScene.Now.AddHours(-30) }).Judge();
        (Of(fit, R.Admin()).Verdict, Of(fit, R.Admin()).Reason)
            .ShouldBe((Verdict.Unseen, "fm-temp01 was read 30 hours ago; read it again"));
        Of(fit, R.Admin("fm-temp02")).Verdict.ShouldBe(Verdict.Met);
    }

    public static TheoryData<string, HostService, ServiceAspect, Verdict, string> Services => new()
    {
        { "as planned", New(Poller, running: Poller), ServiceAspect.Identity, Verdict.Met, @"set to run as FENNMOOR\svc-poller" },
        { "UPN", New(
            "svc-poller@fennmoor.example",
            running: Poller), ServiceAspect.Identity, Verdict.Met, "set to run as svc-poller@fennmoor.example" },
        { "same name elsewhere", New(
            @"OTHER\svc-poller", running: Poller), ServiceAspect.Identity, Verdict.Missing, "it is set to run as svc-poller" },
        { "built-in", New(
            Network,
            running: Network), ServiceAspect.Identity, Verdict.Missing, @"it is set to run as NetworkService, to other hosts FENNMOOR\FM-TEMP01$" },
        { "local service", New(
            @"NT AUTHORITY\LocalService",
            running: null), ServiceAspect.Identity, Verdict.Missing, "it is set to run as LocalService, anonymous to other hosts" },
        { "restarted", New(
            Poller, running: Poller), ServiceAspect.Restarted, Verdict.Met, "it runs as svc-poller since 2026-11-20 04:00 UTC" },
        { "not restarted", New(
            Poller,
            running: Network), ServiceAspect.Restarted, Verdict.Missing, "it still runs as NetworkService since 2026-11-20 04:00 UTC: restart it" },
        { "stopped", New(
            Poller,
            running: null), ServiceAspect.Restarted, Verdict.Met, "it is not running: its next start uses the account it is set to" },
        { "running, unread", New(Poller, running: "") with { RunsNowAs = null }, ServiceAspect.Restarted, Verdict.Unseen, "its running account could not be read" },
        { "start", New(
            Poller,
            running: Poller) with { Start = ServiceStart.Manual }, ServiceAspect.Start, Verdict.Missing, "it starts manual" },
        { "order", New(
            Poller,
            running: Poller) with { WaitsFor = ["RpcSs"] }, ServiceAspect.Order, Verdict.Missing, "it does not wait for Hub, only for RpcSs" },
        { "order through another", New(
            Poller, running: Poller) with { WaitsFor = ["Middle"] }, ServiceAspect.Order, Verdict.Met, "it waits for Middle" },
        { "disabled ahead", New(
            Poller,
            running: Poller) with { WaitsFor = ["Hub", "Off"] }, ServiceAspect.Order, Verdict.Missing, "it waits for Off, which is disabled" },
    };

    [Theory]
    [MemberData(nameof(Services))]
    public void What_a_service_must_be(string which, HostService service, ServiceAspect aspect, Verdict verdict, string reason)
    {
        which.ShouldNotBeEmpty();
        var fit = new FitScene().Account().Host("fm-temp01", [])
            .Of("fm-temp01", h => h with
            {
                Services = [
                service, new HostService("RpcSs", Network, ServiceStart.Automatic, true, []), new HostService(
                    "Hub", Network, ServiceStart.Automatic, true, []), new HostService(
                    "Middle", Network, ServiceStart.Manual, true, ["Hub"]),
                new HostService("Off", Network, ServiceStart.Disabled, false, []),
            ],
            })
            .Runs("Poll", start: ServiceStart.AutomaticDelayed, after: "Hub").Judge();
        var judged = fit.Accounts[0].Judgements.Single(j => j.Right.OfService?.Aspect == aspect);
        (judged.Verdict, judged.Reason).ShouldBe((verdict, reason));
    }

    [Theory]
    [InlineData(Stage.Planned, Verdict.Pending, "setup creates the service")]
    [InlineData(Stage.Installed, Verdict.Missing, "there is no service Poll on fm-temp01; setup should have created it")]
    public void A_service_that_is_not_there_is_said_once(Stage stage, Verdict verdict, string reason)
    {
        var judged = new FitScene { Stage = stage }.Account().Host("fm-temp01", [])
            .Runs("Poll", start: ServiceStart.Automatic, after: "Hub")
            .Judge().Accounts[0].Judgements.Where(j => j.Right is ServiceRight).ShouldHaveSingleItem();
        (judged.Verdict, judged.Reason).ShouldBe((verdict, reason));
    }

    [Fact]
    public void Services_that_could_not_be_read_are_unseen()
    {
        var judged = new FitScene().Account().Host("fm-temp01", []).UnreadPart("fm-temp01", HostSnapshot.ServicesPart)
            .Runs("Poll").Judge().Accounts[0].Judgements.Where(j => j.Right is ServiceRight).ShouldHaveSingleItem();
        judged.Verdict.ShouldBe(Verdict.Unseen);
    }

    [Fact]
    public void A_machine_in_place_of_the_account_is_excess_and_goes_only_once_the_service_runs_as_the_account()
    {
        var waiting = Swapped(Network, Network).Run();
        waiting.Worklist.Remove.ShouldBeEmpty();
        waiting.Worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("still set to run as NetworkService");
        Swapped(Poller, Network).Run().Worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("restart it first");

        var (fit, worklist) = Swapped(Poller, Poller).Run();
        fit.Counts.Excess.ShouldBe(1);
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(
            new RemoveLocalGroupMember("fm-rec01", "Administrators", @"FENNMOOR\FM-TEMP01$"));
        worklist.NotOffered.ShouldBeEmpty();
    }

    [Fact]
    public void Rights_come_before_the_account_and_the_account_before_the_restart_which_names_who_waits()
    {
        var (_, worklist) = new FitScene().Account().Host("fm-temp01", [])
            .Of(
                "fm-temp01",
                h => h with
                {
                    Services = [
                        New(Network, running: Network), new HostService("Page", Network, ServiceStart.Automatic, true, ["Poll"]),
                        new HostService("Idle", Network, ServiceStart.Manual, false, ["Poll"])],
                })
            .Runs("Poll").Need(R.Service()).Run();
        worklist.Give.Select(s => s.Change.GetType())
            .ShouldBe([typeof(GrantLogonRight), typeof(SetServiceAccount), typeof(RestartService)]);
        ((RestartService)worklist.Give[2].Change).Dependents.ShouldBe(["Page"]);
    }

    [Fact]
    public void A_password_renewed_after_the_start_is_a_finding()
    {
        var scene = new FitScene().Account()
            .Replace("svc-poller", p => p with { PasswordSetAt = new DateTimeOffset(2026, 11, 24, 9, 0, 0, TimeSpan.Zero) })
            .Host("fm-temp01", []).Of("fm-temp01", h => h with { Services = [New(Poller, running: Poller)] }).Runs("Poll");
        scene.Judge().Findings.ShouldContain(f =>
            f.Text == "Poll runs since 2026-11-20 04:00 UTC and the password of svc-poller was renewed after that, at 2026-11-24 09:00 UTC: its next start fails unless the new password was set there too.");
    }

    private static HostService New(string account, string? running) =>
        new("Poll", account, ServiceStart.AutomaticDelayed, running is not null, ["Hub"])
        {
            RunsNowAs = running,
            RunsSince = running is null ? null : new DateTimeOffset(2026, 11, 20, 4, 0, 30, TimeSpan.Zero),
        };

    private static FitScene Swapped(string account, string running) => new FitScene().Account().Computer("fm-temp01")
        .Host("fm-temp01", []).Of("fm-temp01", h => h with { Services = [New(account, running) with { WaitsFor = [] }] })
        .Host("fm-rec01", ["svc-poller", "FM-TEMP01$"]).Need(R.Admin("fm-rec01")).Runs("Poll");

    private static FitScene Governed(bool held, bool onList, GivenBy by = GivenBy.Us) =>
        new FitScene().Account().Computer("fm-temp01").Computer("fm-temp02")
        .Host("fm-temp01", [], (Batch, held ? ["S-1-5-32-544", "svc-poller"] : Administrators))
        .Host("fm-temp02", [], (Batch, Administrators))
        .Policy("Servers", Batch, onList ? ["*S-1-5-32-544", "svc-poller"] : ["*S-1-5-32-544"]).Need(R.Batch(), by);

    private static Judgement Of(InstallFit fit, Right right) =>
        fit.Accounts.SelectMany(a => a.Judgements).First(j => j.Right == right);

    [Theory]
    [InlineData(HostRole.Member, Verdict.Unseen)] // the host's own group of that SID, whose members were not read
    [InlineData(HostRole.Controller, Verdict.Met)] // which has no groups but the domain's
    public void A_built_in_group_on_a_list_is_the_hosts_own_and_not_the_domains(HostRole role, Verdict verdict)
    {
        var builtIn = Sid.Parse("S-1-5-32-544");
        var scene = new FitScene().Account().Group("administrators", "svc-poller")
            .Replace("administrators", p => p with { Sid = builtIn })
            .Host("fm-temp01", [], ("SeBatchLogonRight", [builtIn.ToString()]))
            .Of("fm-temp01", h => h with
            {
                Role = role,
                LocalGroups = [],
                UnreadParts = role == HostRole.Controller ? [] : [new UnreadPart("Administrators", "access denied")],
            });
        FitCaseTests.Of(scene.Need(R.Batch()), R.Batch()).Verdict.ShouldBe(verdict);
    }
}
