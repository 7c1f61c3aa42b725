using JustRight.Core.Sheets;

namespace JustRight.Core.Rights;

/// <summary>A need as a draft sheet writes it, at a place not yet named there.</summary>
/// <param name="Value">What follows the key of its kind.</param>
/// <param name="Place">The host, instance, <c>instance/database</c> or branch of the estate; empty for a need of the
/// domain.</param>
/// <param name="Of">For the directory: the class.</param>
public sealed record DraftNeed(
    NeedKind Kind, string Value, PlaceKind? PlaceKind, string Place, IReadOnlyList<string> Attributes, string? Of);

/// <summary>A right in the words of the sheet language.</summary>
/// <param name="Needs">The needs that ask for it and for no more.</param>
/// <param name="WhyNot">Why there are none, or null.</param>
public sealed record Drafted(IReadOnlyList<DraftNeed> Needs, string? WhyNot)
{
    /// <summary>The language has no words for it.</summary>
    public static Drafted NoWords { get; } = Not("a sheet cannot express it");

    /// <summary>One need at a place.</summary>
    public static Drafted At(NeedKind kind, string value, PlaceKind at, string place) =>
        new([new DraftNeed(kind, value, at, place, [], null)], null);

    /// <summary>None, and why.</summary>
    public static Drafted Not(string why) => new([], why);
}
