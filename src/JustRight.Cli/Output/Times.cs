using System.Globalization;

namespace JustRight.Cli.Output;

/// <summary>Times for people: exact, with their zone.</summary>
internal static class Times
{
    /// <summary>Local time with its offset from UTC.</summary>
    public static string Exact(DateTimeOffset time) => time.ToLocalTime().ToString("yyyy-MM-dd HH:mm:ss zzz", CultureInfo.InvariantCulture);
}
