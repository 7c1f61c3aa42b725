using JustRight.Core.Changes;
using JustRight.Formats.Handovers;

namespace JustRight.Connectors;

/// <summary>What the connectors of both families of database server do with a change's statement.</summary>
internal static class InstanceStatements
{
    /// <summary>The statement of a change.</summary>
    /// <param name="write">Writes it in the family's own language.</param>
    /// <exception cref="ConnectorException">The change holds a name that the engine takes nowhere.</exception>
    public static SqlChange Of(Func<InstanceChange, SqlChange> write, InstanceChange change)
    {
        try
        {
            return write(change);
        }
        catch (ArgumentException e)
        {
            throw new ConnectorException(ConnectorFailure.Conflict, e.Message, e);
        }
    }

    /// <summary>What was seen of a change.</summary>
    public static Observation Seen(InstanceChange change, bool done) =>
        new(
            done ? ObservedState.Done : ObservedState.NotDone,
            done ? $"{change.Words}: it is so" : $"{change.Words}: it is not so yet");
}
