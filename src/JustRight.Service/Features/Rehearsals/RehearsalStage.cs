using System.Text;
using JustRight.Contracts;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using JustRight.Service.Platform.Keys;
using JustRight.Simulation;
using JustRight.Simulation.Laying;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Rehearsals;

/// <summary>
/// Lays rehearsals and ends them. A rehearsal is an estate of its own whose every part is simulated: nothing that was said, kept
/// or allowed for the real one is in it, and nothing of it counts there.
/// </summary>
internal sealed class RehearsalStage(
    Library library, SurveyStore surveys, SimulationStore simulations, PasswordKeys keys, IDbContextFactory<AppDb> databases,
    TimeProvider time) : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Lays the rehearsal of an estate; or says why not.</summary>
    /// <exception cref="MistakeException">A mistake has no place in it.</exception>
    public async Task<(ProblemHttpResult? Problem, RehearsalView? Laid)> LayAsync(
        DocumentRow of, RehearsalOrder order, IReadOnlyCollection<RehearsedMistake> mistakes, string who,
            CancellationToken cancel)
    {
        if (Library.ReadEstate(of) is { IsRehearsal: true })
            return (Problems.Of(
                409, "rehearsal", $"{of.Name} is a rehearsal itself.", "Rehearse the estate that it is a copy of."), null);
        await _one.WaitAsync(cancel);
        try
        {
            return await LayOneAsync(of, order, mistakes, who, cancel);
        }
        finally
        {
            _one.Release();
        }
    }

    /// <summary>A rehearsal as it was laid.</summary>
    public async Task<RehearsalView> ShowAsync(Estate rehearsal, CancellationToken cancel)
    {
        var installs = (await InstallsAsync(rehearsal.Name, cancel)).Select(i => i.Name).ToList();
        return simulations.Open(rehearsal).Read(state => View(rehearsal, state, installs));
    }

    /// <summary>Ends a rehearsal; or says why not.</summary>
    public async Task<ProblemHttpResult?> EndAsync(Estate rehearsal, string who, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel);
        try
        {
            var installs = (await InstallsAsync(rehearsal.Name, cancel)).Select(i => i.Name).ToList();
            if (await BusyAsync([rehearsal.Name, .. installs], cancel) is { } busy) return busy;
            var locks = new List<string>();
            await library.RemoveTogetherAsync(
                [.. installs.Select(i => (Library.InstallKind, i)), (Library.EstateKind, rehearsal.Name)],
                db => locks.AddRange(RemoveRemains(db, rehearsal.Name, installs)),
                new LogSaid("rehearse", rehearsal.Name, Words(installs.Count, "ended, with its installs: ", installs)), who,
                    cancel);
            simulations.End(rehearsal.Name);
            locks.ForEach(keys.Destroy);
            return null;
        }
        finally
        {
            _one.Release();
        }
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private async Task<(ProblemHttpResult? Problem, RehearsalView? Laid)> LayOneAsync(
        DocumentRow of, RehearsalOrder order, IReadOnlyCollection<RehearsedMistake> mistakes, string who,
            CancellationToken cancel)
    {
        var name = RehearsalRules.NameOf(of.Name);
        var before = await library.FindAsync(Library.EstateKind, name, cancel);
        if (before is not null && WhyNotReplaced(before, of.Name, order) is { } there) return (there, null);
        if (order.AsSurveyed && await surveys.LatestIdAsync(of.Name, cancel) is null)
            return (Problems.Of(
                409, "not-surveyed", $"No survey of {of.Name} was taken yet.", $"Survey it first: justright survey {of.Name}"),
                    null);

        var text = RehearsalText.OfEstate(of.Text, of.File);
        var (estate, faults) = EstateReader.Read(Encoding.UTF8.GetBytes(text), of.File);
        if (estate is null) return (Problems.Of(faults), null);
        var copies = await CopiesAsync(of.Name, cancel);
        var known = await InstallsAsync(name, cancel);
        if (await TakenAsync(copies, name, cancel) is { } taken) return (taken, null);
        if (await BusyAsync([name, .. known.Select(i => i.Name)], cancel) is { } busy) return (busy, null);

        // what somebody added to the rehearsal itself stays, and is begun anew like the rest
        var own = known.Where(k => copies.All(c => c.Name != k.Name)).Select(k => new NewDocument(
            Library.InstallKind, k.Name, k.File, StageLine.Set(k.Text, Stage.Planned.Word(), k.File).Text ?? k.Text)).ToList();
        IReadOnlyList<NewDocument> installs = [.. copies, .. own];
        var remarks = new List<string>();
        var settled = await SettledAsync(of.Name, name, cancel);
        var plans = await PlansAsync(estate, installs, settled, remarks, cancel);
        var survey = order.AsSurveyed ? (await surveys.LatestAsync(of.Name, cancel))!.Survey : null;
        var laid = EstateState.Lay(estate, plans, survey, mistakes);
        var state = laid.State;
        (state.LaidAt, state.SurveyedAt) = (time.GetUtcNow(), survey?.TakenAt);
        state.Remarks.AddRange([.. NotReached(estate), .. remarks, .. laid.Remarks]);
        simulations.Lay(name, state);
        var locks = new List<string>();
        await library.SaveTogetherAsync(
            [new NewDocument(Library.EstateKind, name, of.File, text), .. installs],
            db =>
            {
                locks.AddRange(RemoveRemains(db, name, [.. installs.Select(i => i.Name)]));
                db.SettledNames.AddRange(settled);
                db.SettledNames.AddRange(laid.Accounts
                    .Where(a => !settled.Exists(s => s.Install == a.Install && s.Kind == NamedKind.Account && s.Key == a.Key))
                    .Select(a => Row(a.Install, name, NamedKind.Account, a.Key, a.Name)));
            },
            new LogSaid(
                "rehearse", name,
                Words(installs.Count, before is null ? "laid, with " : "laid anew, with ", [.. installs.Select(i => i.Name)])),
            who, cancel);
        locks.ForEach(keys.Destroy);
        return (null, View(estate, state, [.. installs.Select(i => i.Name)]));
    }

    private static ProblemHttpResult? WhyNotReplaced(DocumentRow before, string of, RehearsalOrder order) =>
        Library.OpenEstate(before).Document is not { IsRehearsal: true }
            ? Problems.Of(
                409, "name-taken", $"There is an estate {before.Name} that is no rehearsal.", "Give one of the two another name.")
            : order.Fresh ? null
            : Problems.Of(
                409, "rehearsal", $"There is a rehearsal of {of} already.",
                $"Lay it anew, and what was done in it is gone: justright estate rehearse {of} --fresh");

    private async Task<IReadOnlyList<NewDocument>> CopiesAsync(string estate, CancellationToken cancel) =>
        [.. (await InstallsAsync(estate, cancel)).Select(i => new NewDocument(
            Library.InstallKind, RehearsalRules.NameOf(i.Name), i.File, RehearsalText.OfInstall(i.Text, i.File)))];

    /// <summary>The installs of an estate that can be read.</summary>
    private async Task<IReadOnlyList<DocumentRow>> InstallsAsync(string estate, CancellationToken cancel) =>
        [.. (await library.ListAsync(Library.InstallKind, cancel))
            .Where(i => Library.OpenInstall(i).Document is { } read && read.Estate == estate)];

    private async Task<ProblemHttpResult?> TakenAsync(
        IReadOnlyList<NewDocument> copies, string rehearsal, CancellationToken cancel)
    {
        foreach (var copy in copies)
            if (await library.FindAsync(Library.InstallKind, copy.Name, cancel) is { } row
                && Library.OpenInstall(row).Document?.Estate != rehearsal)
                return Problems.Of(
                    409, "name-taken", $"There is an install {copy.Name} that is not of the rehearsal.",
                    "Give it another name, or remove it.");
        return null;
    }

    /// <summary>The names that are settled for the installs of the real estate, for their copies.</summary>
    private async Task<List<SettledNameRow>> SettledAsync(string estate, string rehearsal, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var rows = await db.SettledNames.AsNoTracking().Where(n => n.Estate == estate).OrderBy(n => n.Id).ToListAsync(cancel);
        return [.. rows.Select(r => Row(RehearsalRules.NameOf(r.Install), rehearsal, r.Kind, r.Key, r.Name))];
    }

    private static SettledNameRow Row(string install, string estate, NamedKind kind, string key, string name) => new()
    {
        Install = install,
        Estate = estate,
        Kind = kind,
        Key = key,
        Name = name,
    };

    private static NameIndex NamesOf(string install, List<SettledNameRow> settled)
    {
        var mine = settled.Where(n => n.Install == install).ToLookup(n => n.Kind);
        return new NameIndex(
            mine[NamedKind.Account].ToDictionary(n => n.Key, n => n.Name),
                mine[NamedKind.Group].ToDictionary(n => n.Key, n => n.Name),
            new HashSet<string>(StringComparer.OrdinalIgnoreCase), false)
        {
            Schema = BuiltInSchema.Schema,
        };
    }

    /// <summary>The plans of installs that are not stored yet; one that cannot be planned is told of.</summary>
    private async Task<IReadOnlyList<Plan>> PlansAsync(
        Estate estate, IReadOnlyList<NewDocument> installs, List<SettledNameRow> settled, List<string> remarks,
        CancellationToken cancel)
    {
        var plans = new List<Plan>();
        foreach (var document in installs)
        {
            if (InstallReader.Read(Encoding.UTF8.GetBytes(document.Text), document.File) is not ({ } install, _)) continue;
            if (await library.FindAsync(Library.SheetKind, install.Sheet, cancel) is not { } row
                || Library.OpenSheet(row).Document is not { } sheet)
            {
                remarks.Add($"{install.Name} is not laid: there is no sheet {install.Sheet} that can be read");
                continue;
            }

            var (plan, faults) = Planner.Make(sheet, estate, install, NamesOf(install.Name, settled));
            if (plan is not null) plans.Add(plan);
            else remarks.Add($"{install.Name} is not laid: it cannot be planned: {faults[0]}");
        }

        return plans;
    }

    private static IEnumerable<string> NotReached(Estate estate) =>
        estate.Instances.Where(i => i.Reach == Reach.None)
            .Select(i =>
                $"{i.Name} is not simulated: only instances of the SQL Server family are; what is asked of it stays unseen");

    private async Task<ProblemHttpResult?> BusyAsync(IEnumerable<string> subjects, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        foreach (var subject in subjects)
            if (await OpenJobs.BusyAsync(db, subject, cancel) is { } busy) return busy;
        return null;
    }

    /// <summary>Removes what is kept of a rehearsal.</summary>
    /// <returns>The keys of its passwords, to be destroyed once that is kept.</returns>
    private static List<string> RemoveRemains(AppDb db, string rehearsal, IReadOnlyList<string> installs)
    {
        DocumentRemains.RemoveOfEstate(db, rehearsal);
        foreach (var install in installs) DocumentRemains.RemoveOfInstall(db, install);
        var passwords = db.Passwords.Where(p => p.Install == rehearsal || installs.Contains(p.Install)).ToList();
        db.Passwords.RemoveRange(passwords);
        return [.. passwords.Select(p => p.KeyName).OfType<string>()];
    }

    private static string Words(int count, string said, IReadOnlyList<string> installs) =>
        count == 0 ? said.Split(',')[0] : $"{said}{string.Join(", ", installs)}";

    private static RehearsalView View(Estate rehearsal, SimulationState state, IReadOnlyList<string> installs) => new(
        rehearsal.Name, rehearsal.Rehearses!, state.LaidAt!.Value, state.SurveyedAt, installs,
        state.Principals.Count(p => p.Kind == PrincipalKind.User), state.Principals.Count(p => p.Kind == PrincipalKind.Group),
        state.Hosts.Count, state.Instances.Count, state.Mistakes, state.Remarks);
}
