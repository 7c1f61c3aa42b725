using JustRight.Core.Plans;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit;

/// <summary>
/// What was read of an install's accounts that decides no verdict today and will matter: ends that come near, accounts nobody
/// uses, names that two accounts claim.
/// </summary>
internal static class AccountFindings
{
    private static readonly TimeSpan Soon = TimeSpan.FromDays(30);
    private static readonly TimeSpan Long = TimeSpan.FromDays(180);

    /// <summary>The findings, by account in the order of the plan. Times are held against the survey's own.</summary>
    public static IEnumerable<Finding> Of(Plan plan, SurveyView view)
    {
        var now = view.Survey.TakenAt;
        foreach (var planned in plan.Accounts)
        {
            if (view.Graph.IndexOf(planned.Name) is not (>= 0 and var node) || view.Graph.PrincipalOf(node) is not { } account)
                continue;
            if (account.PasswordExpiresAt is { } expiry && expiry > now && expiry - now <= Soon)
                yield return Say($"Its password expires {In(expiry - now)}, at {expiry:yyyy-MM-dd HH:mm} UTC, under its password policy.");
            if (account.EndsAt is { } end && end > now && end - now <= Soon)
                yield return Say($"The account expires {In(end - now)}, at {end:yyyy-MM-dd HH:mm} UTC.");
            if (account.LastSeenAt is { } seen && now - seen > Long)
                yield return Say($"It has not signed in for {(int)(now - seen).TotalDays} days: is it still used?");
            foreach (var text in ManagedPasswordFindings.Of(plan, planned, account, view)) yield return Say(text);
            foreach (var name in account.ServicePrincipalNames)
                foreach (var other in view.ServiceNames[name].Where(o => o.Sid != account.Sid))
                    yield return Say($"{other.Name} has the service principal name (SPN) {name} too: Kerberos sign-in to both services fails.");

            Finding Say(string text) => new(planned.Name, text, false);
        }
    }

    private static string In(TimeSpan span) =>
        span.TotalDays >= 2 ? $"in {(int)span.TotalDays} days" : $"in {(int)span.TotalHours} hours";
}
