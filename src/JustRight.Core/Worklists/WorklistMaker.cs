using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists.Retirement;

namespace JustRight.Core.Worklists;

/// <summary>
/// Turns a fit into steps, in the order of what depends on what: branches, groups, accounts, memberships, hosts, logins, roles.
/// </summary>
public static class WorklistMaker
{
    /// <summary>The steps left for an install.</summary>
    /// <param name="past">For an install that is being retired: what is known from before.</param>
    public static Worklist Make(InstallFit fit, SurveyView view, NeedsIndex needs, RetirementPast? past = null)
    {
        if (fit.Plan.Stage == Stage.Retiring)
            return Retiring(
                fit, view, needs, past
                    ?? throw new ArgumentNullException(nameof(past), "An install that is being retired needs its past."));
        var (give, left) = Give(fit, view, needs);
        var setup = fit.Accounts.SelectMany(a => a.Judgements).Where(IsLeftToSetup).Select(j => j.Id).ToList();
        var (remove, notOffered) = new RemovalMaker(fit, view, needs, give).Make();
        left = [.. left, .. notOffered];
        return new Worklist(Step.Linked(give), Step.Linked(remove), setup, [.. left, .. NotGiven.Of(fit, give, left)]);
    }

    private static (IReadOnlyList<Step> Give, IReadOnlyList<NotOffered> Left) Give(
        InstallFit fit, SurveyView view, NeedsIndex needs)
    {
        var (steps, left, shared) = (new StepList(), new List<NotOffered>(), new Dictionary<Type, SharedSteps>());
        new ObjectSteps(fit, view, steps).Add();
        foreach (var account in fit.Accounts)
        {
            var grants = fit.Plan.GrantsOf(account.Account.Key)
                .ToLookup(g => g.Right.OnHost ?? "", StringComparer.OrdinalIgnoreCase);
            foreach (var judgement in account.Judgements.Where(j => j.Grant is not null && IsToBeGiven(j)))
                judgement.Right.Give(
                    new GivingNeed(fit.Plan, view, needs, account.Account, grants, judgement, steps, left, shared));
        }

        foreach (var gathered in shared.Values) gathered.Finish();
        return (steps.Ordered(), left);
    }

    private static Worklist Retiring(InstallFit fit, SurveyView view, NeedsIndex needs, RetirementPast past)
    {
        var retirement = new RetirementSteps(fit, view, needs, past);
        var (rights, kept) = new RemovalMaker(fit, view, needs, []) { Going = retirement.Going }.Make();
        var (steps, more) = retirement.Around(rights);
        return new Worklist([], Step.Linked(steps), [], [.. kept, .. more]);
    }

    /// <summary>A task that waits for something else is a person's affair still.</summary>
    private static bool IsLeftToSetup(Judgement judgement) => judgement.Verdict == Verdict.Pending
        && !(judgement.Grant is { GivenBy: GivenBy.Us } && judgement.Right.JudgedBy == JudgedBy.Person);

    private static bool IsToBeGiven(Judgement judgement) => judgement.Grant!.GivenBy switch
    {
        GivenBy.Us => judgement.Accepted is null && judgement.Right.JudgedBy != JudgedBy.Nobody && judgement.Verdict switch
        {
            Verdict.Missing => judgement.DeniedBy.Count == 0, // a deny is not overcome by granting again
            Verdict.Met => !judgement.AsPlanned,
            Verdict.Unseen => true,
            Verdict.Pending or Verdict.Excess or Verdict.Forbidden or Verdict.Done => false,
        },

        // What setup gives and a policy takes back is given in the policy, whoever gives it on the host.
        GivenBy.Setup => judgement is { Verdict: Verdict.Pending, Governed.Gives: false },
    };
}
