using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests;

/// <summary>What a verdict means, case by case. The numbers are those of the worked cases of the fit; a missing number waits for a later capability.</summary>
public sealed class FitCaseTests
{
    private const string Grant = "SeServiceLogonRight";
    private const string Deny = "SeDenyServiceLogonRight";

    [Fact]
    public void Case_01_a_direct_member_meets_the_need()
    {
        var need = Of(new FitScene().Account().Host("fm-temp01", ["svc-poller"]).Need(R.Admin()), R.Admin());
        need.Verdict.ShouldBe(Verdict.Met);
        need.Paths.ShouldHaveSingleItem().ToString().ShouldBe(@"FENNMOOR\svc-poller -> fm-temp01\Administrators");
    }

    [Fact]
    public void Case_02_every_path_through_nested_groups_is_named_shortest_first()
    {
        var scene = new FitScene().Account().Group("inner", "svc-poller").Group("outer", "inner")
            .Host("fm-temp01", ["outer", "inner"]).Need(R.Admin());
        Of(scene, R.Admin()).Paths.Select(p => p.ToString()).ShouldBe([
            @"FENNMOOR\svc-poller -> FENNMOOR\inner -> fm-temp01\Administrators",
            @"FENNMOOR\svc-poller -> FENNMOOR\inner -> FENNMOOR\outer -> fm-temp01\Administrators",
        ]);
    }

    [Fact]
    public void Case_03_held_another_way_is_met_and_the_planned_way_is_offered_then_the_other_removed()
    {
        var scene = new FitScene().Account().Group("app-ops", "svc-poller").PlannedGroup("ops", "app-ops", false, "poller")
            .Host("fm-temp01", ["svc-poller"]).Need(R.InGroup("app-ops")).Need(R.Admin(), through: "ops");
        var (fit, worklist) = scene.Run();
        var need = Of(fit, R.Admin());
        need.Verdict.ShouldBe(Verdict.Met);
        need.Notes.ShouldHaveSingleItem().ShouldContain("held another way");
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(
            new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\app-ops"));
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(
            new RemoveLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\svc-poller"));
    }

    [Theory]
    [InlineData(Stage.Planned, Verdict.Pending, "setup gives it")] // case 4
    [InlineData(Stage.Installed, Verdict.Missing, "setup should have given this")] // case 5
    public void Cases_04_05_what_setup_gives(Stage stage, Verdict verdict, string reason)
    {
        var need = Of(
            new FitScene { Stage = stage }.Account().Host("fm-temp01", []).Need(R.Service(), GivenBy.Setup), R.Service());
        (need.Verdict, need.Reason).ShouldBe((verdict, reason));
    }

    [Fact]
    public void Case_06_left_over_from_setup_is_excess()
    {
        var (fit, worklist) = new FitScene { Stage = Stage.Installed }.Account().Host("fm-temp01", ["svc-poller"])
            .Need(R.Admin(), until: Until.Installed).Run();
        var excess = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess);
        (excess.Right, excess.Reason).ShouldBe((R.Admin(), "left over from setup"));
        worklist.Remove.ShouldHaveSingleItem();
    }

    [Fact]
    public void Case_07_gone_after_setup_is_done()
    {
        var (fit, worklist) = new FitScene { Stage = Stage.Installed }.Account().Host("fm-temp01", [])
            .Need(R.Admin(), until: Until.Installed).Run();
        Of(fit, R.Admin()).Verdict.ShouldBe(Verdict.Done);
        worklist.Give.ShouldBeEmpty();
        fit.Counts.JustRight.ShouldBeTrue();
    }

    [Fact]
    public void Case_08_a_stronger_right_meets_and_is_excess()
    {
        var (fit, worklist) = new FitScene().Account().Group("dba", "svc-poller").Instance("fm-sql01", [("sysadmin", ["dba"])])
            .Need(R.Role("dbcreator")).Run();
        var need = Of(fit, R.Role("dbcreator"));
        (need.Verdict, need.Reason).ShouldBe((Verdict.Met, "implied by sysadmin on fm-sql01"));
        Of(fit, R.Role("sysadmin")).Verdict.ShouldBe(Verdict.Excess);
        worklist.Give.Select(s => s.Change)
            .ShouldContain(new AddInstanceRoleMember("fm-sql01", "dbcreator", @"FENNMOOR\svc-poller"));
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "dba", "svc-poller"));
    }

    [Fact]
    public void Case_09_the_big_alternative_meets_and_is_excess_because_less_would_do()
    {
        var (fit, worklist) = Alternatives(
            new FitScene().Account().Instance("fm-sql01", [("sysadmin", ["svc-poller"])], ("db_datareader", [])), "small",
            byInstall: false)
            .Run();
        Of(fit, R.Db("db_datareader")).Verdict.ShouldBe(Verdict.Met);
        var excess = Of(fit, R.Role("sysadmin"));
        (excess.Verdict, excess.Reason).ShouldBe((Verdict.Excess, "less would do: small"));
        worklist.Give.Count.ShouldBeGreaterThan(0);
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBeOfType<RemoveInstanceRoleMember>();
    }

    [Fact]
    public void Case_10_the_big_alternative_chosen_with_a_reason_is_not_excess()
    {
        var fit = Alternatives(
            new FitScene().Account().Instance("fm-sql01", [("sysadmin", ["svc-poller"])]), "big", byInstall: true)
            .Judge();
        Of(fit, R.Role("sysadmin")).Verdict.ShouldBe(Verdict.Met);
        fit.Counts.AnyExcess.ShouldBeFalse();
        fit.Plan.Decisions[0].Reason.ShouldBe("a reason");
    }

    [Fact]
    public void Case_11_half_an_alternative_is_missing_for_the_missing_half_only()
    {
        var fit = Alternatives(
            new FitScene().Account().Instance("fm-sql01", [("sysadmin", [])], ("db_datareader", ["svc-poller"])), "small",
            byInstall: true)
            .Judge();
        Of(fit, R.Db("db_datareader")).Verdict.ShouldBe(Verdict.Met);
        Of(fit, R.Db("db_datawriter")).Verdict.ShouldBe(Verdict.Missing);
        fit.Counts.Missing.ShouldBe(1);
    }

    [Fact]
    public void Case_12_a_forbidden_group_three_deep_is_forbidden_even_when_it_meets_a_need()
    {
        var scene = new FitScene().Account().Group("a", "svc-poller").Group("b", "a")
            .Replace("Domain Admins", g => g with { Members = [.. g.Members] });
        scene.Replace("Domain Admins", g => g with { Members = [SidIn(scene, "b")] });
        var (fit, worklist) = scene.Forbid("Domain Admins").Host("fm-temp01", ["Domain Admins"]).Need(R.Admin()).Run();
        Of(fit, R.Admin()).Verdict.ShouldBe(Verdict.Met);
        var forbidden = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Forbidden);
        forbidden.Paths[0].ToString().ShouldBe(@"FENNMOOR\svc-poller -> FENNMOOR\a -> FENNMOOR\b -> FENNMOOR\Domain Admins");
        // The small right is given first; only because of that may the membership be taken away.
        worklist.Give.ShouldHaveSingleItem().Change.ShouldBe(
            new AddLocalGroupMember("fm-temp01", "Administrators", @"FENNMOOR\svc-poller"));
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "a", "svc-poller"));
    }

    [Fact]
    public void Case_12_a_need_that_setup_gave_through_a_forbidden_group_is_not_broken_by_a_removal()
    {
        var scene = new FitScene { Stage = Stage.Installed }.Account();
        scene.Replace("Domain Admins", g => g with { Members = [SidIn(scene, "svc-poller")] });
        var (_, worklist) = scene.Forbid("Domain Admins").Host("fm-temp01", ["Domain Admins"]).Need(R.Admin(), GivenBy.Setup)
            .Run();
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("would break Administrators on fm-temp01");
    }

    [Fact]
    public void Case_13_an_unreachable_host_makes_only_its_own_needs_unseen()
    {
        var fit = new FitScene().Account().Host("fm-temp01", ["svc-poller"]).UnreadHost("fm-temp02").Need(R.Admin())
            .Need(R.Admin("fm-temp02")).Judge();
        Of(fit, R.Admin()).Verdict.ShouldBe(Verdict.Met);
        var unseen = Of(fit, R.Admin("fm-temp02"));
        (unseen.Verdict, unseen.Reason).ShouldBe((Verdict.Unseen, "fm-temp02 could not be read: no answer"));
        fit.Words.ShouldStartWith("just right as far as seen");
        fit.UnreadParts.ShouldHaveSingleItem().At.ShouldBe(FitScene.Now);
    }

    [Theory]
    [InlineData(false, Verdict.Unseen)]
    [InlineData(true, Verdict.Met)]
    public void Case_14_an_unreadable_group_in_the_chain(bool heldOtherwise, Verdict verdict)
    {
        var scene = new FitScene().Account().Group("hidden").Replace("hidden", g => g with { MembersUnread = "access denied" })
            .Host("fm-temp01", heldOtherwise ? ["hidden", "svc-poller"] : ["hidden"]).Need(R.Admin());
        var need = Of(scene, R.Admin());
        need.Verdict.ShouldBe(verdict);
        if (!heldOtherwise) need.Reason.ShouldContain(@"FENNMOOR\hidden");
    }

    [Fact]
    public void Case_15_a_denial_through_another_group_wins_and_names_both_paths()
    {
        var (fit, worklist) = new FitScene().Account().Group("no-service", "svc-poller")
            .Host("fm-temp01", [], (Grant, ["svc-poller"]), (Deny, ["no-service"])).Need(R.Service()).Run();
        var need = Of(fit, R.Service());
        (need.Verdict, need.Reason).ShouldBe((Verdict.Missing, @"denied by FENNMOOR\no-service"));
        need.Paths.ShouldHaveSingleItem();
        need.DeniedBy.ShouldHaveSingleItem().ToString().ShouldContain("no-service");
        worklist.Give.ShouldBeEmpty(); // granting again would not help
    }

    [Fact]
    public void Case_16_an_unreadable_deny_list_makes_a_held_right_unseen()
    {
        var scene = new FitScene().Account().Host("fm-temp01", [], (Grant, ["svc-poller"])).UnreadPart("fm-temp01", Deny)
            .Need(R.Service());
        Of(scene, R.Service()).Verdict.ShouldBe(Verdict.Unseen);
    }

    [Fact]
    public void Case_17_what_every_domain_user_has_is_not_excess()
    {
        var fit = new FitScene().Account().Host("fm-temp01", [], ("SeNetworkLogonRight", ["S-1-5-11", "S-1-5-32-545"])).Judge();
        fit.Counts.AnyExcess.ShouldBeFalse();
    }

    [Fact]
    public void Case_18_a_primary_group_counts_like_any_membership()
    {
        var scene = new FitScene().Group("prime").Host("fm-temp01", ["prime"]);
        scene.Account(primary: SidIn(scene, "prime").Rid).Need(R.Admin());
        Of(scene, R.Admin()).Verdict.ShouldBe(Verdict.Met);
    }

    [Fact]
    public void Cases_19_20_a_right_that_another_install_needs_is_excess_only_when_that_is_gone()
    {
        FitScene Scene() => new FitScene().Account().Host("fm-temp01", ["svc-poller"]);
        Scene().OtherInstall("nightchurn", R.Admin()).Judge().Counts.AnyExcess.ShouldBeFalse();
        Scene().Judge().Counts.Excess.ShouldBe(1);
    }

    [Fact]
    public void Case_21_an_account_that_does_not_exist_leaves_its_grants_waiting_in_one_worklist()
    {
        var (fit, worklist) = new FitScene().Account(exists: false).Host("fm-temp01", []).Need(R.Admin())
            .Need(R.Service(), GivenBy.Setup).Run();
        Of(fit, R.Admin()).Reason.ShouldBe("waiting for the account svc-poller");
        Of(fit, R.Service()).Verdict.ShouldBe(Verdict.Pending);
        worklist.Give.ShouldContain(s => s.Change is AddLocalGroupMember);
    }

    [Theory]
    [InlineData(AccountState.Disabled, "disabled")]
    [InlineData(AccountState.Expired, "expired")]
    [InlineData(AccountState.Locked, "locked")]
    [InlineData(AccountState.PasswordExpired, "its password has expired")]
    public void Case_23_rights_are_met_and_the_account_is_not_usable(AccountState state, string fact)
    {
        var fit = new FitScene().Account(state: state).Host("fm-temp01", ["svc-poller"]).Need(R.Admin()).Judge();
        Of(fit, R.Admin()).Verdict.ShouldBe(Verdict.Met);
        var usable = fit.Accounts[0].Judgements.Single(j => j.Right.OfAccount == AccountAspect.Usable);
        (usable.Verdict, usable.Reason).ShouldBe((Verdict.Missing, fact));
    }

    [Theory]
    [InlineData(false, 0)]
    [InlineData(true, 1)]
    public void Case_25_unexpected_members_in_a_planned_group_are_listed_and_excess_only_where_it_is_closed(
        bool closed, int excess)
    {
        var fit = new FitScene().Account().Account("visitor", planned: false).Group("app-ops", "svc-poller", "visitor")
            .PlannedGroup("ops", "app-ops", closed, "poller").Need(R.InGroup("app-ops")).Judge();
        fit.Findings.ShouldHaveSingleItem().Text.ShouldContain(@"FENNMOOR\visitor");
        fit.Counts.Excess.ShouldBe(excess);
    }

    [Fact]
    public void Case_27_an_unknown_sid_in_a_local_group_is_a_finding()
    {
        var fit = new FitScene().Account().Host("fm-temp01", ["svc-poller", "S-1-5-21-9-9-9-1999"]).Need(R.Admin()).Judge();
        fit.Findings.ShouldHaveSingleItem().Text.ShouldContain("S-1-5-21-9-9-9-1999");
        fit.Counts.JustRight.ShouldBeTrue();
    }

    [Fact]
    public void Case_28_the_same_name_in_another_domain_is_another_principal()
    {
        // The other domain's svc-poller, known by its SID, is in Administrators; ours is not.
        var scene = new FitScene().Account().Host("fm-temp01", ["S-1-5-21-7-7-7-1001"]).Need(R.Admin());
        Of(scene, R.Admin()).Verdict.ShouldBe(Verdict.Missing);
    }

    [Fact]
    public void Case_29_a_stale_survey_proves_nothing()
    {
        var scene = new FitScene
        {
            SurveyedAt = FitScene.Now.AddDays(-9),
            Rules = new OrganizationRules(
            [], TimeSpan.FromHours(24), [])
        }.Account()
            .Host("fm-temp01", ["svc-poller"]).Need(R.Admin());
        var need = Of(scene, R.Admin());
        (need.Verdict, need.Reason).ShouldBe((Verdict.Unseen, "read 9 days ago; take a new survey"));
    }

    [Fact]
    public void Case_32_a_kind_that_cannot_be_judged_is_unseen_never_met()
    {
        var right = new UnjudgedRight(NeedKind.Privilege, "SeImpersonatePrivilege", "fm-temp01");
        var need = Of(new FitScene().Account().Host("fm-temp01", ["svc-poller"]).Need(R.Admin()).Need(right), right);
        (need.Verdict, need.Reason).ShouldBe((Verdict.Unseen, "cannot be judged yet"));
    }

    [Fact]
    public void Case_33_nothing_needed_and_nothing_held_is_just_right() =>
        new FitScene().Account().Host("fm-temp01", []).Judge().Words.ShouldBe("just right");

    [Fact]
    public void Case_36_of_two_paths_one_forbidden_removing_the_forbidden_one_leaves_the_need_met()
    {
        var scene = new FitScene().Account().Group("ops", "svc-poller");
        scene.Replace("Domain Admins", g => g with { Members = [SidIn(scene, "svc-poller")] });
        var (fit, worklist) = scene.Forbid("Domain Admins").Host("fm-temp01", ["ops", "Domain Admins"]).Need(R.Admin()).Run();
        Of(fit, R.Admin()).Paths.Count.ShouldBe(2);
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveMember("FENNMOOR", "Domain Admins", "svc-poller"));
    }

    [Fact]
    public void Case_37_a_removal_that_would_break_another_install_is_not_offered_and_says_which()
    {
        var (_, worklist) = new FitScene().Account().Group("both", "svc-poller").Host("fm-temp01", ["both"])
            .Host("fm-temp02", ["both"])
            .OtherInstall("nightchurn", R.Admin("fm-temp02")).Run();
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("which nightchurn needs");
    }

    [Fact]
    public void A_removal_that_would_shut_the_way_to_a_need_is_not_offered()
    {
        var (fit, worklist) = new FitScene().Account().Group("dbas", "svc-poller")
            .Instance("fm-sql01", [("dbcreator", ["dbas"])], ("db_datareader", ["svc-poller"]))
            .OfInstance("fm-sql01", i => i with { Logins = [.. i.Logins.Where(l => l.Name == "dbas")] })
            .Need(R.Db("db_datareader")).Run();
        Of(fit, R.Db("db_datareader")).Verdict.ShouldBe(Verdict.Met);
        Of(fit, R.Role("dbcreator")).Verdict.ShouldBe(Verdict.Excess);
        worklist.Remove.ShouldBeEmpty();
        worklist.NotOffered.Select(n => n.Reason).ShouldContain(r => r.Contains("db_datareader on fm-sql01/Store for", StringComparison.Ordinal));
    }

    [Fact]
    public void Case_44_a_login_that_is_switched_off_keeps_out_whoever_is_all_powerful_by_a_group()
    {
        var scene = new FitScene().Account().Group("dbas", "svc-poller")
            .Instance("fm-sql01", [("sysadmin", ["dbas"])], ("db_datareader", ["svc-poller"]))
            .OfInstance("fm-sql01", i => i with
            {
                Logins = [.. i.Logins.Select(l => l with { Disabled = l.Name == "svc-poller" })],
            });
        foreach (var right in new[] { R.Role("sysadmin"), R.Role("dbcreator"), R.Db("db_datareader") })
        {
            var judged = Of(scene.Need(right), right);
            judged.Verdict.ShouldBe(Verdict.Missing);
            judged.DeniedBy.Single().ToString().ShouldContain("login svc-poller, which is disabled");
        }
    }

    [Fact]
    public void An_unreadable_directory_leaves_nothing_met_and_offers_nothing()
    {
        var (fit, worklist) = new FitScene { DirectoryUnread = "no answer" }.Account().Host("fm-temp01", []).Need(R.Admin())
            .Run();
        fit.Accounts[0].Judgements.ShouldAllBe(j => j.Verdict == Verdict.Unseen);
        worklist.Give.ShouldAllBe(s => s.Blocked != null);
    }

    [Fact]
    public void A_membership_that_brings_nothing_is_excess_and_one_that_denies_is_not()
    {
        var fit = new FitScene().Account().Group("forgotten", "svc-poller").Group("no-service", "svc-poller")
            .Host("fm-temp01", [], (Deny, ["no-service"])).Judge();
        fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess).Right.ShouldBe(R.InGroup("forgotten"));
    }

    [Fact]
    public void What_comes_along_with_an_excess_local_group_is_named_under_it()
    {
        var fit = new FitScene().Account().Host("fm-temp01", ["svc-poller"], ("SeBatchLogonRight", ["S-1-5-32-544"])).Judge();
        var excess = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess);
        excess.Brings.ShouldBe(["log on as a batch job on fm-temp01"]);
    }

    private static FitScene Alternatives(FitScene scene, string taken, bool byInstall)
    {
        Right[] small = [R.Db("db_datareader"), R.Db("db_datawriter")];
        Right[] big = [R.Role("sysadmin")];
        scene.Decide(taken, byInstall, ("small", small), ("big", big));
        foreach (var right in taken == "small" ? small : big) scene.Need(right, decision: "poller.choice");
        return scene;
    }

    internal static Judgement Of(FitScene scene, Right right) => Of(scene.Judge(), right);

    internal static Judgement Of(InstallFit fit, Right right) =>
        fit.Accounts.SelectMany(a => a.Judgements).First(j => j.Right == right);

    private static Core.Directory.Sid SidIn(FitScene scene, string name) => scene.SidOf(name);
}
