using JustRight.Core.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Yaml;
using static JustRight.Formats.Yaml.NewNodes;

namespace JustRight.Formats.Estates;

/// <summary>
/// The texts of a rehearsal: an estate and its installs as they are, under names of their own, without anything by which a real
/// system is reached, anybody is told, or somebody must be waited for. What is kept is named here; a key that is not, is left
/// out.
/// </summary>
public static class RehearsalText
{
    private static readonly string[] Kept = ["domain", "branches", "naming"];
    private static readonly string[] KeptOfInstances = ["host", "engine", "release", "other-names", "partner"];

    private static readonly string[] KeptOfPeople =
    [
        "family", "host", "offers", "tls-port", "plain-port", "root", "other-hosts", "shared-name", "catalog", "catalog-tls-port",
        "catalog-plain-port", "people-in", "groups-in", "people-depth", "groups-depth", "follow-referrals", "connect-seconds",
        "answer-seconds", "attributes", "groups", "back-link", "most-in-one-answer", "ca-folder", "plain-text-because",
    ];

    private static readonly string[] KeptRules =
    [
        "forbidden", "time-zone", "passwords", "reviews", "retire", "new-owners", "kept-out", "survey-no-older-than-hours",
        "host-facts-no-older-than-hours",
    ];

    private static readonly string[] KeptOfInstalls =
    [
        "install", "product", "release", "places", "accounts", "groups", "never-expires", "answers", "choices",
    ];

    /// <summary>The engines of which there is a simulation; instances of others are not reached in a rehearsal.</summary>
    private static readonly string[] Simulated = ["sqlserver"];

    /// <summary>The rehearsal of an estate.</summary>
    /// <param name="text">The estate's text, which is sound.</param>
    public static string OfEstate(string text, string file)
    {
        var root = DocumentReader.Stored(text, file, EstateShape.Root);
        var entries = new List<(YamlNode.Scalar, YamlNode)>
        {
            Entry(root, "estate", Plain(root, root.Text("estate"))),
            Entry(root, "name", Plain(root, RehearsalRules.NameOf(root.Text("name")))),
            Entry(root, "title", Quoted(root, $"{root.Text("title")} (rehearsal)")),
            Entry(root, "rehearses", Plain(root, root.Text("name"))),
            Entry(root, "directory", Map(root, ("reach", Plain(root, "simulation")))),
        };
        entries.AddRange(root.Entries.Where(e => Kept.Contains(e.Key.Text)));
        entries.AddRange(Each(root, "hosts", (_, _) => Map(root)));
        entries.AddRange(Each(root, "instances", (_, of) => Instance(root, of)));
        entries.AddRange(Each(root, "people-directories", (_, of) => Only(of, KeptOfPeople)));
        if (root["rules"] is YamlNode.Mapping rules) entries.Add(Entry(root, "rules", Rules(rules)));
        return YamlWriter.Write(new YamlNode.Mapping(entries, root.At));
    }

    /// <summary>An install in the rehearsal of its estate: not begun, whatever the real one is.</summary>
    /// <param name="text">The install's text, which is sound.</param>
    public static string OfInstall(string text, string file)
    {
        var root = DocumentReader.Stored(text, file, InstallShape.Root);
        var entries = Only(root, KeptOfInstalls).Entries.ToList();
        entries.Insert(1, Entry(root, "name", Plain(root, RehearsalRules.NameOf(root.Text("name")))));
        entries.Add(Entry(root, "estate", Plain(root, RehearsalRules.NameOf(root.Text("estate")))));
        if (root.TextOrNull("succeeded-by") is { } successor)
            entries.Add(Entry(root, "succeeded-by", Plain(root, RehearsalRules.NameOf(successor))));
        if (root["sign-in"] is YamlNode.Mapping signIn)
            entries.Add(Entry(
                root, "sign-in", new YamlNode.Mapping([.. signIn.Entries.Where(e => e.Key.Text != "bind-secret")], signIn.At)));
        return YamlWriter.Write(new YamlNode.Mapping(entries, root.At));
    }

    private static YamlNode.Mapping Instance(YamlNode.Mapping root, YamlNode.Mapping instance)
    {
        var kept = Only(instance, KeptOfInstances);
        return Simulated.Contains(kept.Text("engine")) ? kept
            : new YamlNode.Mapping([.. kept.Entries, Entry(root, "reach", Plain(root, "none"))], kept.At);
    }

    /// <summary>A sharing that is allowed names installs: here it means their rehearsals.</summary>
    private static YamlNode.Mapping Rules(YamlNode.Mapping rules)
    {
        var kept = Only(rules, KeptRules).Entries.ToList();
        if (rules["allowed-sharing"] is YamlNode.Sequence sharing)
            kept.Add(Entry(rules, "allowed-sharing", new YamlNode.Sequence(
                [.. rules.Maps("allowed-sharing").Select(s => new YamlNode.Mapping(
                    [.. s.Entries.Select(e => e.Key.Text == "install"
                        ? (e.Key, (YamlNode)Plain(s, RehearsalRules.NameOf(s.Text("install"))))
                        : e)],
                    s.At))],
                sharing.At)));
        return new YamlNode.Mapping(kept, rules.At);
    }

    private static IEnumerable<(YamlNode.Scalar, YamlNode)> Each(
        YamlNode.Mapping root, string key, Func<string, YamlNode.Mapping, YamlNode.Mapping> make)
    {
        if (root[key] is not YamlNode.Mapping map) yield break;
        yield return Entry(
            root, key, new YamlNode.Mapping([.. root.Named(key).Select(e => (e.Key, (YamlNode)make(e.Key.Text, e.Value)))],
                map.At));
    }
}
