using System.CommandLine;
using System.Text;
using System.Text.RegularExpressions;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>estate new</c>: the file of an estate, from answers.</summary>
internal static partial class EstateNewCommand
{
    public static Command Make()
    {
        var to = NewFile.To();
        return CommandKit.Make(
            "new",
            "Asks for what an estate needs, one thing after another, and writes its file. How systems are reached is said in\n"
            + "the file afterwards; until then all can be planned and rehearsed. What stands when nothing is said is shown",
            ["justright estate new --to highfield.yaml", "justright estate new --to highfield.yaml < answers.txt"],
            [to], c => AskAsync(c, c.Parsed.GetValue(to)!))
            .Answers(j => j.WrittenFileView);
    }

    private static async Task<int> AskAsync(Call call, string file)
    {
        NewFile.MustBeNew(file);
        var text = Text(new Answers(call.Screen));
        await call.Api.PostAsync(
            "estates/check", new DocumentOrder(Path.GetFileName(file), text), ContractsJson.Default.DocumentOrder,
            ContractsJson.Default.EstateView, call.Cancel);
        return NewFile.Write(call, file, text, "estate");
    }

    private static string Text(Answers answers)
    {
        var name = answers.Ask("A name for the estate, as one word", null, NewFile.WhyNotKey);
        var title = answers.Ask("Its name in full", char.ToUpperInvariant(name[0]) + name[1..], _ => null);
        var dns = answers.Ask("The DNS name of the domain", null, a =>
            DnsName().IsMatch(a) ? null : "a DNS name is meant, such as highfield.example");
        var first = dns.Split('.')[0].ToUpperInvariant();
        var shortName = answers.Ask("Its short name", first.Length > 15 ? first[..15] : first, a =>
            ShortName().IsMatch(a) ? null : "at most 15 letters, digits and hyphens are meant");
        var root = string.Join(',', dns.Split('.').Select(p => "DC=" + p));
        var accounts = answers.Ask("The OU for service accounts", $"OU=Service Accounts,{root}", a => WhyNotBelow(a, root));
        var groups = answers.Ask("The OU for groups", accounts, a => WhyNotBelow(a, root));
        var pattern = answers.Ask("How accounts are named", "svc-{product}-{account}", a => WhyNotPattern(a, "{account}"));
        var groupPattern = answers.Ask("How groups are named", "app-{product}-{group}", a => WhyNotPattern(a, "{group}"));
        var hosts = answers.AskSeveral("The servers", "", WhyNotHost);
        var instances = answers.AskSeveral("The SQL Server instances, each as NAME or NAME@SERVER", "", a =>
            a.Split('@') is [var own] ? WhyNotOneOf(own, hosts)
                : a.Split('@') is [_, var on] ? WhyNotOneOf(on, hosts)
                : "NAME@SERVER is meant");

        var text = new StringBuilder();
        text.Append($$"""
            estate: 1
            name: {{name}}
            title: {{NewFile.Quoted(title)}}

            domain: { dns: {{dns}}, short: {{shortName}} }
            directory: { reach: none }    # later: ldaps, or file

            branches:
              service-accounts: {{NewFile.Quoted(accounts)}}
              groups: {{NewFile.Quoted(groups)}}

            naming:
              accounts: {{NewFile.Quoted(pattern)}}
              groups: {{NewFile.Quoted(groupPattern)}}
              accounts-in: service-accounts
              groups-in: groups

            """.ReplaceLineEndings("\n"));
        if (hosts.Count > 0) text.Append("\nhosts:\n");
        foreach (var host in hosts) text.Append($"  {host}: {{}}    # later: reach: ssh, or handed-over\n");
        if (instances.Count > 0) text.Append("\ninstances:\n");
        foreach (var instance in instances)
            text.Append(
                $"  {instance.Split('@')[0]}: {{ host: {instance.Split('@')[^1]}, engine: sqlserver }}    # later: reach: tls\n");
        text.Append("""

            rules:
              forbidden:
                - { domain-group: Domain Admins, why: no service account administers the domain }

            """.ReplaceLineEndings("\n"));
        return text.ToString();
    }

    private static string? WhyNotBelow(string dn, string root) =>
        dn.EndsWith("," + root, StringComparison.OrdinalIgnoreCase) ? null : $"a distinguished name that ends in {root} is meant";

    private static string? WhyNotPattern(string pattern, string must) =>
        pattern.Contains(must, StringComparison.Ordinal) ? null : $"it must contain {must}, or all names would be the same";

    private static string? WhyNotHost(string name) => HostName().IsMatch(name) ? null : $"'{name}' is no name of a server";

    private static string? WhyNotOneOf(string name, IReadOnlyList<string> hosts) =>
        hosts.Contains(name) ? null : hosts.Count == 0 ? "there is no server that it could be on" : Answers.NotOneOf(name, hosts);

    [GeneratedRegex(@"^[A-Za-z0-9-]+(\.[A-Za-z0-9-]+)+$")]
    private static partial Regex DnsName();

    [GeneratedRegex("^[A-Za-z0-9-]{1,15}$")]
    private static partial Regex ShortName();

    [GeneratedRegex(@"^[A-Za-z0-9][A-Za-z0-9.-]{0,62}$")]
    private static partial Regex HostName();
}
