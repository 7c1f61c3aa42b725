namespace JustRight.Core.Fit.Drift;

/// <summary>Something that got worse at an install.</summary>
/// <param name="MadeHere">The step of ours that made it so, and who had it made; null when none is known to have.</param>
public sealed record WorseLine(string Install, DriftLine Line, string? MadeHere);
