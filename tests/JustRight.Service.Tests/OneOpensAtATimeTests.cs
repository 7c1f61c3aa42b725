using System.Data;
using System.Data.Common;
using System.Diagnostics.CodeAnalysis;
using JustRight.Service.Data.Storage;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;

namespace JustRight.Service.Tests;

/// <summary>
/// The pool of the database's package can give one connection to two requests, when one looks for forgotten connections while
/// another is just being given one: seen once in a browser's test under heavy load, as a collation that could not be deleted.
/// </summary>
public sealed class OneOpensAtATimeTests
{
    [Fact]
    public async Task Of_many_that_open_at_once_one_is_within_the_pool()
    {
        var gate = new OneOpensAtATime();
        var within = new Within();
        await Task.WhenAll(Enumerable.Range(0, 8).Select(_ => Task.Factory.StartNew(
            () =>
            {
                using var connection = new SlowToOpen(within);
                Assert.True(gate.ConnectionOpening(connection, null!, default).IsSuppressed);
                Assert.Equal(ConnectionState.Open, connection.State);
            },
            TestContext.Current.CancellationToken, TaskCreationOptions.LongRunning, TaskScheduler.Default)));
        Assert.Equal(8, within.Opened);
        Assert.Equal(1, within.Most);
    }

    [Fact]
    public async Task The_databases_own_connections_are_opened_so()
    {
        var options = new DbContextOptionsBuilder<AppDb>();
        AppDb.KeptIn(":memory:", options);
        Assert.Single(options.Options.FindExtension<CoreOptionsExtension>()!.Interceptors!.OfType<OneOpensAtATime>());
        await using var db = new AppDb(options.Options);
        await db.Database.OpenConnectionAsync(TestContext.Current.CancellationToken);
        Assert.Equal(ConnectionState.Open, Assert.IsType<SqliteConnection>(db.Database.GetDbConnection()).State);
    }

    private sealed class Within
    {
        private readonly Lock _one = new();
        private int _now;

        public int Most { get; private set; }

        public int Opened { get; private set; }

        public void Enter()
        {
            lock (_one)
            {
                Opened++;
                Most = Math.Max(Most, ++_now);
            }

            Thread.Sleep(20);
            lock (_one) _now--;
        }
    }

    private sealed class SlowToOpen(Within within) : DbConnection
    {
        private ConnectionState _state = ConnectionState.Closed;

        [AllowNull]
        public override string ConnectionString { get; set; } = "";

        public override string Database => "";

        public override string DataSource => "";

        public override string ServerVersion => "";

        public override ConnectionState State => _state;

        public override void Open()
        {
            within.Enter();
            _state = ConnectionState.Open;
        }

        public override void Close() => _state = ConnectionState.Closed;

        public override void ChangeDatabase(string databaseName) => throw new NotSupportedException();

        protected override DbTransaction BeginDbTransaction(IsolationLevel isolationLevel) => throw new NotSupportedException();

        protected override DbCommand CreateDbCommand() => throw new NotSupportedException();
    }
}
