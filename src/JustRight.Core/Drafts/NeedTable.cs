using System.Globalization;

namespace JustRight.Core.Drafts;

/// <summary>What a column of a vendor's table says.</summary>
public enum ColumnUse
{
    /// <summary>Which account needs something.</summary>
    Account,

    /// <summary>What it needs.</summary>
    Right,

    /// <summary>Where it needs it.</summary>
    Where,

    /// <summary>How long it needs it.</summary>
    Until,

    /// <summary>Who gives it.</summary>
    GivenBy,

    /// <summary>Why it needs it.</summary>
    Why,
}

/// <summary>A row of a table as it came.</summary>
/// <param name="Number">Its number in the file, from 1: of a line of text, or of a row of a workbook.</param>
/// <param name="Cells">Its cells, trimmed; fewer than the table has columns where the rest is empty.</param>
public sealed record TableRow(int Number, IReadOnlyList<string> Cells)
{
    /// <summary>A row of cells as a file has them: trimmed, and without characters that nobody sees.</summary>
    public static TableRow Of(int number, IEnumerable<string> cells) => new(number, [.. cells.Select(Seen)]);

    /// <summary>A cell, empty where there is none.</summary>
    public string Cell(int column) => column < Cells.Count ? Cells[column] : "";

    /// <summary>Whether nothing stands in it.</summary>
    public bool IsEmpty => Cells.All(c => c.Length == 0);

    private static string Seen(string cell) => new string(
        [.. cell.Select(c => c == '\n' || char.GetUnicodeCategory(c) is not (UnicodeCategory.Control or UnicodeCategory.Format
            or UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator or UnicodeCategory.Surrogate
            or UnicodeCategory.PrivateUse or UnicodeCategory.OtherNotAssigned) ? c : ' ')]).Trim();
}

/// <summary>A table with its head, and what each of its columns that counts says.</summary>
/// <param name="Head">The row with the names of the columns.</param>
/// <param name="Columns">The place of each column that was named or guessed, from 0.</param>
/// <param name="Rows">The rows below the head.</param>
public sealed record NeedTable(TableRow Head, IReadOnlyDictionary<ColumnUse, int> Columns, IReadOnlyList<TableRow> Rows)
{
    /// <summary>What a row says in a column; empty where the table has no such column.</summary>
    public string Says(TableRow row, ColumnUse use) => Columns.TryGetValue(use, out var column) ? row.Cell(column) : "";
}
