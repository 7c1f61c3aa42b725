using JustRight.Core.Drafts;
using JustRight.Core.Sheets;

namespace JustRight.Core.Tests.Drafts;

/// <summary>Tables of guides, as drafts of sheets.</summary>
public sealed class DraftMakerTests
{
    private static readonly DraftOf Of = new("thermograph", "4.2", "Thermograph", "guide.csv");

    [Theory]
    [InlineData("Account|Right|Where|Until|Given by|Why", "account right where until given-by why")]
    [InlineData("Component|Service account|Required permissions|Server", "account right where")]
    [InlineData("#|Account name|Permission (see 3.2)|Scope|Purpose", "account right where why")]
    [InlineData("Account|Description|Role|Granted by", "account right given-by why")]
    public void Columns_are_found_by_their_heads(string head, string uses)
    {
        var (table, faults) = ColumnWords.Find("guide.csv", Rows(head, "a|b|c"), new Dictionary<ColumnUse, string>());
        faults.ShouldBeEmpty();
        string.Join(' ', table!.Columns.Keys.Order().Select(ColumnWords.Word)).ShouldBe(uses);
    }

    [Fact]
    public void A_title_may_stand_above_the_head()
    {
        var (table, _) = ColumnWords.Find(
            "guide.csv", Rows("Accounts of Thermograph 4.2", "", "Account|Right", "svc|db_owner"),
            new Dictionary<ColumnUse, string>());
        table!.ShouldSatisfyAllConditions(t => t.Head.Number.ShouldBe(3), t => t.Rows.Single().Number.ShouldBe(4));
    }

    [Theory]
    [InlineData("Name|Thing", null, "guide.csv:1:1: It is not clear which column says the account.", 2)]
    [InlineData("Account|Thing", null, "guide.csv:1:1: It is not clear which column says the right.", 1)]
    [InlineData("Account|Thing", "Thign", "guide.csv:1:1: No column is called 'Thign'.", 1)]
    public void A_column_that_is_not_clear_is_asked_for(string head, string? named, string says, int faults)
    {
        var columns = named is null ? [] : new Dictionary<ColumnUse, string> { [ColumnUse.Right] = named };
        var (table, found) = ColumnWords.Find("guide.csv", Rows(head, "a|b"), columns);
        table.ShouldBeNull();
        found.Count.ShouldBe(faults);
        found[0].ToString().ShouldStartWith(says);
        if (named is not null) found[0].Nearest.ShouldBe("Thing");
    }

    [Fact]
    public void A_named_column_counts_whatever_the_others_are_called()
    {
        var (table, _) = ColumnWords.Find(
            "guide.csv", Rows("Name|Account|Thing", "Poller|svc|db_owner"),
            new Dictionary<ColumnUse, string> { [ColumnUse.Account] = "name", [ColumnUse.Right] = "THING" });
        table!.Columns.ShouldBe(
            new Dictionary<ColumnUse, int> { [ColumnUse.Account] = 0, [ColumnUse.Right] = 2 }, ignoreOrder: true);
    }

    [Fact]
    public void Rows_become_needs_of_their_accounts_at_their_places()
    {
        var draft = Make(
            "Account|Right|Where|Until|Given by|Why",
            "Poller|Log on as a service|Console server||setup|runs the poller",
            "|local administrator|console SERVER|installation||reads counters",
            "Archivist|db_owner|ThermoReports|always|us|a table a month",
            "|sysadmin|ThermoReports|||",
            "|SQLAgentOperatorRole|ThermoReports|||");
        draft.ShouldSatisfyAllConditions(
            d => d.Questions.ShouldBeEmpty(), d => d.Read.ShouldBe(5),
            d => d.Accounts.Select(a => a.Key).ShouldBe(["poller", "archivist"]),
            d => d.Places.ShouldBe([
                new DraftPlaceOf("console-server", PlaceKind.Host), new DraftPlaceOf("thermoreports", PlaceKind.Database)]));
        draft.Accounts[0].Needs.ShouldSatisfyAllConditions(
            n => n.Select(x => x.Place).ShouldBe(["console-server", "console-server"]),
            n => n[0].GivenBySetup.ShouldBeTrue(), n => n[1].UntilInstalled.ShouldBeTrue(),
            n => n[1].Why.ShouldBe("reads counters"));
        draft.Accounts[1].Needs[2].Right.OtherDatabase.ShouldBe("msdb");
    }

    [Theory]
    [InlineData("Poller|Fly|Server", 2, "poller", "Which right is this?")]
    [InlineData("|db_owner|Store", 2, null, "Of which account?")]
    [InlineData("Poller||Store|soon", 0, null, "")]
    [InlineData("Poller|db_owner|Store|soon", 2, "poller", "Until when? It is taken as always.")]
    [InlineData("Poller|db_owner|Store||the wizard", 2, "poller", "Who gives it? It is taken as given by you.")]
    public void What_is_not_understood_is_a_question(string row, int at, string? account, string asks)
    {
        var draft = Make("Account|Right|Where|Until|Given by", row);
        if (asks.Length == 0) draft.Questions.ShouldBeEmpty();
        else draft.Questions.Single().ShouldSatisfyAllConditions(
            q => q.Row.ShouldBe(at), q => q.Account.ShouldBe(account), q => q.Asks.ShouldBe(asks));
    }

    [Fact]
    public void The_same_twice_is_asked_about()
    {
        var draft = Make("Account|Right|Where", "Poller|db_owner|Store", "Poller|db_owner|Store");
        draft.Accounts.Single().Needs.Count.ShouldBe(1);
        draft.Questions.Single().Asks.ShouldStartWith("This stands there already");
    }

    [Fact]
    public void A_host_and_a_database_of_one_name_are_two_places()
    {
        var draft = Make("Account|Right|Where", "Poller|local administrator|Console", "Poller|db_owner|Console");
        draft.Places.ShouldBe([
            new DraftPlaceOf("console", PlaceKind.Host), new DraftPlaceOf("console-store", PlaceKind.Database)]);
    }

    private static SheetDraft Make(params string[] lines)
    {
        var (table, faults) = ColumnWords.Find("guide.csv", Rows(lines), new Dictionary<ColumnUse, string>());
        faults.ShouldBeEmpty();
        return DraftMaker.Make(table!, Of);
    }

    private static IReadOnlyList<TableRow> Rows(params string[] lines) =>
        [.. lines.Select((l, i) => new TableRow(i + 1, l.Split('|')))];
}
