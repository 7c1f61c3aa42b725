using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>confirm</c>: a person's word on what no survey reads: an identity inside a product, or a task.</summary>
internal static class ConfirmCommand
{
    public static Command Make()
    {
        var install = Names.Install();
        var account = new Argument<string?>("account")
        {
            Description = "An account of the install: its key or its name; without it, the confirmations that are needed are listed",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var role = new Argument<string?>("what")
        {
            Description = "The identity inside the product, or the task, as the sheet calls it",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var absent = new Option<bool>("--not-there") { Description = "The account does not have the identity; the task is not done" };
        var seenBy = new Option<string?>("--seen-by") { Description = "Who looked, if it was not you", HelpName = "NAME" };
        var proof = new Option<string?>("--proof")
        {
            Description = "How it was seen that a task is done, without any secret. Others can read it; the log holds its hash",
            HelpName = "TEXT",
        };
        var place = new Option<string?>("--at") { Description = "Where, for a task that is done at several places", HelpName = "PLACE" };
        return CommandKit.Make(
            "confirm",
            "Records what a person saw: an identity inside the product, or a task that is done.\nThe confirmation expires after the days set in the sheet; then it is unseen again",
            [
                "justright confirm wheyline-lines",
                "justright confirm wheyline-lines sender \"Tanker clerk\" --seen-by \"Maud Ferris\"",
                "justright confirm tallystick-dataroom installer \"First administrator\" --not-there",
                "justright confirm millrace-gateway lookup first-administrator --proof \"signing in with the name of the book is refused\""],
            [install, account, role, absent, seenBy, proof, place],
            c => RunAsync(
                c, Names.Part(c.Parsed.GetValue(install)!), c.Parsed.GetValue(account), c.Parsed.GetValue(role),
                (account, role) => new ConfirmationOrder(
                    account, role, !c.Parsed.GetValue(absent), c.Parsed.GetValue(seenBy), c.Parsed.GetValue(proof),
                    c.Parsed.GetValue(place))))
            .Answers(j => j.IReadOnlyListJudgementView);
    }

    private static Task<int> RunAsync(
        Call call, string install, string? account, string? role, Func<string, string, ConfirmationOrder> order) =>
        (account, role) switch
        {
            (null, _) => ListAsync(call, install),
            (_, null) => throw new ClientException(
                ExitCode.BadInput, "What was looked at is missing.",
                "Name it as the sheet does; justright confirm with the install alone lists them."),
            _ => ConfirmAsync(call, install, order(account, role)),
        };

    private static async Task<int> ListAsync(Call call, string install)
    {
        var fit = await call.Api.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView, call.Cancel);
        var rights = fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Confirmable is not null).ToList();
        if (call.Screen.IsJson)
            call.Screen.Json<IReadOnlyList<JudgementView>>(rights, ContractsJson.Default.IReadOnlyListJudgementView);
        else if (rights.Count == 0)
            call.Screen.Line($"{Markup.Escape(fit.Install)} has nothing that only a person sees.");
        else Write(call.Screen, rights);
        return ExitCode.Fine;
    }

    private static async Task<int> ConfirmAsync(Call call, string install, ConfirmationOrder order)
    {
        var rights = await call.Api.PostAsync(
            $"installs/{install}/confirmations", order, ContractsJson.Default.ConfirmationOrder,
            ContractsJson.Default.IReadOnlyListJudgementView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(rights, ContractsJson.Default.IReadOnlyListJudgementView);
        else Write(call.Screen, rights);
        return ExitCode.Fine;
    }

    private static void Write(Screen screen, IReadOnlyList<JudgementView> rights)
    {
        var table = Screen.List("verdict", "account", "what", "at", "as", "because");
        foreach (var right in rights)
            table.AddRow(
                new Markup(Balance.Verdict(right.Verdict)), new Text(right.Account), new Text(right.Confirmable!.Name),
                new Text(right.Place), new Text(Details(right.Confirmable)),
                new Text(string.Join("; ", [right.Reason, .. right.Notes])));
        screen.Write(table);
    }

    private static string Details(ConfirmableView asked) => asked.Work is { } work
        ? $"{work}; done when {asked.DoneWhen}"
        : asked.Lets.Count == 0 ? "" : $"lets it {string.Join(", ", asked.Lets)}";
}
