using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Runs;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Retirement;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>An install with everything its fit rests on.</summary>
public sealed record JudgedInstall(InstallFit Fit, Worklist Worklist)
{
    /// <summary>
    /// For an install that is being retired: when everything that waits may be removed for good; null when nothing waits.
    /// </summary>
    public DateTimeOffset? RemovableAt { get; init; }
}

/// <summary>Brings together what plans and fits are made of: documents, settled names, the latest survey.</summary>
public sealed class FitService(
    Library library, EstatePlanner planner, SurveyStore surveys, ConfirmationStore confirmations, ExceptionStore exceptions,
    KnownJudgements known, IDbContextFactory<AppDb> databases)
{
    /// <summary>Why an install cannot be planned; empty when it can. Nothing is kept.</summary>
    /// <param name="sheet">The sheet, where it is not in Just Right yet.</param>
    public async Task<IReadOnlyList<Fault>> WhyNotPlannedAsync(
        Install install, CancellationToken cancel, Sheet? sheet = null) =>
        (await TryPlanAsync(install, cancel, sheet)).Faults;

    /// <summary>The plan of an install that need not be in Just Right, or why there is none. Nothing is kept.</summary>
    /// <param name="sheet">The sheet, where it is not in Just Right yet.</param>
    public async Task<(Plan? Plan, Estate? Estate, IReadOnlyList<Fault> Faults)> TryPlanAsync(
        Install install, CancellationToken cancel, Sheet? sheet = null)
    {
        if (sheet is null && await library.FindAsync(Library.SheetKind, install.Sheet, cancel) is null)
            return (null, null, [await MissingAsync(EstatePlanner.NoSheet(install), install.Sheet, Library.SheetKind, cancel)]);
        if (await library.FindAsync(Library.EstateKind, install.Estate, cancel) is not { } row)
            return (
                null, null, [await MissingAsync(EstatePlanner.NoEstate(install), install.Estate, Library.EstateKind, cancel)]);
        sheet ??= Library.ReadSheet((await library.FindAsync(Library.SheetKind, install.Sheet, cancel))!);
        var estate = Library.ReadEstate(row);
        var planned = await planner.PlanAsync(sheet, estate, install, cancel);
        return (planned.Plan, estate, planned.Faults);
    }

    /// <summary>
    /// The plan of an install in Just Right; throws <see cref="FaultException"/> when a changed sheet or estate no longer allows
    /// it.
    /// </summary>
    public async Task<(Plan Plan, Estate Estate)> PlanAsync(string name, CancellationToken cancel)
    {
        var row = await library.FindAsync(Library.InstallKind, name, cancel) ?? throw new KeyNotFoundException(name);
        var install = Library.ReadInstall(row);
        var (sheet, estate) = await LoadAsync(install, cancel);
        var planned = await planner.PlanAsync(sheet, estate, install, cancel);
        return (planned.Plan ?? throw new FaultException(planned.Faults), estate);
    }

    /// <summary>The fit of an install and what is left to do; null while no survey was taken.</summary>
    public Task<JudgedInstall?> JudgeAsync(string name, CancellationToken cancel) =>
        known.GetAsync(name, present => JudgeAsync(name, present, cancel), cancel);

    private async Task<JudgedInstall?> JudgeAsync(string name, Present present, CancellationToken cancel)
    {
        var row = await library.FindAsync(Library.InstallKind, name, cancel) ?? throw new KeyNotFoundException(name);
        var install = Library.ReadInstall(row);
        var plans = await planner.PlanAllAsync(
            install.Estate, cancel) ?? throw new FaultException([EstatePlanner.NoEstate(install)]);
        return await JudgeAsync(
            plans, row, await surveys.LatestAsync(install.Estate, cancel), present, cancel);
    }

    /// <summary>
    /// The plans of all installs of an estate; one that no longer can be planned is left out here and shows its faults itself.
    /// </summary>
    public async Task<IReadOnlyList<Plan>> PlansOfAsync(string estate, CancellationToken cancel) =>
        (await planner.PlanAllAsync(estate, cancel))?.All ?? [];

    /// <summary>
    /// Settles the names that the plans of an estate make: each is asked for in the directory, and one in use gives way to the
    /// next. A settled name stays, so that the account made under it is known again.
    /// </summary>
    public async Task SettleNamesAsync(Estate estate, EstateConnectors connectors, CancellationToken cancel)
    {
        foreach (var row in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(row) is not ({ } install, _) || install.Estate != estate.Name) continue;
            if (await library.FindAsync(Library.SheetKind, install.Sheet, cancel) is not { } sheetRow) continue;
            if (Library.OpenSheet(sheetRow) is not ({ } sheet, _)) continue; // its own page says why it cannot be planned
            var known = await planner.NamesAsync(estate, install, cancel);
            var taken = new HashSet<string>(known.Taken, StringComparer.OrdinalIgnoreCase);
            while (true)
            {
                var (plan, _) = Planner.Make(sheet, estate, install, known with { Taken = taken });
                if (plan is null) break;
                var accounts = plan.Accounts
                    .Where(a => !a.Existing && !known.Accounts.ContainsKey(a.Key) && !install.Accounts.ContainsKey(a.Key))
                    .Select(a => (Kind: NamedKind.Account, a.Key, a.Name));
                var groups = plan.Groups
                    .Where(g => !g.Existing && !known.Groups.ContainsKey(g.Key) && !install.Groups.ContainsKey(g.Key))
                    .Select(g => (Kind: NamedKind.Group, g.Key, g.Name));
                var fresh = accounts.Concat(groups).ToList();
                var used = await connectors.Directory.NamesInUseAsync([.. fresh.Select(f => f.Name)], cancel);
                if (used.Count > 0)
                {
                    taken.UnionWith(used);
                    continue;
                }

                await using var db = await databases.CreateDbContextAsync(cancel);
                db.SettledNames.AddRange(
                    fresh.Select(f => new SettledNameRow
                    {
                        Install = install.Name,
                        Estate = estate.Name,
                        Kind = f.Kind,
                        Key = f.Key,
                        Name = f.Name,
                    }));
                await db.SaveChangesAsync(cancel);
                break;
            }
        }
    }

    /// <summary>
    /// The fit of one of the planned installs of an estate; throws <see cref="FaultException"/> when it could not be planned.
    /// </summary>
    /// <param name="row">The install.</param>
    /// <param name="view">The latest survey; null when none was taken, and then it is not judged.</param>
    public async Task<JudgedInstall?> JudgeAsync(
        EstatePlans plans, DocumentRow row, Core.Rights.SurveyView? view, Present present, CancellationToken cancel)
    {
        var planned = plans.Installs[row.Name];
        var plan = planned.Plan ?? throw new FaultException(planned.Faults);
        if (view is null) return null;
        var fit = new FitJudge(view, plans.Needs, plans.Estate.Rules, present)
        {
            Confirmations = await confirmations.IndexAsync(plan.Install, cancel),
            Exceptions = await exceptions.IndexAsync(plan.Install, cancel),
        }.Judge(plan);
        var byOwner = plans.Estate.Hosts.Where(h => h.Reach == Reach.HandedOver).Select(h => h.Name)
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        var past = plan.Stage == Stage.Retiring ? await PastAsync(plan, plans.Estate, row.AddedAt, present, cancel) : null;
        var worklist = WorklistMaker.Make(fit, view, plans.Needs, past)
            .Blocking(c => c is HostChange host && byOwner.Contains(host.Host) ? HandedOver.ByOwner : null);
        return new JudgedInstall(fit, worklist) { RemovableAt = past?.RemovableAt(worklist.Remove) };
    }

    /// <summary>
    /// What the journal knows of a retirement in its estate. An account that was enabled again since is not among the disabled
    /// ones.
    /// </summary>
    /// <param name="since">When the install was last written.</param>
    private async Task<RetirementPast> PastAsync(
        Plan plan, Estate estate, DateTimeOffset since, Present present, CancellationToken cancel) =>
        new(since, await DisabledAsync(plan, estate, cancel), estate.Rules.Retire.RemoveAfter, present);

    /// <summary>Since when the accounts of a plan are disabled by a step of ours, by logon name.</summary>
    public async Task<IReadOnlyDictionary<string, DateTimeOffset>> DisabledAsync(
        Plan plan, Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var disabled = new Dictionary<string, DateTimeOffset>(StringComparer.OrdinalIgnoreCase);
        var jobs = db.Jobs.Where(j =>
            j.Subject == estate.Name || db.Summaries.Any(s => s.Estate == estate.Name && s.Install == j.Subject))
                .Select(j => j.Id);
        foreach (var name in plan.Accounts.Select(a => a.Name))
        {
            var off = ChangeJson.Write(new DisableAccount(plan.Domain, name));
            var on = ChangeJson.Write(new EnableAccount(plan.Domain, name));
            var last = await db.Steps.AsNoTracking()
                .Where(s => (s.ChangeJson == off || s.ChangeJson == on)
                    && (s.State == RunStepState.Made || s.State == RunStepState.AlreadySo))
                .Where(s => jobs.Contains(s.JobId))
                .OrderByDescending(s => s.Id).FirstOrDefaultAsync(cancel);
            if (last?.At is { } at && last.ChangeJson == off) disabled[name] = at;
        }

        return disabled;
    }

    private async Task<(Sheet Sheet, Estate Estate)> LoadAsync(Install install, CancellationToken cancel)
    {
        var sheet = await library.FindAsync(Library.SheetKind, install.Sheet, cancel)
            ?? throw new FaultException([EstatePlanner.NoSheet(install)]);
        var estate = await library.FindAsync(Library.EstateKind, install.Estate, cancel)
            ?? throw new FaultException([EstatePlanner.NoEstate(install)]);
        return (Library.ReadSheet(sheet), Library.ReadEstate(estate));
    }

    /// <summary>The fault of a name that is not in Just Right, with those that are, and the nearest of them.</summary>
    private async Task<Fault> MissingAsync(Fault fault, string name, string kind, CancellationToken cancel)
    {
        var known = (await library.ListAsync(kind, cancel)).Select(k => k.Name).ToList();
        return fault with
        {
            Expected = known.Count == 0 ? $"add it first: justright {kind} add" : string.Join(", ", known),
            Nearest = Spelling.Nearest(name, known),
        };
    }
}
