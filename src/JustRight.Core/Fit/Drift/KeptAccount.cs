using JustRight.Core.Estates;

namespace JustRight.Core.Fit.Drift;

/// <summary>What a fit saw of an account itself.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="Dn">Its place in the directory; null when that was not seen.</param>
/// <param name="PasswordSetAt">When its password was last set, where only people change it; null otherwise, and when
/// unseen.</param>
public sealed record KeptAccount(string Name, string? Dn, DateTimeOffset? PasswordSetAt)
{
    /// <summary>What is kept of an account's fit.</summary>
    internal static KeptAccount Of(AccountFit fit) => new(fit.Account.Name, fit.Dn, fit.PasswordSetAt);

    /// <summary>With what was seen before, where nothing is now: a directory that does not answer is no change.</summary>
    internal KeptAccount After(KeptAccount? before) =>
        before is null ? this : this with { Dn = Dn ?? before.Dn, PasswordSetAt = PasswordSetAt ?? before.PasswordSetAt };

    /// <summary>What became otherwise.</summary>
    internal IEnumerable<DriftLine> Since(KeptAccount before)
    {
        if (before.Dn is { } from && Dn is { } to && !string.Equals(from, to, StringComparison.OrdinalIgnoreCase))
            yield return new DriftLine(DriftWay.Other, Name, "", $"{Name}: moved from {from} to {to}");
        if (before.PasswordSetAt is { } then && PasswordSetAt is { } at && then != at)
            yield return new DriftLine(
                DriftWay.Worse, Name, "",
                $"{Name}: its password was set at {at.UtcDateTime:yyyy-MM-dd HH:mm} UTC, and not from here: "
                + "what runs as it fails at its next start, unless it was given the new one")
            {
                PasswordSetAt = at,
                Severity = DriftSeverity.Missing,
            };
    }
}
