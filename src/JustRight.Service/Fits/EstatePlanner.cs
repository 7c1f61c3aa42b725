using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights.Directory.Schema;
using JustRight.Core.Sheets;
using JustRight.Service.Documents;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Fits;

/// <summary>Plans installs from their documents, with the names that are settled and the schema that was read.</summary>
public sealed class EstatePlanner(Library library, SurveyStore surveys, IDbContextFactory<AppDb> databases)
{
    /// <summary>
    /// Plans every install of an estate; null when there is no such estate. Each document and name is read once.
    /// </summary>
    public async Task<EstatePlans?> PlanAllAsync(string name, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, name, cancel) is not { } row) return null;
        var estate = Library.ReadEstate(row);
        var sheets = (await library.ListAsync(Library.SheetKind, cancel)).ToDictionary(s => s.Name);
        var book = await BookAsync(estate, cancel);
        return new EstatePlans(estate, (await library.ListAsync(Library.InstallKind, cancel)).Select(Library.ReadInstall)
            .Where(install => install.Estate == name)
            .Select(install => sheets.TryGetValue(install.Sheet, out var sheet)
                ? Planned(Library.ReadSheet(sheet), estate, install, book.Of(install))
                : new PlannedInstall(install, null, null, [NoSheet(install)]))
            .ToDictionary(i => i.Install.Name));
    }

    /// <summary>Plans one install, in Just Right or not.</summary>
    public async Task<PlannedInstall> PlanAsync(Sheet sheet, Estate estate, Install install, CancellationToken cancel) =>
        Planned(sheet, estate, install, await NamesAsync(estate, install, cancel));

    /// <summary>The names of an install, and those of the others that it must not take.</summary>
    public async Task<NameIndex> NamesAsync(Estate estate, Install install, CancellationToken cancel) =>
        (await BookAsync(estate, cancel)).Of(install);

    /// <summary>That the sheet of an install is not in Just Right.</summary>
    public static Fault NoSheet(Install install) =>
        new("unknown-sheet", install.At, "product", $"There is no sheet {install.Sheet}.");

    private static PlannedInstall Planned(Sheet sheet, Estate estate, Install install, NameIndex names)
    {
        var (plan, faults) = Planner.Make(sheet, estate, install, names);
        return new PlannedInstall(install, sheet, plan, faults);
    }

    private async Task<SettledNames> BookAsync(Estate estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var schema = await surveys.SchemaAsync(estate.Name, cancel) ?? (estate.IsSimulated ? BuiltInSchema.Schema : null);
        return new SettledNames(await db.SettledNames.AsNoTracking().ToListAsync(cancel), schema);
    }
}
