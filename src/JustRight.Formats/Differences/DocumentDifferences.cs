using System.Text;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Shapes;
using JustRight.Formats.Sheets;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Differences;

/// <summary>
/// What a replaced document says differently from the one before. Comments, order of keys and layout say nothing; nor does the
/// order of lists, where what matters is what is in them.
/// </summary>
public static class DocumentDifferences
{
    private const int LongestValue = 80;

    /// <summary>Texts for people, which no plan, no verdict and no connection rests on.</summary>
    private static readonly HashSet<string> ForPeople = ["title", "source", "description", "purpose", "why", "contact"];

    /// <summary>Lists of what is forbidden: what is added there only tightens.</summary>
    private static readonly HashSet<string> Forbidding = ["forbidden", "separate"];

    /// <summary>What two sheets say differently; empty when they say the same.</summary>
    public static IReadOnlyList<DocumentDifference> OfSheets(string before, string after) => Of(before, after, SheetShape.Root);

    /// <summary>What two estates say differently.</summary>
    public static IReadOnlyList<DocumentDifference> OfEstates(string before, string after) => Of(before, after, EstateShape.Root);

    /// <summary>What two installs say differently.</summary>
    public static IReadOnlyList<DocumentDifference> OfInstalls(string before, string after) =>
        Of(before, after, InstallShape.Root);

    private static List<DocumentDifference> Of(string before, string after, Shape shape)
    {
        var differences = new List<DocumentDifference>();
        if (Root(before, shape) is not { } old || Root(after, shape) is not { } now)
            differences.Add(new DocumentDifference("", "one of the two texts cannot be compared: it is no YAML", true));
        else Compare(old, now, "", differences);
        return differences;
    }

    private static YamlNode? Root(string text, Shape shape) =>
        YamlReader.Read(Encoding.UTF8.GetBytes(text), "", []) is { } root ? FormerWords.Renew(root, shape) : null;

    private static void Compare(YamlNode? old, YamlNode? now, string path, List<DocumentDifference> found)
    {
        switch (old, now)
        {
            case (null, null):
                break;
            case (YamlNode.Mapping a, YamlNode.Mapping b):
                foreach (var key in a.Entries.Concat(b.Entries).Select(e => e.Key.Text).Distinct(StringComparer.Ordinal))
                    Compare(a[key], b[key], path.Length == 0 ? key : $"{path}.{key}", found);
                break;
            case (YamlNode.Sequence a, YamlNode.Sequence b):
                CompareLists(a, b, path, found);
                break;
            case (null, { } added):
                found.Add(new DocumentDifference(path, $"{path}: {Short(added)} is new", MayLoosen(path, added: true)));
                break;
            case ({ } gone, null):
                found.Add(new DocumentDifference(path, $"{path}: was {Short(gone)}, is gone", MayLoosen(path, added: false)));
                break;
            case ({ } a, { } b) when Text(a) != Text(b):
                found.Add(new DocumentDifference(path, $"{path}: was {Short(a)}, is {Short(b)}", MayLoosen(path, added: false)));
                break;
        }
    }

    private static void CompareLists(YamlNode.Sequence a, YamlNode.Sequence b, string path, List<DocumentDifference> found)
    {
        var (old, now) = (a.Items.Select(Text).ToList(), b.Items.Select(Text).ToList());
        foreach (var gone in Without(a.Items, now))
            found.Add(new DocumentDifference(path, $"{path}: {Short(gone)} is gone", MayLoosen(path, added: false)));
        foreach (var added in Without(b.Items, old))
            found.Add(new DocumentDifference(path, $"{path}: {Short(added)} is new", MayLoosen(path, added: true)));
    }

    private static IEnumerable<YamlNode> Without(IReadOnlyList<YamlNode> items, List<string> others)
    {
        var left = new List<string>(others);
        return [.. items.Where(i => !left.Remove(Text(i)))];
    }

    private static bool MayLoosen(string path, bool added)
    {
        var keys = path.Split('.');
        return !ForPeople.Contains(keys[^1]) && !(added && keys.Any(Forbidding.Contains));
    }

    private static string Short(YamlNode node) =>
        Text(node) is { Length: <= LongestValue } text ? text : Text(node)[..LongestValue] + "…";

    /// <summary>A node on one line, its keys in order: the same for all ways to write the same.</summary>
    private static string Text(YamlNode node) => node switch
    {
        YamlNode.Scalar { Text: "" } => "nothing",
        YamlNode.Scalar scalar => scalar.Text,
        YamlNode.Sequence sequence => $"[{string.Join(", ", sequence.Items.Select(Text))}]",
        YamlNode.Mapping mapping =>
            string.Join(
            ", ", mapping.Entries.OrderBy(e => e.Key.Text, StringComparer.Ordinal).Select(
            e => $"{e.Key.Text} {Text(e.Value)}")),
        _ => throw new InvalidOperationException($"Unknown node {node.GetType().Name}."),
    };
}
