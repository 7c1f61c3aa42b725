using System.Globalization;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Releases of the SQL Server family: instances tell them by number, and people by year.</summary>
internal static class SqlServerRelease
{
    private static readonly (int Number, int Year)[] Years = [(13, 2016), (14, 2017), (15, 2019), (16, 2022), (17, 2025)];

    /// <summary>The number of a release as an instance tells it, such as <c>13.0.5026.0</c>; null when it was not told.</summary>
    public static int? Of(string told) =>
        int.TryParse(told.Split('.')[0], NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>What people call a release: <c>2022 (16)</c>.</summary>
    public static string Name(int number) =>
        Years.FirstOrDefault(y => y.Number == number) is { Year: > 0 and var year }
            ? string.Create(CultureInfo.InvariantCulture, $"{year} ({number})")
            : number.ToString(CultureInfo.InvariantCulture);
}
