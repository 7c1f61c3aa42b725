using JustRight.Core.Changes;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Rights;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests;

/// <summary>A service principal name counts where its account alone has it; nothing makes a second holder.</summary>
public sealed class SpnTests
{
    private const string Name = "HTTP/fm-web01.fennmoor.example", Other = @"FENNMOOR\svc-old";

    private static readonly SpnRight Web = new("FENNMOOR", Name);

    public static TheoryData<string[], string[], bool, Verdict, string> Rows => new()
    {
        { [Name], [], true, Verdict.Met, "held" },
        { ["http/FM-WEB01.fennmoor.example"], [], true, Verdict.Met, "held" },
        { [Name], ["HTTP/fm-web01"], true, Verdict.Met, "held" },
        { [Name], [], false, Verdict.Unseen, "the survey did not ask who else has it: take a new one" },
        { [Name], [Name], true, Verdict.Missing, $"{Other} has it too: Kerberos sign-in fails for both" },
        { [Name], [Name], false, Verdict.Missing, $"{Other} has it too: Kerberos sign-in fails for both" },
        { [], [], true, Verdict.Missing, "svc-poller does not hold it" },
        {
            [], [Name], true, Verdict.Missing,
            $"{Other} has it: clients get tickets for that account, and with both nobody gets one"
        },
    };

    [Theory]
    [MemberData(nameof(Rows))]
    public void It_is_met_when_the_account_has_it_and_nobody_else(
        string[] own, string[] others, bool asked, Verdict verdict, string reason)
    {
        var (fit, worklist) = Scene(own, others, asked).Need(Web).Run();
        var need = fit.Accounts[0].Judgements.Single(j => j.Grant is not null);
        (need.Verdict, need.Reason).ShouldBe((verdict, reason));
        var steps = worklist.Give.Where(s => s.Change is AddServiceName).ToList();
        if (own.Length > 0) steps.ShouldBeEmpty();
        else
            steps.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
                s => s.Change.ShouldBe(new AddServiceName("FENNMOOR", "svc-poller", Name)),
                s => s.Blocked.ShouldBe(others.Length == 0 ? null
                    : $"{Other} has it: take it from there first, or Kerberos sign-in fails for both"));
        if (own.Length > 0 && others.Contains(Name))
            worklist.NotOffered.ShouldContain(n =>
                n.Reason == $"{Other} has it too: decide who keeps it, and take it from the other");
    }

    [Fact]
    public void A_name_that_nothing_needs_is_excess_and_is_taken_away()
    {
        var (fit, worklist) = Scene([Name, "HTTP/old"], [], true).Need(Web).Run();
        fit.Accounts[0].Judgements.Single(j => j.Verdict == Verdict.Excess).Right.ServiceName.ShouldBe("HTTP/old");
        worklist.Remove.ShouldHaveSingleItem().Change.ShouldBe(new RemoveServiceName("FENNMOOR", "svc-poller", "HTTP/old"));
        Scene([Name, "HTTP/old"], [], true).Need(Web).OtherInstall("labels", new SpnRight("FENNMOOR", "http/OLD")).Run().Fit
            .Accounts[0].Judgements.ShouldAllBe(j => j.Verdict != Verdict.Excess);
    }

    [Fact]
    public void An_account_that_is_still_to_be_created_waits_for_who_has_the_name()
    {
        var scene = new FitScene().Account(exists: false).Account("svc-old", planned: false)
            .Replace("svc-old", p => p with { ServicePrincipalNames = [Name] }).Made("svc-poller", exists: false)
            .Directory(d => d with { ServiceNamesAsked = [Name] }).Need(Web);
        var step = scene.Run().Worklist.Give.Single(s => s.Change is AddServiceName);
        step.Blocked.ShouldBe($"{Other} has it: take it from there first, or Kerberos sign-in fails for both");
    }

    [Fact]
    public void Other_domains_in_which_nobody_looked_are_named() =>
        Scene([Name], [], true).Directory(d => d with { ServiceNamesAsked = [Name], OtherDomains = ["SALTMERE"] }).Need(Web)
            .Judge().Accounts[0].Judgements.Single(j => j.Grant is not null).Notes
            .ShouldBe(["other domains of the forest were not asked who has it: SALTMERE"]);

    private static FitScene Scene(string[] own, string[] others, bool asked) => new FitScene().Account()
        .Account("svc-old", planned: false).Replace("svc-poller", p => p with { ServicePrincipalNames = own })
        .Replace("svc-old", p => p with { ServicePrincipalNames = others })
        .Directory(d => d with { ServiceNamesAsked = asked ? [Name] : [] });
}
