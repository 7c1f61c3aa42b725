using JustRight.Core.Changes;

namespace JustRight.Core.Passwords;

/// <summary>Which of the two passwords.</summary>
public enum WhichPassword
{
    /// <summary>The one from before.</summary>
    Old,

    /// <summary>The new one.</summary>
    New,

    /// <summary>It is not known which: something was begun there, and how it ended was not seen.</summary>
    Unknown,
}

/// <summary>What a step of a run-book does.</summary>
public enum RunBookAct
{
    /// <summary>Sets a password in the directory.</summary>
    SetInDirectory,

    /// <summary>Keeps a password as a secret of Just Right's own.</summary>
    Keep,

    /// <summary>Sets a password where a connector reaches.</summary>
    Set,

    /// <summary>A person types it.</summary>
    Type,

    /// <summary>Restarts a service, so that it reads it.</summary>
    Restart,

    /// <summary>Looks whether it works.</summary>
    Check,
}

/// <summary>How far a step has come.</summary>
public enum RunBookState
{
    /// <summary>Not begun.</summary>
    Waiting,

    /// <summary>Begun: how it ended is not known yet.</summary>
    Begun,

    /// <summary>Done, and seen to be.</summary>
    Done,

    /// <summary>It failed before anything was touched.</summary>
    Refused,

    /// <summary>It failed, and what it left is not known.</summary>
    Failed,

    /// <summary>A person decided to go on without it; nothing was touched.</summary>
    Skipped,

    /// <summary>It was begun, and will not be gone on with: what it left is not known.</summary>
    Abandoned,

    /// <summary>No longer to be done: the run-book goes back instead.</summary>
    Dropped,
}

/// <summary>One step of a run-book.</summary>
/// <param name="Number">Its place in the order, from 1.</param>
/// <param name="Secret">Which password it sets, or works with.</param>
/// <param name="Place">The place it is about; empty for the directory and for the check.</param>
/// <param name="Host">The host it is made on; empty where there is none.</param>
/// <param name="Words">What it does.</param>
/// <param name="Why">Why here in the order.</param>
public sealed record RunBookStep(
    int Number, RunBookAct Act, WhichPassword Secret, string Place, string Host, string Words, string Why)
{
    /// <summary>The change that a connector makes; null for what a person does and for checks.</summary>
    public Change? Change { get; init; }

    /// <summary>How far it has come.</summary>
    public RunBookState State { get; init; }

    /// <summary>What was seen, or why not; and what a person wrote.</summary>
    public string Note { get; init; } = "";

    /// <summary>Who did it last.</summary>
    public string By { get; init; } = "";

    /// <summary>When that was.</summary>
    public DateTimeOffset? At { get; init; }

    /// <summary>Whether nothing is left to do of it.</summary>
    public bool IsOver => State is RunBookState.Done or RunBookState.Skipped or RunBookState.Abandoned or RunBookState.Dropped;

    /// <summary>Whether it leaves a password at its place.</summary>
    public bool Puts => Act is RunBookAct.SetInDirectory or RunBookAct.Keep or RunBookAct.Set or RunBookAct.Type;
}
