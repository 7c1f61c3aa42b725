using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;
using JustRight.Formats.Databases;

namespace JustRight.Connectors.PostgreSql;

/// <summary>Instances of the PostgreSQL family over TLS.</summary>
/// <param name="secretOf">A secret that the estate names, or null when none is kept under the name.</param>
public sealed class PostgreSqlInstances(Estate estate, Func<string, CancellationToken, Task<NewPassword?>> secretOf, TimeProvider time) : IInstanceConnector
{
    private const string FirstDatabase = "postgres";

    /// <inheritdoc/>
    public async Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel) =>
        await PostgreSqlSurvey.ReadAsync(database => OpenAsync(instance.Name, database, cancel), instance, FirstDatabase, time.GetUtcNow(), cancel);

    /// <inheritdoc/>
    public async Task<Observation> ObserveAsync(InstanceChange change, CancellationToken cancel)
    {
        var sql = InstanceStatements.Of(PostgreSqlStatements.Of, change);
        await using var session = await OpenAsync(change.Instance, sql.Database ?? FirstDatabase, cancel);
        var done = await session.IsAsync(sql.Done, cancel);
        return InstanceStatements.Seen(change, done);
    }

    /// <inheritdoc/>
    public async Task MakeAsync(InstanceChange change, NewPassword? password, CancellationToken cancel)
    {
        var sql = InstanceStatements.Of(PostgreSqlStatements.Of, change);
        await using var session = await OpenAsync(change.Instance, sql.Database ?? FirstDatabase, cancel);
        await session.MakeAsync(sql.Done, sql.Statement, cancel);
    }

    private async Task<PostgreSqlSession> OpenAsync(string name, string database, CancellationToken cancel)
    {
        var instance = estate.Instance(name);
        if (instance?.Tls is not { } reach) throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(name));
        var secret = await EstateSecret.OfAsync(secretOf, reach.Secret, name, cancel);
        return await PostgreSqlSession.OpenAsync(instance, database, secret, cancel);
    }
}
