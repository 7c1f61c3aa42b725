using JustRight.Core.Sheets;

namespace JustRight.Core.Drafts;

/// <summary>What the drafter of a sheet says of the product.</summary>
/// <param name="Product">The product as one word.</param>
/// <param name="Release">Its release.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Source">Where the table is from.</param>
public sealed record DraftOf(string Product, string Release, string Title, string Source);

/// <summary>What a person must look at: a row that was not understood, or only in part.</summary>
/// <param name="Row">Its number in the table.</param>
/// <param name="Account">The key of the account that it is about; null where that is the question.</param>
/// <param name="Text">What stands there.</param>
/// <param name="Asks">What is not known of it.</param>
public sealed record DraftQuestion(int Row, string? Account, string Text, string Asks);

/// <summary>A place of the draft.</summary>
public sealed record DraftPlaceOf(string Key, PlaceKind Kind);

/// <summary>A need of the draft.</summary>
/// <param name="Place">The key of its place; null for a kind that has none.</param>
public sealed record DraftNeed(int Row, ReadRight Right, string? Place, bool UntilInstalled, bool GivenBySetup, string Why);

/// <summary>An account of the draft.</summary>
/// <param name="Called">What the table calls it.</param>
public sealed record DraftAccountOf(string Key, string Called, IReadOnlyList<DraftNeed> Needs);

/// <summary>A sheet as far as a table could be understood, and what was not.</summary>
/// <param name="Rows">How many rows the table has.</param>
/// <param name="Read">How many of them were understood whole.</param>
public sealed record SheetDraft(
    DraftOf Of, IReadOnlyList<DraftPlaceOf> Places, IReadOnlyList<DraftAccountOf> Accounts,
    IReadOnlyList<DraftQuestion> Questions, int Rows, int Read);
