using JustRight.Core.Estates;

namespace JustRight.Service.Jobs.Runs;

/// <summary>When services of a host may be restarted.</summary>
internal static class RestartWindows
{
    /// <summary>Whether they may be at a moment.</summary>
    public static bool IsOpen(Estate estate, string host, DateTimeOffset now) =>
        estate.Host(host)?.Restarts?.IsOpen(now, estate.Rules.TimeZone) ?? true;

    /// <summary>When they may be next; null where they may at any time.</summary>
    public static DateTimeOffset? NextOpen(Estate estate, string host, DateTimeOffset now) =>
        estate.Host(host)?.Restarts?.NextOpen(now, estate.Rules.TimeZone);
}
