namespace JustRight.Contracts;

/// <summary>What one team is asked to do at one place.</summary>
/// <param name="Install">The install it is for.</param>
/// <param name="Team">The team.</param>
/// <param name="Place">Where it is to be done.</param>
/// <param name="Remove">Whether this takes away, instead of giving.</param>
/// <param name="Simulated">Whether the estate is the simulation.</param>
/// <param name="SurveyedAt">When the estate was read.</param>
/// <param name="Folder">The name of the bundle's folder.</param>
/// <param name="Lead">What this is, in one paragraph.</param>
/// <param name="Steps">What is asked for, in order.</param>
/// <param name="HowTo">How to carry it out.</param>
/// <param name="Undo">What takes it back, in order.</param>
/// <param name="Files">The names of the bundle's files.</param>
public sealed record HandoverView(
    string Install, [property: TeamWord] string Team, string Place, bool Remove, bool Simulated, DateTimeOffset SurveyedAt,
    string Folder, string Lead, IReadOnlyList<HandoverStepView> Steps, IReadOnlyList<string> HowTo, IReadOnlyList<string> Undo,
    IReadOnlyList<string> Files);

/// <summary>One step of a handover.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Words">What is to be done, in one line.</param>
/// <param name="Why">What needs it.</param>
/// <param name="For">The rights it gives or takes away.</param>
/// <param name="Least">What was considered so that no more is asked for than is needed.</param>
/// <param name="Details">What the change is in full, where its words do not say it.</param>
/// <param name="Note">What must be known before making it, or null.</param>
/// <param name="At">The line of the sheet that asks for it.</param>
public sealed record HandoverStepView(
    int Number, string Words, string Why, IReadOnlyList<string> For, IReadOnlyList<string> Least,
    IReadOnlyList<string> Details, string? Note, string At);
