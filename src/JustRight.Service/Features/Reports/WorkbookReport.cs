using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using JustRight.Contracts;
using SheetView = DocumentFormat.OpenXml.Spreadsheet.SheetView;

namespace JustRight.Service.Features.Reports;

/// <summary>
/// The account matrix as a workbook [ECMA-376]: the matrix, every right with filters, exceptions, reviews, and what it all
/// rests on.
/// </summary>
internal static class WorkbookReport
{
    /// <summary>The media type.</summary>
    public const string MediaType = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private const int VerdictColumn = 4;

    /// <summary>Writes it.</summary>
    public static byte[] Write(InstallReport report)
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var workbook = document.AddWorkbookPart();
            workbook.Workbook = new Workbook(new Sheets());
            workbook.AddNewPart<WorkbookStylesPart>().Stylesheet = WorkbookStyles.Make();
            Matrix(workbook, report);
            Add(
                workbook, "Rights", ReportLine.Heads, [.. report.Lines.Select(l => l.Values)],
                [18, 34, 34, 26, 10, 38, 38, 20, 52, 40, 30], line => (VerdictColumn, line[VerdictColumn]));
            Add(workbook, "Exceptions", [
                "number", "what", "accepted by", "written down by", "because", "from", "until", "counts"],
                [.. report.Exceptions.Select(e =>
                    new[] { $"{e.Number}", e.Words, e.By, e.WrittenBy, e.Why, report.Time(e.At), report.Until(e.LastDay, e.Until), e.Stands ? "yes" : e.EndedBy is null ? "ended" : $"ended by {e.EndedBy}" })], [
                    9, 60, 22, 22, 44, 24, 24, 18]);
            Add(workbook, "Reviews", [
                "number", "when", "by", "written down by", "fit", "it said", "left open", "again by", "remark"],
                [.. report.Reviews.Select(r =>
                    new[] { $"{r.Number}", report.Time(r.At), r.By, r.WrittenBy, $"{r.Fit}", r.Counts.Words, $"{r.Off.Count(o => o.Accepted is null)}", $"{r.NextBy:yyyy-MM-dd}", r.Remark ?? "" })], [
                    9, 24, 22, 22, 6, 34, 10, 12, 44]);
            Add(workbook, "About", ["what", "is"], About(report), [26, 100]);
        }

        return PlainNames.Of(stream.ToArray());
    }

    /// <summary>
    /// Accounts as rows, places as columns; a cell has its rights with their verdicts, and the style of the worst.
    /// </summary>
    private static void Matrix(WorkbookPart workbook, InstallReport report)
    {
        var places = report.Fit.Places.Where(p => report.Fit.Accounts.Any(a => a.Rights.Any(r => r.Group == p))).ToList();
        var rows = report.Fit.Accounts.Select(a => new[] { a.Name, a.Purpose, a.Counts.Words }
            .Concat(places.Select(p =>
                string.Join(
                    '\n',
                    a.Rights.Where(r => r.Group == p).Select(r => $"{InstallReport.Sign(r.Verdict)} {r.Right}: {r.Verdict}"))))
                .ToArray()).ToList();
        Add(workbook, "Matrix", ["account", "purpose", "fit", .. places], rows, [
            18, 34, 24, .. places.Select(_ => 36.0)], frozenColumns: 1, styleOf: (row, column) =>
            column < 3
                ? WorkbookStyles.Plain
                : WorkbookStyles.Of(Worst(report.Fit.Accounts[row].Rights.Where(r => r.Group == places[column - 3]))));
    }

    private static string? Worst(IEnumerable<JudgementView> rights)
    {
        string[] order = ["forbidden", "missing", "excess", "unseen", "pending", "met", "done"];
        return rights.Select(r => r.Verdict).OrderBy(v => Array.IndexOf(order, v)).FirstOrDefault();
    }

    private static List<string[]> About(InstallReport report)
    {
        var fit = report.Fit;
        return
        [
            ["product", $"{fit.Title} ({fit.Sheet})"], ["install", $"{fit.Install}, {fit.Stage}"], [
                "estate", fit.Simulated ? $"{fit.Estate} (simulated)" : fit.Estate],
            ["fit", $"{report.FitNumber}: {fit.Counts.Words}"], ["surveyed", report.Time(fit.SurveyedAt)], [
                "written", report.Time(report.WrittenAt)],
            .. fit.Unseen.Select(u => new[] { "could not be read", $"{u.Place}: {u.Reason} ({report.Time(u.At)})" }),
            .. fit.Findings.Select(f => new[] { "seen at the places", $"{f.Place}: {f.Text}" }),
            .. fit.Decisions.Select(d => new[] { "choice", $"{d.Id}: {d.Taken} ({d.Reason})" }),
            .. fit.Notes.Select(n => new[] { "note", n }),
        ];
    }

    private static void Add(
        WorkbookPart workbook, string name, IReadOnlyList<string> heads, IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyList<double> widths, Func<IReadOnlyList<string>, (int Column, string Verdict)> verdict) =>
        Add(
            workbook, name, heads, rows, widths,
            styleOf: (row, column) =>
                verdict(rows[row]) is var v && v.Column == column ? WorkbookStyles.Of(v.Verdict) : WorkbookStyles.Plain);

    /// <summary>
    /// Adds a sheet with a frozen head and a filter over all its columns. Every cell is text, so that nothing in it can be a
    /// formula.
    /// </summary>
    private static void Add(
        WorkbookPart workbook, string name, IReadOnlyList<string> heads, IReadOnlyList<IReadOnlyList<string>> rows,
        IReadOnlyList<double> widths, int frozenColumns = 0, Func<int, int, uint>? styleOf = null)
    {
        var part = workbook.AddNewPart<WorksheetPart>();
        var data = new SheetData(
            new[] { Row(1, heads, _ => WorkbookStyles.Head) }.Concat(
                rows.Select((r, i) => Row(i + 2, r, column => styleOf?.Invoke(i, column) ?? WorkbookStyles.Plain))));
        var pane = new Pane
        {
            VerticalSplit = 1,
            TopLeftCell = $"{ColumnName(frozenColumns)}2",
            ActivePane = frozenColumns > 0 ? PaneValues.BottomRight : PaneValues.BottomLeft,
            State = PaneStateValues.Frozen,
        };
        if (frozenColumns > 0) pane.HorizontalSplit = frozenColumns;
        part.Worksheet = new Worksheet(
            new SheetViews(new SheetView(pane) { WorkbookViewId = 0 }),
            new Columns(widths.Select((w, i) =>
                new Column { Min = (uint)i + 1, Max = (uint)i + 1, Width = w, CustomWidth = true })),
            data,
            new AutoFilter { Reference = $"A1:{ColumnName(heads.Count - 1)}{rows.Count + 1}" },
            new PageSetup { Orientation = OrientationValues.Landscape, FitToWidth = 1, FitToHeight = 0 });
        var sheets = workbook.Workbook!.Sheets!;
        sheets.Append(new Sheet { Id = workbook.GetIdOfPart(part), SheetId = (uint)sheets.Count() + 1, Name = name });
    }

    private static Row Row(int number, IReadOnlyList<string> values, Func<int, uint> style) =>
        new(values.Select((v, i) =>
            new Cell(new InlineString(new Text(v) { Space = SpaceProcessingModeValues.Preserve }))
            {
                CellReference = $"{ColumnName(i)}{number}",
                DataType = CellValues.InlineString,
                StyleIndex = style(i),
            }))
        {
            RowIndex = (uint)number,
        };

    /// <summary>The letters of a column, from 0.</summary>
    private static string ColumnName(int column) =>
        column < 26 ? $"{(char)('A' + column)}" : $"{ColumnName((column / 26) - 1)}{(char)('A' + (column % 26))}";
}
