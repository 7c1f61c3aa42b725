using JustRight.Core.Changes;

namespace JustRight.Core.Traces;

/// <summary>A way to fix a failure.</summary>
/// <param name="Id">Unique within the trace: <c>1-inherit</c>.</param>
/// <param name="Title">What it does, in one line.</param>
/// <param name="Changes">The changes, in order.</param>
/// <param name="Preview">What would be different afterwards.</param>
public sealed record Remedy(string Id, string Title, IReadOnlyList<DirectoryChange> Changes, RemedyPreview Preview);

/// <summary>What a remedy would change, for everybody.</summary>
/// <param name="Touched">The objects whose access list would change, by distinguished name.</param>
/// <param name="Fixed">How many of the failing objects would grant what is asked.</param>
/// <param name="StillFailing">How many would not.</param>
/// <param name="Gained">Rights that would flow in, with on how many objects they count.</param>
/// <param name="Lost">Rights that would go.</param>
/// <param name="Lists">The access lists of the places that change themselves, before and after.</param>
public sealed record RemedyPreview(
    IReadOnlyList<string> Touched, int Fixed, int StillFailing, IReadOnlyList<RightFlow> Gained, IReadOnlyList<RightFlow> Lost,
    IReadOnlyList<ListPreview> Lists);

/// <summary>One right that flows in or goes.</summary>
/// <param name="Who">Whose.</param>
/// <param name="What">What it lets them do, or forbids.</param>
/// <param name="Denies">Whether it forbids.</param>
/// <param name="Objects">On how many objects.</param>
public sealed record RightFlow(string Who, string What, bool Denies, int Objects);

/// <summary>One access list before and after, an entry a line.</summary>
public sealed record ListPreview(string Dn, IReadOnlyList<string> Before, IReadOnlyList<string> After);
