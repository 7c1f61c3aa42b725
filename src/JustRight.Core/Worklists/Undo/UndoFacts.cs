using JustRight.Core.Changes;
using JustRight.Core.Fit;
using JustRight.Core.Installs;
using JustRight.Core.Replicas;
using JustRight.Core.Rights;

namespace JustRight.Core.Worklists.Undo;

/// <summary>What is known when a job is to be undone.</summary>
/// <param name="View">The latest survey; null when none was taken.</param>
/// <param name="Needs">What all installs of the estate need.</param>
public sealed record UndoFacts(SurveyView? View, NeedsIndex Needs)
{
    /// <summary>The install that the job was for; null for a job on the directory alone.</summary>
    public string? Install { get; init; }

    /// <summary>
    /// For a fix, the account whose trace it fixed: undoing gives back what that account had. Null for other jobs.
    /// </summary>
    public string? Fixed { get; init; }

    /// <summary>The stage of that install; null when it is not known.</summary>
    public Stage? Stage { get; init; }

    /// <summary>The accounts whose password was handed over, or is not kept here, by logon name.</summary>
    public IReadOnlySet<string> PasswordsOut { get; init; } = new HashSet<string>();

    /// <summary>
    /// What the controllers know of the use of accounts, by logon name; one that is not here was not asked for.
    /// </summary>
    public IReadOnlyDictionary<string, AccountUse> Uses { get; init; } = new Dictionary<string, AccountUse>();
}

/// <summary>What undoing a job does.</summary>
/// <param name="Changes">In order.</param>
/// <param name="Blocked">Why nothing of it may be done; empty when it may.</param>
/// <param name="Left">What stays that the job had made, and why: retiring the install takes that away when its time
/// comes.</param>
public sealed record UndoPlan(IReadOnlyList<Change> Changes, IReadOnlyList<string> Blocked, IReadOnlyList<string> Left);
