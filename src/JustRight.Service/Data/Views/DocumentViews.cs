using System.Text;
using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Formats.Installs;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Views;

/// <summary>Sheets and estates for the wire.</summary>
internal static class DocumentViews
{
    public static SheetSummary Summary(Sheet sheet, DocumentRow? row, IReadOnlyList<Fault>? leftAside = null) => new(
        sheet.Name, sheet.Product, sheet.Release, sheet.Title, sheet.Source, sheet.Accounts.Count, sheet.Accounts.Sum(a =>
            a.Needs.Sum(Count)), row?.AddedAt, row?.AddedBy)
    {
        Remarks = Remarks(leftAside ?? []),
    };

    /// <summary>A sheet of a list, whether or not it can be read.</summary>
    public static SheetSummary Of(DocumentRow row, (Sheet? Document, IReadOnlyList<Fault> Faults) read) =>
        read.Document is { } sheet ? Summary(sheet, row, read.Faults)
            : new SheetSummary(row.Name, "", "", row.Name, "", 0, 0, row.AddedAt, row.AddedBy)
            {
                Remarks = CannotBeRead(read.Faults),
            };

    /// <summary>An estate of a list, whether or not it can be read.</summary>
    public static EstateSummary Of(DocumentRow row, (Estate? Document, IReadOnlyList<Fault> Faults) read) =>
        read.Document is { } estate ? Summary(estate, row, read.Faults)
            : new EstateSummary(row.Name, row.Name, "", "", false, [], 0, 0, row.AddedAt, row.AddedBy)
            {
                Remarks = CannotBeRead(read.Faults),
            };

    /// <summary>An install of a list that cannot be read: what can be told of it all the same.</summary>
    public static InstallSummary Unread(DocumentRow row, IReadOnlyList<Fault> faults)
    {
        var outline = InstallOutline.Read(Encoding.UTF8.GetBytes(row.Text), row.File);
        var sheet = outline is { Product: { } product, Release: { } release } ? $"{product}@{release}" : "";
        var why = CannotBeRead(faults);
        return new InstallSummary(
            row.Name, sheet, row.Name, outline?.Estate ?? "", outline?.Stage ?? "", false, null, null, why[0], row.AddedAt,
            row.AddedBy)
        {
            Remarks = why,
        };
    }

    /// <summary>An install of a list that cannot be planned.</summary>
    public static InstallSummary Unplanned(DocumentRow row, Install install, FaultException why) => new(
        install.Name, install.Sheet, install.Sheet, install.Estate, Stage(install.Stage), false, null, null,
        $"cannot be planned: {why.Faults[0]}", row.AddedAt, row.AddedBy);

    /// <summary>What this release leaves aside of a document that an earlier one stored.</summary>
    public static IReadOnlyList<string> Remarks(IReadOnlyList<Fault> leftAside) => [.. leftAside.Select(f => $"left aside: {f}")];

    private static IReadOnlyList<string> CannotBeRead(IReadOnlyList<Fault> faults) =>
        [.. faults.Select(f => $"cannot be read: {f}")];

    public static SheetView Of(Sheet sheet, string text, DocumentRow? row) => new(
        Summary(sheet, row), text,
        [.. sheet.Accounts.Select(a => new SheetAccountView(a.Key, a.Purpose, WorksAsWords.Of(a.WorksAs), a.At.Line))],
        [.. sheet.Places.Select(p => new SheetPlaceView(p.Key, p.Kind.Word(), p.At.Line))]);

    public static EstateSummary Summary(Estate estate, DocumentRow? row, IReadOnlyList<Fault>? leftAside = null) => new(
        estate.Name, estate.Title, estate.Domain.DnsName, ReachWords.Of(
            estate.Directory.Reach), estate.IsSimulated, [.. estate.Branches.Select(b => b.Key)], estate.Hosts.Count, estate.Instances.Count, row?.AddedAt, row?.AddedBy)
    {
        Remarks = Remarks(leftAside ?? []),
        Rehearses = estate.Rehearses,
        TimeZone = estate.Rules.TimeZone.Id,
        PeopleDirectories = [.. estate.PeopleDirectories.Select(d =>
            new PeopleDirectoryView(
                d.Key, FamilyOf(d), d.Reach == Reach.Simulation, string.Join("; ", d.PeopleBranches),
                string.Join("; ", d.GroupsBranches)))],
    };

    public static string Stage(Stage stage) =>
        stage.Word();

    /// <summary>The family of a directory of people, in the word of the estate's file.</summary>
    public static string FamilyOf(PeopleDirectory directory) =>
        directory.Family == DirectoryFamily.AdLike ? "ad-like" : "inetorgperson";

    private static int Count(NeedClause clause) => clause switch
    {
        AnyOf => 1,
        AllOf all => all.Parts.Sum(Count),
        _ => 1,
    };
}
