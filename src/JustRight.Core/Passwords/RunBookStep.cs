using JustRight.Core.Changes;
using JustRight.Core.Runs;

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

/// <summary>One step of a run-book: what it does there, and how far it has come as a step of a run.</summary>
/// <param name="Step">How far it has come.</param>
/// <param name="Secret">Which password it sets, or works with.</param>
/// <param name="Place">The place it is about; empty for the directory and for the check.</param>
/// <param name="Host">The host it is made on; empty where there is none.</param>
/// <param name="Words">What it does.</param>
/// <param name="Why">Why here in the order.</param>
public sealed record RunBookStep(
    RunStep Step, RunBookAct Act, WhichPassword Secret, string Place, string Host, string Words, string Why)
{
    /// <summary>The change that a connector makes; null for what a person does and for checks.</summary>
    public Change? Change { get; init; }

    /// <summary>Its place in the order, from 1.</summary>
    public int Number => Step.Number;

    /// <summary>How far it has come.</summary>
    public RunStepState State => Step.State;

    /// <summary>Whether it leaves a password at its place.</summary>
    public bool Puts => Act is RunBookAct.SetInDirectory or RunBookAct.Keep or RunBookAct.Set or RunBookAct.Type;
}
