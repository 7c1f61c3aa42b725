namespace JustRight.Core.Estates;

/// <summary>The organization's rules for passwords that we change.</summary>
/// <param name="RenewEvery">The age at which a password is due, whatever the directory says; null when only the directory
/// says.</param>
/// <param name="Warn">How long before it is due it is spoken of.</param>
/// <param name="LeastLength">How many characters a new one has at least.</param>
public sealed record PasswordRules(TimeSpan? RenewEvery, TimeSpan Warn, int LeastLength)
{
    /// <summary>What holds when the organization says nothing.</summary>
    public static PasswordRules Usual { get; } = new(null, TimeSpan.FromDays(30), 32);
}
