using System.Text.RegularExpressions;

namespace JustRight.Core.Fit.Confirmations;

/// <summary>
/// Whether what a person writes as proof looks like it holds a secret. It is written for others to read: better one word too
/// many refused than a password kept.
/// </summary>
public static partial class SecretLook
{
    /// <summary>Words that stand after "the password is" and are none.</summary>
    private static readonly HashSet<string> Plain = new(StringComparer.OrdinalIgnoreCase)
    {
        "a", "an", "and", "another", "are", "as", "at", "by", "changed", "different", "empty", "for", "from", "gone", "has",
        "held", "in", "is", "it", "kept", "known", "locked", "longer", "new", "no", "not", "now", "of", "off", "on", "only",
        "refused", "removed", "renewed", "required", "safe", "set", "stored", "that", "the", "to", "unknown", "was", "with",
    };

    /// <summary>What it looks like; null when it looks like nothing.</summary>
    public static string? Of(string text)
    {
        if (text.Contains("PRIVATE KEY-----", StringComparison.OrdinalIgnoreCase)) return "a private key";
        if (Credentials().IsMatch(text)) return "the credentials of a sign-in";
        if (Address().IsMatch(text)) return "a password in an address";
        foreach (Match said in Said().Matches(text))
            if (IsValue(said.Groups["sign"].Value, said.Groups["value"].Value, said.Groups["rest"].Value))
                return $"a value after '{said.Groups["of"].Value}'";
        return text.Split([' ', '\t', '\r', '\n', '"', '\'', '(', ')', ',', ';'], StringSplitOptions.RemoveEmptyEntries)
            .Any(IsGenerated) ? "a password or a key" : null;
    }

    /// <summary>Whether a secret is said: after a sign any word, after a verb the last word, or what is no word.</summary>
    private static bool IsValue(string sign, string value, string rest)
    {
        if (sign == "=") return true;
        var word = value.TrimEnd('.', ',', ';', ')', '"', '\'');
        if (Plain.Contains(word)) return false;
        return sign is ":" or "->" || !word.All(char.IsLetter) || word.Skip(1).Any(char.IsUpper) || rest.Length == 0
            || value.EndsWith('.');
    }

    /// <summary>A word of letters of both cases, digits and signs that no name has, or a long one of many kinds.</summary>
    private static bool IsGenerated(string word)
    {
        word = word.TrimEnd('.', ':', '!', '?');
        if (word.Length < 8 || word.Contains("://", StringComparison.Ordinal) || word.Contains('\\')) return false;
        if (!word.Any(char.IsUpper) || !word.Any(char.IsLower) || !word.Any(char.IsDigit)) return false;
        if (word.Any(c => "!#$%^&*?~+|<>{}".Contains(c, StringComparison.Ordinal))) return true;
        if (word.Contains('@') && word.IndexOf('.', word.IndexOf('@', StringComparison.Ordinal)) < 0) return true;
        var runs = word.Where((c, i) => char.IsDigit(c) && (i == 0 || !char.IsDigit(word[i - 1]))).Count();
        return word.Length >= 16 && runs >= 2 && word.All(c => char.IsAsciiLetterOrDigit(c) || c is '_' or '=');
    }

    /// <summary>A header of HTTP, a web token, or a token of ours.</summary>
    [GeneratedRegex(
        @"\b(bearer|basic)\s+[A-Za-z0-9+/=._-]{8,}|\beyJ[A-Za-z0-9_-]{8,}\.|\bjr_[A-Za-z0-9_-]{12,}", RegexOptions.IgnoreCase)]
    private static partial Regex Credentials();

    /// <summary>A name and a password before the host of an address.</summary>
    [GeneratedRegex("://[^/\\s:@]+:[^/\\s@]+@")]
    private static partial Regex Address();

    /// <summary>A word for a secret, and what is said to be its value.</summary>
    [GeneratedRegex(
        @"\b(?<of>passwords?|passphrase|passcode|passwd|pwd|secret|pin|api[ -]?key|token)\b\s*"
        + @"(?<sign>=|:|->|\bis\b|\bwas\b|\bto\b)\s*[""']?(?<value>\S+)[ \t]*(?<rest>[^\r\n]?)",
        RegexOptions.IgnoreCase)]
    private static partial Regex Said();
}
