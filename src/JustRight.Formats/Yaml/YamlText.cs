using System.Text.Encodings.Web;
using System.Text.Json;

namespace JustRight.Formats.Yaml;

/// <summary>Texts as they stand in a YAML file that we write.</summary>
internal static class YamlText
{
    private static readonly JsonSerializerOptions Plainly = new() { Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping };

    /// <summary>A text in quotes: a JSON string is a YAML string [YAML 1.2.2, 1.3].</summary>
    public static string Quoted(string text) => JsonSerializer.Serialize(text, Plainly);

    /// <summary>A text as a comment of one line: whatever ends a line, or acts on a terminal, is a space.</summary>
    public static string Comment(string text) =>
        "# " + new string([.. text.Select(c => char.IsControl(c) || c is '\u2028' or '\u2029' ? ' ' : c)]).Trim();
}
