using JustRight.Core.Engines;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Retirement;

/// <summary>
/// Judges the accounts of an install that is being retired: those that only it uses shall be disabled, and then go.
/// </summary>
internal static class RetiredAccounts
{
    /// <summary>
    /// The verdict on an account itself. Excess only when it is ours, nobody else uses it, and it can still be used.
    /// </summary>
    public static IEnumerable<Judgement> Judge(SurveyView view, NeedsIndex needs, PlannedAccount account, string domain, int node)
    {
        var (verdict, reason) = (view.Survey.Directory.Unread, node < 0 ? null : view.Graph.PrincipalOf(node)) switch
        {
            ({ } unread, _) => (Verdict.Unseen, $"the directory could not be read: {unread}"),
            (_, null) => (Verdict.Done, "it is not there"),
            (_, { Kind: PrincipalKind.Group }) => (Verdict.Done, $"{account.Name} is a group, not an account"),
            _ when needs.Unplanned.FirstOrDefault(u => u.MayUse(account.Name)) is { } unknown => (Verdict.Unseen, unknown.Words),
            _ when WhyKept(needs, account) is { } kept => (Verdict.Done, kept),
            (_, { } found) when found.State.HasFlag(AccountState.Disabled) => (Verdict.Done, "disabled"),
            _ => (Verdict.Excess, "nothing uses it, and it is not disabled"),
        };
        yield return new Judgement(
            $"{account.Key}/{AllEngines.OfAccount(domain, AccountAspect.Exists).Key}", account.Key,
            AllEngines.OfAccount(domain, AccountAspect.Exists), verdict, reason, []);
    }

    /// <summary>Why an account stays though its install goes, or null when it goes along.</summary>
    public static string? WhyKept(NeedsIndex needs, PlannedAccount account) =>
        needs.UsersOf(account.Name).Distinct()
            .ToList() is { Count: > 0 } users ? $"kept: {string.Join(" and ", users)} {(users.Count == 1 ? "uses" : "use")} it"
            : account.Existing ? "kept: it existed before, and its owner decides"
            : null;
}
