using JustRight.Formats.Yaml;

namespace JustRight.Formats.Shapes;

/// <summary>
/// What earlier releases called keys and values of our files. A file that is read in is refused, with the word of today; what
/// was kept by an earlier release is read on.
/// </summary>
internal static class FormerWords
{
    private static readonly Dictionary<string, string> Keys = new(StringComparer.Ordinal)
    {
        ["barred"] = "forbidden",
        ["four-eyes"] = "two-person-approval",
    };

    private static readonly Dictionary<(string Key, string Value), string> Values = new()
    {
        [("until", "set-up")] = "installed",
        [("stage", "set-up")] = "installed",
        [("reach", "lab")] = "simulation",
    };

    /// <summary>What a key is called today, if it is one of those known here; null when it never was one.</summary>
    public static string? KeyOfToday(string key, Shape.Map map) =>
        Keys.TryGetValue(key, out var today) && map.Keys.Any(k => k.Name == today) ? today : null;

    /// <summary>What a value of a key is called today, if it is one of those allowed; null when it never was one.</summary>
    public static string? ValueOfToday(string key, string value, IReadOnlyList<string> allowed) =>
        Values.TryGetValue((key, value), out var today) && allowed.Contains(today) ? today : null;

    /// <summary>A document in the words of today, each node where it stood.</summary>
    public static YamlNode Renew(YamlNode node, Shape shape, string key = "") => (shape, node) switch
    {
        (Shape.Ref reference, _) => Renew(node, reference.Target(), key),
        (Shape.Map map, YamlNode.Mapping mapping) => mapping with { Entries = [.. mapping.Entries.Select(e => Renew(e, map))] },
        (Shape.Named named, YamlNode.Mapping mapping) =>
            mapping with { Entries = [.. mapping.Entries.Select(e => (e.Key, Renew(e.Value, named.Value, e.Key.Text)))] },
        (Shape.List list, YamlNode.Sequence sequence) =>
            sequence with { Items = [.. sequence.Items.Select(i => Renew(i, list.Item, key))] },
        (Shape.List { OneWillDo: true } list, _) => Renew(node, list.Item, key),
        (Shape.Text { OneOf: { } allowed }, YamlNode.Scalar scalar) when ValueOfToday(key, scalar.Text, allowed) is { } today =>
            scalar with { Text = today },
        _ => node, // of another kind than its shape: the check says so
    };

    private static (YamlNode.Scalar Key, YamlNode Value) Renew((YamlNode.Scalar Key, YamlNode Value) entry, Shape.Map map)
    {
        var key = KeyOfToday(entry.Key.Text, map) ?? entry.Key.Text;
        var value = map.Keys.FirstOrDefault(k => k.Name == key) is { } known ? Renew(entry.Value, known.Shape, key) : entry.Value;
        return (entry.Key with { Text = key }, value);
    }
}
