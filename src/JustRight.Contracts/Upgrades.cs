namespace JustRight.Contracts;

/// <summary>To which release of its product an install moves on.</summary>
/// <param name="To">The sheet: <c>thermograph@5.0</c>.</param>
/// <param name="File">The name of the file, where <paramref name="Text"/> is one; it is only shown.</param>
/// <param name="Text">
/// The install whole as it is to be under the other release; what the install says now, as far as it says something there, unless
/// given.
/// </param>
/// <param name="Said">
/// Answers to what the other release asks anew, by field (<c>places.web-server</c>); none where a text is given.
/// </param>
public sealed record UpgradeOrder(
    string To, string? File, string? Text, IReadOnlyDictionary<string, IReadOnlyList<string>>? Said);

/// <summary>What moving on to another release means for an install.</summary>
/// <param name="Install">The install.</param>
/// <param name="From">The sheet it follows.</param>
/// <param name="To">The sheet it would follow.</param>
/// <param name="Former">
/// The install that would keep what the former release needs, until it is retired; null where nothing was given yet.
/// </param>
/// <param name="Text">The install as it would be.</param>
/// <param name="LeftOut">What the install says now and what says nothing under the other release.</param>
/// <param name="Asked">What the other release asks anew; while anything is asked, nothing more can be told.</param>
/// <param name="Differences">What is needed anew, no more and differently.</param>
/// <param name="Give">
/// The steps that would be left to do, by the latest survey; null while there is none. What the former release alone needs is not
/// removed before that is retired.
/// </param>
public sealed record UpgradeView(
    string Install, string From, string To, string? Former, string Text, IReadOnlyList<string> LeftOut,
    IReadOnlyList<AskedView> Asked, IReadOnlyList<NeedDifferenceView> Differences, IReadOnlyList<StepView>? Give);

/// <summary>Something that two releases do not need alike.</summary>
/// <param name="Change">How the need of the one stands to the other's.</param>
/// <param name="Subject">The account or group, by name.</param>
/// <param name="What">The account, the group, or a right of the account.</param>
/// <param name="Place">Where it is a right; empty for accounts and groups.</param>
/// <param name="How">For what is needed differently: what was, and what is. Empty otherwise.</param>
/// <param name="At">The line of the sheet that asks for it, or that did.</param>
public sealed record NeedDifferenceView(
    [property: NeedChangeWord] string Change, string Subject, string What, string Place, string How, string At);
