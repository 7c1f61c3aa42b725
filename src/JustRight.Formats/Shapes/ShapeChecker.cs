using System.Text.RegularExpressions;
using JustRight.Core.Faults;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Shapes;

/// <summary>Checks a document against its shape and reports every fault.</summary>
internal static class ShapeChecker
{
    /// <summary>The code of a fault that is a key which this release does not know.</summary>
    public const string UnknownKey = "unknown-key";

    private static readonly string[] YesWords = ["yes", "no", "true", "false"];

    /// <summary>Adds the faults of a node.</summary>
    public static void Check(YamlNode node, Shape shape, string field, List<Fault> faults)
    {
        switch (shape)
        {
            case Shape.Ref reference:
                Check(node, reference.Target(), field, faults);
                break;
            case Shape.Map map when node is YamlNode.Mapping mapping:
                CheckMap(mapping, map, field, faults);
                break;
            case Shape.Named named when node is YamlNode.Mapping mapping:
                foreach (var (key, value) in mapping.Entries)
                {
                    if (!Matches(key.Text, named.KeyPattern))
                        faults.Add(new Fault(
                            "name", key.At, Join(field, key.Text),
                            $"'{key.Text}' cannot be a name here.")
                        { Expected = named.KeySays });
                    Check(value, named.Value, Join(field, key.Text), faults);
                }

                break;
            case Shape.List list when node is YamlNode.Sequence sequence:
                for (var i = 0; i < sequence.Items.Count; i++) Check(sequence.Items[i], list.Item, $"{field}[{i}]", faults);
                break;
            case Shape.List { OneWillDo: true } list:
                Check(node, list.Item, field, faults);
                break;
            case Shape.Text or Shape.YesNo or Shape.Number when node is YamlNode.Scalar scalar:
                CheckScalar(scalar, shape, field, faults);
                break;
            default:
                faults.Add(new Fault(
                    "wrong-type", node.At, field,
                    field.Length == 0 ? "This file is of the wrong kind." : $"'{Last(field)}' is of the wrong type.")
                {
                    Found = node.Kind,
                    Expected = Words(shape),
                });
                break;
        }
    }

    private static void CheckMap(YamlNode.Mapping mapping, Shape.Map map, string field, List<Fault> faults)
    {
        foreach (var (key, value) in mapping.Entries)
        {
            if (map.Keys.FirstOrDefault(k => k.Name == key.Text) is { } known)
            {
                Check(value, known.Shape, Join(field, key.Text), faults);
                continue;
            }

            if (FormerWords.KeyOfToday(key.Text, map) is { } today)
            {
                faults.Add(new Fault("former-key", key.At, Join(field, key.Text), $"'{key.Text}' is called '{today}' now.")
                {
                    Expected = today,
                });
                continue;
            }

            faults.Add(new Fault(UnknownKey, key.At, Join(field, key.Text), $"'{key.Text}' is not a known key here.")
            {
                Expected = IsTornText(key, value)
                    ? "quotes around a text with a comma, inside { }"
                    : "one of " + string.Join(", ", map.Keys.Select(k => k.Name)),
                Nearest = Spelling.Nearest(key.Text, map.Keys.Select(k => k.Name)),
            });
        }

        foreach (var key in map.Keys.Where(k => k.Required && mapping[k.Name] is null))
            faults.Add(new Fault(
                "missing-key", mapping.At, Join(field, key.Name),
                $"'{key.Name}' is missing.")
            { Expected = $"{key.Name}: {key.Shape.Summary}" });
        if (map.ExactlyOneOf.Count == 0) return;
        var present = mapping.Entries.Where(e => map.ExactlyOneOf.Contains(e.Key.Text)).ToList();
        if (present.Count == 0)
            faults.Add(new Fault(
                "missing-key", mapping.At, field,
                "This says no right.")
            { Expected = "one of " + string.Join(", ", map.ExactlyOneOf) });
        else if (present.Count > 1)
            faults.Add(new Fault(
                "two-kinds", present[1].Key.At, Join(field, present[1].Key.Text),
                $"'{present[0].Key.Text}' and '{present[1].Key.Text}' cannot be used together.")
            {
                Expected = "one right an entry",
            });
    }

    /// <summary>Inside <c>{ }</c> a comma ends a text, and the rest of it looks like a key without a value.</summary>
    private static bool IsTornText(YamlNode.Scalar key, YamlNode value) =>
        key.Text.Contains(' ', StringComparison.Ordinal) && value is YamlNode.Scalar { Text: "" };

    private static void CheckScalar(YamlNode.Scalar scalar, Shape shape, string field, List<Fault> faults)
    {
        switch (shape)
        {
            case Shape.Text { OneOf: { } values } when FormerWords.ValueOfToday(Last(field), scalar.Text, values) is { } today:
                faults.Add(new Fault(
                    "former-value", scalar.At, field, $"'{scalar.Text}' is called '{today}' now.")
                { Expected = today });
                break;
            case Shape.Text { OneOf: { } values } when !values.Contains(scalar.Text):
                Wrong(string.Join(", ", values), Spelling.Nearest(scalar.Text, values));
                break;
            case Shape.Text { OneOf: null, MayBeEmpty: false } when scalar.Text.Trim().Length == 0:
                Wrong(shape.Summary, null);
                break;
            case Shape.Text { Pattern: { } pattern } text when !Matches(scalar.Text, pattern):
                Wrong(text.Says ?? pattern, null);
                break;
            case Shape.YesNo when !YesWords.Contains(scalar.Text):
                Wrong("yes or no", null);
                break;
            case Shape.Number number when !int.TryParse(scalar.Text, out var value) || value < number.Least
                || value > number.Most:
                Wrong($"a whole number from {number.Least} to {number.Most}", null);
                break;
        }

        void Wrong(string expected, string? nearest) =>
            faults.Add(new Fault(
                "wrong-value", scalar.At, field,
                $"'{Last(field)}' has an invalid value.")
            {
                Found = $"'{Short(scalar.Text)}'",
                Expected = expected,
                Nearest = nearest,
            });
    }

    private static string Words(Shape shape) => shape switch
    {
        Shape.Ref reference => Words(reference.Target()),
        Shape.Map or Shape.Named => "a mapping of keys and values",
        Shape.List => "a list",
        Shape.YesNo => "yes or no",
        Shape.Number => "a number",
        _ => "a text",
    };

    private static bool Matches(string text, string pattern) =>
        Regex.IsMatch(text, $"^(?:{pattern})$", RegexOptions.CultureInvariant, TimeSpan.FromSeconds(1));

    private static string Short(string text) => text.Length <= 60 ? text : text[..60] + "…";

    private static string Join(string field, string key) => field.Length == 0 ? key : $"{field}.{key}";

    private static string Last(string field) => field[(field.LastIndexOf('.') + 1)..];
}
