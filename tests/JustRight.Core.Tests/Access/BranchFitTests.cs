using JustRight.Core.Changes;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Fit;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Traces;

namespace JustRight.Core.Tests.Access;

/// <summary>Rights over a branch: fit, steps, what is excess, and the trace of what fails.</summary>
public sealed class BranchFitTests
{
    private const string Domain = "DC=fennmoor,DC=example";
    private const string People = "OU=People," + Domain;
    private const string Saltmere = "OU=Saltmere," + People;
    private const string Teams = "OU=Teams," + Domain;
    private const string Mail = "bf967961-0de6-11d0-a285-00aa003049e2";
    private const string Member = "bf9679c0-0de6-11d0-a285-00aa003049e2";
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";
    private const string Group = "bf967a9c-0de6-11d0-a285-00aa003049e2";
    private const string WritesMail = $"(OA;CIIO;WP;{Mail};{User};{{svc-poller}})";

    /// <summary>Two people in the open, two behind a list that does not inherit, one team.</summary>
    private static FitScene Scene(string onPeople = "", string onSaltmere = "", string onTeams = "", string onAda = "") =>
        new FitScene().Account().Group("Role", "svc-poller").Tree(
        (Domain, "domainDNS", "D:(A;CI;GA;;;DA)"), (People, "organizationalUnit", "D:AI" + onPeople), (
            Saltmere, "organizationalUnit", "D:PAI(A;CI;GA;;;DA)" + onSaltmere), (Teams, "organizationalUnit", "D:AI" + onTeams),
        ("CN=Ada," + People, "user", "D:AI" + onAda), ("CN=Bo," + People, "user", "D:AI"), (
            "CN=Cid," + Saltmere, "user", "D:AI"), ("CN=Dot," + Saltmere, "user", "D:AI"), (
            "CN=Rounds," + Teams, "group", "D:AI"));

    [Fact]
    public void A_right_nobody_was_given_is_missing_and_planned_to_the_smallest_entry()
    {
        var (fit, list) = Scene().Need(R.Write("mail")).Run();
        var judgement = fit.Accounts[0].Judgements.Single(j => j.Grant is not null);
        judgement.Verdict.ShouldBe(Verdict.Missing);
        judgement.Reason.ShouldBe("none of 4 objects of class user grants it: no ACE gives the right");
        (judgement.Branch!.Can, judgement.Branch.Cannot).ShouldBe((0, 4));
        var step = list.Give.ShouldHaveSingleItem().Change.ShouldBeOfType<AddAccessRule>();
        step.Words.ShouldBe($@"let FENNMOOR\svc-poller write mail of user, by an ACE on {People}");
        step.Rule.ShouldBe(new AccessRule(
            @"FENNMOOR\svc-poller", false, Core.Directory.Descriptors.AccessRights.WriteProperty, Guid.Parse(Mail),
            Guid.Parse(User),
            Core.Directory.Descriptors.AceFlags.ContainerInherit | Core.Directory.Descriptors.AceFlags.InheritOnly));
    }

    [Fact]
    public void A_branch_that_does_not_inherit_is_found_counted_and_left_to_a_person()
    {
        var (fit, list) = Scene(WritesMail).Need(R.Write("mail")).Run();
        var judgement = fit.Accounts[0].Judgements.Single(j => j.Grant is not null);
        judgement.Verdict.ShouldBe(Verdict.Missing);
        judgement.Reason.ShouldBe(
            $"2 of 4 objects of class user refuse it: inheritance stops at {Saltmere}: the right to write mail comes from above and does not reach further");
        judgement.Branch!.Failures.ShouldHaveSingleItem().At.ShouldBe([Saltmere]);
        judgement.Notes.ShouldBe([$"a new user in {Saltmere} would not be covered"]);
        list.Give.ShouldBeEmpty();
        list.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("trace it");
        fit.Accounts[0].Judgements.ShouldNotContain(j => j.Verdict == Verdict.Excess && j.Right is EntryRight);
    }

    [Theory]
    [InlineData(WritesMail, WritesMail, true, "")]
    [InlineData(WritesMail + "(OA;CIIO;WP;" + Member + ";" + Group + ";{svc-poller})", WritesMail, true, "nothing needs it")]
    [InlineData("(OA;CIIO;WP;;" + User + ";{svc-poller})", WritesMail, true, "it gives more than is needed there")]
    [InlineData("(OA;CIIO;RPWPCR;" + Mail + ";" + User + ";{svc-poller})", WritesMail, true, "more than is needed: Mail")]
    [InlineData("(OA;CIIO;WP;" + Mail + ";;{svc-poller})", WritesMail, true, "it gives more than is needed there")]
    [InlineData(WritesMail, WritesMail + "(A;;WO;;;{svc-poller})", true, "nothing needs it")]
    [InlineData(WritesMail, WritesMail + "(A;CI;RPLCRC;;;{svc-poller})", true, "")]
    public void What_is_delegated_beyond_the_need_is_excess(string onPeople, string onSaltmere, bool met, string excess)
    {
        var fit = Scene(onPeople, onSaltmere).Need(R.Write("mail")).Judge();
        (fit.Accounts[0].Judgements.Single(j => j.Grant is not null).Verdict == Verdict.Met).ShouldBe(met);
        fit.Accounts[0].Judgements.Where(j => j.Verdict == Verdict.Excess && j.Right is EntryRight).Select(j => j.Reason)
            .FirstOrDefault("").ShouldBe(excess, StringCompareShould.IgnoreCase);
    }

    [Fact]
    public void A_wider_entry_than_needed_is_excess_and_goes_once_the_narrow_one_stands()
    {
        var scene = new FitScene().Account().Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;DA)" + WritesMail), (
                People, "organizationalUnit",
                "D:AI"), ("CN=Ada," + People, "user", "D:AI"), (Teams, "organizationalUnit", "D:AI"), ("CN=Eve," + Teams, "user",
                "D:AI"));
        var (fit, list) = scene.Need(R.Write("mail")).Run();
        fit.Accounts[0].Judgements.Single(j => j.Grant is not null).Verdict.ShouldBe(Verdict.Met);
        var excess = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess);
        excess.Reason.ShouldBe("it covers more than the branch that is needed");
        excess.Paths[0].ToString().ShouldBe($@"FENNMOOR\svc-poller -> entry on {Domain} -> write mail of user");
        list.NotOffered.ShouldHaveSingleItem().Reason.ShouldContain("would break");
        list.Remove.ShouldBeEmpty();
    }

    [Fact]
    public void What_only_some_objects_grant_is_not_taken_from_those()
    {
        // The wide entry on the domain is excess, and all that two of four people have; the narrow one is not there yet, and nobody gives it.
        var scene = new FitScene().Account().Tree(
            (Domain, "domainDNS", "D:(A;CI;GA;;;DA)" + WritesMail), (People, "organizationalUnit", "D:AI"), (
                Saltmere, "organizationalUnit",
                "D:PAI(A;CI;GA;;;DA)"), ("CN=Ada," + People, "user", "D:AI"), ("CN=Cid," + Saltmere, "user", "D:AI"));
        scene.Stage = Core.Installs.Stage.Installed;
        var list = scene.Need(R.Write("mail"), by: GivenBy.Setup).Run().Worklist;
        list.Remove.ShouldBeEmpty();
        list.NotOffered.ShouldContain(n => n.Reason.Contains("would break", StringComparison.Ordinal));
    }

    [Fact]
    public void An_entry_that_came_through_a_group_is_cut_at_the_membership_and_an_own_one_at_the_list()
    {
        var (fit, list) = Scene(onTeams: $"(OA;CIIO;WP;{Member};{Group};{{Role}})(A;;WD;;;{{svc-poller}})").Run();
        fit.Accounts[0].Judgements.Where(j => j.Right is EntryRight).Select(j => j.Verdict)
            .ShouldBe([Verdict.Excess, Verdict.Excess]);
        list.Remove.Select(s => s.Change.Words)
            .ShouldBe(
                [
                    $@"no longer let FENNMOOR\svc-poller change its access list: remove the ACE on {Teams}",
                    @"remove FENNMOOR\svc-poller from FENNMOOR\Role"],
                ignoreOrder: true);
        list.Remove.Select(s => s.Change).OfType<RemoveAccessRule>().Single().Position.ShouldBe(1);
    }

    [Fact]
    public void A_forbidden_act_is_found_in_an_entry_that_gives_a_part_of_it()
    {
        var fit = Scene(onPeople: $"(OA;CIIO;CR;00299570-246d-11d0-a768-00aa006e0529;{User};{{Role}})" + WritesMail)
            .BarAct(DirectoryAct.ResetPassword, "user").Judge();
        var forbidden = fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Forbidden);
        forbidden.Right.Words.ShouldBe("reset password of user");
        forbidden.Paths[0].ToString().ShouldStartWith(@"FENNMOOR\svc-poller -> FENNMOOR\Role -> entry on OU=People");
        fit.Accounts[0].Judgements.Count(j => j.Verdict == Verdict.Excess).ShouldBe(1, "the mail entry is excess, not forbidden");
    }

    [Fact]
    public void A_branch_that_was_not_read_is_unseen_and_so_is_an_estate_without_access_lists()
    {
        var scene = new FitScene { TreeUnread = [new UnreadPart(Saltmere, "access denied")] }.Account()
            .Tree((Domain, "domainDNS", "D:"), (People, "organizationalUnit", "D:AI" + WritesMail));
        scene.Need(R.Write("mail")).Judge().Accounts[0].Judgements.Single(j => j.Grant is not null)
            .ShouldSatisfyAllConditions(
                j => j.Verdict.ShouldBe(Verdict.Unseen), j => j.Reason.ShouldBe($"{Saltmere} could not be read: access denied"));
        new FitScene().Account().Need(R.Write("mail"))
            .Judge().Accounts[0].Judgements.Single(j => j.Grant is not null).Reason.ShouldBe(
                "the ACLs of the directory were not surveyed");
    }

    [Fact]
    public void Membership_of_groups_is_met_over_one_branch_and_covers_the_group_of_tomorrow()
    {
        var fit = Scene(onTeams: $"(OA;CIIO;WP;{Member};{Group};{{svc-poller}})")
            .Need(R.Act(DirectoryAct.ChangeMembership, "group", Teams)).Judge();
        var judgement = fit.Accounts[0].Judgements.Single(j => j.Grant is not null);
        (judgement.Verdict, judgement.Branch!.Can, judgement.Notes.Count).ShouldBe((Verdict.Met, 1, 0));
        judgement.Paths[0].ToString()
            .ShouldBe($@"FENNMOOR\svc-poller -> access list of CN=Rounds,{Teams} -> change membership of group");
        fit.Counts.JustRight.ShouldBeFalse("the Role group brings nothing that is known");
    }

    [Fact]
    public void A_trace_offers_inheritance_and_the_spot_and_says_what_each_would_change_for_everybody()
    {
        var view = Scene(WritesMail + "(A;CI;GR;;;{Role})").View();
        var trace = Trace(view, below: People);
        (trace.Answer.Can, trace.Answer.Cannot).ShouldBe((2, 2));
        var remedies = trace.Remedies.ShouldHaveSingleItem();
        remedies.Select(r => r.Id).ShouldBe(["1-inherit", "1-spot"]);
        remedies[0].Preview.Touched.ShouldBe([Saltmere, "CN=Cid," + Saltmere, "CN=Dot," + Saltmere]);
        (remedies[0].Preview.Fixed, remedies[0].Preview.StillFailing).ShouldBe((2, 0));
        remedies[0].Preview.Gained.ShouldContain(new RightFlow(@"FENNMOOR\svc-poller", "write mail", false, 2));
        remedies[0].Preview.Gained.ShouldContain(f => f.Who == @"FENNMOOR\Role" && f.Objects == 3);
        remedies[0].Preview.Lost.ShouldBeEmpty();
        remedies[1].Preview.Gained.ShouldHaveSingleItem().ShouldBe(new RightFlow(@"FENNMOOR\svc-poller", "write mail", false, 2));
        remedies[1].Changes.ShouldHaveSingleItem().ShouldBeOfType<AddAccessRule>().Dn.ShouldBe(Saltmere);
    }

    [Fact]
    public void What_if_inheritance_were_on_there_or_the_account_in_a_group()
    {
        var view = Scene(WritesMail).View();
        Trace(view, below: People, inheriting: [Saltmere]).Answer.Cannot.ShouldBe(0);
        var group = Scene($"(OA;CIIO;WP;{Mail};{User};{{Domain Admins}})").View();
        Trace(group, below: People).Answer.Cannot.ShouldBe(4);
        Trace(group, below: People, memberOf: ["Domain Admins"]).Answer.Cannot.ShouldBe(2, "Saltmere does not inherit");
    }

    [Fact]
    public void A_denial_is_named_where_it_stands_and_can_be_taken_away()
    {
        var view = Scene($"(OD;CIIO;WP;{Mail};{User};{{Role}})" + WritesMail, WritesMail).View();
        var trace = Trace(view, below: People);
        (trace.Answer.Can, trace.Answer.Cannot).ShouldBe((2, 2));
        trace.Answer.Failures.ShouldHaveSingleItem().Words.ShouldBe($"an ACE on {People} denies the right to write mail");
        var remedy = trace.Remedies[0].ShouldHaveSingleItem();
        remedy.Changes.ShouldHaveSingleItem().Words.ShouldBe(
            $@"no longer forbid FENNMOOR\Role to write mail of user: remove the ACE on {People}");
        remedy.Preview.Lost.ShouldHaveSingleItem().Denies.ShouldBeTrue();
    }

    [Fact]
    public void Given_objects_are_traced_and_those_not_there_are_named()
    {
        var trace = Trace(Scene(WritesMail).View(), objects: ["CN=Cid," + Saltmere, "CN=Ada," + People, "CN=Nobody," + People]);
        (trace.Answer.Can, trace.Answer.Cannot).ShouldBe((1, 1));
        trace.NotFound.ShouldBe(["CN=Nobody," + People]);
    }

    private static AccessTrace Trace(
        SurveyView view, string? below = null, string[]? objects = null, string[]? memberOf = null,
        string[]? inheriting = null) => AccessTrace.Make(
        new TraceQuestion(
            @"FENNMOOR\svc-poller", view.Graph.IndexOf("svc-poller"), R.Write("mail").Below with { Branch = below ?? "" },
            objects ?? [], memberOf ?? [], inheriting ?? []),
        view.Tree!, view.Graph);
}
