using JustRight.Core.Installs;
using JustRight.Core.Sheets;

namespace JustRight.Core.Passwords;

/// <summary>How the password of an account stands.</summary>
public enum PasswordStanding
{
    /// <summary>It has expired, or is past the day by which it should have been renewed or looked at.</summary>
    Overdue,

    /// <summary>It is due within the time the organization wants to be told before.</summary>
    Soon,

    /// <summary>It never expires, and nobody said why.</summary>
    Unreasoned,

    /// <summary>It was not read.</summary>
    Unseen,

    /// <summary>It is due later.</summary>
    Later,

    /// <summary>Nothing makes it due: neither the directory nor the organization.</summary>
    Undated,

    /// <summary>The directory changes it by itself.</summary>
    Managed,

    /// <summary>The account is not made yet.</summary>
    NotMade,
}

/// <summary>What is known of the password of one account.</summary>
/// <param name="Account">Its logon name.</param>
/// <param name="Keeper">Who changes it.</param>
/// <param name="KeptBy">Who that is, in words: the product's title where the product changes it.</param>
/// <param name="Uses">The installs that use the account, by name.</param>
/// <param name="Due">When something is to be done, or null.</param>
/// <param name="Words">One sentence: why then.</param>
public sealed record AccountPassword(
    string Account, PasswordKeeper Keeper, string KeptBy, IReadOnlyList<string> Uses, PasswordStanding Standing,
    DateTimeOffset? Due, string Words)
{
    /// <summary>When it was last set, as far as the directory says.</summary>
    public DateTimeOffset? SetAt { get; init; }

    /// <summary>When it expires by the policy that counts for it; null when it does not.</summary>
    public DateTimeOffset? ExpiresAt { get; init; }

    /// <summary>Whether it never expires.</summary>
    public bool Never { get; init; }

    /// <summary>Why it never expires.</summary>
    public NeverExpires? Reason { get; init; }

    /// <summary>The install whose reason it is, the one to be looked at first; null when none says why.</summary>
    public string? ReasonIn { get; init; }

    /// <summary>Whether what is due is to look at that reason, and no renewal.</summary>
    public bool IsToLookAt { get; init; }

    /// <summary>What several products that use it do not agree on, or null.</summary>
    public string? Quarrel { get; init; }
}
