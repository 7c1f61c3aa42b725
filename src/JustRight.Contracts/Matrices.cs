namespace JustRight.Contracts;

/// <summary>The matrix of an install: accounts as rows, places as columns, rights that are alike in a cell as one line.</summary>
/// <param name="Install">The install.</param>
/// <param name="Sheet">The sheet that says what it needs.</param>
/// <param name="Title">Its name in full.</param>
/// <param name="Estate">The estate it is in.</param>
/// <param name="Simulated">Whether its estate is the simulation.</param>
/// <param name="SurveyedAt">When the estate was read.</param>
/// <param name="Total">How many rights the fit has verdicts on.</param>
/// <param name="Shown">How many of them were asked for.</param>
/// <param name="Columns">
/// The domain, the places in the order of the sheet, then where else rights were found; many of those are one column.
/// </param>
/// <param name="Rows">The accounts; where something was asked for, those with a right that matches.</param>
/// <param name="Findings">What was found at places and is no account's.</param>
/// <param name="Unseen">What could not be read, each with the reason.</param>
/// <param name="Decisions">Choices among alternatives.</param>
/// <param name="Notes">What the plan notes.</param>
public sealed record MatrixView(
    string Install, string Sheet, string Title, string Estate, bool Simulated, DateTimeOffset SurveyedAt, int Total, int Shown,
    IReadOnlyList<MatrixColumnView> Columns, IReadOnlyList<MatrixRowView> Rows, IReadOnlyList<FindingView> Findings,
    IReadOnlyList<UnreadPartView> Unseen, IReadOnlyList<DecisionView> Decisions, IReadOnlyList<string> Notes);

/// <summary>A column of a matrix.</summary>
/// <param name="Name">The place, domain, host or instance; <c>elsewhere</c> for many that the sheet does not name.</param>
/// <param name="Counts">How many of its rights that were asked for have which verdict.</param>
public sealed record MatrixColumnView(string Name, FitCountsView Counts);

/// <summary>A row of a matrix.</summary>
/// <param name="Key">The key of the account in the sheet.</param>
/// <param name="Name">Its logon name.</param>
/// <param name="Purpose">What it is for.</param>
/// <param name="Counts">How many of all its rights have which verdict.</param>
/// <param name="Lines">Its rights, in the order of the fit.</param>
public sealed record MatrixRowView(
    string Key, string Name, string Purpose, FitCountsView Counts, IReadOnlyList<MatrixLineView> Lines);

/// <summary>Rights of one name in a cell.</summary>
/// <param name="Column">The column of the cell.</param>
/// <param name="Right">The right, in words.</param>
/// <param name="Count">How many there are; they differ in the spot where they hold.</param>
/// <param name="Verdicts">How many of them have which verdict.</param>
/// <param name="Rights">
/// All of them where they are few; otherwise some of those that are off, where not all are off alike.
/// </param>
public sealed record MatrixLineView(
    string Column, string Right, int Count, IReadOnlyList<VerdictCountView> Verdicts, IReadOnlyList<JudgementView> Rights);

/// <summary>How many rights have a verdict.</summary>
/// <param name="Verdict">The verdict.</param>
/// <param name="Count">How many.</param>
public sealed record VerdictCountView([property: VerdictWord] string Verdict, int Count);
