namespace JustRight.Service.Data.Storage;

/// <summary>An adoption, begun or finished.</summary>
public sealed class AdoptionRow
{
    public int Id { get; set; }

    public required string Name { get; set; }

    public required string Estate { get; set; }

    /// <summary>Product and accounts.</summary>
    public required string Json { get; set; }

    public required string By { get; set; }

    public DateTimeOffset At { get; set; }

    /// <summary>When its sheet and install were last written into the books, or null.</summary>
    public DateTimeOffset? FinishedAt { get; set; }

    public string? FinishedBy { get; set; }
}

/// <summary>What a person said of an item. Never changed: a later word counts instead.</summary>
public sealed class AdoptionAnswerRow
{
    public int Id { get; set; }

    public required string Adoption { get; set; }

    public required string Item { get; set; }

    /// <summary><c>needed</c>, <c>not-needed</c> or <c>not-sure</c>.</summary>
    public required string Word { get; set; }

    public string? Why { get; set; }

    public required string By { get; set; }

    public DateTimeOffset At { get; set; }
}
