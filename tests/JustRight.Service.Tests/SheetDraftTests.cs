using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text;
using DocumentFormat.OpenXml;
using DocumentFormat.OpenXml.Packaging;
using DocumentFormat.OpenXml.Spreadsheet;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>A vendor's table becomes the draft of a sheet: three of different makes, bad ones, and ones of many rows.</summary>
public sealed class SheetDraftTests : IAsyncLifetime
{
    private const string Comma = """
        Account,Right,Where,Until,Given by,Why
        Poller,Log on as a service,Console server,,setup,runs the poller
        ,local administrator,Console server,installation,us,"reads counters, all of them"
        Archivist,"db_datareader, db_datawriter",ThermoReports,always,us,files the readings
        Archivist,Fly to the moon,ThermoReports,,,
        """;

    private const string Tabs = """
        Accounts that Wheyline 3.2 needs
        Component	Service account	Required permissions	Server	Purpose
        Recorder	svc_rec	SeServiceLogonRight; Performance Log Users	Line host	records the lines
        Recorder	svc_rec	VIEW SERVER STATE	Line store	watches the store
        Mapper	svc_map	Write attributes mail, info of users		keeps the phone book
        """;

    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync() => _service = await TestedService.StartAsync();

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task Text_parted_by_commas()
    {
        var draft = await DraftAsync(Encoding.UTF8.GetBytes(Comma), "file=guide.csv&product=thermograph&release=4.2");
        draft.ShouldSatisfyAllConditions(
            d => d.Rows.ShouldBe(4), d => d.Understood.ShouldBe(3), d => d.Faults.ShouldBeEmpty(),
            d => d.Columns.Select(c => c.Says).ShouldBe(["account", "right", "where", "until", "given-by", "why"]),
            d => d.Questions.ShouldBe([new(5, "archivist", "Fly to the moon", "Which right is this?")]),
            d => d.Text.ShouldContain(
                """local-group: "Administrators", on: console-server, until: installed, why: "reads counters, all of them" }"""),
            d => d.Text.ShouldContain("      # Row 5: Which right is this? \"Fly to the moon\"\n"));
        await AddedAsync(draft, "thermograph@4.2");
    }

    [Fact]
    public async Task Text_parted_by_tabs_with_a_title_above()
    {
        var draft = await DraftAsync([0xFF, 0xFE, .. Encoding.Unicode.GetBytes(Tabs)], "file=Wheyline%20guide.txt");
        draft.ShouldSatisfyAllConditions(
            d => d.Questions.ShouldBeEmpty(), d => d.Understood.ShouldBe(3),
            d => d.Text.ShouldContain("  svc-rec:\n"), d => d.Text.ShouldContain("    works-as: service\n"),
            d => d.Text.ShouldContain("attributes: [mail, info], of: user, below: people"));
        await AddedAsync(draft, "wheyline-guide@1");
    }

    [Fact]
    public async Task A_page_of_a_workbook()
    {
        var workbook = Workbook("Accounts", [
            ["Needs of Tallystick"], [], ["Login", "Access", "Location"], ["svc-tally", "sysadmin", "Tally store"],
            ["", "Lock pages in memory", "Tally server"], ["", "", ""], ["svc-web", "Log on as a batch job", "Tally server"]]);
        var draft = await DraftAsync(workbook, "file=guide.xlsx&page=accounts&product=tallystick");
        draft.ShouldSatisfyAllConditions(
            d => d.Questions.ShouldBeEmpty(), d => d.Rows.ShouldBe(3),
            d => d.Columns.Select(c => c.Head).ShouldBe(["Login", "Access", "Location"]),
            d => d.Text.ShouldContain("""{ privilege: "SeLockMemoryPrivilege", on: tally-server }"""));
        await AddedAsync(draft, "tallystick@1");
        await RefusedAsync(workbook, "page=Rights", "The workbook has no page 'Rights'.", "'Accounts'");
    }

    [Theory]
    [InlineData("", "There is no row in it.", ":1:")]
    [InlineData("Account;Thing\na;b", "It is not clear which column says the right.", "'Thing', named by --right-column")]
    [InlineData("Account,Right\n,db_owner", "No row names an account.", "'Account'")]
    [InlineData("Account,Right\nx,\"db_owner", "A quote is not closed", ":2:")]
    [InlineData("PK nothing of the kind", "This is no workbook that can be read.", "xlsx")]
    public async Task What_is_no_such_table_is_refused_with_its_row(string text, string says, string also) =>
        await RefusedAsync(Encoding.UTF8.GetBytes(text), "file=guide.csv", says, also);

    [Fact]
    public async Task Bytes_that_are_no_text_are_refused_with_their_row() =>
        await RefusedAsync(
            [.. "Account,Right\nK"u8, 0xE4, .. "se,db_owner"u8], "file=guide.csv", "This is not text in UTF-8.", ":2:");

    [Fact]
    public async Task Too_much_is_refused()
    {
        var many = "Account,Right\n" + string.Concat(Enumerable.Repeat("a,db_owner\n", 5_000));
        await RefusedAsync(Encoding.UTF8.GetBytes(many), "file=guide.csv", "The table has too many rows.", "at most 5000");
        await RefusedAsync(
            Encoding.UTF8.GetBytes("Account,Right\na," + new string('x', 5_000)), "file=guide.csv", "A cell is too long.", ":2:");
        await RefusedAsync(
            Encoding.UTF8.GetBytes(new string(',', 80)), "file=guide.csv", "The row has too many columns.", ":1:61");
        await RefusedAsync(
            Workbook("Accounts", [["Account", "Right"], ["a", new string('x', 60_000_000)]]), "file=guide.xlsx",
            "The workbook is too large.", "50 MB");
    }

    [Fact]
    public async Task A_workbook_that_shows_other_files_is_refused()
    {
        using var stream = new MemoryStream();
        stream.Write(Workbook("Accounts", [["Account", "Right"], ["a", "db_owner"]]));
        using (var document = SpreadsheetDocument.Open(stream, true))
            document.WorkbookPart!.AddExternalRelationship(
                "http://schemas.openxmlformats.org/officeDocument/2006/relationships/externalLinkPath",
                new Uri("file:///etc/hostname"));
        await RefusedAsync(stream.ToArray(), "file=guide.xlsx", "The workbook shows parts of other files.", "values only");
    }

    [Fact]
    public async Task Whatever_a_table_says_its_draft_is_a_sound_sheet()
    {
        string[] accounts = ["", "Poller", "poller", "svc_a", "Überwacher", "1", "#", "a\"b: {c}", "x\ny"];
        string[] rights =
        [
            "", "db_owner", "sysadmin", "Log on as a service", "local administrator", "SQLAgentUserRole", "dbo", "nonsense: [",
            "Domain Users", "Unlock accounts", "VIEW SERVER STATE", "db_owner; sysadmin\nLog on as a batch job",
        ];
        string[] where = ["", "Server", "Store", "server", "# {", "people", "Store 2"];
        string[] words = ["", "always", "installation", "setup", "us", "\"", "# }", "\u0007\u2028"];
        for (var seed = 0; seed < 60; seed++)
        {
            var random = new Random(seed);
            string Any(string[] all) => $"\"{all[random.Next(all.Length)].Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
            var rows = Enumerable.Range(0, random.Next(1, 30)).Select(_ => string.Join(
                ',', Any(accounts), Any(rights), Any(where), Any(words), Any(words), Any(words)));
            var text = "Account,Right,Where,Until,Given by,Why\nfirst,db_owner,Store,,,\n" + string.Join('\n', rows);
            var draft = await DraftAsync(Encoding.UTF8.GetBytes(text), $"file=guide.csv&product=p{seed}");
            draft.Faults.ShouldBeEmpty($"seed {seed}:\n{draft.Text}");
            await AddedAsync(draft, $"p{seed}@1");
        }
    }

    private async Task<SheetDraftView> DraftAsync(byte[] table, string query)
    {
        using var answer = await _service.Http.PostAsync($"/api/sheets/draft?{query}", Content(table), Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync(Cancel));
        return (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.SheetDraftView, Cancel))!;
    }

    private async Task RefusedAsync(byte[] table, string query, string says, string also)
    {
        using var answer = await _service.Http.PostAsync($"/api/sheets/draft?{query}", Content(table), Cancel);
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var problem = (await answer.Content.ReadFromJsonAsync(ContractsJson.Default.ProblemView, Cancel))!;
        problem.Faults!.ShouldContain(f => f.Message.StartsWith(says), string.Join("; ", problem.Faults!));
        problem.Faults!.Select(f => $"{f.File}:{f.Line}:{f.Column} {f.Message} {f.Expected}")
            .ShouldContain(t => t.Contains(also));
    }

    private static ByteArrayContent Content(byte[] table) =>
        new(table) { Headers = { ContentType = new MediaTypeHeaderValue("application/octet-stream") } };

    private async Task AddedAsync(SheetDraftView draft, string name)
    {
        using var added = await _service.AddAsync("sheets", "draft.yaml", Encoding.UTF8.GetBytes(draft.Text));
        added.StatusCode.ShouldBe(HttpStatusCode.OK, await added.Content.ReadAsStringAsync(Cancel) + draft.Text);
        (await _service.GetAsync("sheets", ContractsJson.Default.IReadOnlyListSheetSummary)).ShouldContain(s => s.Name == name);
    }

    /// <summary>A workbook of one page; empty cells are left out, as programs do.</summary>
    private static byte[] Workbook(string page, string[][] rows)
    {
        using var stream = new MemoryStream();
        using (var document = SpreadsheetDocument.Create(stream, SpreadsheetDocumentType.Workbook))
        {
            var book = document.AddWorkbookPart();
            book.Workbook = new Workbook();
            var part = book.AddNewPart<WorksheetPart>();
            part.Worksheet = new Worksheet(new SheetData(rows.Select((cells, r) => new Row(
                cells.Select((text, c) => (text, c)).Where(t => t.text.Length > 0).Select(t => new Cell(
                    new InlineString(new Text(t.text)))
                {
                    CellReference = $"{(char)('A' + t.c)}{r + 1}",
                    DataType = CellValues.InlineString,
                }))
            { RowIndex = (uint)(r + 1) })));
            book.Workbook.AppendChild(new Sheets(new Sheet { Name = page, SheetId = 1, Id = book.GetIdOfPart(part) }));
        }

        return stream.ToArray();
    }
}
