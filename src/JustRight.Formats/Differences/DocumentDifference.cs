namespace JustRight.Formats.Differences;

/// <summary>One thing that two texts of a document say differently.</summary>
/// <param name="Path">The keys that lead to it, such as <c>rules.two-person-approval</c>.</param>
/// <param name="Words">What changed, in words.</param>
/// <param name="MayLoosen">Whether more may be done after it than before. Only what is known not to loosen anything does
/// not.</param>
public sealed record DocumentDifference(string Path, string Words, bool MayLoosen);
