using System.Buffers;
using System.Text;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Which characters values of a syntax are made of [RFC 4517 3.3]: a text with others cannot be compared with them.
/// </summary>
internal static class SyntaxAlphabets
{
    private const string Prefix = "1.3.6.1.4.1.1466.115.121.1.";
    private const string Ia5 = Prefix + "26", Printable = Prefix + "44", Telephone = Prefix + "50", Numeric = Prefix + "36";

    private static readonly SearchValues<byte> PrintableOctets = SearchValues.Create(
        "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789'()+,-./:? "u8);

    private static readonly SearchValues<byte> NumericOctets = SearchValues.Create("0123456789 "u8);

    /// <summary>Whether octets may be a value of a syntax, or a part of one.</summary>
    public static bool Takes(string syntax, ReadOnlySpan<byte> octets) => syntax switch
    {
        Ia5 => Ascii.IsValid(octets),
        Printable or Telephone => !octets.ContainsAnyExcept(PrintableOctets),
        Numeric => !octets.ContainsAnyExcept(NumericOctets),
        _ => true,
    };
}
