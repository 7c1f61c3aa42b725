using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace JustRight.Service.Data.Storage;

/// <summary>
/// Lets one connection open after the other. The pool of Microsoft.Data.Sqlite (10.0.10) marks a connection as in use before
/// it notes for whom: another thread that looks for forgotten connections between the two takes it for one, and gives it out a
/// second time. Then two requests work on one connection, in one transaction. It looks for them only while one is opened, so
/// that this is enough.
/// </summary>
public sealed class OneOpensAtATime : DbConnectionInterceptor
{
    private readonly Lock _one = new();

    public override InterceptionResult ConnectionOpening(
        DbConnection connection, ConnectionEventData eventData, InterceptionResult result)
    {
        lock (_one) connection.Open();
        return InterceptionResult.Suppress();
    }

    /// <summary>As the other: SQLite opens within the call in any case, from the pool in microseconds.</summary>
    public override ValueTask<InterceptionResult> ConnectionOpeningAsync(
        DbConnection connection, ConnectionEventData eventData, InterceptionResult result,
        CancellationToken cancellationToken = default)
    {
        cancellationToken.ThrowIfCancellationRequested();
        return ValueTask.FromResult(ConnectionOpening(connection, eventData, result));
    }
}
