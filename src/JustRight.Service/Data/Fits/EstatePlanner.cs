using System.Collections.Concurrent;
using System.Text;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Data.Surveys;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Fits;

/// <summary>Plans installs from their documents, with the names that are settled and the schema that was read.</summary>
public sealed class EstatePlanner(Library library, SurveyStore surveys, IDbContextFactory<AppDb> databases)
{
    private readonly ConcurrentDictionary<string, MadePlans> _known = new(StringComparer.Ordinal);

    /// <summary>
    /// The plans of all installs of an estate; null when there is no such estate. They are made once for everybody who asks, and
    /// anew when something changed that they follow from; then again only those that it concerns. An install that cannot be read
    /// or planned is told of, and breaks nothing.
    /// </summary>
    public async Task<EstatePlans?> PlanAllAsync(string name, CancellationToken cancel)
    {
        var replanned = await ReplannedAsync(name, cancel);
        if (_known.TryGetValue(name, out var known) && known.Plans is var (at, plans) && at == replanned) return plans;
        if (await library.FindAsync(Library.EstateKind, name, cancel) is null) return null;
        known = _known.GetOrAdd(name, _ => new MadePlans());
        await known.One.WaitAsync(cancel);
        try
        {
            // read before what it counts: a change meanwhile makes the next one who asks plan again
            replanned = await ReplannedAsync(name, cancel);
            if (known.Plans is var (since, made) && since == replanned) return made;
            var row = (await library.FindAsync(Library.EstateKind, name, cancel))!;
            var fresh = await PlanAllAsync(row, known, cancel);
            known.Plans = (replanned, fresh);
            return fresh;
        }
        finally
        {
            known.One.Release();
        }
    }

    private async Task<long> ReplannedAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return await db.EstateMarks.Where(m => m.Estate == estate).Select(m => m.Replanned).FirstOrDefaultAsync(cancel);
    }

    private async Task<EstatePlans> PlanAllAsync(DocumentRow row, MadePlans known, CancellationToken cancel)
    {
        var estate = Library.ReadEstate(row);
        var estateBasis = Basis.Of(row.File, row.Text);
        var sheets = (await library.ListAsync(Library.SheetKind, cancel)).ToDictionary(s => s.Name);
        var sheetBases = sheets.ToDictionary(s => s.Key, s => Basis.Of(s.Value.File, s.Value.Text));
        var settledNames = await SettledNamesAsync(estate, cancel);
        var planned = new Dictionary<string, PlannedInstall>();
        var unplanned = new List<UnplannedInstall>();
        var bases = new List<string>();
        var followed = new Dictionary<string, (string From, PlannedInstall Plan)>();
        foreach (var stored in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(stored) is not ({ } install, _))
            {
                if (Unread(stored, estate.Name, settledNames) is not { } unread) continue;
                unplanned.Add(unread);
                bases.Add(Basis.Of(stored.Name, stored.File, stored.Text, settledNames.BasisOf(stored.Name)));
                continue;
            }

            if (install.Estate != estate.Name) continue;
            string?[] documents = [estateBasis, sheetBases.GetValueOrDefault(install.Sheet), stored.File, stored.Text,
                settledNames.Schema?.Version];
            var from = Basis.Of(documents.Append(settledNames.BasisOf(install.Name)));
            var made = known.Followed.TryGetValue(install.Name, out var before) && before.From == from ? before.Plan
                : Planned(sheets.GetValueOrDefault(install.Sheet), estate, install, settledNames, documents);
            followed[install.Name] = (from, made);
            planned[install.Name] = made;
            bases.Add(made.Basis);
            if (made.Plan is null) unplanned.Add(Unplanned(made, settledNames));
        }

        known.Followed = followed;
        return new EstatePlans(estate, planned, unplanned, Basis.Of(bases));
    }

    /// <summary>Plans one install, in Just Right or not.</summary>
    public async Task<PlannedInstall> PlanAsync(Sheet sheet, Estate estate, Install install, CancellationToken cancel) =>
        Planned(sheet, estate, install, await NamesAsync(estate, install, cancel), []);

    /// <summary>The names of an install, and those of the others that it must not take.</summary>
    public async Task<NameIndex> NamesAsync(Estate estate, Install install, CancellationToken cancel) =>
        (await SettledNamesAsync(estate, cancel)).Of(install);

    /// <summary>That the sheet of an install is not in Just Right.</summary>
    public static Fault NoSheet(Install install) =>
        new("unknown-sheet", install.At, "product", $"There is no sheet {install.Sheet}.");

    /// <summary>That the estate of an install is not in Just Right.</summary>
    public static Fault NoEstate(Install install) =>
        new("unknown-estate", install.At, "estate", $"There is no estate {install.Estate}.");

    private static PlannedInstall Planned(
        DocumentRow? sheet, Estate estate, Install install, SettledNames settledNames, string?[] documents)
    {
        if (sheet is null) return new PlannedInstall(install, null, null, [NoSheet(install)], Basis.Of(documents));
        return Library.OpenSheet(sheet) is ({ } read, _)
            ? Planned(read, estate, install, settledNames.Of(install), documents)
            : new PlannedInstall(install, null, null, Library.OpenSheet(sheet).Faults, Basis.Of(documents));
    }

    /// <summary>
    /// An install whose file cannot be read. It is of this estate when it says so, and may be when it says nothing: then nothing
    /// is known of it.
    /// </summary>
    private static UnplannedInstall? Unread(DocumentRow row, string estate, SettledNames settledNames)
    {
        var why = Library.OpenInstall(row).Faults[0].ToString();
        if (InstallOutline.Read(Encoding.UTF8.GetBytes(row.Text), row.File) is not { Estate: { } named } outline)
            return new UnplannedInstall(row.Name, why, null, null);
        return named == estate ? Known(row.Name, why, outline.Names.Concat(settledNames.Of(row.Name)), outline.Places) : null;
    }

    private static UnplannedInstall Unplanned(PlannedInstall planned, SettledNames settledNames)
    {
        var install = planned.Install;
        var chosen = install.Accounts.Values.Concat(install.Groups.Values).Select(n => n.Name);
        var names = chosen.Concat(settledNames.Of(install.Name));
        return Known(install.Name, planned.Faults[0].ToString(), names, install.Places.Values.SelectMany(p => p.Values));
    }

    private static UnplannedInstall Known(string install, string why, IEnumerable<string> names, IEnumerable<string> places) =>
        new(install, why, names.ToHashSet(StringComparer.OrdinalIgnoreCase), places.ToHashSet(StringComparer.OrdinalIgnoreCase));

    /// <remarks>
    /// Names that others hold count only by the names that the plan makes: another's new name changes no plan that does not meet
    /// it.
    /// </remarks>
    private static PlannedInstall Planned(
        Sheet sheet, Estate estate, Install install, NameIndex names, IEnumerable<string?> documents)
    {
        var (plan, faults) = Planner.Make(sheet, estate, install, names);
        var made = plan is null ? []
            : plan.Accounts.Select(a => $"{a.Key}={a.Name}").Concat(plan.Groups.Select(g => $"{g.Key}={g.Name}"));
        return new PlannedInstall(
            install, sheet, plan, faults,
            Basis.Of(documents.Append($"{names.Checked}").Concat(made).Concat(faults.Select(f => f.ToString()))));
    }

    private async Task<SettledNames> SettledNamesAsync(Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var schema = await surveys.SchemaAsync(estate.Name, cancel) ?? (estate.IsSimulated ? BuiltInSchema.Schema : null);
        var rows = await db.SettledNames.AsNoTracking().ToListAsync(cancel);
        return new SettledNames([.. await CountingAsync(rows, estate, cancel)], estate.Name, schema);
    }

    /// <summary>A rehearsal has the names of the real systems, and neither takes a name from the other.</summary>
    private async Task<IEnumerable<SettledNameRow>> CountingAsync(
        List<SettledNameRow> rows, Estate estate, CancellationToken cancel)
    {
        if (estate.IsRehearsal) return rows.Where(r => r.Estate == estate.Name);
        var rehearsals = (await library.ListAsync(Library.EstateKind, cancel)).Select(r => Library.OpenEstate(r).Document)
            .Where(e => e is { IsRehearsal: true }).Select(e => e!.Name).ToHashSet(StringComparer.Ordinal);
        return rows.Where(r => r.Estate is null || !rehearsals.Contains(r.Estate));
    }

    /// <summary>The plans of an estate, once made.</summary>
    private sealed class MadePlans
    {
        /// <summary>Only one plans at a time; the others wait for what it makes.</summary>
        public SemaphoreSlim One { get; } = new(1);

        /// <summary>The plans, and after which change they were made.</summary>
        public (long At, EstatePlans Plans)? Plans { get; set; }

        /// <summary>Each install's plan, and what it followed from.</summary>
        public Dictionary<string, (string From, PlannedInstall Plan)> Followed { get; set; } = [];
    }
}
