using JustRight.Core.Sheets;

namespace JustRight.Core.Drafts;

/// <summary>
/// Makes the draft of a sheet from a vendor's table, row by row. An account that a row leaves out is that of the row above. What
/// is not understood becomes a question, and nothing is guessed.
/// </summary>
public sealed class DraftMaker
{
    private static readonly string[] Lasting =
        ["", "always", "permanent", "permanently", "ongoing", "runtime", "operation", "yes"];

    private static readonly string[] Passing =
    [
        "installed", "installation", "during installation", "install", "setup", "during setup", "until installed",
        "until setup has run", "temporary", "initial setup", "installation only", "setup only",
    ];

    private static readonly string[] BySetup =
        ["setup", "installer", "installation", "installation program", "automatic", "automatically", "product"];

    private static readonly string[] ByUs =
        ["", "us", "you", "administrator", "admin", "manual", "manually", "customer", "it", "by hand"];

    private readonly NeedTable _table;
    private readonly KeyMaker _accountKeys = new(), _placeKeys = new();
    private readonly List<(string Key, string Called, List<DraftNeed> Needs)> _accounts = [];
    private readonly List<DraftPlaceOf> _places = [];
    private readonly List<DraftQuestion> _questions = [];
    private int _read;

    private DraftMaker(NeedTable table) => _table = table;

    /// <summary>The draft of a table.</summary>
    public static SheetDraft Make(NeedTable table, DraftOf of)
    {
        var maker = new DraftMaker(table);
        string? account = null;
        foreach (var row in table.Rows)
        {
            if (table.Says(row, ColumnUse.Account) is { Length: > 0 } called) account = maker.AccountOf(called);
            maker.Add(row, account);
        }

        return new SheetDraft(
            of, maker._places, [.. maker._accounts.Select(a => new DraftAccountOf(a.Key, a.Called, a.Needs))], maker._questions,
            table.Rows.Count, maker._read);
    }

    private void Add(TableRow row, string? account)
    {
        var cell = _table.Says(row, ColumnUse.Right);
        if (cell.Length == 0)
        {
            // a row that only names an account begins it
            if (_table.Says(row, ColumnUse.Account).Length > 0) _read++;
            else Ask(row, account, string.Join(" | ", row.Cells.Where(c => c.Length > 0)), "Which right?");
            return;
        }

        if (account is null)
        {
            Ask(row, null, cell, "Of which account?");
            return;
        }

        var asked = _questions.Count;
        var (until, by) = (_table.Says(row, ColumnUse.Until), _table.Says(row, ColumnUse.GivenBy));
        var (passing, setup) = (Is(until, Passing), Is(by, BySetup));
        if (!passing && !Is(until, Lasting)) Ask(row, account, until, "Until when? It is taken as always.");
        if (!setup && !Is(by, ByUs)) Ask(row, account, by, "Who gives it? It is taken as given by you.");
        var needs = _accounts.Find(a => a.Key == account).Needs;
        foreach (var (text, right) in RightWords.All(cell))
        {
            if (right is null)
            {
                Ask(row, account, text, "Which right is this?");
                continue;
            }

            var need = new DraftNeed(
                row.Number, right, PlaceOf(right, _table.Says(row, ColumnUse.Where)), passing, setup,
                OneLine(_table.Says(row, ColumnUse.Why)));
            if (needs.Exists(n => n.Place == need.Place && Same(n.Right, right)))
                Ask(row, account, text, "This stands there already: is another place or another account meant?");
            else needs.Add(need);
        }

        if (_questions.Count == asked) _read++;
    }

    private string AccountOf(string called)
    {
        var key = _accountKeys.KeyOf(called, "account");
        if (!_accounts.Exists(a => a.Key == key)) _accounts.Add((key, OneLine(called), []));
        return key;
    }

    /// <summary>
    /// The place that a right is at, by what the table calls it: a database where one is asked for in it, which is also where its
    /// instance is; hosts and branches have keys of their own.
    /// </summary>
    private string? PlaceOf(ReadRight right, string where)
    {
        var row = NeedKinds.ByKind[right.Kind];
        if (row.Places.Count == 0) return null;
        var kind = row.Places[0];
        var (group, otherwise) = kind switch
        {
            PlaceKind.Host => ("host", "server"),
            PlaceKind.Instance or PlaceKind.Database => ("store", "store"),
            PlaceKind.Branch => ("branch", "people"),
            _ => throw new InvalidOperationException($"Unknown kind of place {kind}."),
        };
        var key = _placeKeys.KeyOf(where.Length == 0 ? otherwise : where, otherwise, group);
        var at = _places.FindIndex(p => p.Key == key);
        if (at < 0) _places.Add(new DraftPlaceOf(key, kind));
        else if (kind == PlaceKind.Database) _places[at] = _places[at] with { Kind = PlaceKind.Database };
        return key;
    }

    private void Ask(TableRow row, string? account, string text, string asks) =>
        _questions.Add(new DraftQuestion(row.Number, account, text, asks));

    private static string OneLine(string text) => text.ReplaceLineEndings(" ");

    private static bool Is(string said, string[] words) => words.Contains(said.Trim(' ', '.').ToLowerInvariant());

    private static bool Same(ReadRight a, ReadRight b) =>
        (a.Kind, a.Value, a.OtherDatabase, a.Of) == (b.Kind, b.Value, b.OtherDatabase, b.Of)
            && a.Attributes.SequenceEqual(b.Attributes);
}
