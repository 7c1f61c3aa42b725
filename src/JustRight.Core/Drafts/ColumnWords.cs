using JustRight.Core.Faults;

namespace JustRight.Core.Drafts;

/// <summary>Finds the head of a vendor's table, and what its columns say, by the words that guides use for them.</summary>
public static class ColumnWords
{
    private const int MostRowsBeforeHead = 20;

    /// <summary>The words for a column, those that leave no doubt first.</summary>
    private static readonly (ColumnUse Use, string[] Words)[] Known =
    [
        (ColumnUse.Account,
            ["account", "service account", "account name", "user account", "identity", "principal", "user", "login"]),
        (ColumnUse.Right,
        [
            "right", "rights", "permission", "permissions", "required right", "required permission", "required permissions",
            "privilege", "privileges", "access", "requirement", "role", "group membership", "needs",
        ]),
        (ColumnUse.Where,
        [
            "where", "on", "server", "host", "location", "scope", "target", "system", "place", "applies to", "object", "resource",
        ]),
        (ColumnUse.Until, ["until", "needed until", "duration", "lifetime", "phase", "needed", "when", "required for"]),
        (ColumnUse.GivenBy, ["given by", "granted by", "assigned by", "set by", "configured by", "done by", "who"]),
        (ColumnUse.Why, ["why", "reason", "purpose", "justification", "comment", "comments", "notes", "remarks", "description"]),
    ];

    /// <summary>The table in these rows; or the faults, with the row and the column, that keep it from being one.</summary>
    /// <param name="file">Its name, for faults.</param>
    /// <param name="rows">All rows of the file.</param>
    /// <param name="named">Columns that somebody named, by their heads.</param>
    public static (NeedTable? Table, IReadOnlyList<Fault> Faults) Find(
        string file, IReadOnlyList<TableRow> rows, IReadOnlyDictionary<ColumnUse, string> named)
    {
        var first = rows.Where(r => !r.IsEmpty).Take(MostRowsBeforeHead).ToList();
        if (first.Count == 0)
            return (null, [Fault(file, "no-table", 1, "table", "There is no row in it.", "a head and its rows")]);
        foreach (var row in first)
        {
            if (named.Values.Any(n => ColumnOf(row, n) < 0)) continue;
            var columns = Columns(row, named);
            if (columns.ContainsKey(ColumnUse.Account) && columns.ContainsKey(ColumnUse.Right))
                return (new NeedTable(row, columns, [.. rows.Where(r => r.Number > row.Number && !r.IsEmpty)]), []);
        }

        return (null, NotFound(file, first, named));
    }

    /// <summary>The word that an option has for a column.</summary>
    public static string Word(ColumnUse use) => use switch
    {
        ColumnUse.Account => "account",
        ColumnUse.Right => "right",
        ColumnUse.Where => "where",
        ColumnUse.Until => "until",
        ColumnUse.GivenBy => "given-by",
        ColumnUse.Why => "why",
        _ => throw new ArgumentOutOfRangeException(nameof(use), use, null),
    };

    private static Dictionary<ColumnUse, int> Columns(TableRow row, IReadOnlyDictionary<ColumnUse, string> named)
    {
        var columns = named.ToDictionary(n => n.Key, n => ColumnOf(row, n.Value));
        // the surest heads of all uses first: a column called just "Account" is the account, whatever else mentions one
        var guesses = from known in Known
                      where !columns.ContainsKey(known.Use)
                      from column in Enumerable.Range(0, row.Cells.Count)
                      let doubt = DoubtOf(Plain(row.Cells[column]), known.Words)
                      where doubt < int.MaxValue
                      orderby doubt, column
                      select (known.Use, column);
        foreach (var (use, column) in guesses)
            if (!columns.ContainsKey(use) && !columns.ContainsValue(column)) columns[use] = column;
        return columns;
    }

    /// <summary>
    /// How doubtful it is that a head is one of these: its place among them, and behind all where it only has one in it.
    /// </summary>
    private static int DoubtOf(string head, string[] words)
    {
        if (Array.IndexOf(words, head) is >= 0 and var same) return same;
        for (var i = 0; i < words.Length; i++)
            if ($" {head} ".Contains($" {words[i]} ", StringComparison.Ordinal)) return words.Length + i;
        return int.MaxValue;
    }

    private static int ColumnOf(TableRow row, string head) =>
        row.Cells.ToList().FindIndex(c => Plain(c) == Plain(head));

    private static IReadOnlyList<Fault> NotFound(
        string file, List<TableRow> first, IReadOnlyDictionary<ColumnUse, string> named)
    {
        var widest = first.MaxBy(r => r.Cells.Count(c => c.Length > 0))!;
        var heads = string.Join(", ", widest.Cells.Where(c => c.Length > 0).Select(c => $"'{c}'"));
        if (named.FirstOrDefault(n => first.All(r => ColumnOf(r, n.Value) < 0)) is { Value: { } missing } at)
            return
            [
                Fault(file, "no-column", widest.Number, Word(at.Key), $"No column is called '{missing}'.", heads) with
                {
                    Nearest = Spelling.Nearest(missing, widest.Cells),
                },
            ];
        var columns = Columns(widest, named);
        return
        [
            .. new[] { ColumnUse.Account, ColumnUse.Right }.Where(u => !columns.ContainsKey(u)).Select(u => Fault(
                file, "no-column", widest.Number, Word(u), $"It is not clear which column says the {Word(u)}.",
                $"one of {heads}, named by --{Word(u)}-column")),
        ];
    }

    private static Fault Fault(string file, string code, int row, string field, string message, string expected) =>
        new(code, new Origin(file, row, 1), field, message) { Expected = expected };

    /// <summary>The letters of a head in small ones, words parted by one space.</summary>
    private static string Plain(string head) => string.Join(
        ' ', new string([.. head.Select(c => char.IsLetter(c) ? char.ToLowerInvariant(c) : ' ')])
            .Split(' ', StringSplitOptions.RemoveEmptyEntries));
}
