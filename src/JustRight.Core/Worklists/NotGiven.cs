using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Worklists;

/// <summary>
/// What is missing and no step gives, each with why, and who does it: what the fit counts and what the worklist offers are
/// accounted for together.
/// </summary>
internal static class NotGiven
{
    /// <summary>
    /// What a policy will deny, whatever steps give it; and the missing needs that neither a step nor what is left to a person
    /// names.
    /// </summary>
    public static IEnumerable<NotOffered> Of(InstallFit fit, IReadOnlyList<Step> give, IReadOnlyList<NotOffered> left)
    {
        var named = give.SelectMany(s => s.For).Concat(left.Select(l => l.For)).ToHashSet(StringComparer.Ordinal);
        return fit.Accounts
            .SelectMany(a => a.Judgements, (a, j) => (a.Account, Judgement: j))
            .Where(m => m.Judgement.DenialAhead is { Denies: true }
                || (m.Judgement.Verdict == Verdict.Missing && !named.Contains(m.Judgement.Id)))
            .Select(m => new NotOffered(m.Judgement.Id, Why(fit.Plan, m.Account, m.Judgement)));
    }

    private static string Why(Plan plan, PlannedAccount account, Judgement judgement)
    {
        if (judgement.Right.OfAccount is { } aspect) return OfAccount(aspect, account, judgement.Reason);
        if (judgement.DenialAhead is { } ahead)
            return ahead.Denies == true
                ? $"policy {ahead.Name} denies it from the next policy refresh on: its owners take the deny away"
                : $"{judgement.Reason}: policy {ahead.Name} no longer denies it then; refresh the host's policies, or wait";
        if (judgement.DeniedBy.Count > 0)
            return $"{judgement.Reason}: granting it again would not overcome that; whoever denies it takes the deny away";
        return judgement.Grant is { GivenBy: GivenBy.Setup }
            ? $"the setup of {plan.Title} gives it: run it again, or its repair"
            : $"Just Right has no step that gives it: {judgement.Reason}";
    }

    private static string OfAccount(AccountAspect aspect, PlannedAccount account, string reason) => aspect switch
    {
        AccountAspect.Exists => $"{reason}; the install says that it exists already, so it is not created",
        AccountAspect.Branch =>
            $"{reason}; moving it changes which policies and delegations apply: the directory's people move it",
        AccountAspect.Usable => $"{account.Name} is {reason}: the directory's people make it usable again",
        AccountAspect.PasswordExpiry or AccountAspect.PasswordChange or AccountAspect.Description =>
            $"{reason}; the directory was not read well enough to change it",
    };
}
