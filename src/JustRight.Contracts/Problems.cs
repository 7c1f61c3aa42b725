namespace JustRight.Contracts;

/// <summary>An error as RFC 9457 problem details, with the positions of what is wrong in a user's file.</summary>
/// <param name="Type">A stable word below <c>urn:justright:</c>.</param>
/// <param name="Title">What is wrong, in one sentence.</param>
/// <param name="Status">The HTTP status.</param>
/// <param name="Detail">What to do, or null.</param>
/// <param name="Faults">What is wrong in a file, place by place; null where it is about none.</param>
public sealed record ProblemView(string Type, string Title, int Status, string? Detail, IReadOnlyList<FaultView>? Faults);

/// <summary>One thing that is wrong in a file.</summary>
/// <param name="Code">A stable word for this kind of fault.</param>
/// <param name="File">The file, as it was sent.</param>
/// <param name="Line">From 1; 0 when it has no line.</param>
/// <param name="Column">From 1; 0 when it has none.</param>
/// <param name="Field">The field, as a path from the top of the document.</param>
/// <param name="Message">What is wrong, in one sentence.</param>
/// <param name="Found">What stands there, or null.</param>
/// <param name="Expected">What may stand there, or null.</param>
/// <param name="Nearest">What was probably meant, or null.</param>
public sealed record FaultView(
    string Code, string File, int Line, int Column, string Field, string Message, string? Found, string? Expected,
    string? Nearest);
