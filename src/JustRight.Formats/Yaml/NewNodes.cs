namespace JustRight.Formats.Yaml;

/// <summary>Nodes for a text that is made from another one. Their position is that of the mapping they are made for.</summary>
internal static class NewNodes
{
    /// <summary>A mapping with those of its keys that are named.</summary>
    public static YamlNode.Mapping Only(YamlNode.Mapping map, IReadOnlyCollection<string> keys) =>
        new([.. map.Entries.Where(e => keys.Contains(e.Key.Text))], map.At);

    /// <summary>A mapping of keys and values.</summary>
    public static YamlNode.Mapping Map(YamlNode.Mapping at, params (string Key, YamlNode Value)[] entries) =>
        new([.. entries.Select(e => Entry(at, e.Key, e.Value))], at.At);

    /// <summary>One key with its value.</summary>
    public static (YamlNode.Scalar Key, YamlNode Value) Entry(YamlNode.Mapping at, string key, YamlNode value) =>
        (new YamlNode.Scalar(key, true, at.At), value);

    /// <summary>A word or number, without quotes.</summary>
    public static YamlNode.Scalar Plain(YamlNode.Mapping at, string text) => new(text, true, at.At);

    /// <summary>Any text, in quotes.</summary>
    public static YamlNode.Scalar Quoted(YamlNode.Mapping at, string text) => new(text, false, at.At);
}
