using System.Globalization;
using JustRight.Cli.Api;

namespace JustRight.Cli.Commands;

/// <summary>Days as people type them.</summary>
internal static class Days
{
    /// <summary>A day such as 2027-06-01, or null for none.</summary>
    public static DateOnly? Read(string? text, string option) =>
        text is null ? null
            : DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day
            : throw new ClientException(
                ExitCode.BadInput, $"'{text}' is not a day.", $"Give {option} as year, month and day, such as 2027-06-01.");
}
