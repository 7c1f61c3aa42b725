using System.IO.Compression;
using System.Xml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using JustRight.Core.Drafts;

namespace JustRight.Service.Features.Drafts;

/// <summary>A table of a workbook [ECMA-376]: what its cells show, of the page that is named or of the first.</summary>
internal static class WorkbookTable
{
    private const int MostParts = 1_000;

    /// <summary>Whether a file is one, or a package of another kind.</summary>
    public static bool Is(byte[] bytes) => bytes is [(byte)'P', (byte)'K', ..];

    /// <summary>Its rows.</summary>
    /// <param name="page">The name of a page; null for the first.</param>
    /// <exception cref="TableFault">It is no such workbook, or larger than <see cref="TableBounds"/>.</exception>
    public static IReadOnlyList<TableRow> Read(byte[] bytes, string? page)
    {
        CheckSize(bytes);
        try
        {
            using var document = SpreadsheetDocument.Open(new MemoryStream(bytes), false);
            var workbook = document.WorkbookPart ?? throw NoWorkbook();
            if (workbook.ExternalWorkbookParts.Any() || workbook.ExternalRelationships.Any())
                throw new TableFault(1, 1, "The workbook shows parts of other files.", "a copy with its values only");
            return [.. Rows(PageOf(workbook, page), Texts(workbook))];
        }
        catch (Exception e) when (e is OpenXmlPackageException or FileFormatException or InvalidDataException or XmlException
            or ArgumentOutOfRangeException)
        {
            throw NoWorkbook();
        }
    }

    private static IEnumerable<TableRow> Rows(WorksheetPart page, IReadOnlyList<string> texts)
    {
        var count = 0;
        foreach (var row in page.Worksheet!.Descendants<Row>())
        {
            var number = (int)(row.RowIndex?.Value ?? (uint)(count + 1));
            var cells = new List<string>();
            foreach (var cell in row.Elements<Cell>())
            {
                var column = ColumnOf(cell.CellReference?.Value) ?? cells.Count;
                TableBounds.Check(count + 1, number, column + 1);
                while (cells.Count < column) cells.Add("");
                var text = TextOf(cell, texts).Trim();
                if (text.Length > TableBounds.Characters)
                    throw new TableFault(
                        number, column + 1, "A cell is too long.", $"at most {TableBounds.Characters} characters");
                cells.Add(text);
            }

            count++;
            yield return TableRow.Of(number, cells);
        }
    }

    private static WorksheetPart PageOf(WorkbookPart workbook, string? page)
    {
        var pages = workbook.Workbook!.Descendants<Sheet>().Where(s => s.Id is not null).ToList();
        var found = page is null ? pages.FirstOrDefault()
            : pages.Find(s => string.Equals(s.Name?.Value, page, StringComparison.OrdinalIgnoreCase));
        if (found is null && pages.Count > 0)
            throw new TableFault(
                1, 1, $"The workbook has no page '{page}'.", string.Join(", ", pages.Select(s => $"'{s.Name?.Value}'")));
        return found is not null && workbook.TryGetPartById(found.Id!.Value!, out var part) && part is WorksheetPart sheet
            ? sheet
            : throw NoWorkbook();
    }

    private static IReadOnlyList<string> Texts(WorkbookPart workbook) =>
        [.. workbook.SharedStringTablePart?.SharedStringTable?.Elements<SharedStringItem>().Select(i => i.InnerText) ?? []];

    private static string TextOf(Cell cell, IReadOnlyList<string> texts)
    {
        if (cell.DataType?.Value == CellValues.InlineString) return cell.InlineString?.InnerText ?? "";
        var value = cell.CellValue?.Text ?? "";
        if (cell.DataType?.Value != CellValues.SharedString) return value;
        return int.TryParse(value, out var index) && index >= 0 && index < texts.Count ? texts[index] : throw NoWorkbook();
    }

    /// <summary>The column of a reference such as <c>C7</c>, from 0; null where there is none.</summary>
    private static int? ColumnOf(string? reference)
    {
        if (reference is null) return null;
        var column = 0;
        foreach (var letter in reference.TakeWhile(char.IsAsciiLetterUpper).Take(3)) column = (column * 26) + letter - 'A' + 1;
        return column == 0 ? null : column - 1;
    }

    /// <summary>Unpacks it to nowhere and counts: what a package says of its own size proves nothing.</summary>
    private static void CheckSize(byte[] bytes)
    {
        try
        {
            using var package = new ZipArchive(new MemoryStream(bytes), ZipArchiveMode.Read);
            if (package.Entries.Count > MostParts) throw TooLarge();
            var buffer = new byte[81_920];
            var left = TableBounds.UnpackedBytes;
            foreach (var entry in package.Entries)
            {
                using var part = entry.Open();
                for (int read; (read = part.Read(buffer)) > 0;)
                    if ((left -= read) < 0) throw TooLarge();
            }
        }
        catch (InvalidDataException)
        {
            throw NoWorkbook();
        }
    }

    private static TableFault TooLarge() =>
        new(1, 1, "The workbook is too large.", $"at most {TableBounds.UnpackedBytes / 1_000_000} MB once it is unpacked");

    private static TableFault NoWorkbook() =>
        new(1, 1, "This is no workbook that can be read.", "a workbook (xlsx), or CSV in UTF-8");
}
