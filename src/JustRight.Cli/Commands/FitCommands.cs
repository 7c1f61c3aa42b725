using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>verify</c> and <c>why</c>.</summary>
internal static class FitCommands
{
    public static Command MakeVerify()
    {
        var install = Names.Install();
        var brief = new Option<bool>("--brief") { Description = "Leave out rights that are met" };
        return CommandKit.Make(
            "verify",
            "Surveys the estate and says for every right whether it is met, missing, pending, unseen, excess or forbidden.\nExit code: 0 just right, or every deviation is accepted; 1 something deviates; 3 the same as 0, as far as seen",
            [
                "justright verify thermograph-dataroom", "justright verify thermograph-dataroom --brief",
                "justright verify thermograph-dataroom --json"],
            [install, brief], c => VerifyAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(brief)))
            .Answers(j => j.FitView);
    }

    public static Command MakeWhy()
    {
        var install = Names.Install();
        var account = new Argument<string>("account") { Description = "An account of the install: its key or its name" };
        var right = new Argument<string[]>("right")
        {
            Description = "Text that the right must contain",
            Arity = ArgumentArity.ZeroOrMore,
        };
        return CommandKit.Make(
            "why", "Shows why an account holds a right or not: the need, the line of the sheet, the team, every path",
            ["justright why thermograph-dataroom archivist", "justright why thermograph-dataroom archivist sysadmin fm-sql01"],
            [install, account, right], c =>
                WhyAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(account)!, c.Parsed.GetValue(right) ?? []))
            .Answers(j => j.IReadOnlyListJudgementView);
    }

    /// <summary>Verifies an install and prints its fit.</summary>
    public static async Task<int> VerifyAsync(Call call, string install, bool brief)
    {
        var job = await call.Api.PostAsync($"installs/{Names.Part(install)}/verify", ContractsJson.Default.JobView, call.Cancel);
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, $"verifying {install}", null, call.Cancel);
        if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the survey did not end well");
        var fit = await call.Api.GetAsync($"installs/{Names.Part(install)}/fit", ContractsJson.Default.FitView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(fit, ContractsJson.Default.FitView);
        else FitReport.Write(call.Screen, fit, brief);
        return Code(fit.Counts);
    }

    private static async Task<int> WhyAsync(Call call, string install, string account, string[] right)
    {
        var rights = await call.Api.GetAsync(
            $"installs/{Names.Part(install)}/why/{Names.Part(account)}?right={Uri.EscapeDataString(string.Join(' ', right))}",
            ContractsJson.Default.IReadOnlyListJudgementView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(rights, ContractsJson.Default.IReadOnlyListJudgementView);
        else FitReport.WriteWhy(call.Screen, rights);
        return ExitCode.Fine;
    }

    private static int Code(FitCountsView counts) =>
        counts.Missing + counts.Excess + counts.Forbidden > counts.Accepted ? ExitCode.Misfit
            : counts.Unseen + counts.Unread > 0 ? ExitCode.Unread
            : ExitCode.Fine;
}
