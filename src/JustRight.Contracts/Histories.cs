using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A fit of an install that was other than the one before it.</summary>
/// <param name="Number">Counted from 1 within the install.</param>
/// <param name="From">The first survey that showed it.</param>
/// <param name="Until">The last survey that showed it.</param>
/// <param name="Seen">How many surveys showed it.</param>
/// <param name="Counts">How many rights had which verdict.</param>
public sealed record KeptFitView(int Number, DateTimeOffset From, DateTimeOffset Until, int Seen, FitCountsView Counts);

/// <summary>What is different between two fits of an install.</summary>
/// <param name="Install">The install.</param>
/// <param name="From">The earlier fit.</param>
/// <param name="To">The later one.</param>
/// <param name="Lines">What is different.</param>
public sealed record DriftView(string Install, KeptFitView From, KeptFitView To, IReadOnlyList<DriftLineView> Lines);

/// <summary>One difference.</summary>
/// <param name="Way"><c>worse</c>, <c>other</c> or <c>better</c>.</param>
/// <param name="Account">The account's logon name; empty where it is no account's.</param>
/// <param name="Right">The right, in words.</param>
/// <param name="Words">What it was, and what it is.</param>
/// <param name="MadeHere">The step of ours that made it, with who and when; null where none is known.</param>
public sealed record DriftLineView(
    [property: AllowedValues("worse", "other", "better")] string Way, string Account, string Right, string Words,
    string? MadeHere);
