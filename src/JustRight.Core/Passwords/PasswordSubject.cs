using JustRight.Core.Estates;

namespace JustRight.Core.Passwords;

/// <summary>
/// Whose password is kept. An account of a rehearsal is another than the real one of the same name: neither ever has the other's.
/// </summary>
/// <param name="Text">
/// What it is kept under: <c>DOMAIN\name</c>; for an account of a rehearsal with the rehearsal before it, which no domain's name
/// can be taken for.
/// </param>
/// <param name="IsRehearsed">Whether it is of a rehearsal: then no secret that somebody set ever stands for it.</param>
public sealed record PasswordSubject(string Text, bool IsRehearsed)
{
    /// <summary>An account of an estate.</summary>
    /// <param name="account">Its logon name, or <c>DOMAIN\name</c>.</param>
    public static PasswordSubject Of(Estate estate, string account)
    {
        var principal = account.Contains('\\', StringComparison.Ordinal) ? account : $"{estate.Domain.ShortName}\\{account}";
        return estate.IsRehearsal
            ? new PasswordSubject($"{estate.Name}/{principal}", true)
            : new PasswordSubject(principal, false);
    }
}
