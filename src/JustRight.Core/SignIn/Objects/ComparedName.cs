using System.Diagnostics.CodeAnalysis;
using System.Formats.Asn1;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// A distinguished name as directories compare it [RFC 4517 4.2.15]: the attribute of each part by whichever name or number, its
/// value without regard to case, space, or the way it is escaped [RFC 4514], parts of several values in any order of them.
/// </summary>
public sealed class ComparedName : IEquatable<ComparedName>
{
    /// <summary>
    /// The attributes that names are made of [RFC 4514 3, RFC 4519 2]: the first name of each, its other name, its number.
    /// </summary>
    private static readonly (string First, string Name, string Number)[] Attributes =
    [
        ("cn", "commonName", "2.5.4.3"), ("sn", "surname", "2.5.4.4"), ("c", "countryName", "2.5.4.6"),
        ("l", "localityName", "2.5.4.7"), ("st", "stateOrProvinceName", "2.5.4.8"), ("street", "streetAddress", "2.5.4.9"),
        ("o", "organizationName", "2.5.4.10"), ("ou", "organizationalUnitName", "2.5.4.11"),
        ("dc", "domainComponent", "0.9.2342.19200300.100.1.25"), ("uid", "userid", "0.9.2342.19200300.100.1.1"),
        ("mail", "rfc822Mailbox", "0.9.2342.19200300.100.1.3"),
    ];

    private static readonly Dictionary<string, string> FirstNames = Attributes
        .SelectMany(a => new[] { KeyValuePair.Create(a.Name, a.First), KeyValuePair.Create(a.Number, a.First) })
        .ToDictionary(StringComparer.OrdinalIgnoreCase);

    private readonly string[] _parts;

    private ComparedName(string[] parts)
    {
        _parts = parts;
        Key = string.Join(',', parts);
    }

    /// <summary>One text for all spellings of the name.</summary>
    public string Key { get; }

    /// <summary>Reads a name; false for what is none. The empty name is the root of everything.</summary>
    /// <param name="firstName">The first name of an attribute, where a schema is known; null for the usual ones.</param>
    public static bool TryRead(
        string text, [NotNullWhen(true)] out ComparedName? name, Func<string, string?>? firstName = null)
    {
        name = null;
        var parts = new List<string>();
        foreach (var part in text.Trim().Length == 0 ? [] : NameText.Split(text, ','))
        {
            var values = new List<string>();
            foreach (var one in NameText.Split(part, '+'))
            {
                var equals = one.IndexOf('=', StringComparison.Ordinal);
                if (equals <= 0 || ValueOf(one[(equals + 1)..]) is not { } value) return false;
                values.Add($"{First(one[..equals].Trim(), firstName)}={value}");
            }

            parts.Add(string.Join('+', values.Order(StringComparer.Ordinal)));
        }

        name = new ComparedName([.. parts]);
        return true;
    }

    /// <summary>The key of a name; of what is no name, the text itself.</summary>
    public static string KeyOf(string text) => TryRead(text, out var name) ? name.Key : text;

    /// <summary>Whether one name is another, or below it; false for what is no name.</summary>
    public static bool IsAtOrBelow(string text, string above) =>
        TryRead(text, out var name) && TryRead(above, out var top) && name.IsAtOrBelow(top);

    /// <summary>Whether one name is directly below another; false for what is no name.</summary>
    public static bool IsDirectlyBelow(string text, string above) =>
        TryRead(text, out var name) && TryRead(above, out var top) && name._parts.Length == top._parts.Length + 1
            && name.IsAtOrBelow(top);

    /// <summary>Whether this is <paramref name="above"/>, or below it.</summary>
    public bool IsAtOrBelow(ComparedName above) =>
        _parts.Length >= above._parts.Length && _parts.AsSpan(_parts.Length - above._parts.Length).SequenceEqual(above._parts);

    /// <inheritdoc/>
    public bool Equals([NotNullWhen(true)] ComparedName? other) => other is not null && Key == other.Key;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as ComparedName);

    /// <inheritdoc/>
    public override int GetHashCode() => Key.GetHashCode(StringComparison.Ordinal);

    /// <inheritdoc/>
    public override string ToString() => Key;

    private static string First(string attribute, Func<string, string?>? firstName)
    {
        var number = attribute.StartsWith("oid.", StringComparison.OrdinalIgnoreCase) ? attribute[4..] : attribute;
        return (firstName?.Invoke(number) ?? FirstNames.GetValueOrDefault(number, number)).ToLowerInvariant();
    }

    private static string? ValueOf(string text)
    {
        var trimmed = text.Trim(' ');
        if (trimmed.StartsWith('#')) return OfOctets(trimmed[1..]);
        return NameText.TryUnescape(text, out var value) && value.Length > 0
            ? DistinguishedName.Escape(PreparedText.Whole(value, true))
            : null;
    }

    /// <summary>The form of octets [RFC 4514 2.4]: a text where it encodes one, else the octets themselves.</summary>
    private static string? OfOctets(string hexadecimal)
    {
        try
        {
            var octets = Convert.FromHexString(hexadecimal);
            var reader = new AsnReader(octets, AsnEncodingRules.BER);
            var tag = reader.PeekTag();
            if (tag.TagClass != TagClass.Universal) return "#" + hexadecimal.ToLowerInvariant();
            var text = (UniversalTagNumber)tag.TagValue switch
            {
                UniversalTagNumber.UTF8String or UniversalTagNumber.PrintableString or UniversalTagNumber.IA5String
                    or UniversalTagNumber.BMPString => reader.ReadCharacterString((UniversalTagNumber)tag.TagValue),
                _ => null,
            };
            return text is null ? "#" + hexadecimal.ToLowerInvariant() : DistinguishedName.Escape(PreparedText.Whole(text, true));
        }
        catch (Exception e) when (e is FormatException or AsnContentException)
        {
            return null;
        }
    }
}
