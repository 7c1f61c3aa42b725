using System.Text;

namespace JustRight.Core.Surveys;

/// <summary>
/// A name of several parts as sheets write it: parted by dots; a part that holds a dot, a quote or a parenthesis, or begins or
/// ends with a space, stands in double quotes, a quote in it doubled.
/// </summary>
internal static class DottedName
{
    /// <summary>A part as it is written.</summary>
    public static string Part(string name) =>
        name.AsSpan().IndexOfAny("\".()") >= 0 || name != name.Trim()
            ? $"\"{name.Replace("\"", "\"\"", StringComparison.Ordinal)}\""
            : name;

    /// <summary>The parts of a name; empty when it cannot be taken apart.</summary>
    public static List<string> Parts(string text)
    {
        List<string> parts = [];
        var (part, at) = (new StringBuilder(), 0);
        while (at <= text.Length)
        {
            if (at < text.Length && text[at] == '"' && part.Length == 0)
            {
                for (at++; ; at++)
                {
                    if (at >= text.Length) return [];
                    if (text[at] != '"') part.Append(text[at]);
                    else if (at + 1 < text.Length && text[at + 1] == '"') part.Append(text[at++]);
                    else break;
                }

                if (++at < text.Length && text[at] != '.') return [];
            }

            if (at == text.Length || text[at] == '.')
            {
                if (part.Length == 0) return [];
                parts.Add(part.ToString());
                part.Clear();
            }
            else
            {
                part.Append(text[at]);
            }

            at++;
        }

        return parts;
    }
}
