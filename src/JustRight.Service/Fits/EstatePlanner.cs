using System.Text;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;
using JustRight.Formats.Installs;
using JustRight.Service.Documents;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>Plans installs from their documents, with the names that are settled and the schema that was read.</summary>
public sealed class EstatePlanner(Library library, SurveyStore surveys, IDbContextFactory<AppDb> databases)
{
    /// <summary>
    /// Plans every install of an estate; null when there is no such estate. Each document and name is read once. An install
    /// that cannot be read or planned is told of, and breaks nothing.
    /// </summary>
    public async Task<EstatePlans?> PlanAllAsync(string name, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row) return null;
        var estate = Library.ReadEstate(row);
        var sheets = (await library.ListAsync(Library.SheetKind, cancel)).ToDictionary(s => s.Name);
        var settledNames = await SettledNamesAsync(estate, cancel);
        var planned = new Dictionary<string, PlannedInstall>();
        var unplanned = new List<UnplannedInstall>();
        foreach (var stored in await library.ListAsync(Library.InstallKind, cancel))
        {
            if (Library.OpenInstall(stored) is not ({ } install, _))
            {
                if (Unread(stored, name, settledNames) is { } unread) unplanned.Add(unread);
                continue;
            }

            if (install.Estate != name) continue;
            var made = Planned(sheets.GetValueOrDefault(install.Sheet), estate, install, settledNames);
            planned[install.Name] = made;
            if (made.Plan is null) unplanned.Add(Unplanned(made, settledNames));
        }

        return new EstatePlans(estate, planned, unplanned);
    }

    /// <summary>Plans one install, in Just Right or not.</summary>
    public async Task<PlannedInstall> PlanAsync(Sheet sheet, Estate estate, Install install, CancellationToken cancel) =>
        Planned(sheet, estate, install, await NamesAsync(estate, install, cancel));

    /// <summary>The names of an install, and those of the others that it must not take.</summary>
    public async Task<NameIndex> NamesAsync(Estate estate, Install install, CancellationToken cancel) =>
        (await SettledNamesAsync(estate, cancel)).Of(install);

    /// <summary>That the sheet of an install is not in Just Right.</summary>
    public static Fault NoSheet(Install install) =>
        new("unknown-sheet", install.At, "product", $"There is no sheet {install.Sheet}.");

    private static PlannedInstall Planned(DocumentRow? sheet, Estate estate, Install install, SettledNames settledNames)
    {
        if (sheet is null) return new PlannedInstall(install, null, null, [NoSheet(install)]);
        return Library.OpenSheet(sheet) is ({ } read, _)
            ? Planned(read, estate, install, settledNames.Of(install))
            : new PlannedInstall(install, null, null, Library.OpenSheet(sheet).Faults);
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

    private static PlannedInstall Planned(Sheet sheet, Estate estate, Install install, NameIndex names)
    {
        var (plan, faults) = Planner.Make(sheet, estate, install, names);
        return new PlannedInstall(install, sheet, plan, faults);
    }

    private async Task<SettledNames> SettledNamesAsync(Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var schema = await surveys.SchemaAsync(estate.Name, cancel) ?? (estate.IsSimulated ? BuiltInSchema.Schema : null);
        return new SettledNames(await db.SettledNames.AsNoTracking().ToListAsync(cancel), estate.Name, schema);
    }
}
