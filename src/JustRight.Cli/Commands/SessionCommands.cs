using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>session</c>: who is signed in to the console.</summary>
internal static class SessionCommands
{
    public static Command Make()
    {
        var id = new Argument<int>("id") { Description = "The session, as 'session list' names it" };
        return CommandKit.Group(
            "session", "Sessions of the console: who is signed in",
            CommandKit.Make("list", "Lists who is signed in, and until when", [], [], ListAsync)
                .Answers(j => j.IReadOnlyListSessionView),
            CommandKit.Make("end", "Ends a session: its person must sign in again", ["justright session end 12"], [id],
                c => EndAsync(c, c.Parsed.GetValue(id))).Answers(j => j.DoneView));
    }

    private static async Task<int> ListAsync(Call call)
    {
        var sessions = await call.Api.GetAsync("sessions", ContractsJson.Default.IReadOnlyListSessionView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(sessions, ContractsJson.Default.IReadOnlyListSessionView);
            return ExitCode.Fine;
        }

        var table = Screen.List("id", "who", "role", "since", "until");
        foreach (var s in sessions)
            table.AddRow($"{s.Id}", Markup.Escape(s.Name), s.Role, Times.Exact(s.StartedAt), Times.Exact(s.ExpiresAt));
        call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> EndAsync(Call call, int id)
    {
        await call.Api.DeleteAsync($"sessions/{id}", call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(new DoneView($"{id}", "ended"), ContractsJson.Default.DoneView);
        else call.Screen.Line($"session {id} is ended");
        return ExitCode.Fine;
    }
}
