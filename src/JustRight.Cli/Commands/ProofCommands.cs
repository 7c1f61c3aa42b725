using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>proof</c>: what people wrote when they confirmed what no survey reads.</summary>
internal static class ProofCommands
{
    public static Command Make()
    {
        var listed = Names.Install();
        var list = CommandKit.Make(
            "list", "Lists what was confirmed, with the proofs, newest first",
            ["justright proof list millrace-gateway"], [listed],
            c => ListAsync(c, Names.Part(c.Parsed.GetValue(listed)!)))
            .Answers(j => j.IReadOnlyListConfirmationView);

        var of = Names.Install();
        var number = new Argument<int>("number") { Description = "The number of the confirmation, as proof list shows it" };
        var erase = CommandKit.Make(
            "erase",
            "Erases what was written as proof. The confirmation stays, and so does the hash of the proof in the log. Owners only",
            ["justright proof erase millrace-gateway 3"], [of, number],
            c => EraseAsync(c, Names.Part(c.Parsed.GetValue(of)!), c.Parsed.GetValue(number)))
            .Answers(j => j.IReadOnlyListConfirmationView);
        return CommandKit.Group("proof", "What people wrote when they confirmed what no survey reads", list, erase);
    }

    private static async Task<int> ListAsync(Call call, string install)
    {
        var all = await call.Api.GetAsync(
            $"installs/{install}/confirmations", ContractsJson.Default.IReadOnlyListConfirmationView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(all, ContractsJson.Default.IReadOnlyListConfirmationView);
        else if (all.Count == 0) call.Screen.Line("Nothing was confirmed yet.");
        else Write(call.Screen, all);
        return ExitCode.Fine;
    }

    private static async Task<int> EraseAsync(Call call, string install, int number)
    {
        await call.Api.DeleteAsync($"installs/{install}/confirmations/{number}/proof", call.Cancel);
        return await ListAsync(call, install);
    }

    private static void Write(Screen screen, IReadOnlyList<ConfirmationView> all)
    {
        var table = Screen.List("number", "account", "what", "is so", "seen by", "at", "counts until", "proof");
        foreach (var one in all)
            table.AddRow(
                new Text($"{one.Number}"), new Text(one.Principal), new Text(one.Role), new Text(one.Held ? "yes" : "no"),
                new Text(one.SeenBy), new Text(Times.Exact(one.At)), new Text(Times.Exact(one.Until)), new Text(ProofOf(one)));
        screen.Write(table);
    }

    private static string ProofOf(ConfirmationView one) =>
        one.Proof ?? (one.ErasedAt is { } at ? $"erased by {one.ErasedBy} at {Times.Exact(at)}" : "–");
}
