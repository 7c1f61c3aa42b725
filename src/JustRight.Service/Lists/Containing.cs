using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Lists;

/// <summary>Looks for a text in others, in capital or small letters, as people type.</summary>
internal static class Containing
{
    /// <summary>For <see cref="DbFunctionsExtensions"/>: what stands before a sign that stands for itself.</summary>
    public const string Escape = "|";

    /// <summary>The pattern for a text in which nothing stands for anything else.</summary>
    public static string Pattern(string text) => "%" + text.Replace(Escape, Escape + Escape, StringComparison.Ordinal)
        .Replace("%", Escape + "%", StringComparison.Ordinal).Replace("_", Escape + "_", StringComparison.Ordinal) + "%";

    /// <summary>Whether a text is in one of others, in memory; true where nothing is looked for.</summary>
    public static bool In(string? text, params ReadOnlySpan<string?> others)
    {
        if (string.IsNullOrEmpty(text)) return true;
        foreach (var other in others)
            if (other?.Contains(text, StringComparison.OrdinalIgnoreCase) == true) return true;
        return false;
    }
}
