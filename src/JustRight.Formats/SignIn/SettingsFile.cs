using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;
using System.Xml.Linq;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Settings;

namespace JustRight.Formats.SignIn;

/// <summary>
/// Writes a product's settings in the form of its own file, every value escaped as that form wants it. Secrets stand in it as
/// references. What is not known yet is left out, and said in a comment where the form has those.
/// </summary>
public static partial class SettingsFile
{
    /// <summary>The text of the file, or of the list to type, with a line end at its end.</summary>
    public static string Write(SheetSettings settings, IReadOnlyList<FilledField> fields) => settings.Form switch
    {
        SettingsForm.List => List(fields),
        SettingsForm.Ini => IniText.Write(fields, settings.Ini),
        SettingsForm.Env => Lines(fields, f => $"{f.Name}='{f.Value!.Replace("'", "'\\''", StringComparison.Ordinal)}'"),
        SettingsForm.Json => TypedText.Json(fields),
        SettingsForm.Xml => Xml(fields),
        SettingsForm.Properties => Lines(fields, f => $"{Escaped(f.Name, true)}={Escaped(f.Value!, false)}"),
        SettingsForm.Yaml => TypedText.Yaml(fields),
    };

    /// <summary>
    /// What cannot be written so that the product reads it as it is meant, by the field, with the reason: it is left out of the
    /// file.
    /// </summary>
    public static IEnumerable<(FilledField Field, string Why)> Refused(SheetSettings settings, IReadOnlyList<FilledField> fields)
    {
        foreach (var field in fields)
            if (WhyNot(settings, field.Value) is { } why) yield return (field, why);
    }

    private static string? WhyNot(SheetSettings settings, string? value) => settings.Form switch
    {
        SettingsForm.Ini => IniText.WhyNot(value, settings.Ini),
        SettingsForm.Env or SettingsForm.Xml =>
            value?.Any(IsControl) == true ? "it has a control character, which such a file cannot hold" : null,
        SettingsForm.List or SettingsForm.Json or SettingsForm.Properties or SettingsForm.Yaml => null,
    };

    /// <summary>What is wrong with the names of fields for a form; null when nothing is.</summary>
    public static string? WhatIsWrong(SettingsForm form, IReadOnlyList<string> names)
    {
        if (names.GroupBy(n => n).FirstOrDefault(g => g.Count() > 1) is { } twice) return $"'{twice.Key}' stands twice";
        return form switch
        {
            SettingsForm.Env =>
                names.FirstOrDefault(n => !EnvironmentName().IsMatch(n)) is { } bad ? $"'{bad}' is not a variable name" : null,
            SettingsForm.Xml =>
                names.FirstOrDefault(n =>
                    !n.Split('/').All(p => ElementName().IsMatch(p))) is { } bad ? $"'{bad}' is not a path of elements"
                : names.Select(n => n.Split('/')[0]).Distinct()
                    .Count() > 1 ? "all names must begin with the same element" : Inside(names),
            SettingsForm.Json or SettingsForm.Yaml => Inside(names) ?? TypedText.WhatIsWrong(names),
            SettingsForm.Ini =>
                names.FirstOrDefault(n => n.Count(c => c == '/') > 1 || n.AsSpan().ContainsAny("=[]\n")) is { } bad
                    ? $"'{bad}' is no section/name"
                    : null,
            SettingsForm.List or SettingsForm.Properties => null,
        };
    }

    /// <summary>A value and a group of values cannot go by the same name.</summary>
    private static string? Inside(IReadOnlyList<string> names) =>
        names.FirstOrDefault(n => names.Any(m => m.StartsWith(n + "/", StringComparison.Ordinal))) is { } both
            ? $"'{both}' is both a value and a section"
            : null;

    private static bool IsControl(char c) => char.IsControl(c) && c is not '\n' and not '\t';

    private static string Lines(IReadOnlyList<FilledField> fields, Func<FilledField, string> line)
    {
        var text = new StringBuilder();
        foreach (var field in fields)
            text.Append(field.Value is null ? $"# {field.Name}: not known yet" : line(field)).Append('\n');
        return text.ToString();
    }

    private static string List(IReadOnlyList<FilledField> fields)
    {
        var width = fields.Count == 0 ? 0 : fields.Max(f => f.Name.Length);
        return string.Concat(
            fields.Select(f =>
                string.Create(CultureInfo.InvariantCulture, $"{f.Name.PadRight(width)}  {f.Value ?? "(not known yet)"}\n")));
    }

    private static string Xml(IReadOnlyList<FilledField> fields)
    {
        XElement? root = null;
        foreach (var field in fields)
        {
            var path = field.Name.Split('/');
            var at = root ??= new XElement(path[0]);
            foreach (var part in path[1..])
            {
                var next = at.Element(part);
                if (next is null) at.Add(next = new XElement(part));
                at = next;
            }

            if (field.Value is null || field.Value.Any(IsControl)) at.Add(new XComment(" not known yet "));
            else at.Value = field.Value;
        }

        return new XDeclaration("1.0", "utf-8", null) + "\n" + root + "\n";
    }

    /// <summary>
    /// The escapes of Java's properties: what separates, what begins a comment, leading space, and everything beyond ASCII.
    /// </summary>
    private static string Escaped(string text, bool isName)
    {
        var escaped = new StringBuilder();
        for (var i = 0; i < text.Length; i++)
        {
            var c = text[i];
            if (c is '\\' || (isName && c is '=' or ':' or ' ') || (i == 0 && c is ' ' or '#' or '!'))
                escaped.Append('\\').Append(c);
            else if (c is < ' ' or > '~') escaped.Append(CultureInfo.InvariantCulture, $"\\u{(int)c:x4}");
            else escaped.Append(c);
        }

        return escaped.ToString();
    }

    [GeneratedRegex(@"^[A-Za-z_][A-Za-z0-9_]*\z")]
    private static partial Regex EnvironmentName();

    [GeneratedRegex(@"^[A-Za-z_][A-Za-z0-9_.-]*\z")]
    private static partial Regex ElementName();
}
