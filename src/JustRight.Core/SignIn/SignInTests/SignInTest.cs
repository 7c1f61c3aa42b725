namespace JustRight.Core.SignIn.SignInTests;

/// <summary>What a check of a sign-in test came to.</summary>
public enum CheckVerdict
{
    /// <summary>It is as it should be.</summary>
    Pass,

    /// <summary>It is not.</summary>
    Fail,

    /// <summary>It could not be seen.</summary>
    Unseen,

    /// <summary>People can sign in; it is worth a thought.</summary>
    Caution,
}

/// <summary>One check of a sign-in test.</summary>
/// <param name="Id">Stable, for programs.</param>
/// <param name="Asks">What it asks.</param>
/// <param name="Cause">What is behind it; null when it passes.</param>
/// <param name="Fact">What was found.</param>
/// <param name="Fix">What would fix it; null when nothing need be.</param>
public sealed record SignInCheck(
    string Id, string Asks, CheckVerdict Verdict, SignInCause? Cause, string Fact, string? Fix)
{
    /// <summary>How long it took; null when that was not measured.</summary>
    public TimeSpan? Took { get; init; }

    /// <summary>A check that passes.</summary>
    public static SignInCheck Pass(string id, string asks, string fact, string? fix = null) =>
        new(id, asks, CheckVerdict.Pass, null, fact, fix);

    /// <summary>A check that fails.</summary>
    public static SignInCheck Fail(string id, string asks, SignInCause cause, string fact, string fix) =>
        new(id, asks, CheckVerdict.Fail, cause, fact, fix);
}

/// <summary>A name that is in one list and not in the other.</summary>
/// <param name="Why">Why it was not found, where the directory says; or null.</param>
public sealed record NamedDifference(string Name, WhyAbsent? Why);

/// <summary>Why somebody is not found, or not let in.</summary>
public sealed record WhyAbsent(SignInCause Cause, string Words);

/// <summary>Who was expected and who was found.</summary>
/// <param name="Expected">How many were expected; null when that is not known.</param>
/// <param name="Found">How many were found.</param>
/// <param name="Missing">Expected by name and not found.</param>
/// <param name="Extra">Found and not expected by name; empty when only a number was expected.</param>
public sealed record FoundAndExpected(
    int? Expected, int Found, IReadOnlyList<NamedDifference> Missing, IReadOnlyList<NamedDifference> Extra)
{
    /// <summary>Whether what was found is what was expected; null when nothing was expected.</summary>
    public bool? Agrees => Expected is null ? null : Expected == Found && Missing.Count == 0 && Extra.Count == 0;

    /// <summary>Compares names without regard to case.</summary>
    /// <param name="expectedNames">The names expected; empty when only a number is.</param>
    /// <param name="why">Why a name that was expected was not found, or null.</param>
    public static FoundAndExpected Compare(
        int? expected, IReadOnlyList<string> expectedNames, IReadOnlyCollection<string> found, Func<string, WhyAbsent?> why)
    {
        if (expectedNames.Count == 0) return new FoundAndExpected(expected, found.Count, [], []);
        var wanted = expectedNames.ToHashSet(StringComparer.OrdinalIgnoreCase);
        var there = found.ToHashSet(StringComparer.OrdinalIgnoreCase);
        return new FoundAndExpected(
            expected ?? wanted.Count, found.Count,
            [.. wanted.Where(n => !there.Contains(n)).Order(StringComparer.OrdinalIgnoreCase).Select(n =>
                new NamedDifference(n, why(n)))],
            [.. there.Where(n => !wanted.Contains(n)).Order(StringComparer.OrdinalIgnoreCase).Select(n =>
                new NamedDifference(n, null))]);
    }
}

/// <summary>
/// A sign-in test of a product's sign-in: everything that it will do, done once, and what the account that it binds as could do
/// besides.
/// </summary>
/// <param name="Install">The install.</param>
/// <param name="Directory">The estate's key of the directory.</param>
/// <param name="IsSimulated">Whether the directory is the simulation.</param>
/// <param name="Checks">The checks, in the order in which they were made.</param>
/// <param name="People">The people; null when they could not be counted.</param>
/// <param name="Groups">The groups an administrator sees; null when they could not be counted or are not used.</param>
/// <param name="GroupNames">The names of those groups, the first hundred in order.</param>
public sealed record SignInTest(
    string Install, string Directory, DateTimeOffset StartedAt, DateTimeOffset EndedAt, bool IsSimulated,
    IReadOnlyList<SignInCheck> Checks, FoundAndExpected? People, FoundAndExpected? Groups,
    IReadOnlyList<string> GroupNames)
{
    /// <summary>The sign-in test in one line.</summary>
    public string Words
    {
        get
        {
            var words = $"{Count(CheckVerdict.Pass)} of {Checks.Count} checks pass";
            if (Count(CheckVerdict.Fail) is > 0 and var failed) words += $", {failed} fail";
            if (Count(CheckVerdict.Caution) is > 0 and var cautions) words += $", {cautions} to mind";
            if (Count(CheckVerdict.Unseen) is > 0 and var unseen) words += $", {unseen} unseen";
            return words;

            int Count(CheckVerdict verdict) => Checks.Count(c => c.Verdict == verdict);
        }
    }
}
