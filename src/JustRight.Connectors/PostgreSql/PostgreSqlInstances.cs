using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Core.Surveys;
using JustRight.Formats.PostgreSql;

namespace JustRight.Connectors.PostgreSql;

/// <summary>Instances of the PostgreSQL family over TLS.</summary>
/// <param name="secrets">The secrets that the estate names.</param>
public sealed class PostgreSqlInstances(Estate estate, ISecretSource secrets, TimeProvider time) : IInstanceConnector
{
    private const string FirstDatabase = "postgres";

    /// <inheritdoc/>
    public async Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel) =>
        await PostgreSqlSurvey.ReadAsync(
            database => OpenAsync(instance.Name, database, cancel), instance, FirstDatabase, time.GetUtcNow(), cancel);

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
        if (instance?.Tls is not { } reach)
            throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(name));
        var secret = await secrets.GetAsync(
            reach.Secret, EstateSecretUses.OfInstance(
                estate, instance.Name, reach, TrustAnchors.OfFile(reach.Certificate)), cancel);
        return await PostgreSqlSession.OpenAsync(instance, database, secret, cancel);
    }
}
