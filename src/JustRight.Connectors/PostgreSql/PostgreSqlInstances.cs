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
        var sql = Written(change);
        await using var session = await OpenAsync(change.Instance, sql.Database ?? FirstDatabase, cancel);
        var done = await session.IsAsync(sql.Done, cancel);
        return new Observation(done ? ObservedState.Done : ObservedState.NotDone, done ? $"{change.Words}: it is so" : $"{change.Words}: it is not so yet");
    }

    /// <inheritdoc/>
    public async Task MakeAsync(InstanceChange change, NewPassword? password, CancellationToken cancel)
    {
        var sql = Written(change);
        await using var session = await OpenAsync(change.Instance, sql.Database ?? FirstDatabase, cancel);
        await session.MakeAsync(sql.Done, sql.Statement, cancel);
    }

    private static SqlChange Written(InstanceChange change)
    {
        try
        {
            return PostgreSqlStatements.Of(change);
        }
        catch (ArgumentException e)
        {
            throw new ConnectorException(ConnectorFailure.Conflict, e.Message, e);
        }
    }

    private async Task<PostgreSqlSession> OpenAsync(string name, string database, CancellationToken cancel)
    {
        var instance = estate.Instance(name);
        if (instance?.Tls is not { } reach) throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(name));
        var secret = await secretOf(reach.Secret, cancel)
            ?? throw new ConnectorException(ConnectorFailure.SignIn, $"there is no secret '{reach.Secret}', which the estate names for {name}: set it with justright secret set {reach.Secret}.");
        return await PostgreSqlSession.OpenAsync(instance, database, secret, cancel);
    }
}
