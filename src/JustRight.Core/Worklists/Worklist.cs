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
    /// <summary>The numbers of the earlier steps of the same list that it hangs on: what it needs, they make.</summary>
    public IReadOnlyList<int> HangsOn { get; init; } = [];

    /// <summary>The same steps in the same order, each with those that it hangs on, and blocked where one of them is.</summary>
    public static IReadOnlyList<Step> Linked(IReadOnlyList<Step> steps)
    {
        var (linked, links) = (new List<Step>(), ChangeLinks.Of([.. steps.Select(s => s.Change)]));
        foreach (var (step, link) in steps.Zip(links))
        {
            var on = link.Select(i => linked[i]).ToList();
            var held = step.Change.OnlySettles ? null : on.FirstOrDefault(s => s.Blocked is not null);
            linked.Add(step with
            {
                HangsOn = [.. on.Select(s => s.Number)],
                Blocked = step.Blocked ?? (held is null ? null : $"it hangs on a step that is blocked: {held.Change.Words}"),
            });
        }

        return linked;
    }

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
public sealed record Worklist(
    IReadOnlyList<Step> Give, IReadOnlyList<Step> Remove, IReadOnlyList<string> LeftToSetup, IReadOnlyList<NotOffered> NotOffered)
{
    /// <summary>The same with some steps blocked, where nothing else blocks them already.</summary>
    /// <param name="why">Why a change cannot be made from here, or null when it can.</param>
    public Worklist Blocking(Func<Change, string?> why) => this with { Give = Blocked(Give, why), Remove = Blocked(Remove, why) };

    private static IReadOnlyList<Step> Blocked(IReadOnlyList<Step> steps, Func<Change, string?> why) =>
        steps.All(s => s.Blocked is not null || why(s.Change) is null) ? steps
            : Step.Linked([.. steps.Select(s => s with { Blocked = s.Blocked ?? why(s.Change) })]);
}
