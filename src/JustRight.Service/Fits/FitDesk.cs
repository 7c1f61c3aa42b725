using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Changes.Retirement;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Directory.Schema;
using JustRight.Core.Sheets;
using JustRight.Service.Confirmations;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Reviews;
using JustRight.Service.Storage;
using JustRight.Service.Views;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>An install with everything its fit rests on.</summary>
public sealed record JudgedInstall(InstallFit Fit, Worklist Worklist)
{
    /// <summary>For an install that is being retired: when everything that waits may be removed for good; null when nothing waits.</summary>
    public DateTimeOffset? RemovableAt { get; init; }
}

/// <summary>Brings together what plans and fits are made of: documents, settled names, the latest survey.</summary>
public sealed class FitDesk(Library library, SurveyShelf surveys, ConfirmationShelf confirmations, ExceptionShelf exceptions, IDbContextFactory<AppDb> databases, TimeProvider time)
{
    /// <summary>Why an install cannot be planned; empty when it can. Nothing is kept.</summary>
    /// <param name="sheet">The sheet, where it is not in the books yet.</param>
    public async Task<IReadOnlyList<Fault>> WhyNotPlannedAsync(Install install, CancellationToken cancel, Sheet? sheet = null)
    {
        if (sheet is null && await library.FindAsync(Library.SheetKind, install.Sheet, cancel) is null)
            return [Missing("unknown-sheet", "product", $"There is no sheet {install.Sheet}.", install, install.Sheet, await library.ListAsync(Library.SheetKind, cancel), "sheet add")];
        if (await library.FindAsync(Library.EstateKind, install.Estate, cancel) is not { } estateRow)
            return [Missing("unknown-estate", "estate", $"There is no estate {install.Estate}.", install, install.Estate, await library.ListAsync(Library.EstateKind, cancel), "estate add")];
        sheet ??= Library.ReadSheet((await library.FindAsync(Library.SheetKind, install.Sheet, cancel))!);
        return Planner.Make(sheet, Library.ReadEstate(estateRow), install, await BookAsync(install, cancel)).Faults;
    }

    /// <summary>The plan of an install in the books; throws <see cref="FaultException"/> when a changed sheet or estate no longer allows it.</summary>
    public async Task<(Plan Plan, Estate Estate)> PlanAsync(string name, CancellationToken cancel)
    {
        var row = await library.FindAsync(Library.InstallKind, name, cancel) ?? throw new KeyNotFoundException(name);
        var install = Library.ReadInstall(row);
        var (sheet, estate) = await LoadAsync(install, cancel);
        var (plan, faults) = Planner.Make(sheet, estate, install, await BookAsync(install, cancel));
        return (plan ?? throw new FaultException(faults), estate);
    }

    /// <summary>The fit of an install and what is left to do; null while no survey was taken.</summary>
    public async Task<JudgedInstall?> JudgeAsync(string name, CancellationToken cancel)
    {
        var (plan, estate) = await PlanAsync(name, cancel);
        if (await surveys.LatestAsync(estate.Name, cancel) is not { } view) return null;
        var needs = new NeedsBook((await PlansOfAsync(estate.Name, cancel)).Where(p => p.Install != name).Append(plan));
        var fit = await JudgeAsync(plan, estate, view, needs, cancel);
        var byOwner = estate.Hosts.Where(h => h.Reach == Reach.HandedOver).Select(h => h.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var past = plan.Stage == Stage.Retiring ? await PastAsync(plan, estate, cancel) : null;
        var worklist = WorklistMaker.Make(fit, view, needs, past).Blocking(c => c is HostChange host && byOwner.Contains(host.Host) ? HandedOverHosts.ByOwner : null);
        return new JudgedInstall(fit, worklist) { RemovableAt = past?.RemovableAt(worklist.Remove) };
    }

    /// <summary>The fits of all installs of an estate that can be planned, from the latest survey.</summary>
    public async Task<IReadOnlyList<InstallFit>> JudgeAllAsync(Estate estate, CancellationToken cancel)
    {
        if (await surveys.LatestAsync(estate.Name, cancel) is not { } view) return [];
        var plans = await PlansOfAsync(estate.Name, cancel);
        var needs = new NeedsBook(plans);
        var fits = new List<InstallFit>();
        foreach (var plan in plans) fits.Add(await JudgeAsync(plan, estate, view, needs, cancel));
        return fits;
    }

    /// <summary>The plans of all installs of an estate; one that no longer can be planned is left out here and shows its faults itself.</summary>
    public async Task<IReadOnlyList<Plan>> PlansOfAsync(string estate, CancellationToken cancel)
    {
        var plans = new List<Plan>();
        foreach (var row in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.ReadInstall(row).Estate != estate) continue;
            try
            {
                plans.Add((await PlanAsync(row.Name, cancel)).Plan);
            }
            catch (FaultException)
            {
                // Its own page and its verify say why.
            }
        }

        return plans;
    }

    /// <summary>
    /// Settles the names that the plans of an estate make: each is asked for in the directory, and one in use gives way to the
    /// next. A settled name stays, so that the account made under it is known again.
    /// </summary>
    public async Task SettleNamesAsync(Estate estate, EstateConnectors connectors, CancellationToken cancel)
    {
        foreach (var row in (await library.ListAsync(Library.InstallKind, cancel)).Where(r => Library.ReadInstall(r).Estate == estate.Name))
        {
            var install = Library.ReadInstall(row);
            var (sheet, _) = await LoadAsync(install, cancel);
            var book = await BookAsync(install, cancel);
            var taken = new HashSet<string>(book.Taken, StringComparer.OrdinalIgnoreCase);
            while (true)
            {
                var (plan, _) = Planner.Make(sheet, estate, install, book with { Taken = taken });
                if (plan is null) break;
                var fresh = plan.Accounts.Where(a => !a.Existing && !book.Accounts.ContainsKey(a.Key) && !install.Accounts.ContainsKey(a.Key)).Select(a => ("account", a.Key, a.Name))
                    .Concat(plan.Groups.Where(g => !g.Existing && !book.Groups.ContainsKey(g.Key) && !install.Groups.ContainsKey(g.Key)).Select(g => ("group", g.Key, g.Name)))
                    .ToList();
                var used = await connectors.Directory.NamesInUseAsync([.. fresh.Select(f => f.Name)], cancel);
                if (used.Count > 0)
                {
                    taken.UnionWith(used);
                    continue;
                }

                await using var db = await databases.CreateDbContextAsync(cancel);
                db.SettledNames.AddRange(fresh.Select(f => new SettledNameRow { Install = install.Name, Kind = f.Item1, Key = f.Key, Name = f.Name }));
                await db.SaveChangesAsync(cancel);
                break;
            }
        }
    }

    /// <summary>An install for a list, with its fit from the latest survey.</summary>
    public async Task<InstallSummary> SummaryAsync(DocumentRow row, CancellationToken cancel)
    {
        var install = Library.ReadInstall(row);
        try
        {
            var (sheet, estate) = await LoadAsync(install, cancel);
            var judged = await JudgeAsync(row.Name, cancel);
            return new InstallSummary(
                install.Name, install.Sheet, sheet.Title, estate.Name, DocumentViews.Stage(install.Stage), estate.IsPretend,
                judged is null ? null : FitViews.Of(judged.Fit.Leaning, judged.Fit.Corners.Count, judged.Fit.Words), judged?.Fit.SurveyedAt, NextStep.Words(judged), row.AddedAt, row.AddedBy);
        }
        catch (FaultException e)
        {
            return new InstallSummary(install.Name, install.Sheet, install.Sheet, install.Estate, DocumentViews.Stage(install.Stage), false, null, null, $"cannot be planned: {e.Faults[0]}", row.AddedAt, row.AddedBy);
        }
    }

    private async Task<InstallFit> JudgeAsync(Plan plan, Estate estate, Core.Fit.SurveyView view, NeedsBook needs, CancellationToken cancel) =>
        new FitJudge(view, needs, estate.Rules, time.GetUtcNow()) { Confirmations = await confirmations.BookAsync(plan.Install, cancel), Exceptions = await exceptions.BookAsync(plan.Install, cancel) }.Judge(plan);

    /// <summary>What the journal knows of a retirement. An account that was enabled again since is not among the disabled ones.</summary>
    private async Task<RetirementPast> PastAsync(Plan plan, Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var disabled = new Dictionary<string, DateTimeOffset>(StringComparer.OrdinalIgnoreCase);
        foreach (var name in plan.Accounts.Select(a => a.Name))
        {
            var (off, on) = (new DisableAccount(plan.Domain, name).Words, new EnableAccount(plan.Domain, name).Words);
            var last = await db.Steps.AsNoTracking().Where(s => (s.Words == off || s.Words == on) && (s.State == "made" || s.State == "skipped")).OrderByDescending(s => s.Id).FirstOrDefaultAsync(cancel);
            if (last?.At is { } at && last.Words == off) disabled[name] = at;
        }

        var since = (await library.FindAsync(Library.InstallKind, plan.Install, cancel))!.AddedAt;
        return new RetirementPast(since, disabled, estate.Rules.Retire.RemoveAfter, time.GetUtcNow());
    }

    private async Task<(Sheet Sheet, Estate Estate)> LoadAsync(Install install, CancellationToken cancel)
    {
        var sheet = await library.FindAsync(Library.SheetKind, install.Sheet, cancel) ?? throw new FaultException([new Fault("unknown-sheet", install.At, "product", $"There is no sheet {install.Sheet}.")]);
        var estate = await library.FindAsync(Library.EstateKind, install.Estate, cancel) ?? throw new FaultException([new Fault("unknown-estate", install.At, "estate", $"There is no estate {install.Estate}.")]);
        return (Library.ReadSheet(sheet), Library.ReadEstate(estate));
    }

    private async Task<NameBook> BookAsync(Install install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var all = await db.SettledNames.AsNoTracking().ToListAsync(cancel);
        var mine = all.Where(n => n.Install == install.Name).ToList();
        return new NameBook(
            mine.Where(n => n.Kind == "account").ToDictionary(n => n.Key, n => n.Name),
            mine.Where(n => n.Kind == "group").ToDictionary(n => n.Key, n => n.Name),
            all.Where(n => n.Install != install.Name).Select(n => n.Name).ToHashSet(StringComparer.OrdinalIgnoreCase),
            mine.Count > 0)
        {
            Schema = await surveys.SchemaAsync(install.Estate, cancel) ?? (await IsPretendAsync(install.Estate, cancel) ? BuiltInSchema.Schema : null),
        };
    }

    private async Task<bool> IsPretendAsync(string estate, CancellationToken cancel) => await library.FindAsync(Library.EstateKind, estate, cancel) is { } row && Library.ReadEstate(row).IsPretend;

    private static Fault Missing(string code, string field, string message, Install install, string name, IReadOnlyList<DocumentRow> known, string command) =>
        new(code, install.At, field, message) { Expected = known.Count == 0 ? $"add it first: justright {command}" : string.Join(", ", known.Select(k => k.Name)), Nearest = Spelling.Nearest(name, known.Select(k => k.Name)) };
}
