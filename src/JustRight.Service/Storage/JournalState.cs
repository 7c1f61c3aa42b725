namespace JustRight.Service.Storage;

/// <summary>How far a step of a job has come, by its journal. Stored by its word.</summary>
public enum JournalState
{
    /// <summary>Nothing was done.</summary>
    Waiting,

    /// <summary>It may be made already: only looking tells.</summary>
    Intended,

    /// <summary>Made, and seen afterwards.</summary>
    Made,

    /// <summary>Was true already.</summary>
    Skipped,

    /// <summary>Refused, or not seen afterwards.</summary>
    Failed,
}
