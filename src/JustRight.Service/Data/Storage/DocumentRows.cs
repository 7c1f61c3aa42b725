namespace JustRight.Service.Data.Storage;

/// <summary>A sheet, estate or install, as its author wrote it.</summary>
public sealed class DocumentRow
{
    public int Id { get; set; }

    /// <summary><c>sheet</c>, <c>estate</c> or <c>install</c>.</summary>
    public required string Kind { get; set; }

    public required string Name { get; set; }

    /// <summary>The file's name, for positions.</summary>
    public required string File { get; set; }

    public required string Text { get; set; }

    public DateTimeOffset AddedAt { get; set; }

    public required string AddedBy { get; set; }
}

/// <summary>A text that a document has or had: each is kept, also of one that was removed.</summary>
public sealed class DocumentVersionRow
{
    public int Id { get; set; }

    /// <inheritdoc cref="DocumentRow.Kind"/>
    public required string Kind { get; set; }

    public required string Name { get; set; }

    /// <summary>Counted from 1 for each document; one that is added again after it was removed goes on.</summary>
    public int Number { get; set; }

    /// <inheritdoc cref="DocumentRow.File"/>
    public required string File { get; set; }

    public required string Text { get; set; }

    public DateTimeOffset At { get; set; }

    public required string By { get; set; }

    /// <summary>When the document was removed while it had this text; null otherwise.</summary>
    public DateTimeOffset? RemovedAt { get; set; }

    public string? RemovedBy { get; set; }
}

/// <summary>A name that was free when it was chosen and stays an install's own.</summary>
public sealed class SettledNameRow
{
    public int Id { get; set; }

    public required string Install { get; set; }

    /// <summary>The estate in which it was free; null until the first start of this release told which.</summary>
    public string? Estate { get; set; }

    public required NamedKind Kind { get; set; }

    public required string Key { get; set; }

    public required string Name { get; set; }
}

/// <summary>What a settled name is of. Stored by its word.</summary>
public enum NamedKind
{
    /// <summary>An account of a sheet.</summary>
    Account,

    /// <summary>A group of a sheet.</summary>
    Group,
}
