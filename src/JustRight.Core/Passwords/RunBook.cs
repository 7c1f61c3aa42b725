using JustRight.Core.Runs;

namespace JustRight.Core.Passwords;

/// <summary>
/// The renewal of one password: a run whose steps say which password they put where, so that it is known at every moment which
/// is where.
/// </summary>
/// <param name="Account">The logon name.</param>
/// <param name="Steps">The steps in order; those of going back stand after those they take back.</param>
/// <param name="Remarks">What a person should know before it begins.</param>
public sealed record RunBook(string Account, IReadOnlyList<RunBookStep> Steps, IReadOnlyList<string> Remarks)
{
    /// <summary>Whether it goes back to the old password.</summary>
    public bool GoesBack { get; init; }

    /// <summary>
    /// The run that it is: a failure stops it, for each place that has the new password makes the way back longer.
    /// </summary>
    public Run Run => new([.. Steps.Select(s => s.Step)]) { IsStrict = true };

    /// <summary>The same with its run further on.</summary>
    public RunBook With(Run run) => this with { Steps = [.. Steps.Select((s, i) => s with { Step = run.Steps[i] })] };

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
        var dropped = With(Run.Drop()).Steps;
        var back = new List<RunBookStep>();
        if (InDirectory != WhichPassword.Old)
        {
            back.Add(Again(Steps.First(s => s.Act == RunBookAct.SetInDirectory)));
            foreach (var place in Steps.Where(s => s.Puts && s.Act != RunBookAct.SetInDirectory).Where(s =>
                At(s.Place) != WhichPassword.Old))
                back.Add(Again(place));
            foreach (var restart in Steps.Where(s =>
                s.Act == RunBookAct.Restart
                    && s.State is RunStepState.Made or RunStepState.Intended or RunStepState.Failed or RunStepState.Abandoned))
                back.Add(Again(restart));
            if (Steps.FirstOrDefault(s => s.Act == RunBookAct.Check) is { } check) back.Add(Again(check));
        }

        var numbers = back.Select((s, i) => (Was: s.Number, Is: dropped.Count + i + 1)).ToDictionary(n => n.Was, n => n.Is);
        return this with
        {
            GoesBack = true,
            Steps = [.. dropped, .. back.Select((s, i) => s with
            {
                Step = new RunStep(
                    dropped.Count + i + 1, RunStepState.Waiting,
                        [.. s.Step.HangsOn.Where(numbers.ContainsKey).Select(n => numbers[n])])
                {
                    ByPerson = s.Act == RunBookAct.Type,
                    Window = s.Act == RunBookAct.Restart ? s.Host : "",
                },
            })],
        };

        static RunBookStep Again(RunBookStep step) => step with
        {
            Secret = WhichPassword.Old,
            Words = step.Act == RunBookAct.Restart ? step.Words : $"back to the old password: {step.Words}",
        };
    }

    private static WhichPassword After(IEnumerable<RunBookStep> steps) =>
        steps.Aggregate(WhichPassword.Old, (before, step) => step.State switch
    {
        RunStepState.Made or RunStepState.AlreadySo or RunStepState.Undone => step.Secret,
        RunStepState.Intended or RunStepState.Failed or RunStepState.Abandoned =>
            before == step.Secret ? before : WhichPassword.Unknown,
        RunStepState.Waiting or RunStepState.Refused or RunStepState.Skipped or RunStepState.Dropped => before,
    });
}

/// <summary>A place whose password is not, or may not be, the one in the directory.</summary>
/// <param name="Place">The place's id.</param>
/// <param name="Has">Which password it has.</param>
/// <param name="Directory">Which password the directory has.</param>
/// <param name="Words">The step that would bring it in line.</param>
public sealed record DividedPlace(string Place, WhichPassword Has, WhichPassword Directory, string Words);
