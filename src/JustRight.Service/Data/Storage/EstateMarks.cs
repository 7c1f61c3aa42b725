using JustRight.Core.Changes;
using JustRight.Formats.Changes;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;

namespace JustRight.Service.Data.Storage;

/// <summary>
/// What of a save the installs of an estate are judged by. It is looked at here, where everything is saved, so that nobody who
/// changes something can forget to say so.
/// </summary>
internal sealed class EstateMarks
{
    private const string Sheet = "sheet", Estate = "estate", Install = "install"; // as documents are stored

    private readonly HashSet<string> _estates = new(StringComparer.Ordinal);
    private readonly HashSet<string> _replanned = new(StringComparer.Ordinal);
    private readonly HashSet<string> _sheets = new(StringComparer.Ordinal);
    private readonly HashSet<string> _installs = new(StringComparer.Ordinal);
    private readonly HashSet<string> _jobs = new(StringComparer.Ordinal);
    private bool _allReplanned;

    private EstateMarks()
    {
    }

    /// <summary>
    /// What is about to be saved; null when nothing of it is judged by. An install that is saved gets its place in the lists,
    /// and one that is removed loses it.
    /// </summary>
    public static async Task<EstateMarks?> OfAsync(AppDb db, CancellationToken cancel)
    {
        var marks = new EstateMarks();
        var changed = db.ChangeTracker.Entries().Where(e =>
            e.State is EntityState.Added or EntityState.Modified or EntityState.Deleted).ToList();
        foreach (var entry in changed) marks.Look(entry);
        foreach (var entry in changed)
        {
            if (entry.Entity is not DocumentRow { Kind: Install } install) continue;
            var summary = await db.Summaries.FirstOrDefaultAsync(s => s.Install == install.Name, cancel);
            if (summary is not null) marks._replanned.Add(summary.Estate); // it may leave this one
            if (entry.State == EntityState.Deleted)
            {
                if (summary is not null) db.Summaries.Remove(summary);
                continue;
            }

            if (summary is null) db.Summaries.Add(summary = new SummaryRow { Install = install.Name });
            summary.Follow(install);
            marks._replanned.Add(summary.Estate);
        }

        return marks._allReplanned || marks._estates.Count + marks._replanned.Count + marks._sheets.Count + marks._installs.Count
            + marks._jobs.Count > 0 ? marks : null;
    }

    /// <summary>Counts the changes, within the transaction that saves them.</summary>
    public async Task CountAsync(AppDb db, CancellationToken cancel)
    {
        if (_jobs.Count > 0)
        {
            var subjects = await db.Jobs.Where(j => _jobs.Contains(j.Id)).Select(j => j.Subject).ToListAsync(cancel);
            _installs.UnionWith(subjects);
            _estates.UnionWith(
                await db.EstateMarks.Where(m => subjects.Contains(m.Estate)).Select(m => m.Estate).ToListAsync(cancel));
        }

        if (_installs.Count > 0)
            _estates.UnionWith(
                await db.Summaries.Where(s => _installs.Contains(s.Install)).Select(s => s.Estate).ToListAsync(cancel));
        if (_sheets.Count > 0)
            _replanned.UnionWith(
                await db.Summaries.Where(s => _sheets.Contains(s.Sheet)).Select(s => s.Estate).Distinct().ToListAsync(cancel));
        foreach (var estate in _replanned) await CountAsync(db, estate, 1, cancel);
        foreach (var estate in _estates.Except(_replanned)) await CountAsync(db, estate, 0, cancel);
        if (_allReplanned)
            await db.EstateMarks.ExecuteUpdateAsync(
                m => m.SetProperty(x => x.Changed, x => x.Changed + 1).SetProperty(x => x.Replanned, x => x.Replanned + 1),
                    cancel);
    }

    /// <summary>Counts a change of everything, as when another program judges than did before.</summary>
    public static async Task CountAllAsync(AppDb db, CancellationToken cancel)
    {
        var estates = await db.Summaries.Select(s => s.Estate).Distinct().ToListAsync(cancel);
        await using var transaction = await db.Database.BeginTransactionAsync(cancel);
        foreach (var estate in estates) await CountAsync(db, estate, 1, cancel);
        await transaction.CommitAsync(cancel);
    }

    private static Task<int> CountAsync(AppDb db, string estate, int replanned, CancellationToken cancel) =>
        db.Database.ExecuteSqlAsync(
            $"""
            INSERT INTO "EstateMarks" ("Estate", "Changed", "Replanned", "Judged", "Written")
            VALUES ({estate}, 1, {replanned}, 0, 0)
            ON CONFLICT ("Estate") DO UPDATE
            SET "Changed" = "EstateMarks"."Changed" + 1, "Replanned" = "EstateMarks"."Replanned" + {replanned}
            """,
            cancel);

    private void Look(EntityEntry entry)
    {
        switch (entry.Entity)
        {
            case DocumentRow { Kind: Sheet } sheet: _sheets.Add(sheet.Name); break;
            case DocumentRow { Kind: Estate } estate: _replanned.Add(estate.Name); break;
            case SettledNameRow: _allReplanned = true; break; // a name that one install has is taken for those of all estates
            case SurveyRow survey: _replanned.Add(survey.Estate); break; // plans rest on the schema that was read
            case ConfirmationRow word: _installs.Add(word.Install); break;
            case ExceptionRow exception: _installs.Add(exception.Install); break;
            case StepRow step when entry.Property(nameof(StepRow.State)).IsModified && Disables(step):
                _jobs.Add(step.JobId);
                break;
        }
    }

    /// <summary>Since when an account is disabled decides when it may be removed.</summary>
    private static bool Disables(StepRow step) =>
        step.ChangeJson is { } json && ChangeJson.Read(json) is DisableAccount or EnableAccount;
}
