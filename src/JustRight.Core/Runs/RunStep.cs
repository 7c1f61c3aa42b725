namespace JustRight.Core.Runs;

/// <summary>How far a step of a run has come.</summary>
public enum RunStepState
{
    /// <summary>Nothing was done.</summary>
    Waiting,

    /// <summary>It may be made already: only looking tells.</summary>
    Intended,

    /// <summary>Made, and seen afterwards.</summary>
    Made,

    /// <summary>It was true already.</summary>
    AlreadySo,

    /// <summary>It failed before anything was touched.</summary>
    Refused,

    /// <summary>It failed, and what it left is not known.</summary>
    Failed,

    /// <summary>A person decided to go on without it; nothing was touched.</summary>
    Skipped,

    /// <summary>It was begun, and will not be gone on with: what it left is not known.</summary>
    Abandoned,

    /// <summary>No longer to be made: the run goes back instead.</summary>
    Dropped,

    /// <summary>It was made, and undone by another run.</summary>
    Undone,
}

/// <summary>One step of a run: how far it has come, who makes it, and what it hangs on. What it does is not told here.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="HangsOn">The numbers of the steps before it that make what it needs.</param>
public sealed record RunStep(int Number, RunStepState State, IReadOnlyList<int> HangsOn)
{
    /// <summary>Whether it only makes earlier steps count: it is held back only when none of those was made.</summary>
    public bool OnlySettles { get; init; }

    /// <summary>Whether a person makes it.</summary>
    public bool ByPerson { get; init; }

    /// <summary>Whether that person said that it is done: it is looked at then.</summary>
    public bool IsSaid { get; init; }

    /// <summary>The host whose time of restarts it waits for; empty for none.</summary>
    public string Window { get; init; } = "";

    /// <summary>Whether a person who has read why it failed lets it be tried again.</summary>
    public bool IsTriedAgain { get; init; }

    /// <summary>What came of it, or what a person said of it; empty for nothing.</summary>
    public string Note { get; init; } = "";

    /// <summary>Who did, or decided, the last of it; empty for nobody.</summary>
    public string By { get; init; } = "";

    /// <summary>When that was.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>Whether it is still to be made.</summary>
    public bool IsToDo => State is RunStepState.Waiting or RunStepState.Intended;

    /// <summary>Whether it failed, and somebody has to decide about it.</summary>
    public bool HasFailed => State is RunStepState.Refused or RunStepState.Failed;

    /// <summary>Whether it is gone on without.</summary>
    public bool IsLeftOut => State is RunStepState.Skipped or RunStepState.Abandoned or RunStepState.Dropped;

    /// <summary>Whether nothing is left to do or to decide of it.</summary>
    public bool IsOver => !IsToDo && !HasFailed;

    /// <summary>The same in another state. What a person said or decided of it holds until it came to something.</summary>
    public RunStep To(RunStepState state, string note, string by, DateTimeOffset? at)
    {
        var begun = state == RunStepState.Intended;
        return this with
        {
            State = state,
            Note = note,
            By = by,
            At = at,
            IsSaid = IsSaid && begun,
            IsTriedAgain = IsTriedAgain && begun,
        };
    }
}
