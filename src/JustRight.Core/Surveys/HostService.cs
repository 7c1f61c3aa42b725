using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>When a service starts [MS-SCMR 2.2.15].</summary>
public enum ServiceStart
{
    /// <summary>With the host.</summary>
    Automatic,

    /// <summary>With the host, some two minutes after the automatic ones: a flag on automatic [MS-SCMR 2.2.33].</summary>
    AutomaticDelayed,

    /// <summary>When something asks for it.</summary>
    Manual,

    /// <summary>Never.</summary>
    Disabled,

    /// <summary>By the boot loader: a driver.</summary>
    Boot,

    /// <summary>By the kernel: a driver.</summary>
    System,
}

/// <summary>A service of a host.</summary>
/// <param name="Name">Its short name, which dependencies use.</param>
/// <param name="Account">What it runs as from its next start, as the host writes it.</param>
/// <param name="Running">Whether it runs now.</param>
/// <param name="WaitsFor">What must run before it: services by name, groups of services as <c>+name</c>.</param>
public sealed record HostService(string Name, string Account, ServiceStart Start, bool Running, IReadOnlyList<string> WaitsFor)
{
    /// <summary>Its title.</summary>
    public string Title { get; init; } = "";

    /// <summary>
    /// What it runs as now, or null when it does not run or that was not read. A new account counts from the next start.
    /// </summary>
    public string? RunsNowAs { get; init; }

    /// <summary>The SID of what it runs as now, where that was read.</summary>
    public Sid RunsNowAsSid { get; init; }

    /// <summary>Since when it runs, or null when it does not or that was not read.</summary>
    public DateTimeOffset? RunsSince { get; init; }
}
