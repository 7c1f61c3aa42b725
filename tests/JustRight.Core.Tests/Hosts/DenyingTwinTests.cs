using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;

namespace JustRight.Core.Tests.Hosts;

/// <summary>
/// Who is denied a log-on right is a list of its own, on which another policy may decide: now and after the next refresh, both
/// ways (case 45 of the fit).
/// </summary>
public sealed class DenyingTwinTests
{
    private const string Batch = "SeBatchLogonRight", DenyBatch = "SeDenyBatchLogonRight";
    private const string Poller = "svc-poller", Administrators = "S-1-5-32-544";
    private static readonly string[] Nobody = [];

    /// <summary>Whom the host denies now, whom the policy denies, what is said, and what the refresh changes.</summary>
    public static TheoryData<string[], string[], Verdict, string, bool?> Rows => new()
    {
        { Nobody, Nobody, Verdict.Met, "held", null },
        { Nobody, [Poller], Verdict.Met, "held, until the next policy refresh", true },
        { Nobody, ["graders"], Verdict.Met, "held, until the next policy refresh", true },
        { Nobody, [$"*{Administrators}"], Verdict.Met, "held, until the next policy refresh", true },
        { Nobody, ["others"], Verdict.Met, "held", null },
        { [Poller], Nobody, Verdict.Missing, "denied by a direct entry, until the next policy refresh", false },
        { [Poller], ["others"], Verdict.Missing, "denied by a direct entry, until the next policy refresh", false },
        { [Poller], ["graders"], Verdict.Missing, "denied by a direct entry", null },
        { ["graders"], Nobody, Verdict.Missing, "denied by FENNMOOR\\graders, until the next policy refresh", false },
        { ["graders"], [Poller], Verdict.Missing, "denied by FENNMOOR\\graders", null },
    };

    [Theory]
    [MemberData(nameof(Rows))]
    public void The_policy_that_wins_decides_from_the_next_refresh_on(
        string[] deniedNow, string[] denied, Verdict verdict, string reason, bool? ahead)
    {
        var (fit, worklist) = Scene(deniedNow).Policy("Doors", DenyBatch, denied).Run();
        var need = Of(fit);
        (need.Verdict, need.Reason, need.DenialAhead?.Denies).ShouldBe((verdict, reason, ahead));
        need.Notes.Count(n => n.Contains("policy Doors", StringComparison.Ordinal)).ShouldBe(ahead is null ? 0 : 1);
        Left(worklist).ShouldBe((verdict, ahead) switch
        {
            (_, true) => "policy Doors denies it from the next policy refresh on: its owners take the deny away",
            (_, false) => $"{reason}: policy Doors no longer denies it then; refresh the host's policies, or wait",
            (Verdict.Met, null) => null,
            _ => $"{reason}: granting it again would not overcome that; whoever denies it takes the deny away",
        });
    }

    [Fact]
    public void Without_a_policy_for_it_the_hosts_own_list_stays()
    {
        var need = Of(Scene([Poller]).Policy("Servers", Batch, Poller).Run().Fit);
        (need.Reason, need.DenialAhead).ShouldBe(("denied by a direct entry", null));
    }

    [Fact]
    public void The_right_and_its_denying_twin_may_be_two_policies()
    {
        var need = Of(
            Scene(Nobody).Policy("Servers", Batch, "*" + Administrators).Policy("Doors", DenyBatch, Poller).Run().Fit);
        (need.Reason, need.Governed!.Name, need.DenialAhead!.Name)
            .ShouldBe(("held, until the next policy refresh", "Servers", "Doors"));
        need = Of(Scene(Nobody).Policy("Servers", Batch, "others").Policy("Doors", DenyBatch, Poller).Run().Fit);
        need.Reason.ShouldBe("held, until the next policy refresh", "once, though two policies end it");
        need.Notes.Count.ShouldBe(2);
    }

    [Fact]
    public void What_is_missing_or_is_setups_and_will_be_denied_is_told_and_not_only_given()
    {
        var (fit, worklist) = new FitScene().Account().Group("others").Computer("fm-temp01").Host("fm-temp01", [], (Batch, []))
            .Policy("Doors", DenyBatch, Poller).Need(R.Batch()).Run();
        Of(fit).Notes.ShouldHaveSingleItem().ShouldStartWith("policy Doors denies it to svc-poller");
        worklist.Give.ShouldHaveSingleItem();
        Left(worklist).ShouldStartWith("policy Doors denies it");
    }

    [Theory]
    [InlineData("*nobody", "its entry *nobody is not known here")]
    [InlineData("hidden-members", "the members of FENNMOOR\\hidden-members could not be read")]
    public void An_entry_that_may_mean_the_account_leaves_it_open(string entry, string why)
    {
        var need = Of(Scene(Nobody).Group("hidden-members")
            .Replace("hidden-members", p => p with { MembersUnread = "no answer" })
            .Policy("Doors", DenyBatch, entry).Run().Fit);
        (need.Verdict, need.DenialAhead).ShouldBe((Verdict.Met, null));
        need.Notes.ShouldHaveSingleItem()
            .ShouldBe($"policy Doors says who is denied it, and whether svc-poller is, is not known: {why}");
    }

    [Fact]
    public void A_list_that_was_not_read_leaves_it_open()
    {
        var need = Of(Scene(Nobody).Of("fm-temp01", h => h with
        {
            Policies = [new AppliedPolicy("{DOORS}", "Doors")],
            LogonLists = [.. h.LogonLists.Select(l => l.Constant == DenyBatch ? l with { Policy = "{DOORS}" } : l)],
        }).Run().Fit);
        need.Notes.ShouldContain(
            "policy Doors says who is denied it, and whether svc-poller is, is not known: its list could not be read");
    }

    private static FitScene Scene(string[] deniedNow) => new FitScene().Account().Group("graders", Poller).Group("others")
        .Computer("fm-temp01").Host("fm-temp01", [Poller], (Batch, [Administrators]), (DenyBatch, deniedNow)).Need(R.Batch());

    private static Judgement Of(InstallFit fit) =>
        fit.Accounts.SelectMany(a => a.Judgements).First(j => j.Right == R.Batch());

    private static string? Left(Worklist worklist) =>
        worklist.NotOffered.SingleOrDefault(n => n.For.EndsWith(R.Batch().Key, StringComparison.Ordinal))?.Reason;
}
