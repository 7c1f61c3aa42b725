using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Text;

namespace JustRight.Core.SignIn.Filters;

/// <summary>A value that a filter compares with: octets, most often the UTF-8 of a text [RFC 4511 4.1.6].</summary>
public sealed class FilterValue : IEquatable<FilterValue>
{
    private static readonly UTF8Encoding Strict = new(false, true);
    private readonly byte[] _octets;

    /// <summary>The octets themselves.</summary>
    public FilterValue(ReadOnlySpan<byte> octets) => _octets = octets.ToArray();

    /// <summary>The UTF-8 of a text.</summary>
    /// <exception cref="ArgumentException">The text has half of a surrogate pair, which UTF-8 cannot encode.</exception>
    public static FilterValue Of(string text)
    {
        try
        {
            return new FilterValue(Strict.GetBytes(text));
        }
        catch (EncoderFallbackException e)
        {
            throw new ArgumentException("The text has half of a surrogate pair, which UTF-8 cannot encode.", nameof(text), e);
        }
    }

    /// <summary>The octets.</summary>
    public ReadOnlySpan<byte> Octets => _octets;

    /// <summary>The text whose UTF-8 it is, or null when it is none.</summary>
    public string? Text
    {
        get
        {
            try
            {
                return Strict.GetString(_octets);
            }
            catch (DecoderFallbackException)
            {
                return null;
            }
        }
    }

    /// <summary>
    /// As it stands in a filter [RFC 4515 3]: what has a meaning there, and NUL, as a backslash and two hexadecimal digits; so
    /// is what
    /// is not ASCII, and spaces at the ends, which may be written plainly but get lost on the way through files and pages.
    /// </summary>
    public string Escaped
    {
        get
        {
            var text = new StringBuilder(_octets.Length);
            for (var i = 0; i < _octets.Length; i++)
            {
                var octet = _octets[i];
                var atEnd = i == 0 || i == _octets.Length - 1;
                if (octet is < 0x20 or >= 0x7f or (byte)'*' or (byte)'(' or (byte)')' or (byte)'\\' || (octet == ' ' && atEnd))
                    text.Append('\\').Append(octet.ToString("x2", CultureInfo.InvariantCulture));
                else text.Append((char)octet);
            }

            return text.ToString();
        }
    }

    /// <inheritdoc/>
    public bool Equals([NotNullWhen(true)] FilterValue? other) =>
        other is not null && _octets.AsSpan().SequenceEqual(other._octets);

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as FilterValue);

    /// <inheritdoc/>
    public override int GetHashCode()
    {
        var hash = default(HashCode);
        hash.AddBytes(_octets);
        return hash.ToHashCode();
    }

    /// <summary>The text; where it is none, the octets as in a filter.</summary>
    public override string ToString() => Text ?? Escaped;
}
