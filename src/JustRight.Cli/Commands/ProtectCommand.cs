using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>protect</c>: the protection of an object against being deleted by accident.</summary>
internal static class ProtectCommand
{
    public static Command Make()
    {
        var estate = Names.Estate();
        var dn = new Argument<string>("object") { Description = "A branch of the estate by its key, or a distinguished name" };
        var set = new Option<bool>("--set") { Description = "Protect the object" };
        var lift = new Option<bool>("--lift") { Description = "Remove the protection" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        return CommandKit.Make(
            "protect",
            "Says whether an object of the directory is protected from accidental deletion; sets or removes the protection.\nExit code: 0 protected or done, 1 not protected",
            [
                "justright protect fennmoor service-accounts",
                "justright protect fennmoor \"OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example\" --set",
                "justright protect fennmoor service-accounts --lift"],
            [estate, dn, set, lift, yes], c =>
                RunAsync(
                    c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(dn)!, c.Parsed.GetValue(set), c.Parsed.GetValue(lift),
                    c.Parsed.GetValue(yes)))
            .Answers(j => j.ProtectionView, j => j.JobView);
    }

    private static async Task<int> RunAsync(Call call, string estate, string dn, bool set, bool lift, bool yes)
    {
        if (set && lift) throw new ClientException(ExitCode.BadInput, "The protection can be set or lifted, not both.");
        var path = $"estates/{Names.Part(estate)}/protection";
        var protection = await call.Api.GetAsync(
            $"{path}?object={Uri.EscapeDataString(dn)}", ContractsJson.Default.ProtectionView, call.Cancel);
        if (!set && !lift)
        {
            if (call.Screen.IsJson) call.Screen.Json(protection, ContractsJson.Default.ProtectionView);
            else
                call.Screen.Line(Markup.Escape(
                    $"{protection.Dn} is {(protection.IsOn ? "protected from accidental deletion" : "not protected from accidental deletion")}{(protection.Simulated ? " (simulated)" : "")}"));
            return protection.IsOn ? ExitCode.Fine : ExitCode.Misfit;
        }

        var steps = set ? protection.Set : protection.Lift;
        if (!call.Screen.IsJson)
        {
            if (protection.Simulated) call.Screen.Line("[bold]simulated estate[/]");
            foreach (var step in steps) call.Screen.Line($"     {Markup.Escape(step)}");
        }

        if (steps.Count > 0 && !yes
            && !StepPrinter.Confirm(call.Screen, steps.Count == 1 ? "Make this change?" : $"Make these {steps.Count} changes?"))
            return ExitCode.Waits;
        var job = await call.Api.PostAsync(
            path, new ProtectionOrder(dn, set), ContractsJson.Default.ProtectionOrder, ContractsJson.Default.JobView,
            call.Cancel);
        return await StepPrinter.FollowAsync(call, job, set ? "protecting" : "lifting the protection");
    }
}
