namespace JustRight.Core.Sheets;

/// <summary>How an account is used.</summary>
public enum WorksAs
{
    /// <summary>Services run as it.</summary>
    Service,

    /// <summary>Scheduled jobs run as it.</summary>
    Job,

    /// <summary>An application pool runs as it.</summary>
    Pool,

    /// <summary>Somebody installs the product with it.</summary>
    Setup,

    /// <summary>The product searches the directory with it.</summary>
    Bind,

    /// <summary>It is somebody's own.</summary>
    Person,
}

/// <summary>The words of a sheet for how an account is used.</summary>
public static class WorksAsWords
{
    /// <summary>The word for a use.</summary>
    public static string Of(WorksAs use) => use switch
    {
        WorksAs.Service => "service",
        WorksAs.Job => "job",
        WorksAs.Pool => "pool",
        WorksAs.Setup => "setup",
        WorksAs.Bind => "bind",
        WorksAs.Person => "person",
    };

    /// <summary>The types of log-on by which an account is used, by what it works as.</summary>
    public static IReadOnlyList<string> LogonsOf(WorksAs use) => use switch
    {
        WorksAs.Service => ["service"],
        WorksAs.Job => ["batch"],
        WorksAs.Pool => ["batch", "service"],
        WorksAs.Bind => ["network"],
        WorksAs.Setup or WorksAs.Person => ["interactive", "remote"],
    };

    /// <summary>All of the words, in order.</summary>
    public static IReadOnlyList<string> All { get; } = [.. Enum.GetValues<WorksAs>().Select(Of)];

    /// <summary>The use that a word means.</summary>
    /// <exception cref="ArgumentException">It is none of <see cref="All"/>.</exception>
    public static WorksAs Read(string word) =>
        All.Index().FirstOrDefault(w => w.Item == word) is { Item: not null } found
            ? (WorksAs)found.Index
            : throw new ArgumentException($"'{word}' is no way of using an account.", nameof(word));
}
