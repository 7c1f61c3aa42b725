namespace JustRight.Core.Passwords;

/// <summary>What a directory tells of the password of an account before somebody tries or sets it.</summary>
/// <param name="Account">The logon name.</param>
/// <param name="ReadFrom">The controller that told it: each counts wrong passwords for itself.</param>
/// <param name="SetAt">When it was last set, or null when it never was, or that may not be read.</param>
/// <param name="WrongPasswords">How many wrong ones were counted; null when that may not be read.</param>
/// <param name="LastWrongAt">When the last wrong one was, or null.</param>
/// <param name="LockedAfter">After how many the account is locked, by the policy that counts for it; 0 for never, null when
/// that may not be read.</param>
/// <param name="CountedFor">For how long a wrong one counts; null when that may not be read.</param>
/// <param name="LeastLength">How many characters a new one has at least; null when that may not be read.</param>
/// <param name="Locked">Whether the account is locked now.</param>
/// <param name="Disabled">Whether the account is disabled.</param>
public sealed record PasswordFacts(
    string Account, string ReadFrom, DateTimeOffset? SetAt, int? WrongPasswords, DateTimeOffset? LastWrongAt, int? LockedAfter,
    TimeSpan? CountedFor, int? LeastLength, bool Locked, bool Disabled)
{
    /// <summary>
    /// What the controller's own clock said, by which it counts; null when it did not say, and then ours must do.
    /// </summary>
    public DateTimeOffset? ControllerTime { get; init; }

    /// <summary>
    /// How many wrong passwords count now: once the time of the last one is over none of them does [MS-ADTS 3.1.1.5.4,
    /// badPwdCount].
    /// </summary>
    public int? CountNow(DateTimeOffset now) =>
        LastWrongAt is { } last && CountedFor is { } window && last + window < (ControllerTime ?? now) ? 0 : WrongPasswords;

    /// <summary>Why a password must not be tried now, or null when one wrong try leaves at least one more.</summary>
    public string? WhyNotTried(DateTimeOffset now)
    {
        if (Locked) return $"{Account} is locked: no password is accepted until the lockout ends.";
        if (Disabled) return $"{Account} is disabled: no password is accepted.";
        if (LockedAfter == 0) return null;
        if (LockedAfter is not { } most || CountNow(now) is not { } count)
            return $"badPwdCount of {Account} may not be read: one more failure might lock it.";
        var left = most - count;
        return left > 1
            ? null
            : $"{ReadFrom} counts {count} wrong {(count == 1 ? "password" : "passwords")} and locks {Account} at {most}: one more would lock it.";
    }
}

/// <summary>What came of trying a password.</summary>
/// <param name="Works">Whether the directory took it; null when it was not tried, or the directory could not be asked.</param>
/// <param name="Words">One sentence.</param>
public sealed record PasswordTry(bool? Works, string Words);
