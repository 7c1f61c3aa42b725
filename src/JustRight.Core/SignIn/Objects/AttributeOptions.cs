namespace JustRight.Core.SignIn.Objects;

/// <summary>The options behind an attribute's name, such as <c>cn;lang-de</c> [RFC 4512 2.5, RFC 3866].</summary>
internal static class AttributeOptions
{
    /// <summary>The name without them.</summary>
    public static string NameOf(string description) =>
        description.IndexOf(';', StringComparison.Ordinal) is > 0 and var at ? description[..at] : description;

    /// <summary>The options, in lower case; none for most.</summary>
    public static string[] Of(string description) =>
        description.Contains(';', StringComparison.Ordinal) ? description.ToLowerInvariant().Split(';')[1..] : [];

    /// <summary>Whether directories know an option whether or not a value has it: those for languages.</summary>
    public static bool IsLanguage(string option) => option.StartsWith("lang-", StringComparison.Ordinal);

    /// <summary>
    /// Whether an option that was asked for is one of a value: itself, or a range of languages that its own is in, as
    /// <c>lang-en-</c> asks for [RFC 3866 2.2].
    /// </summary>
    public static bool Has(string[] options, string asked) => options.Any(o =>
        o == asked || (asked.EndsWith('-') && (o + "-").StartsWith(asked, StringComparison.Ordinal)));
}
