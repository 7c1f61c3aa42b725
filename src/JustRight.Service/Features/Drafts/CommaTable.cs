using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using JustRight.Core.Drafts;

namespace JustRight.Service.Features.Drafts;

/// <summary>A table as text [RFC 4180], its cells parted by commas, semicolons, tabs or bars.</summary>
internal static class CommaTable
{
    private const int MostLooked = 30;

    private static readonly UTF8Encoding Utf8 = new(false, throwOnInvalidBytes: true);

    /// <summary>Its rows.</summary>
    /// <exception cref="TableFault">It is no such text, or larger than <see cref="TableBounds"/>.</exception>
    public static IReadOnlyList<TableRow> Read(byte[] bytes)
    {
        var rows = new List<TableRow>();
        var whole = TextOf(bytes);
        using var text = new StringReader(whole);
        using var csv = new CsvParser(text, new CsvConfiguration(CultureInfo.InvariantCulture)
        {
            Delimiter = PartedBy(whole),
            BadDataFound = bad => throw new TableFault(
                bad.Context.Parser!.RawRow, 1, "A quote is not closed, or stands in the middle of a cell.",
                "a cell with quotes in it is quoted whole, and each quote in it doubled"),
            MaxFieldSize = TableBounds.Characters,
        });
        try
        {
            while (csv.Read())
            {
                TableBounds.Check(rows.Count + 1, csv.RawRow, csv.Count);
                rows.Add(TableRow.Of(csv.RawRow, csv.Record!));
            }
        }
        catch (MaxFieldSizeException)
        {
            throw new TableFault(csv.RawRow, 1, "A cell is too long.", $"at most {TableBounds.Characters} characters");
        }

        return rows;
    }

    /// <summary>What parts the cells: what stands in most of the first lines; a sentence with a comma is one of few.</summary>
    private static string PartedBy(string text)
    {
        var lines = text.Split('\n', MostLooked + 1).Take(MostLooked).ToList();
        return new[] { ",", ";", "\t", "|" }.MaxBy(d => lines.Count(l => l.Contains(d, StringComparison.Ordinal)))!;
    }

    private static string TextOf(byte[] bytes)
    {
        try
        {
            return bytes is [0xFF, 0xFE, ..] ? Encoding.Unicode.GetString(bytes.AsSpan(2))
                : bytes is [0xFE, 0xFF, ..] ? Encoding.BigEndianUnicode.GetString(bytes.AsSpan(2))
                : Utf8.GetString(bytes is [0xEF, 0xBB, 0xBF, ..] ? bytes.AsSpan(3) : bytes);
        }
        catch (DecoderFallbackException e)
        {
            var row = 1 + bytes.AsSpan(0, Math.Clamp(e.Index, 0, bytes.Length)).Count((byte)'\n');
            throw new TableFault(row, 1, "This is not text in UTF-8.", "save it as CSV in UTF-8, or as a workbook (xlsx)");
        }
    }
}
