using System.Globalization;
using JustRight.Connectors.People.Wire;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>What a directory's answer to a bind means [RFC 4511 4.2.2].</summary>
internal static class PasswordAnswers
{
    /// <summary>Of an answer as it came over the wire.</summary>
    public static PasswordAnswer Of(LdapAnswer answer) => answer.Code switch
    {
        0 => Accepted(answer.Policy),
        8 or 13 => new PasswordAnswer(
            SignInCause.ProtectionRequired, $"it takes no password over this connection{Said(answer)}"),
        10 => new PasswordAnswer(
            SignInCause.BaseElsewhere, $"it does not hold the account, and refers to another directory{Said(answer)}"),
        34 => new PasswordAnswer(SignInCause.BadName, $"it does not take that for a name{Said(answer)}"),
        49 => answer.Policy?.Error switch
        {
            PasswordPolicyError.AccountLocked => new PasswordAnswer(SignInCause.Locked, "the account is locked"),
            PasswordPolicyError.PasswordExpired => new PasswordAnswer(SignInCause.PasswordExpired, "its password has expired"),
            PasswordPolicyError.ChangeAfterReset => MustChange,
            null => Of(answer.Diagnostic),
        },
        51 or 52 => new PasswordAnswer(SignInCause.TooSlow, $"it is busy or not available{Said(answer)}"),
        var code => new PasswordAnswer(
            SignInCause.SignInRefused, string.Create(CultureInfo.InvariantCulture, $"result {code}{Said(answer)}")),
    };

    /// <summary>
    /// Of a refusal's text. An AD-like controller puts the number of a system error into it [MS-ERREF 2.2].
    /// </summary>
    public static PasswordAnswer Of(string? text)
    {
        const string data = "data ";
        var at = text?.IndexOf(data, StringComparison.Ordinal) ?? -1;
        return (at < 0 ? "" : text![(at + data.Length)..].Split(',', ' ')[0].ToLowerInvariant()) switch
        {
            "530" => new PasswordAnswer(SignInCause.NotHereOrNow, "it may not sign in at this time of day"),
            "531" => new PasswordAnswer(SignInCause.NotHereOrNow, "it may not sign in from this machine"),
            "532" => new PasswordAnswer(SignInCause.PasswordExpired, "its password has expired"),
            "533" => new PasswordAnswer(SignInCause.Disabled, "it is disabled"),
            "701" => new PasswordAnswer(SignInCause.AccountExpired, "the account has expired"),
            "773" => MustChange,
            "775" => new PasswordAnswer(SignInCause.Locked, "it is locked"),
            _ => new PasswordAnswer(SignInCause.WrongPassword, "wrong name or password, or the account is disabled"),
        };
    }

    private static PasswordAnswer MustChange => new(SignInCause.MustChangePassword, "its password must be changed first");

    private static PasswordAnswer Accepted(PasswordPolicyAnswer? policy) => policy switch
    {
        { Error: PasswordPolicyError.ChangeAfterReset } => MustChange,
        { SignInsLeft: { } left } => new PasswordAnswer(
            SignInCause.PasswordExpired,
            string.Create(CultureInfo.InvariantCulture, $"its password has expired, and opens the account {left} times more")),
        { ExpiresIn: { } left } => new PasswordAnswer(
            null, string.Create(CultureInfo.InvariantCulture, $"the password expires in {Math.Floor(left.TotalDays)} days")),
        _ => new PasswordAnswer(null, ""),
    };

    private static string Said(LdapAnswer answer) => answer.Diagnostic.Length > 0 ? $" ({answer.Diagnostic})" : "";
}
