using JustRight.Core.Changes;

namespace JustRight.Core.Runs;

/// <summary>
/// Steps that are carried out in their order, as far as they come: one that fails holds back those that hang on it, and nothing
/// else.
/// </summary>
/// <param name="Steps">In order.</param>
public sealed record Run(IReadOnlyList<RunStep> Steps)
{
    /// <summary>A run of changes, each in its state.</summary>
    public static Run Of(IReadOnlyList<(Change Change, RunStepState State)> steps)
    {
        var links = ChangeLinks.Of([.. steps.Select(s => s.Change)]);
        return new Run([.. steps.Select((s, i) => new RunStep(i + 1, s.Change, s.State, [.. links[i].Select(l => l + 1)]))]);
    }

    /// <summary>
    /// By the number of each step that is held back, the number of the failed one that holds it. What only makes earlier steps
    /// count, a refresh or a restart, is held when none of those was made.
    /// </summary>
    public IReadOnlyDictionary<int, int> Held()
    {
        var held = new Dictionary<int, int>();
        foreach (var step in Steps.Where(s => s.IsToDo))
        {
            var missing = step.HangsOn.Where(n => Steps[n - 1].State == RunStepState.Failed || held.ContainsKey(n)).ToList();
            if (missing.Count == 0 || (step.Change.OnlySettles && missing.Count < step.HangsOn.Count)) continue;
            held[step.Number] = held.GetValueOrDefault(missing[0], missing[0]);
        }

        return held;
    }

    /// <summary>The step that is next; null when all that can be made is made.</summary>
    public RunStep? Next()
    {
        var held = Held();
        return Steps.FirstOrDefault(s => s.IsToDo && !held.ContainsKey(s.Number));
    }

    /// <summary>The same with one step in another state.</summary>
    public Run With(int number, RunStepState state) =>
        new([.. Steps.Select(s => s.Number == number ? s with { State = state } : s)]);

    /// <summary>What came of it, in words; of several that failed, the first.</summary>
    /// <param name="why">Why a step failed.</param>
    public string Words(Func<int, string?> why)
    {
        var words = new List<string> { $"{Steps.Count(s => s.State == RunStepState.Made)} made" };
        if (Steps.Count(s => s.State == RunStepState.AlreadySo) is > 0 and var already) words.Add($"{already} already true");
        var failed = Steps.Where(s => s.State == RunStepState.Failed).ToList();
        if (failed.Count > 0)
            words.Add(
                $"{failed.Count} failed: step {failed[0].Number}: {why(failed[0].Number)}"
                + (failed.Count > 1 ? $" (and {string.Join(", ", failed.Skip(1).Select(f => $"step {f.Number}"))})" : ""));
        if (Held().Count is > 0 and var held)
            words.Add($"{held} not made, for {(held == 1 ? "it hangs" : "they hang")} on what failed");
        return string.Join(", ", words);
    }
}
