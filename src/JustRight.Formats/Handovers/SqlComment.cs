using System.Globalization;
using System.Text;

namespace JustRight.Formats.Handovers;

/// <summary>Comments in scripts for database servers.</summary>
internal static class SqlComment
{
    private const int Width = 110;

    /// <summary>A comment to the end of the line; whatever could end the line, or turn its direction, is taken out.</summary>
    public static string Of(string text) => "-- " + string.Concat(text.Select(c => IsBreaking(c) ? ' ' : c));

    private static bool IsBreaking(char c) => char.IsControl(c) || CharUnicodeInfo.GetUnicodeCategory(c)
        is UnicodeCategory.LineSeparator or UnicodeCategory.ParagraphSeparator or UnicodeCategory.Format;

    /// <summary>The lines at the head of a script, broken where they are long.</summary>
    public static StringBuilder Head(IEnumerable<string> lines)
    {
        var text = new StringBuilder();
        foreach (var line in lines)
        {
            var row = new StringBuilder();
            foreach (var word in line.Split(' '))
            {
                if (row.Length > 0 && row.Length + word.Length >= Width)
                {
                    text.AppendLine(Of(row.ToString()));
                    row.Clear();
                }

                row.Append(row.Length > 0 ? " " : "").Append(word);
            }

            text.AppendLine(Of(row.ToString()));
        }

        return text;
    }
}
