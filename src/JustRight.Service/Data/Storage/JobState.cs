namespace JustRight.Service.Data.Storage;

/// <summary>How far long work, or a proposal, has come. Stored by its word.</summary>
public enum JobState
{
    /// <summary>Waits for its turn.</summary>
    Queued,

    /// <summary>Runs.</summary>
    Running,

    /// <summary>Ended as it was asked for.</summary>
    Done,

    /// <summary>Ended before that.</summary>
    Failed,

    /// <summary>The service ended while it ran, and it does not go on.</summary>
    Interrupted,

    /// <summary>A run that waits for a person to do something, or for a host's time of restarts.</summary>
    Waiting,

    /// <summary>A run that a person stopped; it can be gone on with.</summary>
    Stopped,

    /// <summary>Waits for the approval of another person.</summary>
    Proposed,

    /// <summary>Approved, and waits to be carried out.</summary>
    Approved,

    /// <summary>What it rested on is other now.</summary>
    Void,

    /// <summary>Taken back.</summary>
    Withdrawn,
}
