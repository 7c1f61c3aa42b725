using JustRight.Core.Changes;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Handovers;

/// <summary>
/// What one team is asked to do at one place, with all that is needed to decide, to do it, to check it and to take it back.
/// </summary>
/// <param name="Remove">Whether this takes away, instead of giving.</param>
/// <param name="Steps">The steps in order.</param>
/// <param name="Undo">What takes them all back, in order.</param>
public sealed record Handover(
    string Install, string Title, string Sheet, string Source, string Estate, Team Team, string Place, bool Remove,
    bool Simulated, DateTimeOffset SurveyedAt,
    IReadOnlyList<HandoverStep> Steps, IReadOnlyList<Change> Undo)
{
    /// <summary>
    /// The handovers whose steps come before some of these: accounts and groups named here may not be there until then.
    /// </summary>
    public IReadOnlyList<string> After { get; init; } = [];

    /// <summary>Whether it is for tasks, which a person does and no script.</summary>
    public bool ByHand { get; init; }

    /// <summary>The family of the database server, for a handover to its team; else null.</summary>
    public string? Engine { get; init; }

    /// <summary>The team it is for, in a word.</summary>
    public string TeamName => Team.ToString().ToLowerInvariant();
}

/// <summary>One step of a handover.</summary>
/// <param name="Number">Its number in the whole worklist.</param>
/// <param name="Why">What it is needed for.</param>
/// <param name="For">The accounts it serves: name and purpose.</param>
/// <param name="Least">What was considered so that no more is asked for than is needed.</param>
/// <param name="Note">What must be known before making it, or null.</param>
/// <param name="At">The line that asks for it.</param>
public sealed record HandoverStep(
    int Number, Change Change, string Why, IReadOnlyList<string> For, IReadOnlyList<string> Least, string? Note, Origin At);
