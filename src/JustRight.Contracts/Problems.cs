namespace JustRight.Contracts;

/// <summary>An error as RFC 9457 problem details, with the positions of what is wrong in a user's file.</summary>
public sealed record ProblemView(string Type, string Title, int Status, string? Detail, IReadOnlyList<FaultView>? Faults);

/// <summary>One thing that is wrong in a file.</summary>
/// <param name="Line">From 1; 0 when it has no line.</param>
public sealed record FaultView(
    string Code, string File, int Line, int Column, string Field, string Message, string? Found, string? Expected,
    string? Nearest);
