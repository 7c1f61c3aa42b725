using System.Text.Json;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Storage;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace JustRight.Service.Features.Installs;

/// <summary>Which installs of the list are asked for.</summary>
internal sealed class InstallFilter
{
    private const string Missing = "missing", Excess = "excess", Pending = "pending", Unseen = "unseen",
        NothingOff = "nothing-off",
        NotVerified = "not-verified";

    private static readonly string[] Fits = [Missing, Excess, Pending, Unseen, NothingOff, NotVerified];

    /// <summary>Only those of this estate.</summary>
    [FromQuery(Name = "estate")]
    public string? Estate { get; init; }

    /// <summary>Only those of this sheet.</summary>
    [FromQuery(Name = "sheet")]
    public string? Sheet { get; init; }

    /// <summary>Only those in this stage.</summary>
    [FromQuery(Name = "stage")]
    public string? Stage { get; init; }

    /// <summary>Only those of which the fit says this.</summary>
    [FromQuery(Name = "fit")]
    public string? Fit { get; init; }

    /// <summary>Why these cannot be told; null when they can.</summary>
    public ProblemHttpResult? WhyNot() =>
        Stage is { } stage && !StageWords.All.Contains(stage)
            ? Problems.Bad("stage", "This is not a stage of an install.", string.Join(", ", StageWords.All), stage,
                StageWords.All)
        : Fit is { } fit && !Fits.Contains(fit)
            ? Problems.Bad("fit", "The list cannot be filtered by this.", string.Join(", ", Fits), fit, Fits)
        : null;

    /// <summary>The same text for the same question, and no other.</summary>
    public override string ToString() => JsonSerializer.Serialize<string?[]>([Estate, Sheet, Stage, Fit]);

    /// <summary>Those of all that are asked for.</summary>
    public IQueryable<SummaryRow> Of(IQueryable<SummaryRow> all)
    {
        if (Estate is { } estate) all = all.Where(s => s.Estate == estate);
        if (Sheet is { } sheet) all = all.Where(s => s.Sheet == sheet);
        if (Stage is { } stage) all = all.Where(s => s.Stage == stage);
        return Fit switch
        {
            null => all,
            Missing => all.Where(s => s.Missing > 0),
            Excess => all.Where(s => s.Excess > 0),
            Pending => all.Where(s => s.Pending > 0),
            Unseen => all.Where(s => s.Unseen > 0),
            NothingOff => all.Where(s => s.CountsJson != null && s.Missing == 0 && s.Excess == 0),
            NotVerified => all.Where(s => s.CountsJson == null),
            { } other => throw new InvalidOperationException($"Unknown fit {other}."),
        };
    }
}
