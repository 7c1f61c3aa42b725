using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Hosts;

/// <summary>Reads host facts: the JSON that the collecting script prints.</summary>
public static class HostFactsReader
{
    /// <summary>The largest file, in bytes: some 40 times what a busy server gives.</summary>
    public const int MostBytes = 20_000_000;

    /// <summary>The published JSON Schema.</summary>
    public static string JsonSchema() => JsonSchemaWriter.Write(HostFactsShape.Root, "Just Right host facts, version 1");

    /// <summary>Reads and checks facts; null with every fault when they are not sound.</summary>
    public static (HostFacts? Facts, IReadOnlyList<Fault> Faults) Read(ReadOnlySpan<byte> bytes, string file)
    {
        var faults = new List<Fault>();
        if (JsonDocumentReader.Read(bytes, file, MostBytes, faults) is not { } node || faults.Count > 0) return (null, faults);
        ShapeChecker.Check(node, HostFactsShape.Root, "", faults);
        if (faults.Count > 0) return (null, faults);
        var root = (YamlNode.Mapping)node;
        var facts = Bind(root);
        foreach (var twice in facts.Snapshot.LocalGroups.GroupBy(g => g.Sid).Where(g => g.Count() > 1))
            faults.Add(new Fault(
                "duplicate-name", root["local-groups"]!.At, "local-groups", $"Two local groups have the SID {twice.Key}."));
        return faults.Count == 0 ? (facts, faults) : (null, faults);
    }

    private static HostFacts Bind(YamlNode.Mapping root)
    {
        var host = (YamlNode.Mapping)root["host"]!;
        var role = host.Text("role") switch { "controller" => HostRole.Controller, "standalone" => HostRole.Standalone, _ => HostRole.Member };
        var unread = root.Maps("unread").Select(u => new UnreadPart(u.Text("part"), u.Text("reason"))).ToList();
        // A part that is neither told nor named as unread was not asked for: it is unread all the same.
        foreach (var (key, part) in new[]
        {
            ("services", HostSnapshot.ServicesPart), ("rights", HostSnapshot.RightsPart),
            ("local-groups", HostSnapshot.LocalGroupsPart), ("tasks", HostSnapshot.TasksPart), ("pools", HostSnapshot.PoolsPart),
        })
            if (root[key] is null && !(key == "local-groups" && role == HostRole.Controller) && unread.All(u => u.Part != part))
                unread.Add(new UnreadPart(part, "the facts do not tell"));
        var snapshot = new HostSnapshot(
            host.Text("name"), Time(root, "read-at")!.Value, null,
            [.. root.Maps("local-groups").Select(g =>
                new LocalGroup(
                    g.Text("name"), Sid.Parse(g.Text("sid")), [.. g.Maps("members").Select(m => Sid.Parse(m.Text("sid")))]))],
            [.. root.Maps("rights").Select(List)], unread)
        {
            Role = role,
            ReadBy = root.TextOr("read-by", ""),
            System = host.TextOr("system", ""),
            Services = [.. root.Maps("services").Select(Service)],
            Runners =
            [
                .. root.Maps("tasks").Select(t => Runner(RunnerKind.Task, t)),
                .. root.Maps("pools").Select(p => Runner(RunnerKind.Pool, p)),
            ],
            Policies = root["policies"] is null
                ? null
                : [.. root.Maps("policies").Select(p =>
                    new AppliedPolicy(p.Text("id").ToUpperInvariant(), p.TextOr("name", p.Text("id")))
                    {
                        Lists = p["rights"] is null
                            ? null
                            : [.. p.Maps("rights").Select(r => new PolicyList(r.Text("right"), r.List("entries")))],
                    })],
        };
        return new HostFacts(snapshot, host.TextOr("domain", ""));
    }

    private static LogonList List(YamlNode.Mapping map)
    {
        var (sids, names) = (new List<Sid>(), new List<string>());
        foreach (var entry in map.List("entries"))
        {
            if (entry.StartsWith('*') && Sid.TryParse(entry[1..], out var sid)) sids.Add(sid);
            else if ((BuiltInGroups.Find(entry) ?? WellKnownSids.Find(entry)) is { } known) sids.Add(known);
            else names.Add(entry);
        }

        return new LogonList(map.Text("right"), sids) { Named = names, Policy = map.TextOrNull("policy")?.ToUpperInvariant() };
    }

    private static HostRunner Runner(RunnerKind kind, YamlNode.Mapping map) =>
        new(kind, map.Text("name"), map.Text("account"), map.YesNo("keeps-password"))
        {
            AccountSid = map.TextOrNull("sid") is { } sid ? Sid.Parse(sid) : default,
            IsDisabled = map["disabled"] is not null && map.YesNo("disabled"),
        };

    private static HostService Service(YamlNode.Mapping map) => new(
        map.Text("name"), map.TextOr(
            "account",
            "LocalSystem"), ServiceWords.StartOf(map.Text("start"))!.Value, map.YesNo("running"), map.List("waits-for"))
    {
        Title = map.TextOr("title", ""),
        RunsNowAs = map.TextOrNull("runs-now-as"),
        RunsNowAsSid = map.TextOrNull("runs-now-as-sid") is { } sid ? Sid.Parse(sid) : default,
        RunsSince = Time(map, "runs-since"),
    };

    private static DateTimeOffset? Time(YamlNode.Mapping map, string key) =>
        map.TextOrNull(key) is { } text
            ? DateTimeOffset.Parse(text, CultureInfo.InvariantCulture, DateTimeStyles.RoundtripKind).ToUniversalTime()
            : null;
}
