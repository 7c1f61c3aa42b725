using System.Formats.Tar;
using JustRight.Service.Platform.Keys;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Features.Backups;

/// <summary>
/// What of a data folder is secret: the keys, and what they encrypt in the database. It is taken out of the database's copy, and
/// goes into a backup only encrypted to a recipient.
/// </summary>
internal static class SecretParts
{
    /// <summary>The columns that hold what is encrypted; null afterwards.</summary>
    private static readonly (string Table, string[] Columns)[] Columns =
        [("Passwords", ["Protected", "KeyName"]), ("Renewals", ["NewProtected", "OldProtected"])];

    /// <summary>The tables that hold nothing else; empty afterwards.</summary>
    private static readonly string[] Tables = ["Secrets"];

    /// <summary>What opens doors for a while, and must not do so again: in no backup at all.</summary>
    private static readonly string[] Passing = ["Sessions", "Codes"];

    private const string Taken = "secrets.db", Keys = "keys";

    /// <summary>Takes what is secret out of a database: it, or what it was written on, does not stay there.</summary>
    /// <param name="database">A copy.</param>
    /// <param name="into">A database to be made of it; null to drop it.</param>
    public static void Take(string database, string? into)
    {
        using var db = Open(database);
        Run(db, "PRAGMA secure_delete = ON");
        Run(db, "PRAGMA journal_mode = DELETE");
        if (into is not null)
        {
            Run(db, "ATTACH $file AS taken", into);
            foreach (var table in Tables) Run(db, $"CREATE TABLE taken.{table} AS SELECT * FROM main.{table}");
            foreach (var (table, columns) in Columns)
                Run(db, $"CREATE TABLE taken.{table} AS SELECT Id, {string.Join(", ", columns)} FROM main.{table}");
            Run(db, "DETACH taken");
        }

        foreach (var table in Tables.Concat(Passing)) Run(db, $"DELETE FROM {table}");
        foreach (var (table, columns) in Columns)
            Run(db, $"UPDATE {table} SET {string.Join(", ", columns.Select(c => $"{c} = NULL"))}");
        Run(db, "VACUUM");
    }

    /// <summary>Packs what was taken, with the keys.</summary>
    public static async Task<byte[]> PackAsync(string taken, string keys, CancellationToken cancel)
    {
        using var packed = new MemoryStream();
        await using (var tar = new TarWriter(packed, TarEntryFormat.Pax, leaveOpen: true))
        {
            await tar.WriteEntryAsync(taken, Taken, cancel);
            foreach (var file in Directory.GetFiles(keys, "*", SearchOption.AllDirectories).Order(StringComparer.Ordinal))
                await tar.WriteEntryAsync(file, $"{Keys}/{Path.GetRelativePath(keys, file).Replace('\\', '/')}", cancel);
        }

        return packed.ToArray();
    }

    /// <summary>Puts what was packed back: the keys into a folder, the rest into the database.</summary>
    /// <exception cref="InvalidDataException">It holds what is neither.</exception>
    public static async Task PutBackAsync(byte[] packed, string folder, string database, CancellationToken cancel)
    {
        var taken = Path.Combine(folder, Taken);
        await using (var tar = new TarReader(new MemoryStream(packed)))
        {
            while (await tar.GetNextEntryAsync(cancellationToken: cancel) is { } entry)
            {
                if (entry.EntryType != TarEntryType.RegularFile || entry.Name != Taken && !IsKey(entry.Name))
                    throw new InvalidDataException($"'{entry.Name}' does not belong into it");
                var place = Path.Combine(folder, entry.Name);
                PrivateFile.MakeFolder(Path.GetDirectoryName(place)!);
                await using var made = new FileStream(place, PrivateFile.New());
                if (entry.DataStream is { } content) await content.CopyToAsync(made, cancel);
                made.Flush(flushToDisk: true);
            }
        }

        using (var db = Open(database))
        {
            Run(db, "ATTACH $file AS taken", taken);
            foreach (var table in Tables) Run(db, $"INSERT INTO main.{table} SELECT * FROM taken.{table}");
            foreach (var (table, columns) in Columns)
            {
                var set = string.Join(", ", columns.Select(c => $"{c} = t.{c}"));
                Run(db, $"UPDATE main.{table} SET {set} FROM taken.{table} t WHERE t.Id = main.{table}.Id");
            }

            Run(db, "DETACH taken");
        }

        File.Delete(taken);
    }

    private static bool IsKey(string name) => name.Split('/') switch
    {
        [Keys, var file] => PlainFile.IsName(file),
        [Keys, var folder, var file] => PlainFile.IsName(folder) && PlainFile.IsName(file),
        _ => false,
    };

    /// <summary>Opens a database that nothing else has open; it is closed for good with its connection.</summary>
    public static SqliteConnection Open(string file)
    {
        var db = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString());
        db.Open();
        return db;
    }

    private static void Run(SqliteConnection db, string sql, string? file = null)
    {
        using var command = db.CreateCommand();
        command.CommandText = sql;
        if (file is not null) command.Parameters.AddWithValue("$file", file);
        command.ExecuteNonQuery();
    }
}
