using JustRight.Core.Changes;

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

    /// <summary>Refused, or not seen afterwards.</summary>
    Failed,
}

/// <summary>One step of a run.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="HangsOn">The numbers of the steps before it that make what it needs.</param>
public sealed record RunStep(int Number, Change Change, RunStepState State, IReadOnlyList<int> HangsOn)
{
    /// <summary>Whether it is still to be made.</summary>
    public bool IsToDo => State is RunStepState.Waiting or RunStepState.Intended;

    /// <summary>Whether what it makes is there.</summary>
    public bool IsThere => State is RunStepState.Made or RunStepState.AlreadySo;
}
