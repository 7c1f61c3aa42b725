using JustRight.Core.Changes;

namespace JustRight.Connectors;

/// <summary>What was found of a change before or after making it.</summary>
public enum ObservedState
{
    /// <summary>What the change would bring about is already true.</summary>
    Done,

    /// <summary>It is not true yet, and nothing known stands in the way.</summary>
    NotDone,

    /// <summary>It cannot be made as things are.</summary>
    Impossible,
}

/// <summary>The state of a change in the estate, with what was seen.</summary>
/// <param name="Seen">In words, for the journal.</param>
public sealed record Observation(ObservedState State, string Seen);

/// <summary>
/// Makes one family of changes. Making is atomic: a change is made whole or not at all. Every method throws
/// <see cref="ConnectorException"/> when the place cannot be reached or refuses.
/// </summary>
public interface IChangeMaker<in TChange>
    where TChange : Change
{
    /// <summary>Reads whether a change is already true.</summary>
    Task<Observation> ObserveAsync(TChange change, CancellationToken cancel);

    /// <summary>Makes a change.</summary>
    /// <param name="password">The password for a new account; null for every other change.</param>
    Task MakeAsync(TChange change, NewPassword? password, CancellationToken cancel);
}
