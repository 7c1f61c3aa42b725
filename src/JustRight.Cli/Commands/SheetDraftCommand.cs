using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>sheet draft</c>: from a vendor's table to the draft of a sheet.</summary>
internal static class SheetDraftCommand
{
    private static readonly string[] Uses = ["account", "right", "where", "until", "given-by", "why"];

    public static Command Make()
    {
        var from = new Option<string>("--from")
        {
            Description = "The table: CSV, or a workbook (xlsx)",
            HelpName = "FILE",
            Required = true,
        };
        var to = new Option<string?>("--to")
        {
            Description = "The file to write the draft to; standard output unless said otherwise",
            HelpName = "FILE",
        };
        var named = new Option<string?>[]
        {
            Of("product", "The product as one word; the name of the file unless said otherwise", "WORD"),
            Of("release", "Its release; 1 unless said otherwise", "NUMBER"), Of("title", "Its name in full", "TEXT"),
            Of("page", "The page of a workbook; the first unless said otherwise", "NAME"),
        };
        var columns = Uses.Select(u => Of($"{u}-column", $"The head of the column that says {Words(u)}", "HEAD")).ToArray();
        return CommandKit.Make(
            "draft",
            "Makes the draft of a sheet from a vendor's table: accounts, what they need, where, until when, given by whom, why.\n"
            + "Columns are guessed by their heads, and shown; an option names one that is not. An account that a row leaves\n"
            + "out is that of the row above. What is not understood stands in the draft as a question with its row.\n"
            + "Exit code: 0 all was understood, 1 there are questions, 2 it is not such a table",
            [
                "justright sheet draft --from thermograph.csv --to thermograph.yaml",
                "justright sheet draft --from guide.xlsx --page Accounts --product thermograph --right-column Needs",
            ],
            [from, to, .. named, .. columns], call => DraftAsync(call, call.Parsed.GetValue(from)!, call.Parsed.GetValue(to),
                [.. named, .. columns]))
            .Answers(j => j.SheetDraftView);
    }

    private static async Task<int> DraftAsync(Call call, string from, string? to, IReadOnlyList<Option<string?>> asked)
    {
        if (to is not null) NewFile.MustBeNew(to);
        var query = string.Join('&', asked.Select(o => (o.Name, Value: call.Parsed.GetValue(o))).Where(o => o.Value is not null)
            .Select(o => $"{o.Name.TrimStart('-')}={Uri.EscapeDataString(o.Value!)}"));
        var draft = await call.Api.PostFileAsync(
            "sheets/draft", from, ContractsJson.Default.SheetDraftView, call.Cancel, query.Length > 0 ? query : null,
            "application/octet-stream");
        if (to is not null) NewFile.Write(to, draft.Text);
        if (call.Screen.IsJson) call.Screen.Json(draft, ContractsJson.Default.SheetDraftView);
        else Tell(call.Screen, draft, to);
        return draft.Questions.Count + draft.Faults.Count > 0 ? ExitCode.Misfit : ExitCode.Fine;
    }

    /// <summary>The draft to standard output where no file was named; what is to be said of it beside that.</summary>
    private static void Tell(Screen screen, SheetDraftView draft, string? to)
    {
        if (to is null) Screen.Text(draft.Text);
        var beside = to is null ? screen.Error : screen.Out;
        var columns = draft.Columns.Select(c => $"{Words(c.Says)}: '{c.Head}'");
        beside.MarkupLine(Markup.Escape($"Columns: {string.Join(", ", columns)}."));
        beside.MarkupLine($"[bold]{draft.Understood} of {draft.Rows}[/] rows were understood whole.");
        if (draft.Questions.Count > 0)
        {
            var table = Screen.List("row", "account", "stands there", "question");
            foreach (var q in draft.Questions)
                table.AddRow(new Text($"{q.Row}"), new Text(q.Account ?? ""), new Text(q.Text), new Text(q.Asks));
            beside.Write(table);
        }

        foreach (var fault in draft.Faults) beside.MarkupLine($"Cannot be added yet: {Markup.Escape(fault)}");
        if (to is not null) beside.MarkupLine(Markup.Escape($"written to {to}; then: justright sheet add {to}"));
    }

    private static Option<string?> Of(string name, string description, string help) =>
        new($"--{name}") { Description = description, HelpName = help };

    private static string Words(string use) => use switch
    {
        "account" => "the account",
        "right" => "what it needs",
        "where" => "where",
        "until" => "until when",
        "given-by" => "who gives it",
        "why" => "why",
        _ => use,
    };
}
