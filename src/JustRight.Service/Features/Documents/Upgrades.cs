using System.Text;
using JustRight.Contracts;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Features.Documents;

/// <summary>An install that is to move on to another release of its product.</summary>
/// <param name="Row">The install as it is kept.</param>
/// <param name="Install">The same, read.</param>
/// <param name="From">The sheet it follows.</param>
/// <param name="To">The sheet it is to follow.</param>
/// <param name="Text">The install as it is to be.</param>
/// <param name="LeftOut">What of it says nothing there.</param>
internal sealed record Upgrade(
    DocumentRow Row, Install Install, Sheet From, Sheet To, string Text, IReadOnlyList<string> LeftOut)
{
    /// <summary>What the other release asks and the text does not say.</summary>
    public IReadOnlyList<OpenQuestion> Asked { get; init; } = [];

    /// <summary>Both releases' plans; null while something is asked.</summary>
    public (Plan Before, Plan After)? Plans { get; init; }

    /// <summary>The text of the install that keeps what the former release needs; null where nothing was given yet.</summary>
    public string? Former { get; init; }

    /// <summary>Its name.</summary>
    public string? FormerName => Former is null ? null : Succession.FormerName(Install);
}

/// <summary>Moves installs on to another release of their product.</summary>
internal sealed class Upgrades(
    Library library, EstatePlanner planner, FitService fitService, SurveyStore surveys, IDbContextFactory<AppDb> databases,
    TimeProvider time)
{
    /// <summary>What an upgrade comes to; throws <see cref="FaultException"/> where it cannot be.</summary>
    public async Task<Upgrade> MakeAsync(DocumentRow row, DocumentRow sheet, UpgradeOrder order, CancellationToken cancel)
    {
        var (install, to) = (Library.ReadInstall(row), Library.ReadSheet(sheet));
        if (Succession.WhyNot(install, to) is { } fault) throw new FaultException([fault]);
        var plans = await planner.PlanAllAsync(install.Estate,
            cancel) ?? throw new FaultException([EstatePlanner.NoEstate(install)]);
        var planned = plans.Installs[install.Name];
        if (planned is not { Plan: { } before, Sheet: { } from }) throw new FaultException(planned.Faults);
        if (Unasked(order.Said?.Keys ?? [], to, plans.Estate) is { Count: > 0 } unasked) throw new FaultException(unasked);
        var (text, leftOut) = order.Text is { } given ? (given, [])
            : UpgradeText.Moved(row.Text, row.File, to, order.Said ?? new Dictionary<string, IReadOnlyList<string>>());
        var file = order.Text is null ? row.File : order.File ?? row.File;
        var (moved, faults) = InstallReader.Read(Encoding.UTF8.GetBytes(text), file);
        if (moved is null) throw new FaultException(faults);
        if (WhyAnother(install, moved, to) is { } another) throw new FaultException([another]);
        var upgrade = new Upgrade(row, install, from, to, text, leftOut)
        {
            Asked = order.Text is null ? Succession.Asked(moved, from, to, plans.Estate) : [],
        };
        if (upgrade.Asked.Count > 0) return upgrade;
        var after = await planner.PlanAsync(to, plans.Estate, moved, cancel);
        return upgrade with
        {
            Plans = (before, after.Plan ?? throw new FaultException(after.Faults)),
            Former = await GaveAsync(install.Name, cancel) || install.Stage == Stage.Installed
                ? UpgradeText.Former(row.Text, row.File, install, before, after.Plan)
                : null,
        };
    }

    /// <summary>Answers to what the other release does not ask.</summary>
    private static IReadOnlyList<Fault> Unasked(IEnumerable<string> said, Sheet to, Core.Estates.Estate estate)
    {
        var known = OpenQuestions.Of(to, estate).Select(q => q.Field).ToList();
        return
        [
            .. said.Where(f => !known.Contains(f)).Select(f =>
                new Fault("unknown-field", to.At, f, $"{to.Name} does not ask {f}.")
                {
                    Expected = string.Join(", ", known),
                    Nearest = Spelling.Nearest(f, known),
                }),
        ];
    }

    /// <summary>A file that is given is of the same install, under the other release, not begun.</summary>
    private static Fault? WhyAnother(Install install, Install moved, Sheet to) =>
        moved.Name != install.Name ? Of(moved, "name", moved.Name, install.Name)
        : moved.Sheet != to.Name ? Of(moved, "release", moved.Sheet, to.Name)
        : moved.Estate != install.Estate ? Of(moved, "estate", moved.Estate, install.Estate)
        : moved.Stage != Stage.Planned ? Of(moved, "stage", moved.Stage.Word(), Stage.Planned.Word())
        : NotByHand(moved, null);

    /// <summary>Whoever calls himself the former release of an install, has its rules count for himself.</summary>
    /// <param name="known">What the install is known to be the former release of.</param>
    private static Fault? NotByHand(Install install, string? known) => install.SucceededBy is not { } by || by == known ? null
        : new Fault("not-by-hand", install.At, "succeeded-by", $"{install.Name} did not come of an upgrade.")
        {
            Found = by,
            Expected = "no such key: justright install upgrade writes it",
        };

    private static Fault Of(Install moved, string field, string found, string expected) =>
        new("no-upgrade", moved.At, field, $"This is not {expected}.") { Found = found, Expected = expected };

    /// <summary>
    /// Why a file is not just added: it follows another release, and what was given for the present one would be forgotten; or it
    /// calls itself the former release of an install, whose rules would count for it. Null where neither is so.
    /// </summary>
    /// <param name="before">The install of that name; null where there is none.</param>
    public async Task<ProblemHttpResult?> WhyNotAddedAsync(Install install, DocumentRow? before, CancellationToken cancel)
    {
        var known = before is null ? null : Library.OpenInstall(before).Document;
        if (NotByHand(install, known?.SucceededBy) is { } fault) return Problems.Of([fault]);
        if (known is null || known.Product != install.Product || known.Release == install.Release
            || !await GaveAsync(known.KnownAs, cancel))
            return null;
        return Problems.Of(
            409, "upgrade", $"{install.Name} follows {known.Sheet}, for which rights were given from here.",
            $"Move it on: justright install upgrade {install.Name} --to {install.Sheet} --with FILE");
    }

    /// <summary>Whether an install was given anything from here.</summary>
    private async Task<bool> GaveAsync(string install, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await MadeSteps.AnyAsync(db, install, cancel);
    }

    /// <summary>
    /// The steps that would be left to do, by the latest survey, while the former release is still needed. Null while none was
    /// taken.
    /// </summary>
    public async Task<IReadOnlyList<Step>?> GiveAsync(Upgrade upgrade, CancellationToken cancel)
    {
        if (await surveys.LatestAsync(upgrade.Install.Estate, cancel) is not { } view) return null;
        var plans = (await planner.PlanAllAsync(upgrade.Install.Estate, cancel))!;
        var (before, after) = upgrade.Plans!.Value;
        var then = plans.Installs.ToDictionary();
        var install = Library.ReadInstall(Said(upgrade.Row, upgrade.Text));
        then[install.Name] = new PlannedInstall(install, upgrade.To, after, [], "");
        if (upgrade.Former is { } former)
        {
            var kept = Library.ReadInstall(Said(upgrade.Row, former));
            then[kept.Name] = new PlannedInstall(
                kept, upgrade.From, before with { Install = kept.Name, Stage = kept.Stage }, [], "");
        }

        var judged = await fitService.JudgeAsync(
            new EstatePlans(plans.Estate, then, plans.Unplanned, ""), upgrade.Row, view, new Present(time.GetUtcNow()), cancel);
        return judged?.Worklist.Give;
    }

    /// <summary>Moves the install, and keeps what the former release needs beside it; both or neither.</summary>
    public Task<bool> MoveAsync(Upgrade upgrade, string file, string who, CancellationToken cancel)
    {
        var (name, former) = (upgrade.Install.Name, upgrade.FormerName);
        List<NewDocument> documents = [new(Library.InstallKind, name, file, upgrade.Text)];
        if (former is not null)
            documents.Add(new NewDocument(Library.InstallKind, former, $"{former}.yaml", upgrade.Former!));
        var kept = former is null ? "nothing was given for the former release"
            : $"what {upgrade.From.Name} needs is kept as {former}";
        return library.SaveIfAsync(
            documents,
            db =>
            {
                if (!IsAsBefore(db, upgrade)) return false;
                SaidOfFormer(db, name, former);
                return true;
            },
            new LogSaid(Library.InstallKind, name, $"moved from {upgrade.From.Name} to {upgrade.To.Name}; {kept}"), who, cancel);
    }

    /// <summary>Whether nobody changed the install meanwhile, or took the name of what is kept of the former release.</summary>
    private static bool IsAsBefore(AppDb db, Upgrade upgrade) =>
        db.Documents.Any(d =>
            d.Kind == Library.InstallKind && d.Name == upgrade.Row.Name && d.Text == upgrade.Row.Text)
        && !db.Documents.Any(d => d.Kind == Library.InstallKind && d.Name == upgrade.FormerName);

    /// <summary>What people confirmed and accepted of the former release they said of what is kept of it too.</summary>
    private static void SaidOfFormer(AppDb db, string install, string? former)
    {
        if (former is null) return;
        foreach (var said in db.Confirmations.AsNoTracking().Where(c => c.Install == install).ToList())
            db.Confirmations.Add(Copy(db, said, (c) => (c.Id, c.Install) = (0, former)));
        foreach (var said in db.Exceptions.AsNoTracking().Where(e => e.Install == install).ToList())
            db.Exceptions.Add(Copy(db, said, e => (e.Id, e.Install) = (0, former)));
    }

    private static T Copy<T>(AppDb db, T row, Action<T> anew)
        where T : class
    {
        var copy = (T)db.Entry(row).CurrentValues.ToObject();
        anew(copy);
        return copy;
    }

    private static DocumentRow Said(DocumentRow row, string text) =>
        new() { Kind = row.Kind, Name = row.Name, File = row.File, Text = text, AddedBy = row.AddedBy, AddedAt = row.AddedAt };
}
