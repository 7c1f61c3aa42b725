using JustRight.Contracts;

namespace JustRight.Service.Features.Reports;

/// <summary>What the reports of an install are made of.</summary>
/// <param name="Exceptions">Those that count now, and those that have ended.</param>
/// <param name="Reviews">The latest first.</param>
public sealed record InstallReport(
    FitView Fit, int FitNumber, IReadOnlyList<ExceptionView> Exceptions, IReadOnlyList<ReviewView> Reviews,
    DateTimeOffset WrittenAt, TimeZoneInfo Zone)
{
    /// <summary>The exceptions that count.</summary>
    public IEnumerable<ExceptionView> Standing => Exceptions.Where(e => e.Stands);

    /// <summary>Every right that was judged, a line each.</summary>
    public IEnumerable<ReportLine> Lines => Fit.Accounts.SelectMany(a => a.Rights.Select(r => new ReportLine(
        a.Name, a.Purpose, r.Right, r.Place, r.Verdict, r.Reason, r.Why ?? "", r.GivenBy == "setup" ? "the product's setup"
            : r.Team is null ? ""
            : $"the {r.Team} team",
        string.Join("; ", r.Paths.Select(PathWords)), Accepted(r.Accepted), r.At ?? "")));

    /// <summary>A time in the organization's time zone, with its offset.</summary>
    public string Time(DateTimeOffset at) =>
        TimeZoneInfo.ConvertTime(at, Zone).ToString("yyyy-MM-dd HH:mm zzz", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>An exception in words; empty for none.</summary>
    public string Accepted(AcceptedView? accepted) =>
        accepted is null ? "" : $"{accepted.By}, until {Until(accepted.LastDay, accepted.Until)}: {accepted.Why}";

    /// <summary>The last day on which something counts, or else the moment at which it ends.</summary>
    public string Until(DateOnly? lastDay, DateTimeOffset end) =>
        lastDay?.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture) ?? Time(end);

    /// <summary>A path in one line.</summary>
    public static string PathWords(PathView path) => string.Join(" → ", path.Steps.Select(s => s.Name));

    /// <summary>The sign of a verdict, so that no report speaks by color alone.</summary>
    public static string Sign(string verdict) =>
        verdict switch { "met" => "●", "missing" => "◁", "pending" => "‹", "unseen" => "?", "excess" => "▷", "forbidden" => "▶", _ => "–" };
}

/// <summary>One right of one account.</summary>
/// <param name="Held">Every path by which it is held.</param>
/// <param name="Accepted">The exception that covers it.</param>
/// <param name="AskedForAt">The line of the sheet, estate or install.</param>
public sealed record ReportLine(
    string Account, string Purpose, string Right, string Place, string Verdict, string Reason, string Why, string GivenBy,
    string Held, string Accepted, string AskedForAt)
{
    /// <summary>The heads of the columns, in the order of <see cref="Values"/>.</summary>
    public static IReadOnlyList<string> Heads { get; } = [
        "account", "purpose", "right", "place", "verdict", "because", "needed because", "given by", "held by", "accepted by",
        "asked for at"];

    /// <summary>The cells, in order.</summary>
    public IReadOnlyList<string> Values =>
        [Account, Purpose, Right, Place, Verdict, Reason, Why, GivenBy, Held, Accepted, AskedForAt];
}
