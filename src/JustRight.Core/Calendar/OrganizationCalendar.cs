using JustRight.Core.Estates;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Passwords;
using JustRight.Core.Sheets;

namespace JustRight.Core.Calendar;

/// <summary>When an install was looked at last.</summary>
/// <param name="AddedAt">When it came into the books.</param>
/// <param name="ReviewedAt">The last review, or null.</param>
/// <param name="NextBy">The day that it named for the next, or null.</param>
public sealed record ReviewState(string Install, DateTimeOffset AddedAt, DateTimeOffset? ReviewedAt, DateOnly? NextBy);

/// <summary>Everything of an estate that comes to an end by itself or is to be done by a day.</summary>
public static class OrganizationCalendar
{
    /// <summary>The entries, the earliest first.</summary>
    /// <param name="exceptions">Those that count, and those that ended.</param>
    /// <param name="confirmations">The word that counts of each identity inside a product.</param>
    /// <param name="removals">Installs that are being retired, with when what waits of them may be removed; null for
    /// none.</param>
    public static IReadOnlyList<CalendarEntry> Of(
        string estate, IEnumerable<AccountPassword> passwords, IEnumerable<ReviewState> reviews, IEnumerable<(
            AcceptedException Exception, string Words)> exceptions,
        IEnumerable<Confirmation> confirmations, OrganizationRules rules, DateTimeOffset now, IEnumerable<(
            string Install, DateTimeOffset At)>? removals = null) =>
    [
        .. passwords.SelectMany(p => Passwords(estate, p, rules))
            .Concat(reviews.Select(r => Review(r, rules)).OfType<CalendarEntry>())
            .Concat(exceptions.Where(e => e.Exception.StandsAt(now) || now - e.Exception.Until < rules.Reviews.Warn).Select(e =>
                Ending(e.Exception, e.Words, rules)))
            .Concat(confirmations.Where(c => c.Held).Select(c => new CalendarEntry(
                $"confirmation/{c.Install}/{c.GrantId}", EntryKind.Confirmation, c.Until, c.Install,
                $"the confirmation of {c.Principal} by {c.By} expires", rules.Reviews.Warn, $"justright verify {c.Install}")))
            .Concat((removals ?? []).Select(r => new CalendarEntry(
                $"removal/{r.Install}", EntryKind.Removal, r.At, r.Install,
                "the waiting period of its accounts and groups is over: they can be deleted, and undo ends then", TimeSpan.Zero,
                $"justright grant {r.Install} --remove")))
            .OrderBy(e => e.At).ThenBy(e => e.Id, StringComparer.Ordinal),
    ];

    /// <summary>The day that counts first, and the day it expires where that is another.</summary>
    private static IEnumerable<CalendarEntry> Passwords(string estate, AccountPassword password, OrganizationRules rules)
    {
        var next = password is { IsToLookAt: true, ReasonIn: { } install } ? $"justright install show {install}"
            : password.Keeper == PasswordKeeper.Us
            ? $"justright password renew {estate} {password.Account}"
            : $"justright password where-used {estate} {password.Account}";
        if (password.Due is { } due)
            yield return new CalendarEntry(
                $"password/{password.Account}", EntryKind.Password, due, password.Account, password.Words, rules.Passwords.Warn,
                next);
        if (password.ExpiresAt is { } expires && expires != password.Due)
            yield return new CalendarEntry(
                $"expiry/{password.Account}", EntryKind.Password, expires, password.Account,
                "its password expires under its password policy", rules.Passwords.Warn, next);
    }

    private static CalendarEntry? Review(ReviewState state, OrganizationRules rules)
    {
        var due = state.NextBy is { } day ? rules.NoonOf(day)
            : rules.Reviews.Every is { } every ? (state.ReviewedAt ?? state.AddedAt) + every
            : (DateTimeOffset?)null;
        return due is not { } at ? null : new CalendarEntry(
            $"review/{state.Install}", EntryKind.Review, at, state.Install,
            state.ReviewedAt is { } last ? $"to be reviewed again; last reviewed {Day(last, rules)}"
                : $"first review; added {Day(state.AddedAt, rules)}",
            rules.Reviews.Warn, $"justright review sheet {state.Install}");
    }

    /// <summary>The day of a moment, by the organization's clock.</summary>
    private static string Day(DateTimeOffset at, OrganizationRules rules) =>
        TimeZoneInfo.ConvertTime(at, rules.TimeZone).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    private static CalendarEntry Ending(AcceptedException exception, string words, OrganizationRules rules) => new(
        $"exception/{exception.Id}", EntryKind.Exception, exception.LastDay is null
            ? exception.Until
            : exception.Until.AddSeconds(-1),
        exception.Install, $"{words}: {exception.By} accepted it until then ({exception.Why})", rules.Reviews.Warn,
        $"justright exception list {exception.Install}");
}
