using System.Globalization;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
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
    private static readonly JsonSerializerOptions Json = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The text of the file, or of the list to type, with a line end at its end.</summary>
    public static string Write(SettingsForm form, IReadOnlyList<FilledField> fields) => form switch
    {
        SettingsForm.Ini => Ini(fields),
        SettingsForm.Env => Lines(fields, f => $"{f.Name}='{f.Value!.Replace("'", "'\\''", StringComparison.Ordinal)}'"),
        SettingsForm.Json => JsonText(fields),
        SettingsForm.Xml => Xml(fields),
        SettingsForm.Properties => Lines(fields, f => $"{Escaped(f.Name, true)}={Escaped(f.Value!, false)}"),
        _ => List(fields),
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
            SettingsForm.Json => Inside(names),
            SettingsForm.Ini =>
                names.FirstOrDefault(n => n.Count(c => c == '/') > 1 || n.AsSpan().ContainsAny("=[]\n")) is { } bad
                    ? $"'{bad}' is no section/name"
                    : null,
            _ => null,
        };
    }

    /// <summary>A value and a group of values cannot go by the same name.</summary>
    private static string? Inside(IReadOnlyList<string> names) =>
        names.FirstOrDefault(n => names.Any(m => m.StartsWith(n + "/", StringComparison.Ordinal))) is { } both
            ? $"'{both}' is both a value and a section"
            : null;

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

    private static string Ini(IReadOnlyList<FilledField> fields)
    {
        var text = new StringBuilder();
        foreach (var section in fields.GroupBy(f => f.Name.Contains(
            '/', StringComparison.Ordinal) ? f.Name.Split('/')[0] : "").OrderBy(s => s.Key.Length > 0))
        {
            if (text.Length > 0) text.Append('\n');
            if (section.Key.Length > 0) text.Append(CultureInfo.InvariantCulture, $"[{section.Key}]\n");
            foreach (var field in section)
            {
                var name = field.Name[(field.Name.IndexOf('/', StringComparison.Ordinal) + 1)..];
                text.Append(field.Value is null ? $"; {name}: not known yet\n" : $"{name} = {field.Value}\n");
            }
        }

        return text.ToString();
    }

    private static string JsonText(IReadOnlyList<FilledField> fields)
    {
        var root = new JsonObject();
        foreach (var field in fields)
        {
            var path = field.Name.Split('/');
            var at = root;
            foreach (var part in path[..^1]) at = (JsonObject)(at[part] ??= new JsonObject());
            at[path[^1]] = field.Value;
        }

        return root.ToJsonString(Json) + "\n";
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

            if (field.Value is null) at.Add(new XComment(" not known yet "));
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
