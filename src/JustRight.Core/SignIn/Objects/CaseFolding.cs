using System.Text;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Folds letters as directories are to compare them where case does not count [RFC 4518 2.2, RFC 3454 table B.2]: a letter may
/// become two.
/// </summary>
internal static class CaseFolding
{
    private const char IotaBelow = '\u0345', CapitalIWithDot = '\u0130';

    /// <summary>Folds a text of normalization form KC, and leaves it in that form.</summary>
    public static string Fold(string normal)
    {
        var folded = normal.Replace($"{CapitalIWithDot}", "i\u0307", StringComparison.Ordinal).ToLowerInvariant();
        if (!folded.Any(IsMore)) return folded.Normalize(NormalizationForm.FormKC);
        return folded.Replace("ß", "ss", StringComparison.Ordinal).Replace('ς', 'σ')
            .Normalize(NormalizationForm.FormD).Replace(IotaBelow, 'ι').Normalize(NormalizationForm.FormKC);
    }

    /// <summary>Whether folding a letter is more than writing it small.</summary>
    private static bool IsMore(char c) => c is 'ß' or 'ς' or IotaBelow or (>= '\u1f80' and <= '\u1ffc');
}
