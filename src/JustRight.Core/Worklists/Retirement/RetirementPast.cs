using JustRight.Core.Changes;
using JustRight.Core.Fit;

namespace JustRight.Core.Worklists.Retirement;

/// <summary>What is known of a retirement from before: the journal knows it, the directory does not.</summary>
/// <param name="Since">When the install was set to be retired; from then on its groups wait.</param>
/// <param name="DisabledAt">When accounts were disabled by a step of ours, by logon name; from then on they wait.</param>
/// <param name="RemoveAfter">How long they wait.</param>
/// <param name="Present">The present.</param>
public sealed record RetirementPast(
    DateTimeOffset Since, IReadOnlyDictionary<string, DateTimeOffset> DisabledAt, TimeSpan RemoveAfter, Present Present)
{
    /// <summary>
    /// When everything that waits may be removed; null when nothing waits, or something that shall wait is not disabled yet.
    /// </summary>
    /// <param name="steps">The steps of the worklist.</param>
    public DateTimeOffset? RemovableAt(IReadOnlyList<Step> steps)
    {
        if (steps.Any(s => s.Change is DisableAccount)) return null;
        var waiting = steps.Select(s =>
            s.Change switch { DeleteAccount c => DisabledAt.TryGetValue(c.Name, out var at) ? at : Since, DeleteGroup => Since, _ => (DateTimeOffset?)null })
            .OfType<DateTimeOffset>().ToList();
        return waiting.Count == 0 ? null : waiting.Max() + RemoveAfter;
    }

    /// <summary>
    /// Why something that waits since a moment is not removed yet, or null when its time has come. A clock set back only
    /// prolongs it.
    /// </summary>
    public string? WhyNotYet(DateTimeOffset since) =>
        !Present.HasReached(since + RemoveAfter)
            ? $"not before {(since + RemoveAfter).UtcDateTime:yyyy-MM-dd HH:mm} UTC: until then undo restores everything"
            : null;
}
