using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>confirm</c>: a person's word on an identity inside a product, which no survey reads.</summary>
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
        var role = new Argument<string?>("identity")
        {
            Description = "The identity inside the product, as the sheet calls it",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var absent = new Option<bool>("--not-there") { Description = "The account does not have the identity" };
        var seenBy = new Option<string?>("--seen-by") { Description = "Who looked, if it was not you", HelpName = "NAME" };
        return CommandKit.Make(
            "confirm",
            "Records that a person looked inside the product, and whether the account has the identity there.\nThe confirmation expires after the days set in the sheet; then the right is unseen again",
            [
                "justright confirm wheyline-lines",
                "justright confirm wheyline-lines sender \"Tanker clerk\" --seen-by \"Maud Ferris\"",
                "justright confirm tallystick-dataroom installer \"First administrator\" --not-there"],
            [install, account, role, absent, seenBy],
            c => RunAsync(
                c, Names.Part(c.Parsed.GetValue(install)!), c.Parsed.GetValue(account), c.Parsed.GetValue(role),
                !c.Parsed.GetValue(absent), c.Parsed.GetValue(seenBy)))
            .Answers(j => j.IReadOnlyListJudgementView);
    }

    private static Task<int> RunAsync(Call call, string install, string? account, string? role, bool held, string? seenBy) =>
        (account, role) switch
        {
            (null, _) => ListAsync(call, install),
            (_, null) => throw new ClientException(
                ExitCode.BadInput, "The identity inside the product is missing.",
                "Name it as the sheet does; justright confirm with the install alone lists them."),
            _ => ConfirmAsync(call, install, new ConfirmationOrder(account, role, held, seenBy)),
        };

    private static async Task<int> ListAsync(Call call, string install)
    {
        var fit = await call.Api.GetAsync($"installs/{install}/fit", ContractsJson.Default.FitView, call.Cancel);
        var rights = fit.Accounts.SelectMany(a => a.Rights).Where(r => r.Product is not null).ToList();
        if (call.Screen.IsJson)
            call.Screen.Json<IReadOnlyList<JudgementView>>(rights, ContractsJson.Default.IReadOnlyListJudgementView);
        else if (rights.Count == 0)
            call.Screen.Line($"{Markup.Escape(fit.Install)} needs no identity inside {Markup.Escape(fit.Title)}.");
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
        var table = Screen.List("verdict", "account", "identity", "lets it", "because");
        foreach (var right in rights)
            table.AddRow(
                new Markup(Balance.Verdict(right.Verdict)), new Text(right.Account), new Text(right.Product!.Identity),
                new Text(string.Join(", ", right.Product.Lets)), new Text(string.Join("; ", [right.Reason, .. right.Notes])));
        screen.Write(table);
    }
}
