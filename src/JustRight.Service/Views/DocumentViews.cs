using JustRight.Contracts;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Service.Storage;

namespace JustRight.Service.Views;

/// <summary>Sheets and estates for the wire.</summary>
internal static class DocumentViews
{
    public static SheetSummary Summary(Sheet sheet, DocumentRow? row) => new(
        sheet.Name, sheet.Product, sheet.Release, sheet.Title, sheet.Source, sheet.Accounts.Count, sheet.Accounts.Sum(a => a.Needs.Sum(Count)), row?.AddedAt, row?.AddedBy);

    public static SheetView Of(Sheet sheet, string text, DocumentRow? row) => new(
        Summary(sheet, row), text,
        [.. sheet.Accounts.Select(a => new SheetAccountView(a.Key, a.Purpose, a.WorksAs, a.At.Line))],
        [.. sheet.Places.Select(p => new SheetPlaceView(p.Key, p.Kind.ToString().ToLowerInvariant(), p.At.Line))]);

    public static EstateSummary Summary(Estate estate, DocumentRow? row) => new(
        estate.Name, estate.Title, estate.Domain.DnsName, estate.Directory.Reach.ToString().ToLowerInvariant(), estate.IsSimulated, [.. estate.Branches.Select(b => b.Key)], estate.Hosts.Count, estate.Instances.Count, row?.AddedAt, row?.AddedBy)
    {
        PeopleDirectories = [.. estate.PeopleDirectories.Select(d => new PeopleDirectoryView(d.Key, SignIns.SignInViews.Family(d), d.Reach == Reach.Simulation, d.PeopleIn.Text, d.GroupsIn.Text))],
    };

    public static string Stage(Stage stage) => stage switch { Core.Installs.Stage.Installed => "installed", Core.Installs.Stage.Retiring => "retiring", _ => "planned" };

    private static int Count(NeedClause clause) => clause switch
    {
        AnyOf => 1,
        AllOf all => all.Parts.Sum(Count),
        _ => 1,
    };
}
