using System.CommandLine;
using System.Text;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>install new</c>: the file of an install, from answers to just what its sheet leaves open.</summary>
internal static class InstallNewCommand
{
    public static Command Make()
    {
        var to = NewFile.To();
        var sheet = Names.SheetOption("--sheet", "The sheet; asked unless said here");
        var estate = Names.EstateOption("--estate", "The estate; asked unless said here");
        return CommandKit.Make(
            "new",
            "Asks for what an install needs: just what its sheet leaves open. Writes its file once it can be planned",
            [
                "justright install new --to thermograph-plant.yaml",
                "justright install new --sheet thermograph@4.2 --estate highfield --to thermograph-plant.yaml"],
            [to, sheet, estate],
            c => AskAsync(c, c.Parsed.GetValue(to)!, c.Parsed.GetValue(sheet), c.Parsed.GetValue(estate)))
            .Answers(j => j.WrittenFileView);
    }

    private static async Task<int> AskAsync(Call call, string file, string? sheet, string? estate)
    {
        NewFile.MustBeNew(file);
        var answers = new Answers(call.Screen);
        sheet ??= Which(answers, "sheet", [.. (await call.Api.GetAsync(
            "sheets", ContractsJson.Default.IReadOnlyListSheetSummary, call.Cancel)).Select(s => s.Name)]);
        estate ??= Which(answers, "estate", [.. (await call.Api.GetAsync(
            "estates", ContractsJson.Default.IReadOnlyListEstateSummary, call.Cancel)).Select(e => e.Name)]);
        var asked = await call.Api.GetAsync(
            $"sheets/{Names.Part(sheet)}/asked?estate={Uri.EscapeDataString(estate)}", ContractsJson.Default.InstallAskedView,
            call.Cancel);
        var text = Text(answers, asked);
        await call.Api.PostAsync(
            "documents/install/replacing", new DocumentOrder(Path.GetFileName(file), text), ContractsJson.Default.DocumentOrder,
            ContractsJson.Default.ReplacingView, call.Cancel);
        return NewFile.Write(call, file, text, "install");
    }

    private static string Which(Answers answers, string what, IReadOnlyList<string> known) => known.Count == 0
        ? throw new ClientException(ExitCode.BadInput, $"There is no {what} yet.", $"Add one: justright {what} add FILE")
        : answers.AskOneOf($"The {what}", known is [var only] ? only : null, known);

    private static string Text(Answers answers, InstallAskedView asked)
    {
        var name = answers.Ask("A name for the install, as one word", asked.Name, NewFile.WhyNotKey);
        var text = new StringBuilder();
        text.Append($"install: 1\nname: {name}\nproduct: {asked.Product}\nrelease: {NewFile.Quoted(asked.Release)}\n");
        text.Append($"estate: {asked.Estate}\n");
        var section = "";
        foreach (var question in asked.Asked)
        {
            var parts = question.Field.Split('.', 2);
            if (parts[0] != section) text.Append($"\n{section = parts[0]}:\n");
            var said = OpenAnswers.Ask(answers, question);
            var values = said.Select(NewFile.Quoted);
            text.Append($"  {parts[1]}: {(said.Count == 1 ? values.First() : $"[{string.Join(", ", values)}]")}\n");
        }

        return text.ToString();
    }
}
