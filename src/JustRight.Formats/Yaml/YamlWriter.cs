using System.Text;

namespace JustRight.Formats.Yaml;

/// <summary>Writes nodes as YAML, one entry a line; what is read back says the same. Comments are not nodes.</summary>
internal static class YamlWriter
{
    private const int Step = 2;

    /// <summary>The text of a document.</summary>
    public static string Write(YamlNode.Mapping root)
    {
        var text = new StringBuilder();
        Entries(text, root, 0);
        return text.ToString();
    }

    private static void Entries(StringBuilder text, YamlNode.Mapping map, int indent)
    {
        foreach (var (key, value) in map.Entries) Entry(text.Append(' ', indent), key, value, indent);
    }

    private static void Entry(StringBuilder text, YamlNode.Scalar key, YamlNode value, int indent)
    {
        text.Append(Scalar(key)).Append(':');
        Value(text, value, indent);
    }

    private static void Value(StringBuilder text, YamlNode node, int indent)
    {
        switch (node)
        {
            case YamlNode.Scalar scalar:
                text.Append(' ').Append(Scalar(scalar)).Append('\n');
                break;
            case YamlNode.Mapping { Entries.Count: 0 }:
                text.Append(" {}\n");
                break;
            case YamlNode.Mapping map:
                text.Append('\n');
                Entries(text, map, indent + Step);
                break;
            case YamlNode.Sequence { Items.Count: 0 }:
                text.Append(" []\n");
                break;
            case YamlNode.Sequence sequence:
                text.Append('\n');
                foreach (var item in sequence.Items) Item(text.Append(' ', indent + Step).Append('-'), item, indent + Step);
                break;
        }
    }

    /// <summary>The first entry of a mapping stands beside the dash.</summary>
    private static void Item(StringBuilder text, YamlNode item, int indent)
    {
        if (item is not YamlNode.Mapping { Entries.Count: > 0 } map)
        {
            Value(text, item, indent);
            return;
        }

        var first = true;
        foreach (var (key, value) in map.Entries)
        {
            Entry(first ? text.Append(' ') : text.Append(' ', indent + Step), key, value, indent + Step);
            first = false;
        }
    }

    /// <summary>What was written without quotes is a number or a word, and means the same without them.</summary>
    private static string Scalar(YamlNode.Scalar scalar) => scalar.Plain ? scalar.Text : YamlText.Quoted(scalar.Text);
}
