using JustRight.Core.Faults;

namespace JustRight.Formats.Yaml;

/// <summary>A node of a YAML document with its position. A closed hierarchy.</summary>
internal abstract record YamlNode(Origin At)
{
    /// <summary>A scalar.</summary>
    /// <param name="Plain">Whether it was written without quotes.</param>
    public sealed record Scalar(string Text, bool Plain, Origin At) : YamlNode(At);

    /// <summary>A sequence.</summary>
    public sealed record Sequence(IReadOnlyList<YamlNode> Items, Origin At) : YamlNode(At);

    /// <summary>A mapping, keys in the order written.</summary>
    public sealed record Mapping(IReadOnlyList<(Scalar Key, YamlNode Value)> Entries, Origin At) : YamlNode(At)
    {
        /// <summary>The value of a key, or null.</summary>
        public YamlNode? this[string key] => Entries.FirstOrDefault(e => e.Key.Text == key).Value;
    }

    /// <summary>What the node is, in words.</summary>
    public string Kind => this switch
    {
        Scalar => "a value",
        Sequence => "a list",
        _ => "a mapping",
    };
}
