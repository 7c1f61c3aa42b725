using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Installs;

/// <summary>
/// What an install says that is not sound as a whole: as much as can be read of whom and what it is about. It decides nothing;
/// it only tells what must be left alone while the install cannot be planned.
/// </summary>
/// <param name="Product">Of the sheet; null when not said.</param>
/// <param name="Release">Of the sheet; null when not said.</param>
/// <param name="Estate">Null when not said.</param>
/// <param name="Stage">Null when not said.</param>
/// <param name="Names">The accounts and groups that it names.</param>
/// <param name="Places">The hosts, instances and databases that it names.</param>
public sealed record InstallOutline(
    string? Product, string? Release, string? Estate, string? Stage, IReadOnlyList<string> Names, IReadOnlyList<string> Places)
{
    private static readonly string[] NameKeys = ["name", "existing"];

    /// <summary>Reads what can be read; null when the file is no YAML mapping.</summary>
    public static InstallOutline? Read(ReadOnlySpan<byte> bytes, string file)
    {
        if (YamlReader.Read(bytes, file, []) is not { } root) return null;
        return FormerWords.Renew(root, InstallShape.Root) is YamlNode.Mapping map
            ? new InstallOutline(
                Text(map, "product"), Text(map, "release"), Text(map, "estate"), Text(map, "stage"),
                [.. Named(map, "accounts").Concat(Named(map, "groups"))],
                [.. Values(map["places"])])
            : null;
    }

    private static string? Text(YamlNode.Mapping map, string key) => (map[key] as YamlNode.Scalar)?.Text;

    private static IEnumerable<string> Named(YamlNode.Mapping map, string section) =>
        map[section] is YamlNode.Mapping named
            ? named.Entries.SelectMany(e => e.Value is YamlNode.Mapping choice
                ? NameKeys.Select(k => Text(choice, k)).OfType<string>()
                : Values(e.Value))
            : [];

    private static IEnumerable<string> Values(YamlNode? node) => node switch
    {
        YamlNode.Scalar scalar => [scalar.Text],
        YamlNode.Sequence sequence => sequence.Items.SelectMany(Values),
        YamlNode.Mapping mapping => mapping.Entries.SelectMany(e => Values(e.Value)),
        _ => [],
    };
}
