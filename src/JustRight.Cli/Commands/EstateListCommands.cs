using System.CommandLine;
using System.Text.Json.Serialization.Metadata;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>
/// <c>hosts</c>, <c>instances</c>, <c>accounts</c>, <c>groups</c>, <c>ous</c> and <c>policies</c>: what an estate holds that
/// installs have to do with.
/// </summary>
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

    public static Command MakeInstances() => Make(
        "instances", "Lists the database instances of an estate: how each is reached, when it was read, which installs need it",
        ["justright instances fennmoor", "justright instances fennmoor --search postgresql"],
        new ListOptions("name", "engine", "host", "reach", "read", "installs"), j => j.InstancePage, WriteInstances);

    public static Command MakeUnits() => Make(
        "ous", "Lists the organizational units that installs have to do with: what lies in each, which policies are linked there",
        ["justright ous fennmoor", "justright ous fennmoor --search not-there"],
        new ListOptions("dn", "branch", "state", "accounts", "hosts", "policies"), j => j.OrganizationalUnitPage, WriteUnits);

    public static Command MakePolicies() => Make(
        "policies", "Lists the group policies of an estate's domain: where each is linked, which hosts it applies to",
        ["justright policies fennmoor", "justright policies fennmoor --sort -hosts"],
        new ListOptions("name", "links", "hosts", "rights", "groups"), j => j.PolicyPage, WritePolicies);

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

    private static void WriteInstances(Call call, InstancePage page)
    {
        var table = Screen.List("instance", "engine", "host", "reached", "read", "needed by");
        foreach (var i in page.Items)
            table.AddRow(
                new Text(i.Name), new Text($"{i.Engine} {i.Release}".TrimEnd()), new Text(i.Host), new Text(i.Reach),
                new Text(
                    i.Unread is { } why ? $"could not be read: {why}"
                    : i.ReadAt is not { } at ? "never"
                    : i.UnreadParts > 0 ? $"{Times.Exact(at)}, without {i.UnreadParts} parts" : Times.Exact(at)),
                new Text(string.Join(", ", i.Installs)));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "instances");
    }

    private static void WriteUnits(Call call, OrganizationalUnitPage page)
    {
        var table = Screen.List("organizational unit", "called", "state", "in it", "policies");
        foreach (var u in page.Items)
            table.AddRow(
                new Text(u.Dn), new Text(u.Branch), new Text(u.State),
                new Text(string.Join(", ", new[]
                {
                    Counted(u.Accounts.Count, "account"), Counted(u.Groups.Count, "group"), Counted(u.Hosts.Count, "host"),
                }.Where(w => w.Length > 0))),
                new Text(
                    (u.Unread is { } why ? $"could not be read: {why}" : string.Join(", ", u.Policies))
                    + (u.BlocksInheritance == true ? " (blocks inheritance)" : "")));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "organizational units");
    }

    private static string Counted(int count, string what) => count == 0 ? "" : $"{count} {what}{(count == 1 ? "" : "s")}";

    private static void WritePolicies(Call call, PolicyPage page)
    {
        var table = Screen.List("policy", "linked at", "applies to", "sets");
        foreach (var p in page.Items)
            table.AddRow(
                new Text(p.Name), new Text(string.Join("; ", p.LinkedAt)), new Text(string.Join(", ", p.Hosts)),
                new Text(
                    string.Join(", ", new[] { Counted(p.Rights ?? 0, "right"), Counted(p.GroupRules ?? 0, "rule for groups") }
                        .Where(w => w.Length > 0))
                    + (p.Unread is { } why ? $" unread: {why}" : "")));
        Write(call, table, page.Items.Count, page.Skipped, page.Total, "policies");
        if (page.Unread is { } none) call.Screen.Line(none);
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
