using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Proposals;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Jobs.Schedules;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Documents;

/// <summary>
/// Takes documents out of Just Right where nothing hangs on them. What was done stays on record: the log, runs, fits and reviews.
/// </summary>
internal sealed class Removals(
    Library library, FitService fitService, SchedulePlan schedule, SecondPerson second, LogStore log,
    IDbContextFactory<AppDb> databases)
{
    private const int MostNamed = 5;

    /// <summary>Why a sheet is not removed; null when it is.</summary>
    public async Task<ProblemHttpResult?> SheetAsync(string name, string who, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await InUseAsync(name, db.Summaries.Where(s => s.Sheet == name), cancel) is { } used) return used;
        var removed = await library.RemoveAsync(
            Library.SheetKind, name, who, "", kept => !kept.Summaries.Any(s => s.Sheet == name), cancel);
        return removed ? null : Changed(name);
    }

    /// <summary>Why an estate is not removed; null when it is, with all that was read of it.</summary>
    public async Task<ProblemHttpResult?> EstateAsync(string name, string who, CancellationToken cancel)
    {
        if (await library.RehearsalAsync(name, cancel) is { Rehearses: { } of })
            return Problems.Of(
                409, "rehearsal", $"{name} is a rehearsal.", $"End it: justright estate rehearse {of} --end");
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await InUseAsync(name, db.Summaries.Where(s => s.Estate == name), cancel) is { } used) return used;
        if (await db.Adoptions.FirstOrDefaultAsync(a => a.Estate == name, cancel) is { } adoption)
            return Problems.Of(
                409, "in-use", $"The adoption {adoption.Name} is of {name}.", $"First: justright adopt remove {adoption.Name}");
        if (await OpenJobs.BusyAsync(db, name, cancel) is { } busy) return busy;
        if (await AskAsync(Library.EstateKind, name, [name], false, who, cancel) is { } waits) return waits;
        var removed = await library.RemoveAsync(
            Library.EstateKind, name, who, "with what was read of it",
            kept =>
            {
                if (kept.Summaries.Any(s => s.Estate == name) || kept.Adoptions.Any(a => a.Estate == name)
                    || OpenJobs.Of(kept, name).Any())
                    return false;
                DocumentRemains.RemoveOfEstate(kept, name);
                return true;
            },
            cancel);
        if (!removed) return Changed(name);
        await schedule.EndAsync(name, cancel);
        return null;
    }

    /// <summary>Why an install is not removed; null when it is, with what people said of it.</summary>
    /// <param name="forget">Whether it is removed although what it was given is still there.</param>
    public async Task<ProblemHttpResult?> InstallAsync(string name, bool forget, string who, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await OpenJobs.BusyAsync(db, name, cancel) is { } busy) return busy;
        var row = await library.FindAsync(Library.InstallKind, name, cancel);
        var gave = await MadeSteps.AnyAsync(
            db, (row is null ? null : Library.OpenInstall(row).Document)?.KnownAs ?? name, cancel);
        if (gave && !forget && !await IsRetiredAsync(name, cancel))
            return Problems.Of(
                409, "still-given", $"{name} was given rights from here, and is not retired.",
                $"Retire it first: justright install stage {name} retiring, then justright grant {name} --remove. "
                + $"Or forget it, and what it was given stays: justright install remove {name} --forget");
        var estate = await db.Summaries.Where(s => s.Install == name).Select(s => s.Estate).FirstOrDefaultAsync(cancel);
        // one that can no longer be read may be of any estate
        string[] estates = estate is { Length: > 0 } ? [estate]
            : [.. (await library.ListAsync(Library.EstateKind, cancel)).Select(e => e.Name)];
        if (await AskAsync(Library.InstallKind, name, estates, forget, who, cancel) is { } waits) return waits;
        var removed = await library.RemoveAsync(
            Library.InstallKind, name, who, gave && forget ? "forgotten: what it was given stays" : "",
            kept =>
            {
                if (OpenJobs.Of(kept, name).Any()) return false;
                DocumentRemains.RemoveOfInstall(kept, name);
                return true;
            },
            cancel);
        return removed ? null : Changed(name);
    }

    /// <summary>Why an adoption is not removed; null when it is.</summary>
    public async Task<ProblemHttpResult?> AdoptionAsync(string name, string who, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        if (await db.Adoptions.FirstOrDefaultAsync(a => a.Name == name, cancel) is not { } adoption)
            return Problems.NotFound("adoption", name, await db.Adoptions.Select(a => a.Name).ToListAsync(cancel));
        if (await library.FindAsync(Library.InstallKind, name, cancel) is not null)
            return Problems.Of(
                409, "in-use", $"The install {name} came from this adoption.", $"First: justright install remove {name}");
        await log.AddWithAsync(
            kept =>
            {
                kept.Adoptions.RemoveRange(kept.Adoptions.Where(a => a.Name == name));
                kept.AdoptionAnswers.RemoveRange(kept.AdoptionAnswers.Where(a => a.Adoption == name));
            },
            who, "adopt", adoption.Name, "removed, with what was said in it", cancel);
        return null;
    }

    /// <summary>Whether an install is being retired, and nothing of what it was given is left.</summary>
    private async Task<bool> IsRetiredAsync(string name, CancellationToken cancel)
    {
        try
        {
            return await fitService.JudgeAsync(name, cancel) is
            {
                Fit: { Plan.Stage: Stage.Retiring, Counts.Unseen: 0 }, Worklist.Remove.Count: 0, RemovableAt: null,
            };
        }
        catch (FaultException)
        {
            return false; // it can no longer be planned: nobody can say what is left of it
        }
    }

    private async Task<ProblemHttpResult?> AskAsync(
        string kind, string name, string[] estates, bool forget, string who, CancellationToken cancel)
    {
        var text = (await library.FindAsync(kind, name, cancel))?.Text ?? "";
        var words = $"remove the {kind} {name}{(forget ? ", and leave what it was given" : "")}";
        return await second.AskAsync(
            estates, new ProposedAct(JobKind.Document, name, [words], kind, text, forget ? "forgotten" : "removed"), who, cancel);
    }

    private static async Task<ProblemHttpResult?> InUseAsync(
        string name, IQueryable<SummaryRow> installs, CancellationToken cancel)
    {
        var count = await installs.CountAsync(cancel);
        if (count == 0) return null;
        var first = await installs.OrderBy(s => s.Install).Select(s => s.Install).Take(MostNamed).ToListAsync(cancel);
        var more = count > MostNamed ? $" and {count - MostNamed} more" : "";
        return Problems.Of(
            409, "in-use", $"{string.Join(", ", first)}{more} {(count == 1 ? "uses" : "use")} {name}.",
            "Remove the installs first: justright install remove INSTALL");
    }

    private static ProblemHttpResult Changed(string name) =>
        Problems.Of(409, "changed-meanwhile", $"Somebody began to use {name} meanwhile.", "Look again, and try again.");
}
