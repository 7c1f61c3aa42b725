using System.Globalization;
using JustRight.Core.Faults;

namespace JustRight.Formats.Yaml;

/// <summary>
/// Characters that a person does not see and that change what they see: control characters, and marks of writing direction
/// [UAX #9 2]. With them a document reads other than it is.
/// </summary>
internal static class HiddenCharacters
{
    /// <summary>The code of the fault.</summary>
    public const string Code = "hidden-character";

    private const string Directions = "\u061C\u200E\u200F\u202A\u202B\u202C\u202D\u202E\u2066\u2067\u2068\u2069";

    /// <summary>Whether a character is one; line ends and tabs are none.</summary>
    public static bool IsOne(char c) => char.IsControl(c) && c is not ('\n' or '\r' or '\t')
        || Directions.Contains(c) || c is '\u2028' or '\u2029';

    /// <summary>The faults of a text as it stands in a file: the first in each line.</summary>
    public static IEnumerable<Fault> In(string text, string file)
    {
        var line = 0;
        foreach (var row in text.Split('\n'))
        {
            line++;
            var at = Array.FindIndex(row.ToCharArray(), IsOne);
            if (at >= 0) yield return Fault(row[at], new Origin(file, line, at + 1));
        }
    }

    /// <summary>The fault of one.</summary>
    public static Fault Fault(char found, Origin at) => new(Code, at, "", "There is a character that is not seen.")
    {
        Found = string.Create(CultureInfo.InvariantCulture, $"U+{(int)found:X4}"),
        Expected = "text without control characters and marks of writing direction",
    };
}
