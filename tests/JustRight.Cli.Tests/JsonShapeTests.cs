using System.CommandLine;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using System.Text.RegularExpressions;
using JustRight.Cli.Commands;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Tests;

/// <summary>What commands print with <c>--json</c>: the shapes that each declares, which the reference lists.</summary>
public sealed partial class JsonShapeTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom", Branch = "OU=Fennmoor,DC=fennmoor,DC=example";

    private static readonly string[] OwnShapes = [nameof(BackupMade), nameof(WrittenFileView), nameof(DoneView),
        nameof(InstanceReport)];

    /// <summary>Commands that give JSON, in an order in which each has something to say.</summary>
    private static readonly string[] Lines =
    [
        $"verify {Install}", "sheet check {demo}/sheets/thermograph.yaml", "sheet add {demo}/sheets/thermograph.yaml",
        "sheet draft --from {tests}/vendor-tables/thermograph.csv", "sheet list", "sheet show thermograph@4.2",
        "sheet versions thermograph@4.2", "estate versions fennmoor --show 1", $"install versions {Install} --from 1 --to 1",
        "estate check {demo}/estates/fennmoor.yaml", "estate add {demo}/estates/fennmoor.yaml", "estate list",
        "estate show fennmoor", "install add {demo}/installs/thermograph-dataroom.yaml", "install list",
        $"install show {Install}", "sheet add {demo}/later/thermograph-5.0.yaml",
        $"install upgrade {Install} --to thermograph@5.0 --list",
        $"install stage {Install} planned", $"plan {Install}", "survey fennmoor", $"why {Install} poller",
        $"grant {Install} --list", $"grant {Install} --yes", $"password list {Install}", "log list", "log check", "token list",
        "token make night --role reader", "token revoke night", "secret list", "session list",
        "trace fennmoor svc-roundsman --attribute roomNumber",
        "trace fennmoor svc-roundsman --object teams --everything", $"compare fennmoor {Branch}", $"ldif {Install}",
        $"ldif {Install} --remove", "protect fennmoor people", $"history {Install}", $"drift {Install}", "proposal list",
        $"review list {Install}", $"exception list {Install}", "adopt list", "calendar fennmoor",
        "calendar fennmoor --to {new}/calendar.ics", "notifications fennmoor", "schedule fennmoor",
        $"report {Install} --to {{new}}/report.md", $"evidence write {Install} --to {{new}}/evidence.json", "evidence key",
        $"confirm {Install}", "proof list millrace-gateway",
        "instance fennmoor fm-sql01", "hosts fennmoor", "accounts fennmoor", "groups fennmoor",
        "instances fennmoor", "ous fennmoor", "policies fennmoor",
        "policy fennmoor {7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}", "review due fennmoor",
        "find thermo", "run list", "sign-in settings brinebook-contractors",
        "sign-in file brinebook-contractors", "sign-in try brinebook-contractors", "password due fennmoor",
        "password where-used fennmoor svc-curd-cards", "password renew fennmoor svc-curd-cards --list", $"handover {Install}",
        "backup --to {new}/backup.tar.gz", "estate rehearse fennmoor", $"estate rehearse fennmoor --setup {Install}-rehearsal",
        "estate rehearse fennmoor --end",
    ];

    private static IEnumerable<(string Name, LeafCommand Command)> Leaves => Below(CommandTree.Make(), "");

    [Fact]
    public void The_reference_lists_what_every_command_answers()
    {
        var page = File.ReadAllText(Path.Combine(Checkout.Top, "docs", "client.md"));
        var listed =
            from row in page.Split('\n').Where(l => l.StartsWith("| `", StringComparison.Ordinal))
            let cells = row.Split('|')
            from command in Quoted().Matches(cells[2])
            select $"{command.Groups[1].Value}: {cells[1].Trim().Replace("`", "", StringComparison.Ordinal)}";
        listed.Order().ShouldBe(
            Leaves.Where(l => l.Command.Shapes.Count > 0).Select(l => $"{l.Name}: {ShapeWords.Of(l.Command.Shapes)}").Order());
        Leaves.Where(l => l.Command.Shapes.Count == 0).Select(l => l.Name).ShouldBe(["log anchor", "completion"]);
    }

    [Fact]
    public void The_page_of_the_console_has_every_command()
    {
        var page = File.ReadAllText(Path.Combine(Checkout.Top, "docs", "the-console.md"));
        Leaves.Select(l => l.Name).Where(n => !page.Contains($"`{n}`", StringComparison.Ordinal)).ShouldBeEmpty();
    }

    [Fact]
    public void Every_shape_is_one_of_the_api_or_the_clients_own()
    {
        var described = JsonNode.Parse(File.ReadAllText(Path.Combine(Checkout.Top, "docs", "api", "openapi.json")))!;
        var schemas = described["components"]!["schemas"]!.AsObject();
        Leaves.SelectMany(l => l.Command.Shapes).Select(s => ShapeWords.Of([s]).Trim('[', ']')).Distinct()
            .Where(s => !schemas.ContainsKey(s)).ShouldBe(OwnShapes, ignoreOrder: true);
    }

    [Fact]
    public async Task What_a_command_prints_is_what_it_declares()
    {
        var leaves = Leaves.ToDictionary(l => l.Name, l => l.Command);
        var files = Directory.CreateDirectory(Path.Combine(Service.Data, "written")).FullName;
        var other = new List<string>();
        foreach (var line in Lines)
        {
            var words = line.Replace("{demo}", Path.Combine(Checkout.Top, "demo-data"), StringComparison.Ordinal)
                .Replace("{tests}", Path.Combine(Checkout.Top, "tests"), StringComparison.Ordinal)
                .Replace("{new}", files, StringComparison.Ordinal).Split(' ');
            var result = await RunAsync([.. words, "--json"]);
            var command = leaves.GetValueOrDefault(words[0]) ?? leaves[$"{words[0]} {words[1]}"];
            if (result.Error.Length > 0 || !command.Shapes.Any(s => Fits(s, result.Out)))
                other.Add($"{line}: {result.Error}{result.Out}");
        }

        other.ShouldBeEmpty();
    }

    [Fact]
    public async Task An_error_is_a_problem()
    {
        foreach (var line in new[] { "sheet show no-such@1", "fix no-such 1-spot --yes", "undo no-such --yes", "verify no-such" })
        {
            var result = await RunAsync([.. line.Split(' '), "--json"]);
            (result.Code, Fits(ContractsJson.Default.ProblemView, result.Out)).ShouldBe((2, true), $"{line}: {result.Out}");
        }
    }

    /// <summary>Whether a text is JSON of a shape: with no field of its own, and no word outside of a closed set.</summary>
    private static bool Fits(JsonTypeInfo shape, string text)
    {
        var strict = new JsonSerializerOptions(ContractsJson.Default.Options)
        {
            UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        };
        try
        {
            ClosedSets.Checked(JsonSerializer.Deserialize(text, strict.GetTypeInfo(shape.Type)));
            return true;
        }
        catch (JsonException)
        {
            return false;
        }
    }

    private static IEnumerable<(string Name, LeafCommand Command)> Below(Command command, string before)
    {
        foreach (var inner in command.Subcommands)
        {
            var name = before.Length == 0 ? inner.Name : $"{before} {inner.Name}";
            if (inner is LeafCommand leaf) yield return (name, leaf);
            foreach (var deeper in Below(inner, name)) yield return deeper;
        }
    }

    [GeneratedRegex("`([^`]+)`")]
    private static partial Regex Quoted();
}
