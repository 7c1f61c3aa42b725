using JustRight.Core.Directory;

namespace JustRight.Core.Fit.Confirmations;

/// <summary>What a person saw, where no survey reads.</summary>
/// <param name="Install">The install they looked at.</param>
/// <param name="GrantId">The planned grant they looked for.</param>
/// <param name="Principal">The logon name of the account, or of the group that is mapped.</param>
/// <param name="Sid">Its SID when they looked, or null when no survey had read it.</param>
/// <param name="Details">What they compared: operations, or what a task asked for.</param>
/// <param name="Held">Whether it was there, or done.</param>
/// <param name="By">Who looked.</param>
/// <param name="At">When their word was written down.</param>
/// <param name="Until">Until when it counts.</param>
public sealed record Confirmation(
    string Install, string GrantId, string Principal, Sid? Sid, IReadOnlyList<string> Details, bool Held, string By,
    DateTimeOffset At, DateTimeOffset Until);

/// <summary>Every confirmation there is; the latest one of a grant counts.</summary>
public sealed class ConfirmationIndex(IEnumerable<Confirmation> confirmations)
{
    private readonly Dictionary<(string, string), Confirmation> _latest =
        confirmations.GroupBy(c => (c.Install, c.GrantId)).ToDictionary(g => g.Key, g => g.MaxBy(c => c.At)!);

    /// <summary>No entries.</summary>
    public static ConfirmationIndex Empty { get; } = new([]);

    /// <summary>The words that count, one a grant.</summary>
    public IEnumerable<Confirmation> Latest => _latest.Values;

    /// <summary>The latest word on a grant of an install, or null.</summary>
    public Confirmation? LatestOf(string install, string grant) => _latest.GetValueOrDefault((install, grant));
}
