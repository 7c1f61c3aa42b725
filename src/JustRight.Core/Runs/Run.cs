using JustRight.Core.Changes;

namespace JustRight.Core.Runs;

/// <summary>
/// Steps that are carried out in their order, as far as they come: one that fails holds back those that hang on it, and nothing
/// else. Whatever changes an estate is one of these; it is the journal as well, kept before and after each step is made, so that
/// a crash leaves it to be gone on with.
/// </summary>
/// <param name="Steps">In order.</param>
public sealed record Run(IReadOnlyList<RunStep> Steps)
{
    /// <summary>
    /// Whether no step begins before those ahead of it are over, and a failure stops all until somebody decides: so it is where
    /// each further step makes the way back longer.
    /// </summary>
    public bool IsStrict { get; init; }

    /// <summary>A run of changes of which none was made.</summary>
    public static Run Of(IReadOnlyList<Change> changes)
    {
        var links = ChangeLinks.Of(changes);
        return new Run(
            [.. changes.Select((change, i) => new RunStep(i + 1, RunStepState.Waiting, [.. links[i].Select(l => l + 1)])
        {
            OnlySettles = change.OnlySettles,
        })]);
    }

    /// <summary>The step of a number.</summary>
    public RunStep Step(int number) => Steps[number - 1];

    /// <summary>
    /// By the number of each step that is held back, the number of the failed one that holds it. What only makes earlier steps
    /// count, a refresh or a restart, is held when none of those was made.
    /// </summary>
    public IReadOnlyDictionary<int, int> Held()
    {
        var held = new Dictionary<int, int>();
        foreach (var step in Steps.Where(s => s.IsToDo))
            if (Missing(step, n => Step(n).HasFailed || held.ContainsKey(n)) is { } missing)
                held[step.Number] = held.GetValueOrDefault(missing, missing);
        return held;
    }

    /// <summary>The steps, not over, that go with one when it is left out, for they hang on it; without itself.</summary>
    public IReadOnlyList<int> HangingOn(int number)
    {
        var gone = new HashSet<int> { number };
        foreach (var step in Steps.Skip(number).Where(s => !s.IsOver))
            if (Missing(step, n => gone.Contains(n) || Step(n).IsLeftOut) is not null && step.HangsOn.Any(gone.Contains))
                gone.Add(step.Number);
        gone.Remove(number);
        return [.. gone.Order()];
    }

    /// <summary>What is next, and what it waits for.</summary>
    /// <param name="isOpen">Whether services of a host may be restarted now.</param>
    public RunNext Next(Func<string, bool> isOpen)
    {
        var held = Held();
        var pending = new HashSet<int>();
        RunNext? waits = null;
        foreach (var step in Steps.Where(s => !s.IsOver && !held.ContainsKey(s.Number)))
        {
            if (step.HangsOn.Any(pending.Contains))
            {
                pending.Add(step.Number); // what it needs waits for somebody, and may yet be made
                continue;
            }

            // only a restart may go before a restart that waits for its host
            if (IsStrict && waits is not null && (waits.Value.Wait != RunWait.Window || step.Window.Length == 0)) break;
            var wait = WaitOf(step, isOpen);
            if (wait == RunWait.Go) return new RunNext(wait, step);
            if (wait != RunWait.Decision) pending.Add(step.Number);
            if (waits is null || (!IsStrict && wait < waits.Value.Wait)) waits = new RunNext(wait, step);
        }

        return waits ?? new RunNext(RunWait.Over, null);
    }

    /// <summary>The same with one step changed.</summary>
    public Run With(int number, Func<RunStep, RunStep> change) =>
        this with { Steps = [.. Steps.Select(s => s.Number == number ? change(s) : s)] };

    /// <summary>The same with one step in another state.</summary>
    public Run With(int number, RunStepState state, string note = "", string by = "", DateTimeOffset? at = null) =>
        With(number, s => s.To(state, note, by, at));

    /// <summary>A failed step is tried again: one that may have touched something is looked at first.</summary>
    /// <exception cref="InvalidOperationException">It did not fail.</exception>
    public Run Retry(int number, string by, DateTimeOffset at) => With(
        Failed(number), s => s with
        {
            State = s.State == RunStepState.Failed ? RunStepState.Intended : RunStepState.Waiting,
            IsTriedAgain = true,
            IsSaid = false,
            By = by,
            At = at,
        });

    /// <summary>It goes on without a step and what hangs on it. What it should have changed stays as it is.</summary>
    /// <exception cref="InvalidOperationException">The step is over.</exception>
    public Run Skip(int number, string why, string by, DateTimeOffset at)
    {
        NotOver(number);
        var run = HangingOn(number).Aggregate(
            this, (r, n) => r.With(n, LeftOut(Step(n), RunStepState.Skipped), $"it hangs on step {number}", by, at));
        return run.With(number, LeftOut(Step(number), RunStepState.Skipped), why, by, at);
    }

    /// <summary>A step is handed to a person, who says when it is done.</summary>
    /// <exception cref="InvalidOperationException">The step is over.</exception>
    public Run Hand(int number, string note, string by, DateTimeOffset at)
    {
        NotOver(number);
        return With(number, s => s with
        {
            State = s.State is RunStepState.Failed or RunStepState.Intended ? RunStepState.Intended : RunStepState.Waiting,
            ByPerson = true,
            IsSaid = false,
            Note = note,
            By = by,
            At = at,
        });
    }

    /// <summary>A person said that a step of theirs is done: it is looked at next.</summary>
    public Run Say(int number, string note, string by, DateTimeOffset at) =>
        With(number, s => s with { IsSaid = true, Note = note, By = by, At = at });

    /// <summary>A restart no longer waits for its host's time.</summary>
    public Run Open(int number, string by, DateTimeOffset at) =>
        With(number, s => s with { Window = "", By = by, At = at });

    /// <summary>What is left is not made any more.</summary>
    public Run Drop() => this with
    {
        Steps = [.. Steps.Select(s => s.IsOver ? s : s with { State = LeftOut(s, RunStepState.Dropped) })],
    };

    /// <summary>What came of it, in words; of several that failed, the first.</summary>
    public string Words()
    {
        var words = new List<string> { $"{Steps.Count(s => s.State == RunStepState.Made)} made" };
        if (Steps.Count(s => s.State == RunStepState.AlreadySo) is > 0 and var already) words.Add($"{already} already true");
        if (Steps.Count(s => s.IsLeftOut) is > 0 and var left) words.Add($"{left} left out");
        var failed = Steps.Where(s => s.HasFailed).ToList();
        if (failed.Count > 0)
            words.Add(
                $"{failed.Count} failed: step {failed[0].Number}: {failed[0].Note.TrimEnd('.')}"
                + (failed.Count > 1 ? $" (and {string.Join(", ", failed.Skip(1).Select(f => $"step {f.Number}"))})" : ""));
        if (Held().Count is > 0 and var held)
            words.Add($"{held} not made, for {(held == 1 ? "it hangs" : "they hang")} on what failed");
        return string.Join(", ", words);
    }

    /// <summary>
    /// The first that a step needs and that is missing; null when it can be made. What only settles goes on while one is there.
    /// </summary>
    private static int? Missing(RunStep step, Func<int, bool> isMissing)
    {
        var missing = step.HangsOn.Where(isMissing).ToList();
        return missing.Count == 0 || (step.OnlySettles && missing.Count < step.HangsOn.Count) ? null : missing[0];
    }

    private static RunWait WaitOf(RunStep step, Func<string, bool> isOpen) => step switch
    {
        { HasFailed: true } => RunWait.Decision,
        { ByPerson: true, IsSaid: false } => RunWait.Person,
        { State: RunStepState.Waiting, Window.Length: > 0 } when !isOpen(step.Window) => RunWait.Window,
        _ => RunWait.Go,
    };

    private static RunStepState LeftOut(RunStep step, RunStepState untouched) =>
        step.State is RunStepState.Failed or RunStepState.Intended ? RunStepState.Abandoned : untouched;

    private int Failed(int number) => Step(number).HasFailed
        ? number
        : throw new InvalidOperationException($"Step {number} did not fail.");

    private void NotOver(int number)
    {
        if (Step(number).IsOver) throw new InvalidOperationException($"Step {number} is over.");
    }
}
