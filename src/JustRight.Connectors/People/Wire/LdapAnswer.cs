namespace JustRight.Connectors.People.Wire;

/// <summary>What a directory answers to one request [RFC 4511 4.1.9].</summary>
/// <param name="Code">The result code.</param>
/// <param name="Diagnostic">What it says besides; empty for nothing.</param>
/// <param name="Policy">What it says of the account's password; null when it says nothing.</param>
internal sealed record LdapAnswer(int Code, string Diagnostic, PasswordPolicyAnswer? Policy);

/// <summary>
/// What a directory of the inetOrgPerson family says of a password with its answer to a bind: the password policy control.
/// </summary>
/// <param name="ExpiresIn">How long until the password expires; null when it does not say.</param>
/// <param name="SignInsLeft">How often an expired password still opens the account; null when it has not expired.</param>
/// <param name="Error">What is wrong; null for nothing.</param>
internal sealed record PasswordPolicyAnswer(TimeSpan? ExpiresIn, int? SignInsLeft, PasswordPolicyError? Error);

/// <summary>What the password policy control calls an error; the numbers are those of the control.</summary>
internal enum PasswordPolicyError
{
    /// <summary>The password has expired.</summary>
    PasswordExpired = 0,

    /// <summary>The account is locked.</summary>
    AccountLocked = 1,

    /// <summary>The password must be changed before anything else.</summary>
    ChangeAfterReset = 2,
}

/// <summary>What answers is no directory: its first octets are no message of LDAP.</summary>
internal sealed class NotADirectoryException(string message, bool spoke = false) : Exception(message)
{
    /// <summary>Whether it said something, which was something else.</summary>
    public bool Spoke { get; } = spoke;
}
