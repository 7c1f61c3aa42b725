namespace JustRight.Core.Estates;

/// <summary>The organization's rules for reviews.</summary>
/// <param name="Every">After how long an install is looked at again, unless its last review says when; null when only reviews
/// say.</param>
/// <param name="Warn">How long before a review, or the end of an exception, it is spoken of.</param>
public sealed record ReviewRules(TimeSpan? Every, TimeSpan Warn)
{
    /// <summary>What holds when the organization says nothing.</summary>
    public static ReviewRules Usual { get; } = new(null, TimeSpan.FromDays(21));
}
