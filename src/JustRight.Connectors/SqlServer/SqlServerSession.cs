using System.Data.Common;
using System.Net.Sockets;
using System.Security.Authentication;
using JustRight.Core.Estates;
using Microsoft.Data.SqlClient;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// One connection to an instance of the SQL Server family through its maker's client library: always encrypted, the certificate
/// always checked. Whatever goes wrong becomes one sentence.
/// </summary>
internal sealed class SqlServerSession : IAsyncDisposable
{
    private readonly EstateInstance _instance;
    private readonly SqlConnection _connection;

    private SqlServerSession(EstateInstance instance, SqlConnection connection) =>
        (_instance, _connection) = (instance, connection);

    private InstanceReach Reach => _instance.Tls!;

    /// <summary>Connects and signs in.</summary>
    /// <exception cref="ConnectorException">It cannot be reached, shows a certificate that is not trusted, or refuses the
    /// login.</exception>
    public static async Task<SqlServerSession> OpenAsync(EstateInstance instance, NewPassword password, CancellationToken cancel)
    {
        var reach = instance.Tls!;
        if (reach.Certificate is { } file && !File.Exists(file))
            throw new ConnectorException(
                ConnectorFailure.NotTrusted, $"there is no certificate {file}, which the estate names for {instance.Name}.");
        var settings = new SqlConnectionStringBuilder
        {
            DataSource = $"tcp:{reach.Address},{reach.Port}",
            InitialCatalog = "master",
            UserID = reach.SignInAs,
            Password = password.Reveal(),
            PersistSecurityInfo = false,
            Encrypt = SqlConnectionEncryptOption.Mandatory,
            TrustServerCertificate = false,
            ServerCertificate = reach.Certificate ?? "",
            Pooling = false,
            ConnectRetryCount = 0,
            ConnectTimeout = Math.Clamp((int)reach.Timeout.TotalSeconds, 1, 30),
            CommandTimeout = (int)reach.Timeout.TotalSeconds,
            ApplicationName = "Just Right",
        };
        var session = new SqlServerSession(instance, new SqlConnection(settings.ConnectionString));
        try
        {
            await session._connection.OpenAsync(cancel);
            return session;
        }
        catch (Exception e) when (e is SqlException or InvalidOperationException)
        {
            await session.DisposeAsync();
            throw session.Explained(e);
        }
    }

    /// <summary>Sends a batch and gives its answers to <paramref name="read"/>.</summary>
    public async Task<T> AskAsync<T>(string batch, Func<DbDataReader, Task<T>> read, CancellationToken cancel)
    {
        try
        {
            await using var command = Command(batch);
            await using var reader = await command.ExecuteReaderAsync(cancel);
            return await read(reader);
        }
        catch (Exception e) when (e is SqlException or InvalidOperationException)
        {
            throw Explained(e);
        }
    }

    /// <summary>The first column of a batch's first answer.</summary>
    public Task<IReadOnlyList<T>> ListAsync<T>(string batch, CancellationToken cancel) => AskAsync<IReadOnlyList<T>>(
        batch,
        async reader =>
        {
            var all = new List<T>();
            while (await reader.ReadAsync(cancel)) all.Add(reader.GetFieldValue<T>(0));
            return all;
        },
        cancel);

    /// <summary>
    /// Makes one statement in a transaction of its own, unless <paramref name="done"/> is true already, and keeps it only when
    /// it is
    /// true afterwards. Chosen as the one to give way in a deadlock, it is tried again, since then nothing of it was kept.
    /// </summary>
    /// <param name="database">The database in whose context, or null.</param>
    /// <param name="done">A condition.</param>
    /// <param name="statement">The statement.</param>
    public async Task MakeAsync(string? database, string done, string statement, CancellationToken cancel)
    {
        const int most = 3;
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                if (database is not null) await _connection.ChangeDatabaseAsync(database, cancel);
                await using var transaction = (SqlTransaction)await _connection.BeginTransactionAsync(cancel);
                if (!await IsAsync(done, transaction, cancel))
                {
                    await using (var command = Command(statement, transaction)) await command.ExecuteNonQueryAsync(cancel);
                    if (!await IsAsync(done, transaction, cancel))
                        throw new ConnectorException(
                            ConnectorFailure.Conflict,
                            $"{_instance.Name} accepted the statement, but it had no effect: rolled back.");
                }

                await transaction.CommitAsync(cancel);
                return;
            }
            catch (SqlException e) when (e.Number == SqlServerErrors.Deadlock && attempt < most
                && _connection.State == System.Data.ConnectionState.Open)
            {
                await Task.Delay(TimeSpan.FromMilliseconds(100 * attempt), cancel);
            }
            catch (Exception e) when (e is SqlException or InvalidOperationException)
            {
                throw Explained(e);
            }
        }
    }

    /// <inheritdoc/>
    public ValueTask DisposeAsync() => _connection.DisposeAsync();

    private async Task<bool> IsAsync(string condition, SqlTransaction transaction, CancellationToken cancel)
    {
        await using var command = Command(SqlServerCatalog.Ask(condition), transaction);
        return await command.ExecuteScalarAsync(cancel) is 1;
    }

    // What is sent is never put together from what a person typed: names are delimited and texts quoted by the writer of
    // Transact-SQL.
#pragma warning disable CA2100
    private SqlCommand Command(string text, SqlTransaction? transaction = null) => new(text, _connection, transaction);
#pragma warning restore CA2100

    private ConnectorException Explained(Exception e)
    {
        if (e is not SqlException said)
            return new ConnectorException(ConnectorFailure.Unreachable, $"{_instance.Name}: {OneLine(e.Message)}", e);
        for (Exception? inner = said; inner is not null; inner = inner.InnerException)
        {
            if (inner is AuthenticationException)
                return new ConnectorException(
                    ConnectorFailure.NotTrusted,
                    $"the certificate of {_instance.Name} at {Reach.Address}:{Reach.Port} is not trusted: {(Reach.Certificate is { } file ? $"it is not the one in {file}" : "no authority that this machine trusts has signed it for that name; name its own certificate in the estate (certificate: file.pem)")}.",
                    e);
            if (inner is SocketException socket)
                return new ConnectorException(
                    ConnectorFailure.Unreachable,
                    $"{_instance.Name} at {Reach.Address}:{Reach.Port} did not answer{(socket.SocketErrorCode == SocketError.Success ? "" : $": {OneLine(socket.Message)}")}.",
                    e);
        }

        var (failure, words) = SqlServerErrors.Of(said.Number, said.Class);
        var text = OneLine(said.Message);
        // Not always does the client library say what kept it from connecting: without a connection there is no number of one.
        if (failure == ConnectorFailure.Unreachable && said.ClientConnectionId == Guid.Empty)
            return new ConnectorException(failure, $"{_instance.Name} at {Reach.Address}:{Reach.Port} did not answer: {text}", e);
        return new ConnectorException(failure, said.Number == SqlServerErrors.LoginFailed
            ? $"{_instance.Name} refuses the login {Reach.SignInAs}: its name, or the password in the secret '{Reach.Secret}', is wrong, or the login is disabled."
            : $"{_instance.Name}{words}: {text} (error {said.Number})", e);
    }

    private static string OneLine(string text) =>
        string.Join(' ', text.Split(['\r', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
}
