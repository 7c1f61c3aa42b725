namespace JustRight.Core.Passwords;

/// <summary>What a run-book waits for.</summary>
public enum RunBookNext
{
    /// <summary>For nothing: the next step can be made.</summary>
    Go,

    /// <summary>For a person to type the password and say so.</summary>
    Person,

    /// <summary>For a host's time of restarts.</summary>
    Window,

    /// <summary>For a decision: a step failed.</summary>
    Decision,

    /// <summary>It is over.</summary>
    Over,
}

/// <summary>
/// The renewal of one password, step by step: what is to be done, what was done, and which password is where. It is the
/// journal as well: each state is kept before and after a step is made, so that a crash leaves it to be gone on with.
/// </summary>
/// <param name="Account">The logon name.</param>
/// <param name="Steps">The steps in order; those of going back stand after those they take back.</param>
/// <param name="Remarks">What a person should know before it begins.</param>
public sealed record RunBook(string Account, IReadOnlyList<RunBookStep> Steps, IReadOnlyList<string> Remarks)
{
    /// <summary>Whether it goes back to the old password.</summary>
    public bool GoesBack { get; init; }

    /// <summary>
    /// The step that is next, or null when all are over: the first that is not. Of restarts that wait for their host's time, the
    /// first whose time it is goes before.
    /// </summary>
    /// <param name="isOpen">Whether services of a host may be restarted now.</param>
    public RunBookStep? Current(Func<string, bool> isOpen)
    {
        var first = Steps.FirstOrDefault(s => !s.IsOver);
        return first is { Act: RunBookAct.Restart, State: RunBookState.Waiting } && !isOpen(first.Host)
            ? Steps.SkipWhile(s => s.Number < first.Number).TakeWhile(s => s.Act == RunBookAct.Restart)
                .FirstOrDefault(s => !s.IsOver && isOpen(s.Host))
                ?? first
            : first;
    }

    /// <summary>What it waits for.</summary>
    /// <param name="isOpen">Whether services of a host may be restarted now.</param>
    public RunBookNext Next(Func<string, bool> isOpen) => Current(isOpen) switch
    {
        null => RunBookNext.Over,
        { State: RunBookState.Failed or RunBookState.Refused } => RunBookNext.Decision,
        { Act: RunBookAct.Type } => RunBookNext.Person,
        { Act: RunBookAct.Restart, State: RunBookState.Waiting } restart when !isOpen(restart.Host) => RunBookNext.Window,
        _ => RunBookNext.Go,
    };

    /// <summary>A step begins: its change as it is now, after looking once more.</summary>
    public RunBook Begin(int number, Changes.Change? change, string seen, string by, DateTimeOffset at) =>
        this with
        {
            Steps = [.. Steps.Select(s =>
                s.Number == number ? s with { Change = change, State = RunBookState.Begun, Note = seen, By = by, At = at } : s)],
        };

    /// <summary>A failed step is tried again: one that may have touched something is looked at first.</summary>
    public RunBook Retry(int number, string by, DateTimeOffset at) =>
        Decide(number, s => s.State == RunBookState.Failed ? RunBookState.Begun : RunBookState.Waiting, TriedAgain, by, at);

    /// <summary>What the note of a step says that a person lets be tried again.</summary>
    public const string TriedAgain = "to be tried again";

    /// <summary>It goes on without a step. What it should have changed stays as it is, and stays mentioned.</summary>
    public RunBook Skip(int number, string why, string by, DateTimeOffset at) =>
        Decide(
            number, s => s.State is RunBookState.Failed or RunBookState.Begun ? RunBookState.Abandoned : RunBookState.Skipped,
            $"left out: {why}", by, at);

    /// <summary>The same with one step in another state.</summary>
    public RunBook With(int number, RunBookState state, string note, string by, DateTimeOffset at) =>
        this with
        {
            Steps = [.. Steps.Select(s => s.Number == number ? s with { State = state, Note = note, By = by, At = at } : s)],
        };

    /// <summary>Which password the directory has.</summary>
    public WhichPassword InDirectory => After(Steps.Where(s => s.Act == RunBookAct.SetInDirectory));

    /// <summary>Which password a place has, as far as the steps tell.</summary>
    public WhichPassword At(string place) =>
        After(Steps.Where(s => s.Puts && s.Act != RunBookAct.SetInDirectory && s.Place == place));

    /// <summary>
    /// The places whose password is not, or may not be, the directory's: each with the step that tells what it is.
    /// </summary>
    public IReadOnlyList<DividedPlace> Divided()
    {
        var directory = InDirectory;
        return
        [
            .. Steps.Where(s => s.Puts && s.Act != RunBookAct.SetInDirectory).GroupBy(s => s.Place)
                .Select(steps => new DividedPlace(steps.Key, At(steps.Key), directory, steps.First().Words))
                .Where(p => p.Has != directory || p.Has == WhichPassword.Unknown),
        ];
    }

    /// <summary>
    /// The way back: what is left is dropped; the directory gets the old password again, and each place that has the new one,
    /// or may have it, after it. Services that were restarted, or may have been, are restarted again.
    /// </summary>
    public RunBook Undo()
    {
        var dropped = Steps.Select(s =>
            s.IsOver ? s : s with
            {
                State = s.State is RunBookState.Begun or RunBookState.Failed ? RunBookState.Abandoned : RunBookState.Dropped,
            })
            .ToList();
        var back = new List<RunBookStep>();
        if (InDirectory != WhichPassword.Old)
        {
            back.Add(Again(Steps.First(s => s.Act == RunBookAct.SetInDirectory)));
            foreach (var place in Steps.Where(s => s.Puts && s.Act != RunBookAct.SetInDirectory).Where(s =>
                At(s.Place) != WhichPassword.Old))
                back.Add(Again(place));
            foreach (var restart in Steps.Where(s =>
                s.Act == RunBookAct.Restart
                    && s.State is RunBookState.Done or RunBookState.Begun or RunBookState.Failed or RunBookState.Abandoned))
                back.Add(Again(restart));
            if (Steps.FirstOrDefault(s => s.Act == RunBookAct.Check) is { } check) back.Add(Again(check));
        }

        return this with
        {
            GoesBack = true,
            Steps = [.. dropped, .. back.Select((s, i) => s with { Number = dropped.Count + i + 1 })],
        };

        static RunBookStep Again(RunBookStep step) => step with
        {
            Secret = WhichPassword.Old,
            State = RunBookState.Waiting,
            Words = step.Act == RunBookAct.Restart ? step.Words : $"back to the old password: {step.Words}",
            Note = "",
            By = "",
            At = null,
        };
    }

    private RunBook Decide(int number, Func<RunBookStep, RunBookState> to, string note, string by, DateTimeOffset at) =>
        Steps.First(s => s.Number == number) is { IsOver: false } step
            ? With(number, to(step), note, by, at)
            : throw new InvalidOperationException($"Step {number} is over.");

    private static WhichPassword After(IEnumerable<RunBookStep> steps) =>
        steps.Aggregate(WhichPassword.Old, (before, step) => step.State switch
    {
        RunBookState.Done => step.Secret,
        RunBookState.Begun or RunBookState.Failed or RunBookState.Abandoned =>
            before == step.Secret ? before : WhichPassword.Unknown,
        RunBookState.Waiting or RunBookState.Refused or RunBookState.Skipped or RunBookState.Dropped => before,
    });
}

/// <summary>A place whose password is not, or may not be, the one in the directory.</summary>
/// <param name="Place">The place's id.</param>
/// <param name="Has">Which password it has.</param>
/// <param name="Directory">Which password the directory has.</param>
/// <param name="Words">The step that would bring it in line.</param>
public sealed record DividedPlace(string Place, WhichPassword Has, WhichPassword Directory, string Words);
