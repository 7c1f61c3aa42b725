using JustRight.Core.SecretUses;

namespace JustRight.Service.Data.Secrets;

/// <summary>Texts about secrets and what they may be used for.</summary>
internal static class SecretWords
{
    /// <summary>That a secret was not given, and how an owner allows it.</summary>
    public static string Withheld(string subject, SecretUse use) =>
        $"{Name(subject)} is not allowed for this use, so nothing was sent: it {use.Words}. "
        + $"An owner looks at the use and allows it: {Command(subject, use)}";

    /// <summary>The command that allows a use.</summary>
    public static string Command(string subject, SecretUse use) => $"justright secret allow '{subject}' {use.Id}";

    /// <summary>A secret, or the password that is kept of an account.</summary>
    public static string Name(string subject) =>
        subject.Contains('\\', StringComparison.Ordinal) ? $"the password of {subject}" : $"the secret '{subject}'";
}
