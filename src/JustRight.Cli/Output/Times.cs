using System.Globalization;

namespace JustRight.Cli.Output;

/// <summary>Times for people: exact, with their zone.</summary>
internal static class Times
{
    /// <summary>The last day on which something counts, or else the moment at which it ends.</summary>
    public static string Until(DateOnly? lastDay, DateTimeOffset end) =>
        lastDay?.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture) ?? Exact(end);

    /// <summary>Local time with its offset from UTC.</summary>
    public static string Exact(DateTimeOffset time) =>
        time.ToLocalTime().ToString("yyyy-MM-dd HH:mm:ss zzz", CultureInfo.InvariantCulture);
}
