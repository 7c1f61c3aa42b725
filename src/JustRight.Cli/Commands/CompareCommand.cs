using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>compare</c>: whether the controllers of a domain agree on an object.</summary>
internal static class CompareCommand
{
    public static Command Make()
    {
        var estate = Names.Estate();
        var dn = new Argument<string>("object") { Description = "A distinguished name" };
        return CommandKit.Make(
            "compare",
            "Compares an object on all domain controllers, and says which controller is behind and in what.\nExit code: 0 they agree, 1 they do not, 3 one did not answer",
            ["justright compare fennmoor \"OU=Saltmere,OU=People,OU=Fennmoor,DC=fennmoor,DC=example\""], [estate, dn], c =>
                RunAsync(c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(dn)!))
            .Answers(j => j.ReplicaComparisonView);
    }

    private static async Task<int> RunAsync(Call call, string estate, string dn)
    {
        var compared = await call.Api.GetAsync(
            $"estates/{Names.Part(estate)}/controllers?object={Uri.EscapeDataString(dn)}",
            ContractsJson.Default.ReplicaComparisonView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(compared, ContractsJson.Default.ReplicaComparisonView);
        }
        else
        {
            call.Screen.Line($"[bold]{Markup.Escape(compared.Words)}[/]  {Markup.Escape(compared.Dn)}");
            call.Screen.Line($"  {Markup.Escape(compared.Used)}  [grey]read and written by Just Right{(compared.Used == compared.Newest ? "; up to date" : "")}[/]");
            foreach (var other in compared.Others)
                call.Screen.Line($"  {Markup.Escape(other.Controller)}  {Markup.Escape(other.Words)}");
            foreach (var unread in compared.Unread)
                call.Screen.Line($"  {Markup.Escape(unread.Place)}  did not answer: {Markup.Escape(unread.Reason)}");
        }

        return compared.Others.Count > 0 && !compared.Agree ? ExitCode.Misfit
            : compared.Unread.Count > 0 ? ExitCode.Unread
            : ExitCode.Fine;
    }
}
