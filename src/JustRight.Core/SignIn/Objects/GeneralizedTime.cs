using System.Globalization;
using System.Text.RegularExpressions;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Generalized time [RFC 4517 3.3.13]: from the year to the hour, minutes and seconds or none, a fraction of the last of them,
/// and <c>Z</c> or the difference from UTC.
/// </summary>
internal static partial class GeneralizedTime
{
    /// <summary>The moment in UTC; null for what is none.</summary>
    public static DateTime? Read(string text)
    {
        var parts = Form().Match(text);
        if (!parts.Success) return null;
        int Part(string name, int otherwise = 0) =>
            parts.Groups[name] is { Success: true } part ? int.Parse(part.Value, CultureInfo.InvariantCulture) : otherwise;

        var (year, month, day) = (Part("year"), Part("month"), Part("day"));
        if (year == 0 || day > DateTime.DaysInMonth(year, month)) return null;
        var moment = new DateTime(year, month, day, Part("hour"), 0, 0, DateTimeKind.Utc)
            .AddMinutes(Part("minute")).AddSeconds(Part("second")); // a leap second is the next one
        if (parts.Groups["fraction"] is { Success: true } fraction)
        {
            var unit = parts.Groups["second"].Success ? TimeSpan.TicksPerSecond
                : parts.Groups["minute"].Success ? TimeSpan.TicksPerMinute : TimeSpan.TicksPerHour;
            var digits = fraction.Value[..Math.Min(fraction.Length, 20)];
            moment = moment.AddTicks((long)(decimal.Parse("0." + digits, CultureInfo.InvariantCulture) * unit));
        }

        var away = new TimeSpan(Part("awayHours"), Part("awayMinutes"), 0);
        try
        {
            return parts.Groups["sign"].Value == "-" ? moment + away : moment - away;
        }
        catch (ArgumentOutOfRangeException)
        {
            return null;
        }
    }

    [GeneratedRegex(
        @"^(?<year>[0-9]{4})(?<month>0[1-9]|1[0-2])(?<day>0[1-9]|[12][0-9]|3[01])(?<hour>[01][0-9]|2[0-3])"
        + @"((?<minute>[0-5][0-9])(?<second>[0-5][0-9]|60)?)?([.,](?<fraction>[0-9]+))?"
        + @"(Z|(?<sign>[+-])(?<awayHours>[01][0-9]|2[0-3])(?<awayMinutes>[0-5][0-9])?)\z")]
    private static partial Regex Form();
}
