using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Undo;

namespace JustRight.Core.Handovers;

/// <summary>Splits a worklist by team and place, and says of each step why it asks for this and not for more.</summary>
public static class HandoverMaker
{
    /// <summary>The handovers of an install, in the order of the worklist.</summary>
    /// <param name="source">The guide that the sheet was read from.</param>
    /// <param name="remove">Whether for what is to be taken away, instead of what is to be given.</param>
    public static IReadOnlyList<Handover> Make(InstallFit fit, Worklist worklist, string source, bool remove)
    {
        var judgements = fit.Accounts.SelectMany(a => a.Judgements).GroupBy(j => j.Id).ToDictionary(g => g.Key, g => g.First());
        var steps = remove ? worklist.Remove : worklist.Give;
        return
        [
            .. steps.GroupBy(s => KeyOf(s.Change)).Select(group => new Handover(
                fit.Plan.Install, fit.Plan.Title, fit.Plan.Sheet, source, fit.Plan.Estate, group.Key.Team, group.Key.Place,
                remove, fit.Simulated, fit.SurveyedAt,
                [.. group.Select(s => Step(fit.Plan, s, judgements))],
                Undoing.Of([.. group.Select(s => s.Change).Where(c => c.Inverse is not null || c.OnlySettles)]))
            {
                ByHand = group.Key.ByHand,
                Engine = fit.Plan.Engines.GetValueOrDefault(group.Key.Place),
                After = [.. steps.TakeWhile(s => s.Number < group.Last().Number).Where(s =>
                    KeyOf(s.Change) != group.Key).Select(
                    s => $"the {s.Change.Team.ToString().ToLowerInvariant()} team's at {s.Change.Place}").Distinct()],
            }),
        ];
    }

    /// <summary>What a person does goes to a team apart from what its scripts do.</summary>
    private static (Team Team, string Place, bool ByHand) KeyOf(Change change) => (change.Team, change.Place, change is DoTask);

    private static HandoverStep Step(Plan plan, Step step, Dictionary<string, Judgement> judgements)
    {
        var served = step.For.Select(f => judgements.GetValueOrDefault(f)).OfType<Judgement>().ToList();
        var keys = served.Select(j => j.Account).Concat(step.For.Select(f => f.Split('/')[0])).Distinct(StringComparer.Ordinal);
        var accounts = plan.Accounts.Where(a => keys.Contains(a.Key)).Select(a => $"{plan.Domain}\\{a.Name}: {a.Purpose}")
            .ToList();
        return new HandoverStep(
            step.Number, step.Change, step.Why, accounts, [.. Least(plan, served).Distinct()], step.Blocked, step.At);
    }

    private static IEnumerable<string> Least(Plan plan, List<Judgement> served)
    {
        foreach (var grant in served.Select(j => j.Grant).OfType<PlannedGrant>())
        {
            if (plan.Decisions.FirstOrDefault(d => d.Id == grant.Decision) is { } decision)
                yield return $"'{decision.Taken}' was taken among {decision.Alternatives.Count} alternatives: {decision.Reason}";
            if (grant.Right.OfService is null) yield return grant.Right.Reach.Reason;
            if (grant.Until == Sheets.Until.Installed) yield return "needed for setup only, and removed afterwards";
            if (grant.Through is { } through && plan.Groups.FirstOrDefault(g => g.Key == through) is { } group)
                yield return $"given to the group {plan.Domain}\\{group.Name}, so that the next account needs no new grant";
        }

        foreach (var judgement in served.Where(j => j.Governed is not null))
            yield return $"policy {judgement.Governed!.Name} decides this right: a grant on the host alone will not last";
        foreach (var judgement in served.Where(j => j.DenialAhead is { Denies: true }))
            yield return $"policy {judgement.DenialAhead!.Name} denies this right from the next policy refresh on";
        foreach (var judgement in served.Where(j => j.Verdict is Verdict.Excess or Verdict.Forbidden))
            yield return $"{(judgement.Verdict == Verdict.Excess ? "excess" : "forbidden")}: {judgement.Reason}";
    }
}
