using JustRight.Core.Changes;
using JustRight.Core.Faults;
using JustRight.Core.Rights;

namespace JustRight.Core.Worklists;

/// <summary>Gathers the steps of a worklist. The same change for several needs is one step.</summary>
internal sealed class StepList
{
    private readonly List<Entry> _steps = [];
    private readonly List<(string For, string With)> _along = [];

    /// <summary>Adds a step.</summary>
    /// <param name="for">The id of what it is for.</param>
    /// <param name="why">The reason, in words.</param>
    /// <param name="blocked">Why it cannot be made now, or null.</param>
    /// <param name="at">The line it comes from.</param>
    public void Add(StepOrder order, Change change, string @for, string why, string? blocked, Origin at) =>
        _steps.Add(new Entry(order, change, @for, why, blocked, at));

    /// <summary>What gives one thing gives another too, if there is such a step.</summary>
    /// <param name="for">The id of what comes along.</param>
    /// <param name="with">The id of what it comes with.</param>
    public void ComesWith(string @for, string with) => _along.Add((@for, with));

    /// <summary>The steps in order.</summary>
    public List<Step> Ordered()
    {
        var by = _steps.ToLookup(s => s.For);
        var along = _along.SelectMany(a => by[a.With].Select(s => s with { For = a.For })).ToList();
        return
        [
            .. _steps.Concat(along)
                .Select((step, i) => (Step: step, At: i))
                .GroupBy(s => s.Step.Change.Key)
                .Select(same => (First: same.First(), For: same.Select(s => s.Step.For).Distinct().ToList()))
                .OrderBy(s => s.First.Step.Order).ThenBy(s => s.First.At)
                .Select((s, i) => ToStep(i + 1, s.First.Step, s.For)),
        ];
    }

    private static Step ToStep(int number, Entry step, List<string> @for) =>
        new(number, step.Change, @for, step.Why, step.Blocked, step.At);

    private readonly record struct Entry(
        StepOrder Order, Change Change, string For, string Why, string? Blocked, Origin At);
}
