using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>guard</c>: the protection of an object against being deleted by accident.</summary>
internal static class GuardCommand
{
    public static Command Make()
    {
        var estate = Names.Estate();
        var dn = new Argument<string>("object") { Description = "A branch of the estate by its key, or a distinguished name" };
        var set = new Option<bool>("--set") { Description = "Guard it" };
        var lift = new Option<bool>("--lift") { Description = "Lift the guard, to delete it knowingly" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        return CommandKit.Make(
            "guard", "Says whether an object of the directory is guarded against being deleted by accident; sets or lifts that\nExit code: 0 guarded or done, 1 not guarded",
            ["justright guard fennmoor service-accounts", "justright guard fennmoor \"OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example\" --set", "justright guard fennmoor service-accounts --lift"],
            [estate, dn, set, lift, yes], c => RunAsync(c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(dn)!, c.Parsed.GetValue(set), c.Parsed.GetValue(lift), c.Parsed.GetValue(yes)));
    }

    private static async Task<int> RunAsync(Call call, string estate, string dn, bool set, bool lift, bool yes)
    {
        if (set && lift) throw new ClientException(ExitCode.BadInput, "A guard can be set or lifted, not both.");
        var path = $"estates/{Names.Part(estate)}/guard";
        var guard = await call.Api.GetAsync($"{path}?object={Uri.EscapeDataString(dn)}", ContractsJson.Default.GuardView, call.Cancel);
        if (!set && !lift)
        {
            if (call.Screen.IsJson) Screen.Json(guard, ContractsJson.Default.GuardView);
            else call.Screen.Line(Markup.Escape($"{guard.Dn} is {(guard.IsOn ? "guarded against being deleted by accident" : "not guarded: whoever may delete it can do so with a slip of the hand")}{(guard.Pretend ? " (pretend: the lab)" : "")}"));
            return guard.IsOn ? ExitCode.Fine : ExitCode.Misfit;
        }

        var steps = set ? guard.Set : guard.Lift;
        if (!call.Screen.IsJson)
        {
            if (guard.Pretend) call.Screen.Line("[bold]pretend estate[/] (the lab)");
            foreach (var step in steps) call.Screen.Line($"     {Markup.Escape(step)}");
        }

        if (steps.Count > 0 && !yes && !StepPrinter.Confirm(call.Screen, steps.Count == 1 ? "Make this change?" : $"Make these {steps.Count} changes?")) return ExitCode.Fine;
        var job = await call.Api.PostAsync(path, new GuardOrder(dn, set), ContractsJson.Default.GuardOrder, ContractsJson.Default.JobView, call.Cancel);
        return await StepPrinter.FollowAsync(call, job, set ? "guarding" : "lifting the guard");
    }
}
