using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>policy</c>: what a group policy sets, and on which hosts it counts.</summary>
internal static class PolicyCommand
{
    public static Command Make()
    {
        var estate = Names.Estate();
        var policy = new Argument<string>("policy") { Description = "A group policy: its display name, or its GUID in braces" };
        return CommandKit.Make(
            "policy", "Shows what a group policy sets, where it is linked, and on which hosts its lists count",
            ["justright policy fennmoor \"Default Domain Policy\""], [estate, policy], async call =>
            {
                var shape = ContractsJson.Default.PolicyView;
                var view = await call.Api.GetAsync(
                    $"estates/{Names.Part(call.Parsed.GetValue(estate)!)}/policies/{Names.Part(call.Parsed.GetValue(policy)!)}",
                    shape, call.Cancel);
                if (call.Screen.IsJson) call.Screen.Json(view, shape);
                else Write(call.Screen, view);
                return ExitCode.Fine;
            }).Answers(j => j.PolicyView);
    }

    private static void Write(Screen screen, PolicyView view)
    {
        screen.Line($"{view.Name} {view.Id}{(view.Simulated ? " (simulated)" : "")}, read {Times.Exact(view.ReadAt)}");
        if (view.HalfDisabled) screen.Line("Its computer half is disabled: it sets nothing on hosts.");
        if (view.QueryFilter is { } filter) screen.Line($"Only on hosts that pass its query {filter}.");
        foreach (var link in view.Links)
            screen.Line(
                $"linked at {link.Dn}, number {link.Number}"
                + (link.Enforced ? ", enforced" : "") + (link.Disabled ? ", disabled" : ""));
        foreach (var host in view.Hosts)
            screen.Line($"on {host.Host} {host.Fate}{(host.Fate == "applies" ? "" : $": {host.Why}")}");
        if (view.RightsUnread is { } unread) screen.Line($"What it sets could not be read: {unread}");
        var table = Screen.List("right", "held by", "counts on");
        foreach (var right in view.Rights)
            table.AddRow(
                new Text(right.Words), new Text(string.Join(", ", right.Holders)), new Text(string.Join(", ", right.DecidesOn)));
        if (view.Rights.Count > 0) screen.Write(table);
        foreach (var rule in view.GroupRules) screen.Line(Words(rule));
        if (view.GroupsUnread is { } groups) screen.Line($"What it does to local groups could not be read: {groups}");
    }

    private static string Words(PolicyGroupRuleView rule) =>
        $"{rule.Act} {rule.Name}: {string.Join(", ", rule.Entries)}"
        + (rule.Removed.Count > 0 ? $"; without {string.Join(", ", rule.Removed)}" : "")
        + (rule.Targeted ? " (on some hosts only)" : "");
}
