using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of the jobs of an instance's agent.</summary>
/// <param name="Unread">Why they could not be read, or null.</param>
public sealed record AgentJobs(string? Unread, IReadOnlyList<AgentJob> Jobs)
{
    /// <summary>Jobs that could not be read.</summary>
    public static AgentJobs NotRead(string reason) => new(reason, []);
}

/// <summary>A job of an instance's agent.</summary>
/// <param name="Owner">The owner; empty for a principal of the engine's own.</param>
/// <param name="OwnerName">What the instance calls the owner; null when it has no login any more.</param>
/// <param name="IsOn">Whether it runs by its schedules.</param>
/// <param name="Databases">The databases in which steps of it run as its owner.</param>
public sealed record AgentJob(string Name, Sid Owner, string? OwnerName, bool IsOn, IReadOnlyList<string> Databases);
