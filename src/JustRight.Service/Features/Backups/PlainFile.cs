namespace JustRight.Service.Features.Backups;

/// <summary>Names of files of one level.</summary>
internal static class PlainFile
{
    /// <summary>
    /// Whether a name is a file's, in the very folder that it is put in: letters, digits, <c>-</c>, <c>_</c> and dots
    /// between.
    /// </summary>
    public static bool IsName(string name) => name.Length is > 0 and <= 200 && name[0] != '.'
        && name.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.');
}
