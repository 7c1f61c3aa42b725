using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// Policies decide who stays in the local groups of a host (case 46 of the fit): what they restrict, and the items of their
/// preferences.
/// </summary>
public sealed class GovernedGroupTests
{
    private const string Poller = "svc-poller", Administrators = "*S-1-5-32-544";
    private const string Taken = "held, until the next policy refresh";

    /// <summary>Who is in now, the rule, what is said of an account, and whether the policy governs its membership.</summary>
    public static TheoryData<string, string[], PolicyGroupRule, string, bool?> Rows => new()
    {
        { "the list has it", [Poller], Whole(Poller), "held", true },
        { "the list lacks it", [Poller], Whole("others"), Taken, false },
        { "the list is empty", [Poller], Whole(), Taken, false },
        { "the list has a group of it", [Poller], Whole("graders"), "held", true },
        { "not in, and on the list", [], Whole(Poller), Gives, true },
        { "not in, nor on the list", [], Whole("others"), Lacks, false },
        { "it is put in", [], new(PolicyGroupAct.MemberOf, Poller, [Administrators]), Gives, true },
        { "another one is put in", [], new(PolicyGroupAct.MemberOf, "others", [Administrators]), NotHeld, null },
        { "another one is put in beside it", [Poller], new(PolicyGroupAct.MemberOf, "others", [Administrators]), "held", true },
        { "put into another group", [], new(PolicyGroupAct.MemberOf, Poller, ["*S-1-5-32-545"]), NotHeld, null },
        { "by name", [Poller], new(PolicyGroupAct.Members, "administrators", []), Taken, false },
        { "another group's list", [Poller], new(PolicyGroupAct.Members, "*S-1-5-32-545", []), "held", null },
        { "an item adds it", [], Item(PolicyGroupAct.Update, Poller), Gives, true },
        { "an item adds another", [], Item(PolicyGroupAct.Update, "others"), NotHeld, null },
        { "an item removes it", [Poller], Item(PolicyGroupAct.Update) with { Removed = [Poller] }, Taken, false },
        { "an item removes it, and it is not in", [], Item(PolicyGroupAct.Update) with { Removed = [Poller] }, Lacks, false },
        { "an item clears users", [Poller], Item(PolicyGroupAct.Update) with { ClearsUsers = true }, Taken, false },
        { "an item clears groups", [Poller], Item(PolicyGroupAct.Update) with { ClearsGroups = true }, "held", true },
        {
            "an item clears groups, and it is in by one", ["graders"],
            Item(PolicyGroupAct.Update) with { ClearsGroups = true }, Taken, false
        },
        {
            "an item clears users and adds it", ["others"], Item(PolicyGroupAct.Update, Poller) with { ClearsUsers = true },
            Gives, true
        },
        { "an item makes it anew", [Poller], Item(PolicyGroupAct.Replace, "others"), Taken, false },
        { "an item makes it anew with it", [Poller], Item(PolicyGroupAct.Replace, Poller), "held", true },
        { "an item makes it where there is none", [Poller], Item(PolicyGroupAct.Create, "others"), "held", null },
        { "an item takes the group away", [Poller], Item(PolicyGroupAct.Delete, Poller), Taken, false },
    };

    private const string Gives = "policy Doors gives it, from the next policy refresh on";
    private const string NotHeld = "svc-poller does not hold it";
    private const string Lacks = "svc-poller does not hold it; policy Doors governs it, and its list lacks svc-poller";

    [Theory]
    [MemberData(nameof(Rows))]
    public void What_a_policy_does_to_a_group_is_told_before_it_happens(
        string situation, string[] now, PolicyGroupRule rule, string reason, bool? gives)
    {
        var (fit, worklist) = Scene(now).PolicyOfGroups("Doors", rule).Run();
        var need = Of(fit);
        (need.Reason, need.Governed?.Gives).ShouldBe((reason, gives), situation);
        var isMet = need is { Verdict: Verdict.Met, AsPlanned: true };
        worklist.Give.Count.ShouldBe(isMet || gives is not null ? 0 : 1, "what a policy decides is given in the policy");
        worklist.NotOffered.Where(n => n.For == need.Id).Select(n => n.Reason.Split(':')[0]).ShouldBe((isMet, gives) switch
        {
            (false, true) => ["policy Doors puts it into Administrators at the next policy refresh"],
            (false, false) => ["policy Doors says who is in Administrators on fm-temp01"],
            _ => [],
        });
    }

    [Fact]
    public void What_comes_with_the_log_on_is_not_said_to_be_taken_away()
    {
        var need = Of(new FitScene().Account().Group("others").Computer("fm-temp01")
            .Host("fm-temp01", ["S-1-5-6"], ("SeServiceLogonRight", [Poller])).Need(R.Admin())
            .PolicyOfGroups("Doors", Whole("*S-1-5-6")).Run().Fit);
        (need.Verdict, need.Reason).ShouldBe((Verdict.Met, "held"));
        need.Notes.ShouldHaveSingleItem().ShouldStartWith("policy Doors governs it, and it comes with the log-on");
    }

    [Fact]
    public void What_setup_puts_in_and_a_policy_takes_out_is_told()
    {
        var (fit, worklist) = Scene([], GivenBy.Setup).PolicyOfGroups("Doors", Whole("others")).Run();
        Of(fit).Reason.ShouldBe("setup gives it, and policy Doors takes it back");
        worklist.NotOffered.ShouldHaveSingleItem().Reason.ShouldStartWith("policy Doors says who is in Administrators");
    }

    /// <summary>The policy of higher precedence comes first.</summary>
    public static TheoryData<string, PolicyGroupRule[][], string> Orders => new()
    {
        { "the higher list decides", [[Whole("others")], [Whole(Poller)]], Taken },
        { "and the lower one does not", [[Whole(Poller)], [Whole("others")]], "held" },
        { "templates come after the items", [[Whole(Poller)], [Item(PolicyGroupAct.Replace, "others")]], "held" },
        { "whatever their order", [[Item(PolicyGroupAct.Replace, "others")], [Whole(Poller)]], "held" },
        {
            "the higher item comes last",
            [[Item(PolicyGroupAct.Update, Poller)], [Item(PolicyGroupAct.Update) with { ClearsUsers = true }]], "held"
        },
        {
            "so that it takes away what the lower gave",
            [[Item(PolicyGroupAct.Update) with { ClearsUsers = true }], [Item(PolicyGroupAct.Update, Poller)]], Taken
        },
        {
            "of one policy the later item comes last",
            [[Item(PolicyGroupAct.Update) with { ClearsUsers = true }, Item(PolicyGroupAct.Update, Poller)]], "held"
        },
        {
            "where a principal is put, the higher says",
            [[new(PolicyGroupAct.MemberOf, Poller, [])], [new(PolicyGroupAct.MemberOf, Poller, [Administrators])],
                [Item(PolicyGroupAct.Update) with { Removed = [Poller] }]],
            Taken
        },
    };

    [Theory]
    [MemberData(nameof(Orders))]
    public void Policies_count_in_their_order(string situation, PolicyGroupRule[][] policies, string reason)
    {
        var scene = Scene([Poller]);
        for (var i = 0; i < policies.Length; i++) scene.PolicyOfGroups($"P{i}", policies[i]);
        Of(scene.Run().Fit).Reason.ShouldBe(reason, situation);
    }

    /// <summary>Rules after which it is not known who is in.</summary>
    public static TheoryData<PolicyGroupRule[]?, string> Doubts => new()
    {
        { null, "what policy Doors does to local groups could not be read" },
        { [Whole("*nobody")], "a policy puts *nobody in, which is not known here" },
        { [new(PolicyGroupAct.MemberOf, "*nobody", [Administrators])], "policy Doors puts *nobody in, which is not known here" },
        {
            [Item(PolicyGroupAct.Update) with { ClearsUsers = true, IsTargeted = true }],
            "an item of policy Doors is for some hosts alone, which only the host knows"
        },
        {
            [Whole("others"), new(PolicyGroupAct.MemberOf, Poller, [Administrators])],
            "policy Doors says who is in it, and policy Doors puts svc-poller in: which counts is not published"
        },
    };

    [Theory]
    [MemberData(nameof(Doubts))]
    public void What_leaves_it_open_is_told(PolicyGroupRule[]? rules, string why)
    {
        var need = Of(Scene([Poller]).PolicyOfGroups("Doors", rules).Run().Fit);
        (need.Reason, need.Governed).ShouldBe(("held", null));
        need.Notes.ShouldBe([$"whether a group policy governs it is not known: {why}"]);
    }

    [Fact]
    public void Random_rules_come_out_as_in_a_model_that_asks_for_one_principal_at_a_time() =>
        Gen.Int[0, int.MaxValue].Sample(
            seed =>
            {
                var random = new Random(seed);
                var now = Names.Where(_ => random.Next(2) == 0).ToArray();
                var policies = Enumerable.Range(0, 1 + random.Next(4))
                    .Select(_ => Enumerable.Range(0, random.Next(4)).Select(_ => AnyRule(random)).ToArray()).ToArray();
                var scene = new FitScene().Account().Group("graders", Poller).Group("others").Group("c").Group("e")
                    .Computer("fm-temp01").Host("fm-temp01", now);
                var view = scene.View();
                var host = view.Host("fm-temp01")!;
                var ahead = GroupAhead.Of(
                    host, host.LocalGroups[0],
                    [.. policies.Select((_, i) => new PolicyStanding($"{i}", $"{i}", "", 1, false, LinkFate.Applies, ""))],
                    policies.Select((p, i) => (i, p)).ToDictionary(
                        p => $"{p.i}", p => new GroupPolicy($"{p.i}", $"{p.i}", false, null, []) { Groups = p.p }),
                    view.Graph);
                if (ahead.Doubt is not null) return;
                foreach (var name in Names)
                    ahead.Members.Contains(scene.SidOf(name)).ShouldBe(
                        IsIn(name, now, policies), $"{name}, seed {seed}");
            },
            iter: 300);

    private static readonly string[] Names = [Poller, "graders", "others", "c", "e"];

    private static bool IsIn(string name, string[] now, PolicyGroupRule[][] policies)
    {
        var all = policies.SelectMany(p => p).ToList();
        var put = all.Find(r => r.Act == PolicyGroupAct.MemberOf && r.Name == name);
        if (put is not null && put.Entries.Contains(Administrators)) return true;
        if (all.Find(r => r.Act == PolicyGroupAct.Members && r.Name == Administrators) is { } whole)
            return whole.Entries.Contains(name);
        var isGroup = name != Poller;
        foreach (var item in policies.SelectMany(p => Enumerable.Reverse(p)).Where(r => r.Name == Administrators))
        {
            if (item.Act is PolicyGroupAct.Update or PolicyGroupAct.Replace && item.Entries.Contains(name)) return true;
            if (item.Act is PolicyGroupAct.Replace or PolicyGroupAct.Delete) return false;
            if (item.Act != PolicyGroupAct.Update) continue;
            if (item.Removed.Contains(name) || (isGroup ? item.ClearsGroups : item.ClearsUsers)) return false;
        }

        return now.Contains(name);
    }

    private static PolicyGroupRule AnyRule(Random random)
    {
        string[] Some() => [.. Names.Where(_ => random.Next(3) == 0)];
        var group = random.Next(5) == 0 ? "*S-1-5-32-545" : Administrators;
        return random.Next(6) switch
        {
            0 => new PolicyGroupRule(PolicyGroupAct.Members, group, Some()),
            1 => new PolicyGroupRule(
                PolicyGroupAct.MemberOf, Names[random.Next(Names.Length)], random.Next(3) == 0 ? [] : [group]),
            _ => new PolicyGroupRule(
                (PolicyGroupAct)((int)PolicyGroupAct.Create + random.Next(4)), group, Some())
            {
                Removed = Some(),
                ClearsUsers = random.Next(4) == 0,
                ClearsGroups = random.Next(4) == 0,
            },
        };
    }

    private static PolicyGroupRule Whole(params string[] entries) => new(PolicyGroupAct.Members, Administrators, entries);

    private static PolicyGroupRule Item(PolicyGroupAct act, params string[] added) => new(act, Administrators, added);

    private static FitScene Scene(string[] now, GivenBy by = GivenBy.Us) => new FitScene().Account().Group("graders", Poller)
        .Group("others").Computer("fm-temp01").Host("fm-temp01", now).Need(R.Admin(), by);

    private static Judgement Of(InstallFit fit) =>
        fit.Accounts.SelectMany(a => a.Judgements).First(j => j.Right == R.Admin());
}
