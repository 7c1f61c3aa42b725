namespace JustRight.Core.Runs;

/// <summary>What a run waits for.</summary>
public enum RunWait
{
    /// <summary>For nothing: a step can be made.</summary>
    Go,

    /// <summary>For a person to do something and say so.</summary>
    Person,

    /// <summary>For a host's time of restarts.</summary>
    Window,

    /// <summary>For a decision: a step failed.</summary>
    Decision,

    /// <summary>It is over.</summary>
    Over,
}

/// <summary>What is next in a run.</summary>
/// <param name="Step">The step that it is about; null when the run is over.</param>
public readonly record struct RunNext(RunWait Wait, RunStep? Step);
