using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Core.Surveys;
using JustRight.Formats.SqlServer;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// Instances of the SQL Server family over TLS: reads the catalogs, and makes each change with the very statement that the
/// scripts hold.
/// </summary>
/// <param name="secrets">The secrets that the estate names.</param>
/// <param name="sidOf">The SID of a principal where it is known.</param>
public sealed class SqlServerInstances(Estate estate, ISecretSource secrets, Func<string, Sid?> sidOf, TimeProvider time)
    : IInstanceConnector
{
    /// <inheritdoc/>
    public async Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel)
    {
        await using var session = await OpenAsync(instance.Name, cancel);
        return await SqlServerSurvey.ReadAsync(session, instance, time.GetUtcNow(), cancel);
    }

    /// <inheritdoc/>
    public async Task<Observation> ObserveAsync(InstanceChange change, CancellationToken cancel)
    {
        await using var session = await OpenAsync(change.Instance, cancel);
        var (settled, clash) = await new SqlServerNames(session, sidOf).SettleAsync(change, cancel);
        if (clash is not null) return new Observation(ObservedState.Impossible, clash);
        var done = (await session.ListAsync<int>(
            SqlServerCatalog.Ask(InstanceStatements.Of(TransactSql.Of, settled).Done), cancel)) is [1];
        return InstanceStatements.Seen(settled, done);
    }

    /// <inheritdoc/>
    public async Task MakeAsync(InstanceChange change, NewPassword? password, CancellationToken cancel)
    {
        await using var session = await OpenAsync(change.Instance, cancel);
        var (settled, clash) = await new SqlServerNames(session, sidOf).SettleAsync(change, cancel);
        if (clash is not null) throw new ConnectorException(ConnectorFailure.Conflict, clash);
        var sql = InstanceStatements.Of(TransactSql.Of, settled);
        await session.MakeAsync(sql.Database, sql.Done, sql.Statement, cancel);
    }

    private async Task<SqlServerSession> OpenAsync(string name, CancellationToken cancel)
    {
        var instance = estate.Instance(name);
        if (instance?.Tls is not { } reach)
            throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(name));
        var secret = await secrets.GetAsync(
            reach.Secret, EstateSecretUses.OfInstance(
                estate, instance.Name, reach, TrustAnchors.OfFile(reach.Certificate)), cancel);
        return await SqlServerSession.OpenAsync(instance, secret, cancel);
    }
}
