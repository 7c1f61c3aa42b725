namespace JustRight.Service.Features.Drafts;

/// <summary>How large a table may be: more than any guide's, and little enough to be read at once.</summary>
internal static class TableBounds
{
    /// <summary>Rows.</summary>
    public const int Rows = 5_000;

    /// <summary>Columns.</summary>
    public const int Columns = 60;

    /// <summary>Characters in a cell.</summary>
    public const int Characters = 4_000;

    /// <summary>Bytes of a file.</summary>
    public const int Bytes = 5_000_000;

    /// <summary>Bytes of a workbook once it is unpacked.</summary>
    public const int UnpackedBytes = 50_000_000;

    /// <summary>Refuses a row too many, and one that is too wide.</summary>
    /// <param name="count">How many rows there are with this one.</param>
    /// <param name="row">Its number.</param>
    /// <param name="columns">How many cells it has.</param>
    public static void Check(int count, int row, int columns)
    {
        if (count > Rows) throw new TableFault(row, 1, "The table has too many rows.", $"at most {Rows}");
        if (columns > Columns) throw new TableFault(row, Columns + 1, "The row has too many columns.", $"at most {Columns}");
    }
}

/// <summary>Why a file is no table that can be read, with the row and the column.</summary>
internal sealed class TableFault(int row, int column, string message, string expected) : Exception(message)
{
    /// <summary>From 1.</summary>
    public int Row { get; } = row;

    /// <summary>From 1.</summary>
    public int Column { get; } = column;

    /// <summary>What would have been right.</summary>
    public string Expected { get; } = expected;
}
