namespace JustRight.Core.Rights;

/// <summary>Something that a right is a right in, and that was looked for and is not there: a database, a group.</summary>
/// <param name="What">What is not there, without an article.</param>
/// <param name="Nearest">What is there and is called nearly the same, or null.</param>
public sealed record AbsentThing(string What, string? Nearest);
