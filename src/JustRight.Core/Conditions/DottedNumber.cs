using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace JustRight.Core.Conditions;

/// <summary>A release number: up to eight non-negative parts separated by dots, compared part by part; 13 equals 13.0.</summary>
public readonly record struct DottedNumber : IComparable<DottedNumber>
{
    private readonly int[]? _parts;

    private DottedNumber(int[] parts) => _parts = parts;

    private ReadOnlySpan<int> Parts => _parts;

    /// <summary>Reads <c>15</c>, <c>15.0</c>, <c>15.0.2000.5</c>; false for anything else.</summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out DottedNumber number)
    {
        number = default;
        var words = text?.Split('.') ?? [];
        if (words.Length is 0 or > 8) return false;
        var parts = new int[words.Length];
        for (var i = 0; i < words.Length; i++)
            if (!int.TryParse(words[i], NumberStyles.None, CultureInfo.InvariantCulture, out parts[i])) return false;
        var length = parts.Length;
        while (length > 1 && parts[length - 1] == 0) length--;
        number = new DottedNumber(parts[..length]);
        return true;
    }

    /// <inheritdoc/>
    public int CompareTo(DottedNumber other) => Parts.SequenceCompareTo(other.Parts);

    /// <inheritdoc/>
    public bool Equals(DottedNumber other) => CompareTo(other) == 0;

    /// <inheritdoc/>
    public override int GetHashCode() => Parts.Length == 0 ? 0 : Parts[0];

    /// <inheritdoc/>
    public override string ToString() => string.Join('.', Parts.ToArray());

    /// <summary>Less than.</summary>
    public static bool operator <(DottedNumber a, DottedNumber b) => a.CompareTo(b) < 0;

    /// <summary>Greater than.</summary>
    public static bool operator >(DottedNumber a, DottedNumber b) => a.CompareTo(b) > 0;

    /// <summary>At most.</summary>
    public static bool operator <=(DottedNumber a, DottedNumber b) => a.CompareTo(b) <= 0;

    /// <summary>At least.</summary>
    public static bool operator >=(DottedNumber a, DottedNumber b) => a.CompareTo(b) >= 0;
}
