namespace JustRight.Service.Data.Storage;

/// <summary>A survey.</summary>
public sealed class SurveyRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public DateTimeOffset TakenAt { get; set; }

    /// <summary>The survey as JSON, packed: every fact of the estate, and there are many surveys.</summary>
    public required byte[] Packed { get; set; }
}

/// <summary>The people and groups of a directory that people sign in with, as last read.</summary>
public sealed class PeopleRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Directory { get; set; }

    public DateTimeOffset ReadAt { get; set; }

    /// <summary>The snapshot as JSON, packed: it may hold a hundred thousand people.</summary>
    public required byte[] Packed { get; set; }
}

/// <summary>What somebody read of an estate's directory and gave as a file; the latest only.</summary>
public sealed class DirectoryFileRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    /// <summary>The file's name.</summary>
    public required string File { get; set; }

    /// <summary>When it was read from the directory.</summary>
    public DateTimeOffset ReadAt { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }

    /// <summary>The attributes we judge by, as LDIF, compressed with gzip [RFC 1952].</summary>
    public required byte[] Content { get; set; }
}

/// <summary>Facts of a host that its owner handed over; the latest only.</summary>
public sealed class HostFactsRow
{
    public int Id { get; set; }

    public required string Estate { get; set; }

    public required string Host { get; set; }

    /// <summary>The file's name.</summary>
    public required string File { get; set; }

    /// <summary>When they were read from the host.</summary>
    public DateTimeOffset ReadAt { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }

    /// <summary>The JSON as it was given, compressed with gzip [RFC 1952].</summary>
    public required byte[] Content { get; set; }
}

/// <summary>The schema of a directory, of which many surveys share one version.</summary>
public sealed class SchemaRow
{
    public int Id { get; set; }

    public required string Version { get; set; }

    public required string Json { get; set; }
}
