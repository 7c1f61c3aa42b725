using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>instance</c>: who can do what at a database instance, as the latest survey read it.</summary>
internal static class InstanceCommand
{
    public static Command Make()
    {
        var estate = Names.Estate();
        var instance = new Argument<string>("instance") { Description = "A database instance of the estate" };
        var words = new Argument<string[]>("words")
        {
            Description = "Text that a line must contain: an account, a right, a database",
            Arity = ArgumentArity.ZeroOrMore,
        };
        var order = new ListOptions("who", "right", "place", "reach", "needed");
        return CommandKit.Make(
            "instance",
            "Shows who can do what at a database instance and in its databases, by which path, and which install needs it; the widest rights first",
            [
                "justright instance fennmoor fm-sql01", "justright instance fennmoor fm-sql01 sysadmin",
                "justright instance fennmoor fm-sql03 CurdRecipes --json"],
            [estate, instance, words, .. order.Paging], c =>
                RunAsync(
                    c, Names.Part(c.Parsed.GetValue(estate)!), Names.Part(c.Parsed.GetValue(instance)!),
                    c.Parsed.GetValue(words) ?? [], order))
            .Answers(j => j.InstanceReport);
    }

    private static async Task<int> RunAsync(Call call, string estate, string name, string[] words, ListOptions order)
    {
        var path = $"estates/{estate}/instances/{name}";
        var all = await call.Api.GetAsync(path, ContractsJson.Default.InstanceView, call.Cancel);
        var query = order.Query(call, ("search", string.Join(' ', words)), ("sort", order.IsSorted(call) ? null : "-reach"));
        var holders = await call.Api.GetAsync($"{path}/holders?{query.Text}", ContractsJson.Default.InstanceHolderPage, call.Cancel);
        bool Says(string line) => words.All(w => line.Contains(w, StringComparison.OrdinalIgnoreCase));
        var view = all with
        {
            Ways =
            [
                .. all.Ways.Where(w => Says($"{w.Who} {w.Right} {w.Place} {string.Join(' ', w.Steps)}"))
                    .OrderByDescending(w => w.Reach).ThenBy(w => w.Who, StringComparer.OrdinalIgnoreCase),
            ],
        };
        if (call.Screen.IsJson) call.Screen.Json(new InstanceReport(view, holders), ContractsJson.Default.InstanceReport);
        else Write(call, view, holders);
        return view.Unread is null && view is { UnreadParts.Count: 0, MoreWays: 0 } ? ExitCode.Fine : ExitCode.Unread;
    }

    private static void Write(Call call, InstanceView view, InstanceHolderPage holders)
    {
        var screen = call.Screen;
        screen.Line($"[bold]{Markup.Escape(view.Name)}[/]  {Markup.Escape($"{(view.Engine == "sqlserver" ? "SQL Server" : "PostgreSQL")} {view.Release} on {view.Host}")}{(view.Simulated && view.Reach == "simulation" ? "  [bold]simulated[/]" : "")}   [grey]read {Times.Exact(view.ReadAt)}{(view.ReadBy.Length > 0 ? Markup.Escape($" by {view.ReadBy}") : "")}[/]");
        if (view.Partners.Count > 0) screen.Line($"Failover partners: {Markup.Escape(string.Join(", ", view.Partners))}");
        if (view.Unread is { } unread) screen.Line(Markup.Escape($"It could not be read: {unread}"));
        foreach (var part in view.UnreadParts) screen.Line(Markup.Escape($"{part.Place} could not be read: {part.Reason}"));
        if (holders.Items.Count > 0)
        {
            var table = Screen.List("who", "right", "place", "needed by", "path");
            foreach (var h in holders.Items)
            {
                table.AddRow(
                    new Text($"{h.Who}{(h.Machine ? " (a machine)" : "")}"), new Text(h.Right), new Text(h.Place), new Text(
                        h.NeededBy.Count > 0 ? string.Join(", ", h.NeededBy) : "nothing known"),
                    new Text(h.WhyNot is { } why ? $"does not count: {why}" : h.Paths.Count > 0 ? FitReport.Path(h.Paths[0]) : ""));
            }

            screen.Write(table);
        }
        else if (view.Unread is null)
        {
            screen.Line(view.Holders == 0 ? "Nobody, as far as read." : $"None of {view.Holders} rights matches.");
        }

        ListOptions.Tell(call, holders.Items.Count, holders.Skipped, holders.Total, "rights");
        WriteWays(screen, view);
        if (view.WaysUnread is { } unseen) screen.Line(Markup.Escape($"Ways to more may be missing here, since this was not read: {unseen}"));
    }

    private static void WriteWays(Screen screen, InstanceView view)
    {
        if (view.Ways.Count == 0) return;
        screen.Line("[bold]Ways to more than was granted[/]");
        var table = Screen.List("who", "can come to", "place", "how");
        foreach (var way in view.Ways)
            table.AddRow(
                new Text($"{way.Who}{(way.Machine ? " (a machine)" : "")}"), new Text(way.Right), new Text(way.Place),
                new Text(string.Join("; ", way.Steps)));
        screen.Write(table);
        if (view.MoreWays > 0) screen.Line($"and {view.MoreWays} more ways, which are not listed");
    }
}
