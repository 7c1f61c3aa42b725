using JustRight.Core.Calendar;
using JustRight.Core.Estates;
using JustRight.Core.Fit.Confirmations;
using JustRight.Core.Fit.Exceptions;
using JustRight.Core.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Passwords;
using JustRight.Service.Data.Reviews;
using JustRight.Service.Data.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Calendar;

/// <summary>Brings together everything of an estate that comes to an end or is to be done by a day.</summary>
internal sealed class CalendarService(
    Library library, PasswordService passwords, ReviewStore reviews, ExceptionStore exceptions, ConfirmationStore confirmations,
    IDbContextFactory<AppDb> databases, TimeProvider time)
{
    /// <summary>The entries, the earliest first.</summary>
    public async Task<IReadOnlyList<CalendarEntry>> EntriesAsync(Estate estate, CancellationToken cancel)
    {
        var books = await passwords.ReadAsync(estate, cancel);
        var states = new List<ReviewState>();
        var accepted = new List<(AcceptedException, string)>();
        var confirmed = new List<Confirmation>();
        var removals = new List<(string, DateTimeOffset)>();
        await using var db = await databases.CreateDbContextAsync(cancel);
        var removable = await db.Summaries.Where(s => s.Estate == estate.Name && s.RemovableAt != null)
            .ToDictionaryAsync(s => s.Install, s => s.RemovableAt!.Value, cancel);
        var looked = await reviews.LatestAsync(estate.Name, cancel);
        var ending = await exceptions.EndingAsync(estate.Name, cancel);
        var words = await confirmations.OfEstateAsync(estate.Name, cancel);
        foreach (var row in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(row) is not ({ } install, _) || install.Estate != estate.Name) continue;
            if (install.Stage == Stage.Retiring)
            {
                if (removable.TryGetValue(row.Name, out var at)) removals.Add((row.Name, at));
                continue;
            }

            states.Add(new ReviewState(
                row.Name, row.AddedAt, looked.GetValueOrDefault(row.Name)?.At, looked.GetValueOrDefault(row.Name)?.NextBy));
            accepted.AddRange(ending[row.Name]);
            confirmed.AddRange(new ConfirmationIndex(words[row.Name]).Latest);
        }

        return OrganizationCalendar.Of(
            estate.Name, books.Accounts, states, accepted, confirmed, estate.Rules, time.GetUtcNow(), removals);
    }
}
