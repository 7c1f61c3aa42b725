using System.Text.Json;
using JustRight.Contracts;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Data.Summaries;

/// <summary>The line for an install, as it is kept and as it is told.</summary>
internal static class SummaryRowViews
{
    /// <summary>Keeps what was judged.</summary>
    /// <param name="basis">The hash of all that it rests on.</param>
    public static void Take(this SummaryRow row, MadeSummary made, string basis)
    {
        var (summary, counts) = (made.Summary, made.Summary.Fit);
        (row.Title, row.Simulated, row.Next, row.SurveyedAt) = (
            summary.Title, summary.Simulated, summary.Next, summary.SurveyedAt);
        (row.Missing, row.Pending, row.Unseen, row.Excess) = counts is null ? (0, 0, 0, 0)
            : (counts.Missing, counts.Pending, counts.Unseen, counts.Excess + counts.Forbidden);
        row.CountsJson = counts is null ? null : JsonSerializer.Serialize(counts, ContractsJson.Default.FitCountsView);
        row.RemarksJson = JsonSerializer.Serialize(summary.Remarks, ContractsJson.Default.IReadOnlyListString);
        (row.Basis, row.JudgedAt, row.HoldsUntil) = (basis, summary.JudgedAt, made.HoldsUntil);
        row.RemovableAt = made.Judged?.RemovableAt;
    }

    /// <summary>Tells what is kept.</summary>
    /// <param name="addedAt">When the install was last written.</param>
    /// <param name="addedBy">By whom.</param>
    /// <param name="isBeingJudged">Whether something changed since, so that it is being judged anew.</param>
    public static InstallSummary View(this SummaryRow row, DateTimeOffset addedAt, string addedBy, bool isBeingJudged) => new(
        row.Install, row.Sheet, row.Title, row.Estate, row.Stage, row.Simulated,
        row.CountsJson is { } counts ? JsonSerializer.Deserialize(counts, ContractsJson.Default.FitCountsView) : null,
        row.SurveyedAt, row.Next, addedAt, addedBy)
    {
        Remarks = JsonSerializer.Deserialize(row.RemarksJson, ContractsJson.Default.IReadOnlyListString)!,
        IsBeingJudged = isBeingJudged,
        JudgedAt = row.JudgedAt,
    };
}
