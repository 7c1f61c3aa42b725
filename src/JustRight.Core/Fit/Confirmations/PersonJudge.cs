using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit.Confirmations;

/// <summary>Judges what no survey reads by what a person last said they saw.</summary>
/// <param name="zone">The organization's time zone, in which days are told.</param>
public sealed class PersonJudge(ConfirmationIndex confirmationIndex, SurveyView view, Present present, TimeZoneInfo zone)
{
    private static readonly TimeSpan Soon = TimeSpan.FromDays(30);

    /// <summary>The verdict: a word that has lapsed, or was given for something else, leaves it unseen.</summary>
    public Judgement Judge(Plan plan, PlannedAccount account, PlannedGrant grant) => Judge(plan, account, grant, []);

    /// <param name="asking">The tasks that are being asked about, each waiting for the next.</param>
    private Judgement Judge(Plan plan, PlannedAccount account, PlannedGrant grant, IReadOnlyList<PlannedGrant> asking)
    {
        var asked = grant.Right.Confirmable!;
        var stands = NeedsIndex.Stands(grant, plan.Stage);
        var noLonger = plan.Stage == Stage.Retiring ? "no longer needed" : "needed for setup only";
        var task = asked as TaskAsked;
        if (task is not null && !stands) return Say(grant, Verdict.Done, noLonger);
        var toSetup = grant.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned;
        var pending = toSetup ? "setup gives it"
            : task is not null && Awaited(plan, account, task, [.. asking, grant]) is { } awaited ? $"it waits until {awaited}"
            : null;
        if (confirmationIndex.LatestOf(plan.Install, grant.Id) is not { } word)
        {
            if (pending is not null) return Say(grant, Verdict.Pending, pending);
            if (plan.Stage == Stage.Retiring)
                return Say(grant, Verdict.Done, "no longer needed; nobody confirmed it inside the product that is being retired");
            return Say(
                grant, Verdict.Unseen, stands ? asked.Unsaid : $"{noLonger}, and nobody has confirmed that it is not there");
        }

        var said = $"{word.By}, {word.At.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)} UTC";
        if (WhyLapsed(word, asked, PrincipalOf(plan, account, grant)) is { } lapsed)
            return Say(grant, Verdict.Unseen, $"{lapsed} ({said}): {asked.LookAgain}") with { Confirmation = word };
        var confirmed = $"confirmed by a person until {Day(word.Until)}: {said}";
        var judged = (stands, word.Held) switch
        {
            (true, true) => Say(grant, Verdict.Met, confirmed),
            (true, false) when pending is not null => Say(grant, Verdict.Pending, pending),
            (true, false) => Say(grant, Verdict.Missing, $"{asked.NotSo}; {confirmed}"),
            (false, true) =>
                Say(grant, Verdict.Excess, $"{(plan.Stage == Stage.Retiring ? noLonger : "left over from setup")}; {confirmed}"),
            (false, false) => Say(grant, Verdict.Done, $"{noLonger}, and not there; {confirmed}"),
        };
        return judged with { Confirmation = word, Notes = present.HasReached(word.Until - Soon) ? [EndsIn(word)] : [] };
    }

    /// <summary>What a task still waits for; null when it can be done.</summary>
    private string? Awaited(Plan plan, PlannedAccount account, TaskAsked task, IReadOnlyList<PlannedGrant> asking)
    {
        foreach (var name in task.WaitsFor)
        {
            if (name == TaskNeed.Installed)
            {
                if (plan.Stage == Stage.Planned) return "the product is installed";
            }
            else if (name == TaskNeed.Account)
            {
                if (view.Graph.IndexOf(account.Name) < 0) return $"{account.Name} is there";
            }
            else if (plan.Grants.Any(g =>
                g.Right.Confirmable is TaskAsked t && t.Task == name && !asking.Contains(g) && !IsDone(plan, g, asking)))
            {
                return $"the task '{name}' is done";
            }
        }

        return null;
    }

    private bool IsDone(Plan plan, PlannedGrant task, IReadOnlyList<PlannedGrant> asking) =>
        Judge(plan, plan.Accounts.First(a => a.Key == task.Account), task, asking).Verdict is Verdict.Met or Verdict.Done;

    /// <summary>The logon name of what is mapped: the group it goes through, or the account.</summary>
    public static string PrincipalOf(Plan plan, PlannedAccount account, PlannedGrant grant) =>
        grant.Through is { } through && plan.Groups.FirstOrDefault(g => g.Key == through) is { } group
            ? group.Name
            : account.Name;

    private string EndsIn(Confirmation word)
    {
        var days = present.UnitsUntil(word.Until, TimeSpan.FromDays(1));
        return $"that ends in {days} {(days == 1 ? "day" : "days")}: look again soon";
    }

    private string? WhyLapsed(Confirmation word, Confirmable asked, string principal)
    {
        if (present.HasReached(word.Until)) return $"a person's confirmation expired on {Day(word.Until)}";
        if (!string.Equals(word.Principal, principal, StringComparison.OrdinalIgnoreCase))
            return $"a person confirmed it for {word.Principal}, not for {principal}";
        if (word.Sid is { } sid && SidOf(principal) is { } found && found != sid)
            return $"a person confirmed it for another {principal}, which has been made anew since";
        return asked.Details.ToHashSet(StringComparer.OrdinalIgnoreCase).SetEquals(word.Details)
            ? null
            : asked.OtherDetails(word.Details);
    }

    private string Day(DateTimeOffset at) =>
        TimeZoneInfo.ConvertTime(at, zone).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private Sid? SidOf(string principal) => view.Graph.IndexOf(principal) is >= 0 and var node ? view.Graph.SidOf(node) : null;

    private static Judgement Say(PlannedGrant grant, Verdict verdict, string reason) =>
        new(grant.Id, grant.Account, grant.Right, verdict, reason, [])
        {
            Grant = grant,
        };
}
