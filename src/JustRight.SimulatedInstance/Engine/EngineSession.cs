using System.Globalization;
using Microsoft.Data.Sqlite;
using Microsoft.SqlServer.TransactSql.ScriptDom;

namespace JustRight.SimulatedInstance.Engine;

/// <summary>What one statement answered: nothing, or rows.</summary>
/// <param name="Columns">Names and types: <c>int</c>, <c>bit</c>, <c>nvarchar</c>, <c>varbinary</c>.</param>
/// <param name="Rows">Values in the order of the columns.</param>
internal sealed record Answer(IReadOnlyList<(string Name, string Type)> Columns, IReadOnlyList<object?[]> Rows)
{
    /// <summary>A statement that answers nothing.</summary>
    public static Answer Nothing { get; } = new([], []);
}

/// <summary>One session of a login: its database, its transaction, and the statements it sends.</summary>
internal sealed class EngineSession : IDisposable
{
    private readonly SimulatedEngine _engine;
    private readonly StatementRunner _runner;
    private readonly string _login;
    private readonly Powers _powers;
    private SqliteTransaction? _transaction;
    private bool _onlyParses;
    private EngineException? _raised;

    /// <summary>Begins a session of a login that was let in.</summary>
    public EngineSession(SimulatedEngine engine, string login)
    {
        (_engine, _login) = (engine, login);
        _powers = new Powers(
            engine.Catalog,
            engine.Catalog.ServerPrincipal(login, "'S'")
                ?? throw new EngineException(18456, $"Login failed for user '{login}'.", 14));
        _runner = new StatementRunner(engine, _powers);
    }

    /// <summary>The database it is in.</summary>
    public string Database { get; private set; } = "master";

    /// <summary>Whether a transaction is open.</summary>
    public bool InTransaction => _transaction is not null;

    /// <summary>
    /// Runs what a client sent: parses it whole with the engine maker's parser, then one statement after the other.
    /// </summary>
    /// <exception cref="EngineException">It cannot be parsed, or a statement is refused; a statement is made whole or not at
    /// all.</exception>
    public IEnumerable<Answer> Batch(string text)
    {
        var parsed = new TSql170Parser(initialQuotedIdentifiers: true).Parse(new StringReader(text), out var errors);
        if (errors.Count > 0)
            throw new EngineException(102, $"Incorrect syntax at line {errors[0].Line}: {errors[0].Message}", 15);
        var answers = ((TSqlScript)parsed).Batches.SelectMany(b => b.Statements).SelectMany(Run).ToList();
        if (_raised is not { } raised) return answers;
        _raised = null;
        throw raised;
    }

    /// <summary>Runs a script as a client does that goes on with the next batch after an error.</summary>
    public void GoOn(string text)
    {
        var parsed = (TSqlScript)new TSql170Parser(initialQuotedIdentifiers: true).Parse(new StringReader(text), out _);
        foreach (var batch in parsed.Batches)
        {
            try
            {
                foreach (var statement in batch.Statements) Run(statement);
            }
            catch (EngineException)
            {
                End(keep: false);
            }
        }
    }

    /// <summary>Begins a transaction; nobody else gets a turn until it ends.</summary>
    public void Begin()
    {
        if (_transaction is not null) throw EngineException.NotSimulated("a transaction in a transaction");
        _engine.Catalog.Turn.Wait();
        _transaction = _engine.Catalog.Store.BeginTransaction();
    }

    /// <summary>Ends the transaction, keeping or dropping what was made in it.</summary>
    public void End(bool keep)
    {
        if (_transaction is null) return;
        if (keep) _transaction.Commit();
        else _transaction.Rollback();
        _transaction.Dispose();
        _transaction = null;
        _engine.Catalog.Turn.Release();
    }

    /// <summary>Goes away: what was not committed is gone.</summary>
    public void Dispose() => End(keep: false);

    private List<Answer> Run(TSqlStatement statement)
    {
        if (_onlyParses) return [];
        switch (statement)
        {
            case PredicateSetStatement { Options: SetOptions.NoExec, IsOn: true }:
                _onlyParses = true;
                return [];
            case PredicateSetStatement:
                return [];
            case BeginTransactionStatement:
                Begin();
                return [];
            case CommitTransactionStatement:
                End(keep: true);
                return [];
            case RaiseErrorStatement { FirstParameter: StringLiteral text }:
                // of this severity it ends nothing: what comes after it runs
                _raised ??= new EngineException(50000, text.Value.Replace("%%", "%", StringComparison.Ordinal));
                return [];
            case UseStatement use:
                InTurn(() => _runner.Enter(use.DatabaseName.Value));
                Database = use.DatabaseName.Value;
                return [Answer.Nothing];
            case IfStatement choice:
                var holds = InTurn(() => Rows(Question().Of(choice.Predicate))).Rows[0][0] is 1;
                return holds ? Run(choice.ThenStatement) : choice.ElseStatement is { } otherwise ? Run(otherwise) : [];
            case BeginEndBlockStatement block:
                return [.. block.StatementList.Statements.SelectMany(Run)];
            case SelectStatement select:
                return [InTurn(() => Rows(Question().Of(select)))];
            default:
                InTurn(() => Whole(() => _runner.Run(statement, Database)));
                return [Answer.Nothing];
        }
    }

    /// <summary>A statement is made whole or not at all, in a transaction or out of one.</summary>
    private void Whole(Action make)
    {
        _engine.Catalog.Run("SAVEPOINT statement");
        try
        {
            make();
        }
        catch
        {
            _engine.Catalog.Run("ROLLBACK TO statement");
            throw;
        }
        finally
        {
            _engine.Catalog.Run("RELEASE statement");
        }
    }

    private CatalogQuestion Question() => new(_runner.Visible(Database));

    private Answer Rows(CatalogQuestion question)
    {
        using var command = _engine.Catalog.Store.CreateCommand();
#pragma warning disable CA2100 // put together by the translator, with every value apart
        command.CommandText = question.Text;
#pragma warning restore CA2100
        for (var i = 0; i < question.Values.Length; i++)
            command.Parameters.AddWithValue($"${i + 1}", question.Values[i] ?? DBNull.Value);
        try
        {
            using var reader = command.ExecuteReader();
            var rows = new List<object?[]>();
            while (reader.Read())
                rows.Add([.. Enumerable.Range(0, reader.FieldCount).Select(i => reader.IsDBNull(i) ? null : reader.GetValue(i))]);
            var columns = Enumerable.Range(0, reader.FieldCount)
                .Select(i =>
                    (
                        reader.GetName(i),
                        Type: TypeOf(reader.GetDataTypeName(i), rows.Select(r => r[i]).FirstOrDefault(v => v is not null))))
                .ToList();
            foreach (var row in rows)
                for (var i = 0; i < row.Length; i++)
                    if (columns[i].Type is "int" or "bit" && row[i] is not null)
                        row[i] = Convert.ToInt32(row[i], CultureInfo.InvariantCulture);
            return new Answer(columns, rows);
        }
        catch (SqliteException e)
        {
            throw new EngineException(207, $"Invalid name in the question: {e.Message}");
        }
    }

    private static string TypeOf(string declared, object? example) =>
        declared is "int" or "bit" or "nvarchar" or "varbinary"
            ? declared
            : example switch { long or int => "int", byte[] => "varbinary", _ => "nvarchar" };

    private void InTurn(Action act) => InTurn(() =>
    {
        act();
        return true;
    });

    private T InTurn<T>(Func<T> act)
    {
        if (_transaction is null) _engine.Catalog.Turn.Wait();
        try
        {
            _engine.Asks(_login, _powers);
            return act();
        }
        finally
        {
            if (_transaction is null) _engine.Catalog.Turn.Release();
        }
    }
}
