using System.Data.Common;
using System.Security.Authentication;
using JustRight.Core.Estates;
using Npgsql;

namespace JustRight.Connectors.PostgreSql;

/// <summary>
/// One connection to one database of an instance of the PostgreSQL family: always TLS, name and authority of the certificate
/// always checked.
/// </summary>
internal sealed class PostgreSqlSession : IAsyncDisposable
{
    private readonly EstateInstance _instance;
    private readonly NpgsqlConnection _connection;

    private PostgreSqlSession(EstateInstance instance, NpgsqlConnection connection) =>
        (_instance, _connection) = (instance, connection);

    /// <summary>Connects and signs in.</summary>
    /// <exception cref="ConnectorException">It cannot be reached, shows a certificate that is not trusted, or refuses the
    /// role.</exception>
    public static async Task<PostgreSqlSession> OpenAsync(
        EstateInstance instance, string database, NewPassword password, CancellationToken cancel)
    {
        var reach = instance.Tls!;
        if (reach.Certificate is { } file && !File.Exists(file))
            throw new ConnectorException(
                ConnectorFailure.NotTrusted, $"there is no certificate {file}, which the estate names for {instance.Name}.");
        var settings = new NpgsqlConnectionStringBuilder
        {
            Host = reach.Address,
            Port = reach.Port,
            Database = database,
            Username = reach.SignInAs,
            Password = password.Reveal(),
            PersistSecurityInfo = false,
            SslMode = SslMode.VerifyFull,
            RootCertificate = reach.Certificate,
            Pooling = false,
            Timeout = Math.Clamp((int)reach.Timeout.TotalSeconds, 1, 30),
            CommandTimeout = (int)reach.Timeout.TotalSeconds,
            ApplicationName = "Just Right",
        };
        var session = new PostgreSqlSession(instance, new NpgsqlConnection(settings.ConnectionString));
        try
        {
            await session._connection.OpenAsync(cancel);
            return session;
        }
        catch (Exception e) when (
            e is NpgsqlException or ArgumentException or InvalidOperationException or TimeoutException or AuthenticationException or System.Net.Sockets.SocketException)
        {
            await session.DisposeAsync();
            throw session.Explained(e);
        }
    }

    /// <summary>Asks, and reads every row of the answer.</summary>
    public async Task<List<T>> ListAsync<T>(string question, Func<DbDataReader, T> read, CancellationToken cancel)
    {
        try
        {
            await using var command = Command(question);
            await using var reader = await command.ExecuteReaderAsync(cancel);
            var all = new List<T>();
            while (await reader.ReadAsync(cancel)) all.Add(read(reader));
            return all;
        }
        catch (Exception e) when (e is NpgsqlException or TimeoutException)
        {
            throw Explained(e);
        }
    }

    /// <summary>
    /// Makes one statement in a transaction, unless <paramref name="done"/> is true already, and keeps it only when it is true
    /// afterwards. Chosen to give way in a deadlock, it is tried again: nothing of it was kept.
    /// </summary>
    /// <param name="done">A condition.</param>
    /// <param name="statement">The statement.</param>
    public async Task MakeAsync(string done, string statement, CancellationToken cancel)
    {
        const int most = 3;
        for (var attempt = 1; ; attempt++)
        {
            try
            {
                await using var transaction = await _connection.BeginTransactionAsync(cancel);
                if (!await IsAsync(done, cancel))
                {
                    await using (var command = Command(statement)) await command.ExecuteNonQueryAsync(cancel);
                    if (!await IsAsync(done, cancel))
                        throw new ConnectorException(
                            ConnectorFailure.NotAllowed,
                            $"{_instance.Name} accepted the statement, but it had no effect: rolled back. May {_instance.Tls!.SignInAs} grant it?");
                }

                await transaction.CommitAsync(cancel);
                return;
            }
            catch (PostgresException e) when (e.SqlState == PostgresErrorCodes.DeadlockDetected && attempt < most)
            {
                await Task.Delay(TimeSpan.FromMilliseconds(100 * attempt), cancel);
            }
            catch (Exception e) when (e is NpgsqlException or TimeoutException)
            {
                throw Explained(e);
            }
        }
    }

    /// <summary>Whether a condition is true.</summary>
    public async Task<bool> IsAsync(string condition, CancellationToken cancel) =>
        await ListAsync($"SELECT {condition}", r => !r.IsDBNull(0) && r.GetBoolean(0), cancel) is [true];

    /// <inheritdoc/>
    public ValueTask DisposeAsync() => _connection.DisposeAsync();

    // What is sent is never put together from what a person typed: names and texts are quoted by the writer of the statements.
#pragma warning disable CA2100
    private NpgsqlCommand Command(string text) => new(text, _connection);
#pragma warning restore CA2100

    private ConnectorException Explained(Exception e)
    {
        var reach = _instance.Tls!;
        for (Exception? inner = e; inner is not null; inner = inner.InnerException)
            if (inner is AuthenticationException)
                return new ConnectorException(
                    ConnectorFailure.NotTrusted,
                    $"the certificate of {_instance.Name} at {reach.Address}:{reach.Port} is not trusted: {(reach.Certificate is { } file ? $"it does not carry that name, or {file} does not vouch for it" : "no authority that this machine trusts has signed it for that name; name the authority in the estate (certificate: file.pem)")}.",
                    e);
        if (e is not PostgresException said)
            return new ConnectorException(
                ConnectorFailure.Unreachable,
                $"{_instance.Name} at {reach.Address}:{reach.Port} did not answer: {OneLine(e.InnerException?.Message ?? e.Message)}",
                e);
        var text = $"{OneLine(said.MessageText)} (SQLSTATE {said.SqlState})";
        return said.SqlState switch
        {
            PostgresErrorCodes.InvalidPassword or PostgresErrorCodes.InvalidAuthorizationSpecification =>
                new ConnectorException(
                    ConnectorFailure.SignIn,
                    $"{_instance.Name} refuses the role {reach.SignInAs}: its name, or the password in the secret '{reach.Secret}', is wrong, or a sign-in rule refuses it.",
                    e),
            PostgresErrorCodes.InsufficientPrivilege =>
                new ConnectorException(ConnectorFailure.NotAllowed, $"{_instance.Name} refuses: {text}", e),
            PostgresErrorCodes.InvalidCatalogName or PostgresErrorCodes.UndefinedObject or PostgresErrorCodes.InvalidSchemaName or PostgresErrorCodes.UndefinedTable => new ConnectorException(
                ConnectorFailure.NotFound, $"{_instance.Name} does not find it: {text}", e),
            PostgresErrorCodes.ReadOnlySqlTransaction => new ConnectorException(
                ConnectorFailure.Conflict, $"{_instance.Name} is read-only, as a replica is: the step is for its primary. {text}", e),
            PostgresErrorCodes.AdminShutdown or PostgresErrorCodes.CrashShutdown or PostgresErrorCodes.CannotConnectNow =>
                new ConnectorException(ConnectorFailure.Unreachable, $"{_instance.Name} is stopping or starting: {text}", e),
            _ => new ConnectorException(ConnectorFailure.Conflict, $"{_instance.Name} refuses: {text}", e),
        };
    }

    private static string OneLine(string text) =>
        string.Join(' ', text.Split(['\r', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries));
}
