using System.Globalization;
using System.Text;
using JustRight.Core.Faults;
using JustRight.Formats.Shapes;

namespace JustRight.Formats.Yaml;

/// <summary>Reads a file of ours and holds it against its shape; and the accessors binders use on what passed.</summary>
internal static class DocumentReader
{
    /// <summary>The root of a sound document; null when there are faults.</summary>
    /// <param name="remarks">
    /// Null for a document that is new. For one that was stored by an earlier release: its words are read on, and what it says
    /// beyond what this release knows is left aside and noted here.
    /// </param>
    public static YamlNode.Mapping? Read(
        ReadOnlySpan<byte> bytes, string file, Shape.Map shape, List<Fault>? remarks, List<Fault> faults)
    {
        if (YamlReader.Read(bytes, file, faults) is not { } root) return null;
        if (remarks is not null) root = FormerWords.Renew(root, shape);
        ShapeChecker.Check(root, shape, "", faults);
        if (remarks is not null)
        {
            remarks.AddRange(faults.Where(IsRemark));
            faults.RemoveAll(IsRemark);
        }

        if (faults.Count == 0) return (YamlNode.Mapping)root;
        faults.Sort((a, b) => (a.At.Line, a.At.Column).CompareTo((b.At.Line, b.At.Column)));
        return null;
    }

    /// <summary>The root of a text that was stored, also by an earlier release, in the words of today.</summary>
    public static YamlNode.Mapping Stored(string text, string file, Shape.Map shape)
    {
        var faults = new List<Fault>();
        return Read(Encoding.UTF8.GetBytes(text), file, shape, [], faults) ?? throw new FaultException(faults);
    }

    private static bool IsRemark(Fault fault) => fault.Code is ShapeChecker.UnknownKey or HiddenCharacters.Code;

    /// <summary>The text of a required key.</summary>
    public static string Text(this YamlNode.Mapping map, string key) => ((YamlNode.Scalar)map[key]!).Text;

    /// <summary>The text of a key, or a default.</summary>
    public static string TextOr(this YamlNode.Mapping map, string key, string otherwise) => map.TextOrNull(key) ?? otherwise;

    /// <summary>The text of a key, or null.</summary>
    public static string? TextOrNull(this YamlNode.Mapping map, string key) => (map[key] as YamlNode.Scalar)?.Text;

    /// <summary>A whole number that the shape has checked, or null where the key does not stand.</summary>
    public static int? NumberOrNull(this YamlNode.Mapping map, string key) =>
        map.TextOrNull(key) is { } text ? int.Parse(text, CultureInfo.InvariantCulture) : null;

    /// <summary>A yes or no; no when absent.</summary>
    public static bool YesNo(this YamlNode.Mapping map, string key) => map.TextOrNull(key) is "yes" or "true";

    /// <summary>A list of texts; one alone counts as a list of one.</summary>
    public static IReadOnlyList<string> List(this YamlNode.Mapping map, string key) => map[key] switch
    {
        YamlNode.Sequence sequence => [.. sequence.Items.Cast<YamlNode.Scalar>().Select(s => s.Text)],
        YamlNode.Scalar scalar => [scalar.Text],
        _ => [],
    };

    /// <summary>A list of mappings.</summary>
    public static IEnumerable<YamlNode.Mapping> Maps(this YamlNode.Mapping map, string key) =>
        map[key] is YamlNode.Sequence sequence ? sequence.Items.Cast<YamlNode.Mapping>() : [];

    /// <summary>The entries of a mapping of mappings.</summary>
    public static IEnumerable<(YamlNode.Scalar Key, YamlNode.Mapping Value)> Named(this YamlNode.Mapping map, string key) =>
        map[key] is YamlNode.Mapping inner ? inner.Entries.Select(e => (e.Key, (YamlNode.Mapping)e.Value)) : [];

    /// <summary>The entries of a mapping of texts.</summary>
    public static IEnumerable<(YamlNode.Scalar Key, YamlNode.Scalar Value)> Texts(this YamlNode.Mapping map, string key) =>
        map[key] is YamlNode.Mapping inner ? inner.Entries.Select(e => (e.Key, (YamlNode.Scalar)e.Value)) : [];
}
