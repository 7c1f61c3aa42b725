using Microsoft.AspNetCore.Connections;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Platform.Faults;

/// <summary>Why the service does not start: one sentence that says what to do, and an exit code of its own.</summary>
internal sealed class StartFault(int code, string message) : Exception(message)
{
    /// <summary>A setting that cannot be.</summary>
    public const int Setting = 2;

    /// <summary>The data folder is in use, or cannot be written.</summary>
    public const int Folder = 3;

    /// <summary>The database is damaged, or of a newer release.</summary>
    public const int Database = 4;

    /// <summary>Somebody else listens at the address.</summary>
    public const int Address = 5;

    /// <summary>The disk is full.</summary>
    public const int Disk = 6;

    /// <summary>What the keys decrypt cannot be decrypted.</summary>
    public const int Keys = 7;

    /// <summary>A backup that is damaged, or none at all.</summary>
    public const int Backup = 8;

    private const int Full = 28; // ENOSPC [errno.h]

    /// <summary>The process's exit code.</summary>
    public int Code { get; } = code;

    /// <summary>The fault that an exception is, or null when it is none that is known.</summary>
    public static StartFault? Of(Exception exception) => exception switch
    {
        StartFault known => known,
        IOException { InnerException: AddressInUseException } e =>
            new StartFault(Address, $"{e.Message} Stop what listens there, or choose another address (--urls)."),
        IOException e when IsFull(e) => DiskFull(e.Message),
        SqliteException e => Of(e),
        UnauthorizedAccessException or DirectoryNotFoundException => Unwritable(exception.Message),
        { InnerException: { } inner } => Of(inner),
        _ => null,
    };

    /// <summary>Whether a failure comes from a full disk.</summary>
    public static bool IsFull(Exception exception) =>
        exception is IOException io && (io.HResult & 0xFFFF) == Full
            || exception is SqliteException { SqliteErrorCode: SqliteFull };

    private const int SqliteFull = 13, SqliteReadOnly = 8, SqliteIoError = 10, SqliteCorrupt = 11, SqliteCannotOpen = 14,
        SqliteNotADatabase = 26;

    private static StartFault? Of(SqliteException exception) => exception.SqliteErrorCode switch
    {
        SqliteFull => DiskFull(exception.Message),
        SqliteReadOnly or SqliteCannotOpen or SqliteIoError => Unwritable(exception.Message),
        SqliteCorrupt or SqliteNotADatabase => new StartFault(
            Database, $"The database justright.db is damaged ({exception.Message}): restore the data folder from a backup."),
        _ => null,
    };

    private static StartFault DiskFull(string message) =>
        new(Disk, $"The disk of the data folder is full ({message}): make room, and start again.");

    /// <summary>That the data folder cannot be written.</summary>
    public static StartFault Unwritable(string message) => new(
        Folder, $"The data folder cannot be written ({message}): let the service's account own it (JustRight:Data).");
}
