using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>Plans of the demo: names, places, alternatives, traces.</summary>
public sealed class PlanTests
{
    [Fact]
    public void Accounts_get_names_branches_and_descriptions_and_existing_ones_keep_theirs()
    {
        var plan = Sound(DemoFiles.Plan("thermograph"));
        var poller = plan.Accounts[0];
        poller.Name.ShouldBe("svc-thermo-poller");
        poller.Dn.ShouldBe("CN=svc-thermo-poller,OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example");
        poller.Description.ShouldBe("Asks the loggers in the cold stores for their readings (Thermograph temperature monitoring 4.2, install thermograph-dataroom)");
        plan.Accounts.Single(a => a.Key == "archivist").ShouldSatisfyAllConditions(a => a.Name.ShouldBe("svc-archive"), a => a.Dn.ShouldBeNull(), a => a.Existing.ShouldBeTrue());
    }

    [Fact]
    public void A_product_may_have_an_ou_to_itself_by_its_short_name()
    {
        const string Services = "OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example";
        var own = DemoFiles.With(
            "estates/fennmoor.yaml", "\n  accounts-in: service-accounts", $"\n  accounts-in: 'OU={{product}},{Services}'");
        var plan = Sound(DemoFiles.Plan("thermograph", estate: own));
        plan.Accounts[0].Dn.ShouldBe($"CN=svc-thermo-poller,OU=thermo,{Services}");
        plan.Branches.Select(b => (b.Dn, b.IsOwn, b.At.Line)).ShouldBe(
        [
            ($"OU=thermo,{Services}", true, 20), ("OU=Application Groups,OU=Fennmoor,DC=fennmoor,DC=example", false, 12),
        ]);
        // what a product is called is one value, whatever is in it
        var odd = own.Replace("thermograph: thermo,", "thermograph: thermo-1,", StringComparison.Ordinal);
        Sound(DemoFiles.Plan("thermograph", estate: odd)).Branches[0].Dn.ShouldBe($"OU=thermo-1,{Services}");
    }

    [Fact]
    public void Grants_are_laid_on_every_host_of_the_place_and_traced_to_their_line()
    {
        var grants = Sound(DemoFiles.Plan("thermograph")).GrantsOf("poller").ToList();
        grants.Where(g => g.Right.Kind == NeedKind.LocalGroup).Select(g => g.Right.Place).ShouldBe(["fm-temp01", "fm-temp02"]);
        grants.ShouldAllBe(g => g.At.File == "sheet.yaml" && g.At.Line > 0);
        grants.Single(g => g.Right.Key == @"logon:service@fm-temp01").GivenBy.ShouldBe(GivenBy.Setup);
    }

    [Fact]
    public void The_alternative_of_least_reach_is_taken_and_says_why()
    {
        var decision = Sound(DemoFiles.Plan("thermograph")).Decisions.ShouldHaveSingleItem();
        (decision.Taken, decision.ByInstall).ShouldBe(("agent-roles", false));
        decision.Reason.ShouldContain("sysadmin can do anything on its instance");
    }

    [Fact]
    public void A_choice_of_the_install_stands_and_is_repeated_with_who_made_it()
    {
        var install = DemoFiles.With("installs/thermograph-dataroom.yaml", "stage: planned", """
            stage: planned
            choices:
              archivist.nightly-jobs: { take: everything, why: the database team wants one role, by: Maud Ferris }
            """);
        var decision = Sound(DemoFiles.Plan("thermograph", install: install)).Decisions.ShouldHaveSingleItem();
        (decision.Taken, decision.ByInstall).ShouldBe(("everything", true));
        decision.Reason.ShouldBe("chosen by Maud Ferris: the database team wants one role");
    }

    [Theory]
    [InlineData(", partner: fm-sql02 }", " }")] // whichever of the two says it
    [InlineData(" }", ", partner: fm-sql01 }")]
    public void What_an_instance_holds_of_its_own_must_hold_on_the_one_that_takes_over(string first, string second)
    {
        var estate = DemoFiles.With("estates/fennmoor.yaml", "release: \"15.0\" }\n  fm-sql02", $"release: \"15.0\"{first}\n  fm-sql02").Replace("release: \"16.0\" }", $"release: \"16.0\"{second}", StringComparison.Ordinal);
        var plan = Sound(DemoFiles.Plan("thermograph", estate: estate));
        plan.GrantsOf("archivist").Where(g => g.Right.AtInstance == "fm-sql02").Select(g => (g.Right.ToString(), g.GivenBy)).ShouldBe([
            ("CONNECT SQL on fm-sql02", GivenBy.Us), // its database comes over, its login does not, and setup runs on the other side
            ("SQLAgentOperatorRole on fm-sql02/msdb", GivenBy.Us), // a system database stays where it is
            ("db_datareader on fm-sql02/msdb", GivenBy.Us),
        ]);
        plan.GrantsOf("archivist").First(g => g.Right.AtInstance == "fm-sql02").Why!.ShouldEndWith("fm-sql02 is the failover partner of fm-sql01, and rights at the instance do not move with a failover");
    }

    [Theory]
    [InlineData("sql-prod")] // its cluster or listener
    [InlineData(@"FM-SQL01\curing")] // a named instance
    [InlineData("fm-sql01,14330")] // its port
    public void A_place_may_name_an_instance_as_somebody_else_calls_it(string name)
    {
        var estate = DemoFiles.With(
            "estates/fennmoor.yaml", "release: \"15.0\" }\n  fm-sql02",
            "release: \"15.0\", other-names: [sql-prod, 'fm-sql01\\CURING', 'fm-sql01,14330'] }\n  fm-sql02");
        var plan = Sound(DemoFiles.Plan(
            "thermograph", estate: estate,
            install: DemoFiles.With("installs/thermograph-dataroom.yaml", "reporting-store: fm-sql01", $"reporting-store: '{name}'")));
        plan.Grants.Select(g => g.Id).ShouldBe(Sound(DemoFiles.Plan("thermograph")).Grants.Select(g => g.Id));

        var known = DemoFiles.Estate(estate.Replace("partner: fm-sql04", $"partner: '{name}'", StringComparison.Ordinal)).Estate!;
        known.PartnersOf(known.Instance("fm-sql03")!).ShouldHaveSingleItem().Name.ShouldBe("fm-sql01");
    }

    [Fact]
    public void What_is_reached_over_tls_is_known_by_its_port_too() =>
        new EstateInstance("prod", "fm-sql02", "sqlserver", null, Reach.Tls, new Origin("estate.yaml", 1, 1))
        {
            Tls = new InstanceReach("sql.fennmoor.example", 14330, null, "r", "s", TimeSpan.FromSeconds(1)),
        }.Names.ShouldBe(["prod", "sql.fennmoor.example,14330", "sql.fennmoor.example:14330", "fm-sql02,14330", "fm-sql02:14330"]);

    [Fact]
    public void Partners_of_partners_take_over_too()
    {
        var estate = DemoFiles.With("estates/fennmoor.yaml", "release: \"15.0\" }\n  fm-sql02", "release: \"15.0\", partner: fm-sql04 }\n  fm-sql02");
        var known = DemoFiles.Estate(estate).Estate!;
        known.PartnersOf(known.Instance("fm-sql01")!).Select(i => i.Name).ShouldBe(["fm-sql03", "fm-sql04"]);
        known.PartnersOf(known.Instance("fm-sql02")!).ShouldBeEmpty();
    }

    [Fact]
    public void Conditions_on_the_release_count_for_every_instance_that_may_come_to_run_it()
    {
        var alone = DemoFiles.Plan("quernstone", install: DemoFiles.Text("installs/quernstone-sql02.yaml"));
        Sound(alone).Decisions.ShouldHaveSingleItem().Taken.ShouldBe("small-set-16");
        var estate = DemoFiles.With("estates/fennmoor.yaml", "release: \"16.0\" }", "release: \"16.0\", partner: fm-sql01 }");
        Sound(DemoFiles.Plan("quernstone", estate: estate, install: DemoFiles.Text("installs/quernstone-sql02.yaml"))).Decisions.ShouldHaveSingleItem().Taken.ShouldBe("small-set");
    }

    [Theory]
    [InlineData("release: \"15.0\"", "release: \"12.0\"")] // the condition on the release
    [InlineData(null, null)] // the answer, below
    public void A_condition_that_does_not_hold_leaves_the_need_out(string? part, string? instead)
    {
        var plan = part is null
            ? DemoFiles.Plan("thermograph", install: DemoFiles.With("installs/thermograph-dataroom.yaml", "stage: planned", "stage: planned\nanswers: { nightly-jobs: \"no\" }"))
            : DemoFiles.Plan("thermograph", estate: DemoFiles.With("estates/fennmoor.yaml", part, instead!));
        Sound(plan).Decisions.ShouldBeEmpty();
    }

    [Fact]
    public void A_condition_on_a_release_that_nobody_states_is_refused_and_says_what_is_missing()
    {
        var (plan, faults) = DemoFiles.Plan("thermograph", estate: DemoFiles.With("estates/fennmoor.yaml", ", release: \"15.0\"", ""));
        plan.ShouldBeNull();
        faults.ShouldHaveSingleItem().Message.ShouldContain("reporting-store.release");
    }

    [Fact]
    public void A_fact_decides_by_where_the_hosts_are()
    {
        // The store on one of the console's own hosts: the portal needs no database role of its own.
        var estate = DemoFiles.With("estates/fennmoor.yaml", "fm-sql01: { host: fm-sql01,", "fm-sql01: { host: fm-temp01,");
        Sound(DemoFiles.Plan("thermograph", estate: estate)).GrantsOf("portal").ShouldNotContain(g => g.Right.Kind == NeedKind.DatabaseRole);
    }

    [Fact]
    public void Names_in_use_give_way_and_settled_names_stay()
    {
        var taken = NameIndex.Empty with { Taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "SVC-THERMO-POLLER", "app-thermo-operators" }, Checked = true };
        var plan = Sound(DemoFiles.Plan("thermograph", nameIndex: taken));
        (plan.Accounts[0].Name, plan.Groups[0].Name).ShouldBe(("svc-thermo-poller2", "app-thermo-operators2"));
        var settled = taken with { Accounts = new Dictionary<string, string> { ["poller"] = "svc-thermo-poller" } };
        Sound(DemoFiles.Plan("thermograph", nameIndex: settled)).Accounts[0].Name.ShouldBe("svc-thermo-poller");
    }

    [Fact]
    public void The_same_input_gives_the_same_plan() =>
        Sound(DemoFiles.Plan("thermograph")).Grants.Select(g => g.Id).ShouldBe(Sound(DemoFiles.Plan("thermograph")).Grants.Select(g => g.Id));

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Case_24_separated_accounts_that_are_one_are_refused_unless_the_estate_allows_it(bool allowed)
    {
        var install = DemoFiles.With("installs/thermograph-dataroom.yaml", "  archivist:", "  poller: { existing: svc-archive }\n  archivist:");
        var estate = DemoFiles.With("estates/fennmoor.yaml", "  survey-no", "  allowed-sharing: [ { install: thermograph-dataroom, accounts: [poller, archivist], why: until the move } ]\n  survey-no");
        var (plan, faults) = DemoFiles.Plan("thermograph", install: install, estate: allowed ? estate : null);
        if (!allowed)
        {
            plan.ShouldBeNull();
            faults.ShouldHaveSingleItem().Code.ShouldBe("not-separate");
            return;
        }

        Sound((plan, faults)).Notes.ShouldContain(n => n.Contains("until the move", StringComparison.Ordinal));
    }

    [Fact]
    public void Case_35_a_place_of_count_zero_brings_no_need()
    {
        var sheet = DemoFiles.With("sheets/tallystick.yaml", "store-host: { kind: host, count: 1 }", "store-host: { kind: host, count: 0 to 1 }");
        var install = DemoFiles.With("installs/tallystick-dataroom.yaml", "  store-host: fm-sql02\n", "");
        var plan = Sound(DemoFiles.Plan("tallystick", sheet: sheet, install: install));
        plan.GrantsOf("counter").ShouldNotContain(g => g.Right.Place == "fm-sql02" && g.Right.Kind == NeedKind.LocalGroup);
    }

    [Fact]
    public void A_group_that_brings_a_right_to_who_does_not_need_it_is_noted()
    {
        var sheet = DemoFiles.With("sheets/thermograph.yaml", "members: [poller]", "members: [poller, portal]");
        Sound(DemoFiles.Plan("thermograph", sheet: sheet)).Notes.ShouldContain(n => n.StartsWith("portal will hold Administrators on fm-temp01 through operators", StringComparison.Ordinal));
    }

    private static Plan Sound((Plan? Plan, IReadOnlyList<JustRight.Core.Faults.Fault> Faults) made)
    {
        made.Faults.ShouldBeEmpty();
        return made.Plan!;
    }
}
