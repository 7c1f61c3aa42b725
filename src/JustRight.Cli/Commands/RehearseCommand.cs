using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>estate rehearse</c>: an install tried on a simulation of one's own estate.</summary>
internal static class RehearseCommand
{
    private static readonly string[] Mistakes =
        ["blocked-inheritance", "policy-takes-right-back", "leftover", "shared-account"];

    public static Command Make()
    {
        var estate = Names.Estate();
        var fresh = new Option<bool>("--fresh")
        {
            Description = "Lay a rehearsal that is there anew; what was done in it is gone",
        };
        var surveyed = new Option<bool>("--as-surveyed")
        {
            Description =
                "Fill it with what the latest survey read: of a directory file, of host facts, of the systems themselves",
        };
        var mistake = new Option<string[]>("--mistake")
        {
            Description = $"A mistake to be found: {string.Join(", ", Mistakes)}",
            HelpName = "MISTAKE",
            AllowMultipleArgumentsPerToken = true,
        };
        mistake.AcceptOnlyFromAmong(Mistakes);
        var setup = Names.InstallOption(
            "--setup", "Play the setup of one of its installs: what setup gives is given, and the install is installed");
        var end = new Option<bool>("--end") { Description = "End the rehearsal: its installs, surveys and passwords go with it" };
        return CommandKit.Make(
            "rehearse",
            "Lays a simulation of an estate, with its installs: survey, grant, undo, renew and retire there. Nothing real is "
            + "reached, and nothing that could be taken for real leaves it",
            [
                "justright estate rehearse fennmoor", "justright estate rehearse fennmoor --fresh --as-surveyed",
                "justright estate rehearse fennmoor --mistake leftover policy-takes-right-back",
                "justright estate rehearse fennmoor --setup thermograph-dataroom-rehearsal",
                "justright estate rehearse fennmoor --end"],
            [estate, fresh, surveyed, mistake, setup, end],
            c => c.Parsed.GetValue(end) ? EndAsync(c, c.Parsed.GetValue(estate)!)
                : c.Parsed.GetValue(setup) is { } install ? PlayAsync(c, install)
                : LayAsync(
                    c, c.Parsed.GetValue(estate)!,
                    new RehearsalOrder(c.Parsed.GetValue(fresh), c.Parsed.GetValue(surveyed), c.Parsed.GetValue(mistake) ?? [])))
            .Answers(j => j.RehearsalView, j => j.SetupPlayedView, j => j.DoneView);
    }

    private static async Task<int> LayAsync(Call call, string estate, RehearsalOrder order)
    {
        var laid = await call.Api.PostAsync(
            $"estates/{Names.Part(estate)}/rehearsal", order, ContractsJson.Default.RehearsalOrder,
            ContractsJson.Default.RehearsalView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(laid, ContractsJson.Default.RehearsalView);
            return ExitCode.Fine;
        }

        var screen = call.Screen;
        screen.Line(Markup.Escape($"{laid.Estate}: a simulation of {laid.Rehearses}, laid {Times.Exact(laid.LaidAt)}"));
        screen.Line(Markup.Escape(
            $"{laid.Hosts} hosts, {laid.Instances} instances, {laid.Accounts} accounts, {laid.Groups} groups; "
            + (laid.SurveyedAt is { } at ? $"as surveyed {Times.Exact(at)}" : "as is usual")));
        foreach (var mistake in laid.Mistakes) screen.Line(Markup.Escape($"wrong on purpose: {mistake}"));
        foreach (var remark in laid.Remarks) screen.Line($"[grey]{Markup.Escape(remark)}[/]");
        if (laid.Installs.Count == 0)
            screen.Line(Markup.Escape($"No installs yet. Add one whose file says: estate: {laid.Estate}"));
        foreach (var install in laid.Installs) screen.Line(Markup.Escape($"next: justright verify {install}"));
        return ExitCode.Fine;
    }

    private static async Task<int> PlayAsync(Call call, string install)
    {
        var played = await call.Api.PostAsync(
            $"installs/{Names.Part(install)}/rehearsed-setup", ContractsJson.Default.SetupPlayedView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(played, ContractsJson.Default.SetupPlayedView);
            return played.Left.Count > 0 ? ExitCode.Misfit : ExitCode.Fine;
        }

        foreach (var made in played.Made) call.Screen.Line(Markup.Escape($"simulated: {made}"));
        foreach (var left in played.Left) call.Screen.Line(Markup.Escape($"left: {left}"));
        call.Screen.Line(Markup.Escape($"the setup of {install} was played: {played.Made.Count} given; it is installed now"));
        call.Screen.Line(Markup.Escape($"next: justright verify {install}"));
        return played.Left.Count > 0 ? ExitCode.Misfit : ExitCode.Fine;
    }

    private static async Task<int> EndAsync(Call call, string estate)
    {
        await call.Api.DeleteAsync($"estates/{Names.Part(estate)}/rehearsal", call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView(estate, "ended"), ContractsJson.Default.DoneView);
        else call.Screen.Line(Markup.Escape($"the rehearsal of {estate} is over: nothing of it is kept but what the log says"));
        return ExitCode.Fine;
    }
}
