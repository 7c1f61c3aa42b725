using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Formats.Handovers;

namespace JustRight.Formats.SqlServer;

/// <summary>
/// Scripts in Transact-SQL for those who administer an instance of the SQL Server family. What the giving script makes it keeps
/// on record, as an extended property of the database it is made in, so that the undoing script takes back that and no more:
/// what was there before stays. Before all else they look for logins and users by SID, where it is known, and stop where one of
/// the same name belongs to another account, or the account has another name there.
/// </summary>
public static class TransactSqlScripts
{
    private const string Master = "master";
    private const int RecordDigits = 16;
    private const string Batch = "GO";

    /// <summary>A script that makes changes in order; each looks first and does nothing when it is true already.</summary>
    /// <param name="head">What it is, line by line.</param>
    /// <param name="install">For which install: what one made, another's undoing leaves alone.</param>
    /// <param name="sidOf">The SID of a principal where it is known.</param>
    public static string Give(
        IEnumerable<string> head, string install,
        IReadOnlyList<(int Number, InstanceChange Change, string? Why)> steps,
        Func<string, Sid?> sidOf)
    {
        var text = Begin(head, [.. steps.Select(s => s.Change)], sidOf);
        string? context = null;
        foreach (var (number, change, why) in steps)
        {
            var sql = TransactSql.Of(change);
            Step(text, number, change, why);
            context = Enter(text, sql, context);
            text.AppendLine(Not(sql.Done)).AppendLine("BEGIN")
                .AppendLine("    BEGIN TRANSACTION;")
                .Append("    ").Append(sql.Statement).AppendLine(";")
                .Append("    IF NOT ").AppendLine(Recorded(install, change))
                .Append("        EXEC sys.sp_addextendedproperty @name = ").Append(RecordOf(install, change))
                .Append(", @value = ").Append(TransactSql.Literal($"{install}: {change.Words}")).AppendLine(";")
                .AppendLine("    COMMIT TRANSACTION;").AppendLine("END;").AppendLine(Batch);
        }

        return text.ToString();
    }

    /// <summary>A script that takes back, in order, what the giving script has on record, and the record with it.</summary>
    /// <param name="head">What it is, line by line.</param>
    /// <param name="install">For which install it was made.</param>
    /// <param name="steps">What was made, and what takes it back.</param>
    /// <param name="sidOf">The SID of a principal where it is known.</param>
    public static string Undo(
        IEnumerable<string> head, string install,
        IReadOnlyList<(int Number, InstanceChange Made, InstanceChange Back)> steps,
        Func<string, Sid?> sidOf)
    {
        var text = Begin(head, [.. steps.Select(s => s.Back)], sidOf);
        string? context = null;
        foreach (var (number, made, back) in steps)
        {
            var sql = TransactSql.Of(back);
            Step(text, number, back, null);
            context = Enter(text, sql, context);
            text.Append("IF ").AppendLine(Recorded(install, made)).AppendLine("BEGIN")
                .AppendLine("    BEGIN TRANSACTION;")
                .Append("    ").AppendLine(Not(sql.Done))
                .Append("        ").Append(sql.Statement).AppendLine(";")
                .Append("    EXEC sys.sp_dropextendedproperty @name = ").Append(RecordOf(install, made)).AppendLine(";")
                .AppendLine("    COMMIT TRANSACTION;").AppendLine("END;").AppendLine(Batch);
        }

        return text.ToString();
    }

    /// <summary>A script that changes nothing and answers for each change whether it is done.</summary>
    /// <param name="head">What it is, line by line.</param>
    public static string Check(IEnumerable<string> head, IReadOnlyList<(int Number, InstanceChange Change)> steps)
    {
        var text = SqlComment.Head(head);
        foreach (var ((number, change), i) in steps.Select((s, i) => (s, i)))
        {
            if (i > 0) text.AppendLine("UNION ALL");
            text.Append("SELECT ").Append(number.ToString(CultureInfo.InvariantCulture)).Append(" AS step, ")
                .Append(TransactSql.Literal(change.Words)).Append(" AS what, CASE WHEN ").Append(TransactSql.Of(change).Done)
                .AppendLine(" THEN N'done' ELSE N'NOT DONE' END AS state");
        }

        return text.AppendLine("ORDER BY step;").ToString();
    }

    /// <summary>The head, and what stops the script where a login or user is not that of the account that is meant.</summary>
    private static StringBuilder Begin(IEnumerable<string> head, IReadOnlyList<InstanceChange> changes, Func<string, Sid?> sidOf)
    {
        var text = SqlComment.Head(head).AppendLine("SET XACT_ABORT ON;").AppendLine(Batch);
        foreach (var (name, database) in changes.Select(c => (c.Principal, TransactSql.Of(c).Database)).Distinct())
        {
            if (sidOf(name) is not { } sid) continue;
            var what = database is null ? "login" : "user";
            var view = database is null ? "sys.server_principals" : $"{TransactSql.Name(database)}.sys.database_principals";
            var where = database is null ? "" : $" in {database}";
            var (quoted, number) = (TransactSql.Literal(name), $"0x{Convert.ToHexString(sid.ToBytes())}");
            Stop(
                text, $"SELECT 1 FROM {view} AS p WHERE p.name = {quoted} AND p.type IN ('U', 'G') AND p.sid <> {number}",
                $"The {what} {name}{where} belongs to another account, deleted or renamed since. Drop that {what} first.");
            Stop(
                text, $"SELECT 1 FROM {view} AS p WHERE p.sid = {number} AND p.name <> {quoted}",
                $"The account {name} has a {what} by another name{where}. Rename that {what} first.");
        }

        return text;
    }

    /// <summary>Nothing after it runs, also for a client that goes on after an error.</summary>
    private static void Stop(StringBuilder text, string found, string why) => text
        .Append("IF EXISTS (").Append(found).AppendLine(")").AppendLine("BEGIN")
        .Append("    RAISERROR(").Append(TransactSql.Literal(why.Replace("%", "%%", StringComparison.Ordinal)))
        .AppendLine(", 16, 1);").AppendLine("    SET NOEXEC ON;").AppendLine("END;").AppendLine(Batch);

    private static void Step(StringBuilder text, int number, InstanceChange change, string? why)
    {
        text.Append('\n').AppendLine(SqlComment.Of(string.Create(CultureInfo.InvariantCulture, $"{number}. {change.Words}")));
        if (why is not null) text.AppendLine(SqlComment.Of($"   {why}"));
    }

    private static string Enter(StringBuilder text, SqlChange sql, string? context)
    {
        var wanted = sql.Database ?? Master;
        if (wanted != context) text.Append("USE ").Append(TransactSql.Name(wanted)).AppendLine(";").AppendLine(Batch);
        return wanted;
    }

    private static string Not(string done) => done.StartsWith(TransactSql.Not, StringComparison.Ordinal)
        ? $"IF {done[TransactSql.Not.Length..]}"
        : $"IF NOT {done}";

    private static string Recorded(string install, InstanceChange change) =>
        $"EXISTS (SELECT 1 FROM sys.extended_properties AS x WHERE x.class = 0 AND x.name = {RecordOf(install, change)})";

    /// <summary>The name of a change's record: short, whatever names the change holds.</summary>
    private static string RecordOf(string install, InstanceChange change)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes($"{install}\n{change.Words}"));
        return TransactSql.Literal($"Just Right {Convert.ToHexStringLower(hash)[..RecordDigits]}");
    }
}
