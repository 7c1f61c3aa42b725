using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What else than a service runs as an account on a host.</summary>
public enum RunnerKind
{
    /// <summary>A scheduled task [MS-TSCH].</summary>
    Task,

    /// <summary>An application pool of the web server.</summary>
    Pool,
}

/// <summary>A scheduled task or a web application pool of a host, with what it runs as.</summary>
/// <param name="Name">Its name; of a task with its folder: <c>\Dairy\Nightly</c>.</param>
/// <param name="Account">What it runs as, as the host writes it.</param>
/// <param name="KeepsPassword">Whether the host keeps a password with it, which must be typed there anew when it changes.</param>
public sealed record HostRunner(RunnerKind Kind, string Name, string Account, bool KeepsPassword)
{
    /// <summary>The SID of what it runs as, where that was read.</summary>
    public Sid AccountSid { get; init; }

    /// <summary>Whether it is switched off: a disabled task does not run, and keeps its password.</summary>
    public bool IsDisabled { get; init; }

    /// <summary>What it is, with its name.</summary>
    public string Words => Kind switch
    {
        RunnerKind.Task => $"the scheduled task {Name}{(IsDisabled ? " (disabled)" : "")}",
        RunnerKind.Pool => $"the web application pool {Name}",
    };

    /// <summary>The same at the head of a sentence.</summary>
    public string Head => char.ToUpperInvariant(Words[0]) + Words[1..];
}
