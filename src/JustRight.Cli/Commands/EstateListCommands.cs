using System.CommandLine;
using System.Text.Json.Serialization.Metadata;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>hosts</c>, <c>accounts</c> and <c>groups</c>: what an estate holds that installs have to do with.</summary>
internal static class EstateListCommands
{
    public static Command MakeHosts() => Make(
        "hosts", "Lists the hosts of an estate: how each is reached, when it was read, which installs need it",
        ["justright hosts fennmoor", "justright hosts fennmoor --search temp --sort -read"],
        new ListOptions("name", "system", "reach", "read", "installs"), j => j.HostPage, WriteHosts);

    public static Command MakeAccounts() => Make(
        "accounts", "Lists the accounts that the installs of an estate need, whether each is there, and which installs use it",
        ["justright accounts fennmoor", "justright accounts fennmoor --search not-there"],
        new ListOptions("name", "state", "password-set", "uses"), j => j.AccountPage, WriteAccounts);

    public static Command MakeGroups() => Make(
        "groups", "Lists the groups that the installs of an estate need, whether each is there, and which installs use it",
        ["justright groups fennmoor", "justright groups fennmoor --search roster"],
        new ListOptions("name", "state", "members", "installs"), j => j.GroupPage, WriteGroups);

    private static Command Make<T>(
        string name, string description, string[] examples, ListOptions order, Func<ContractsJson, JsonTypeInfo<T>> shape,
        Action<Call, T> write)
    {
        var estate = Names.Estate();
        return CommandKit.Make(name, description, examples, [estate, .. order.All], async call =>
        {
            var type = shape(ContractsJson.Default);
            var page = await call.Api.GetAsync(
                $"estates/{Names.Part(call.Parsed.GetValue(estate)!)}/{name}?{order.Query(call).Text}", type, call.Cancel);
            if (call.Screen.IsJson) call.Screen.Json(page, type);
            else write(call, page);
            return ExitCode.Fine;
        }).Answers(shape);
    }

    private static void WriteHosts(Call call, HostPage page)
    {
        var table = Screen.List("host", "reached", "system", "read", "instances", "needed by");
        foreach (var h in page.Items)
            table.AddRow(
                new Text(h.Name), new Text(h.Reach), new Text(h.System),
                new Text(h.Unread is { } why ? $"could not be read: {why}" : h.ReadAt is { } at ? Times.Exact(at) : "never"),
                new Text(string.Join(", ", h.Instances)), new Text(string.Join(", ", h.Installs)));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "hosts");
    }

    private static void WriteAccounts(Call call, AccountPage page)
    {
        var table = Screen.List("account", "state", "password set", "used by");
        foreach (var a in page.Items)
            table.AddRow(
                new Text(a.Name), new Text(a.State), new Text(a.PasswordSetAt is { } at ? Times.Exact(at) : ""),
                new Text(string.Join(", ", a.Uses.Select(u => $"{u.Install} ({u.Account}, {u.WorksAs})"))));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "accounts");
    }

    private static void WriteGroups(Call call, GroupPage page)
    {
        var table = Screen.List("group", "state", "members", "used by");
        foreach (var g in page.Items)
            table.AddRow(
                new Text(g.Name), new Text(g.State), new Text(g.Members is { } members ? $"{members}" : ""),
                new Text(string.Join(", ", g.Installs)));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "groups");
    }

    private static void Write(Call call, Table table, int listed, int skipped, int total, string what)
    {
        if (listed > 0) call.Screen.Write(table);
        else if (total == 0) call.Screen.Line($"No {what}.");
        ListOptions.Tell(call, listed, skipped, total, what);
    }
}
