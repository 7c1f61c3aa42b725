using JustRight.Core.Calendar;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Installs;
using JustRight.Service.Answers;
using JustRight.Service.Confirmations;
using JustRight.Service.Documents;
using JustRight.Service.Fits;
using JustRight.Service.Passwords;
using JustRight.Service.Reviews;

namespace JustRight.Service.Calendar;

/// <summary>Brings together everything of an estate that comes to an end or is to be done by a day.</summary>
internal sealed class CalendarService(
    Library library, PasswordService passwords, ReviewStore reviews, ExceptionStore exceptions, ConfirmationStore confirmations,
    FitService fits, TimeProvider time)
{
    /// <summary>The entries, the earliest first.</summary>
    public async Task<IReadOnlyList<CalendarEntry>> EntriesAsync(Estate estate, CancellationToken cancel)
    {
        var books = await passwords.ReadAsync(estate, cancel);
        var states = new List<ReviewState>();
        var accepted = new List<(AcceptedException, string)>();
        var confirmed = new List<Confirmation>();
        var removals = new List<(string, DateTimeOffset)>();
        foreach (var row in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(row) is not ({ } install, _) || install.Estate != estate.Name) continue;
            if (install.Stage == Stage.Retiring)
            {
                if (await RemovableAtAsync(row.Name, cancel) is { } at) removals.Add((row.Name, at));
                continue;
            }

            states.Add(await reviews.StateAsync(row.Name, row.AddedAt, cancel));
            accepted.AddRange(await exceptions.EndingAsync(row.Name, cancel));
            confirmed.AddRange((await confirmations.IndexAsync(row.Name, cancel)).Latest);
        }

        return OrganizationCalendar.Of(
            estate.Name, books.Accounts, states, accepted, confirmed, estate.Rules, time.GetUtcNow(), removals);
    }

    /// <summary>
    /// When what waits of an install may be removed; null also while it cannot be planned, which its own page says.
    /// </summary>
    private async Task<DateTimeOffset?> RemovableAtAsync(string install, CancellationToken cancel)
    {
        try
        {
            return (await fits.JudgeAsync(install, cancel))?.RemovableAt;
        }
        catch (FaultException)
        {
            return null;
        }
    }
}
