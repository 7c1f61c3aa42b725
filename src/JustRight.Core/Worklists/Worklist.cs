using JustRight.Core.Changes;
using JustRight.Core.Faults;

namespace JustRight.Core.Worklists;

/// <summary>One step of a worklist.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="For">What it is for: ids of grants, or of excess and forbidden findings.</param>
/// <param name="Why">The reason, in words.</param>
/// <param name="Blocked">Why it cannot be made now, or null.</param>
/// <param name="At">The line of the sheet, estate or install it comes from.</param>
public sealed record Step(int Number, Change Change, IReadOnlyList<string> For, string Why, string? Blocked, Origin At)
{
    /// <summary>Stable identity: the same step has the same id in every worklist.</summary>
    public string Id => Change.Key;
}

/// <summary>Something excess or missing for which no step is offered, with the reason.</summary>
public sealed record NotOffered(string For, string Reason);

/// <summary>The steps that are left: what to give, and what to take away once what was given is checked.</summary>
/// <param name="Give">What we or a team make, in order.</param>
/// <param name="Remove">What is to be taken away, after giving and checking.</param>
/// <param name="LeftToSetup">Ids of grants that setup gives.</param>
/// <param name="NotOffered">What must be decided by a person.</param>
public sealed record Worklist(IReadOnlyList<Step> Give, IReadOnlyList<Step> Remove, IReadOnlyList<string> LeftToSetup, IReadOnlyList<NotOffered> NotOffered)
{
    /// <summary>The same with some steps blocked, where nothing else blocks them already.</summary>
    /// <param name="why">Why a change cannot be made from here, or null when it can.</param>
    public Worklist Blocking(Func<Change, string?> why) =>
        this with { Give = [.. Give.Select(s => s with { Blocked = s.Blocked ?? why(s.Change) })], Remove = [.. Remove.Select(s => s with { Blocked = s.Blocked ?? why(s.Change) })] };
}
