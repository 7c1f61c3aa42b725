using System.CommandLine;
using System.Text;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>sheet new</c>: the file of a sheet, from answers; what is said is understood as a vendor's table is.</summary>
internal static class SheetNewCommand
{
    private const string Head = "Account,Right,Where,Until,Given by,Why";

    public static Command Make()
    {
        var to = NewFile.To();
        return CommandKit.Make(
            "new",
            "Asks for a product's accounts and what each needs, in the words that the systems show, and writes its sheet.\n"
            + "What is not understood stands in the file as a question.\n"
            + "Exit code: 0 all was understood, 1 there are questions",
            ["justright sheet new --to thermograph.yaml"], [to], c => AskAsync(c, c.Parsed.GetValue(to)!))
            .Answers(j => j.WrittenFileView);
    }

    private static async Task<int> AskAsync(Call call, string file)
    {
        NewFile.MustBeNew(file);
        var answers = new Answers(call.Screen);
        var product = answers.Ask("The product, as one word", null, NewFile.WhyNotKey);
        var release = answers.Ask("Its release", "1", a =>
            a.All(c => char.IsAsciiDigit(c) || c == '.') ? null : "a number is meant, such as 4.2");
        var title = answers.Ask("Its name in full", char.ToUpperInvariant(product[0]) + product[1..], _ => null);
        var table = Table(answers);
        var query = $"product={product}&release={release}&title={Uri.EscapeDataString(title)}";
        var draft = await call.Api.PostTextAsync(
            "sheets/draft", "answers.csv", table, "text/csv", query, ContractsJson.Default.SheetDraftView, call.Cancel);
        foreach (var question in draft.Questions)
            call.Screen.Error.MarkupLine(Markup.Escape($"{question.Account}: {question.Asks} \"{question.Text}\""));
        var code = NewFile.Write(call, file, draft.Text, "sheet");
        return draft.Questions.Count + draft.Faults.Count > 0 ? ExitCode.Misfit : code;
    }

    private static string Table(Answers answers)
    {
        var rows = new StringBuilder(Head + "\n");
        for (var account = answers.Ask("An account, by its duty, as one word", null, NewFile.WhyNotKey);
            account.Length > 0;
            account = answers.Ask("Another account", "", NewFile.WhyNotKey))
            for (var right = answers.Ask($"What {account} needs, in the words that the system shows", null, _ => null);
                right.Length > 0;
                right = answers.Ask($"What else {account} needs", "", _ => null))
            {
                var where = answers.Ask("  where", "server", _ => null);
                var until = answers.AskOneOf("  until", "always", ["always", "installation"]);
                var by = answers.AskOneOf("  given by", "us", ["us", "setup"]);
                var why = answers.Ask("  why", "", _ => null);
                rows.AppendJoin(',', new[] { account, right, where, until, by, why }.Select(Cell)).Append('\n');
            }

        return rows.ToString();
    }

    /// <summary>A cell of a table whose columns commas part [RFC 4180].</summary>
    private static string Cell(string text) => $"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"";
}
