using System.Globalization;
using JustRight.Cli.Api;

namespace JustRight.Cli.Commands;

/// <summary>What a person types to choose from a numbered list: a number, or two with a hyphen between them.</summary>
internal static class NumberRange
{
    /// <summary>Reads one: from which number to which; null where it is none.</summary>
    /// <param name="most">The last number of the list.</param>
    public static (int First, int Last)? Read(string text, int most)
    {
        var ends = text.Trim().Split('-');
        return ends.Length <= 2 && int.TryParse(
            ends[0], NumberStyles.None, CultureInfo.InvariantCulture, out var first) && int.TryParse(
            ends[^1], NumberStyles.None, CultureInfo.InvariantCulture, out var last)
            && first >= 1 && last >= first && last <= most
            ? (first, last)
            : null;
    }

    /// <summary>All the numbers of ranges with commas between them; throws where one is none.</summary>
    public static IReadOnlySet<int> All(string text, int most, string option)
    {
        var numbers = new SortedSet<int>();
        foreach (var part in text.Split(','))
        {
            if (Read(part, most) is not var (first, last))
                throw new ClientException(
                    ExitCode.BadInput, $"{option}: '{part.Trim()}' names no steps.",
                    $"A number from 1 to {most}, or two with a hyphen between them; more with commas, such as 1,4-6.");
            numbers.UnionWith(Enumerable.Range(first, last - first + 1));
        }

        return numbers;
    }
}
