using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Passwords;

/// <summary>Says of each account of an estate's plans when its password is due, and who changes it.</summary>
public static class PasswordCalendar
{
    /// <summary>The accounts, those first for which something is to be done first.</summary>
    /// <param name="view">The latest survey, or null.</param>
    public static IReadOnlyList<AccountPassword> Of(
        IReadOnlyList<Plan> plans, SurveyView? view, OrganizationRules rules, DateTimeOffset now) =>
    [
        .. plans.SelectMany(p => p.Accounts.Select(a => (Plan: p, Account: a)))
            .GroupBy(u => u.Account.Name, StringComparer.OrdinalIgnoreCase)
            .Select(uses => One([.. uses], view, rules, now))
            .OrderBy(a => a.Standing).ThenBy(a => a.Due ?? DateTimeOffset.MaxValue)
            .ThenBy(a => a.Account, StringComparer.OrdinalIgnoreCase),
    ];

    private static AccountPassword One(
        List<(Plan Plan, PlannedAccount Account)> uses, SurveyView? view, OrganizationRules rules, DateTimeOffset now)
    {
        var name = uses[0].Account.Name;
        var products = uses.Where(u => u.Account.Password.ChangedBy == PasswordKeeper.Product).ToList();
        var keeper = name.EndsWith('$') ? PasswordKeeper.Directory
            : products.Count > 0 ? PasswordKeeper.Product
            : PasswordKeeper.Us;
        var kept = keeper switch { PasswordKeeper.Directory => "the directory", PasswordKeeper.Product => products[0].Plan.Title, _ => "us" };
        var found = view is null || view.Graph.IndexOf(name) is not (>= 0 and var node) ? null : view.Graph.PrincipalOf(node);
        // of several installs that say why, the one that is to be looked at first counts
        var (where, reason) = uses.Where(u => u.Account.NeverExpires is not null)
            .Select(u => (u.Plan.Install, u.Account.NeverExpires)).OrderBy(u => u.NeverExpires!.ReviewBy).FirstOrDefault();
        var (standing, due, words) = Stand(name, keeper, kept, found, reason, view, rules, now);
        return new AccountPassword(name, keeper, kept, [.. uses.Select(u => u.Plan.Install).Distinct()], standing, due, words)
        {
            SetAt = found?.PasswordSetAt,
            ExpiresAt = found is null || IsNever(found) ? null : found.PasswordExpiresAt,
            Never = found is not null && IsNever(found),
            Reason = reason,
            ReasonIn = where,
            IsToLookAt = reason is not null && due == rules.NoonOf(reason.ReviewBy),
            Quarrel = keeper == PasswordKeeper.Product
                && uses.Where(u => u.Account.Password.ChangedBy != PasswordKeeper.Product || u.Plan.Title != kept)
                    .Select(u => u.Plan.Title).Distinct().ToList() is { Count: > 0 } others
                ? $"{kept} changes it, and {string.Join(" and ", others)} {(others.Count == 1 ? "is" : "are")} not told: a separate account would be safer"
                : null,
        };
    }

    private static (PasswordStanding Standing, DateTimeOffset? Due, string Words) Stand(
        string name, PasswordKeeper keeper, string kept, DirectoryPrincipal? found, Installs.NeverExpires? reason,
        SurveyView? view, OrganizationRules rules, DateTimeOffset now)
    {
        if (view is null) return (PasswordStanding.Unseen, null, "no survey was taken");
        if (found is null)
            return view.Survey.Directory.Unread is { } unread
                ? (PasswordStanding.Unseen, null, unread)
                : (PasswordStanding.NotMade, null, $"there is no account {name} yet");
        if (keeper == PasswordKeeper.Directory)
            return (PasswordStanding.Managed, null, "gMSA: the directory changes it, and the hosts fetch it");
        if (found.State.HasFlag(AccountState.PasswordExpired) || found.State.HasFlag(AccountState.PasswordMustChange))
            return (
                PasswordStanding.Overdue, found.PasswordExpiresAt,
                found.State.HasFlag(AccountState.PasswordExpired)
                    ? "it has expired"
                    : "it must be changed at the next sign-in, which no service can do");

        var dates = new List<(DateTimeOffset At, string Words)>();
        if (IsNever(found))
        {
            if (reason is not null)
                dates.Add((
                    rules.NoonOf(reason.ReviewBy),
                    $"it never expires ({reason.By}: {reason.Why}); look at that reason again by {reason.ReviewBy:yyyy-MM-dd}"));
        }
        else if (found.PasswordExpiresAt is { } expires)
        {
            dates.Add((expires, "expires under its password policy"));
        }

        if (rules.Passwords.RenewEvery is { } every && keeper == PasswordKeeper.Us && found.PasswordSetAt is { } set)
            dates.Add((
                set + every,
                $"the organization renews every {every.TotalDays:0} days, and it was set {set.UtcDateTime:yyyy-MM-dd}"));
        var by = keeper == PasswordKeeper.Product ? $"; {kept} changes it" : "";
        if (IsNever(found) && reason is null)
            return (
                PasswordStanding.Unreasoned, dates.Count == 0 ? null : dates.MinBy(d => d.At).At,
                $"it never expires, and no install says why{by}");
        if (dates.Count == 0)
            return (PasswordStanding.Undated, null, $"neither the directory nor the organization sets a date{by}");
        var first = dates.MinBy(d => d.At);
        var standing = first.At <= now ? PasswordStanding.Overdue
            : first.At - rules.Passwords.Warn <= now ? PasswordStanding.Soon
            : PasswordStanding.Later;
        return (standing, first.At, first.Words + by);
    }

    private static bool IsNever(DirectoryPrincipal account) => account.State.HasFlag(AccountState.PasswordNeverExpires);
}
