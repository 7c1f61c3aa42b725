using System.Diagnostics.CodeAnalysis;
using System.Text;

namespace JustRight.Core.Directory;

/// <summary>
/// A distinguished name in text form [RFC 4514]. Compared without regard to case, spaces around separators, or the way
/// a character is escaped.
/// </summary>
public sealed class DistinguishedName : IEquatable<DistinguishedName>
{
    private readonly string _key;

    private DistinguishedName(IReadOnlyList<(string Type, string Value)> parts)
    {
        Parts = parts;
        Text = string.Join(',', parts.Select(p => $"{p.Type}={Escape(p.Value)}"));
        _key = Text.ToLowerInvariant();
        Written = Text;
    }

    /// <summary>The parts from the object itself up to the root, values unescaped.</summary>
    public IReadOnlyList<(string Type, string Value)> Parts { get; }

    /// <summary>The canonical text.</summary>
    public string Text { get; }

    /// <summary>The name as somebody wrote it, without the blanks around it; the canonical text where nobody did.</summary>
    public string Written { get; private init; }

    /// <summary>The name of the container, or null at the root.</summary>
    public DistinguishedName? Parent => Parts.Count > 1
        ? new DistinguishedName([.. Parts.Skip(1)])
        {
            Written = Written[(NameText.Split(Written, ',').First().Length + 1)..].TrimStart(),
        }
        : null;

    /// <summary>The child of this name with the given naming attribute and value.</summary>
    public DistinguishedName Child(string type, string value) => new([(type, value), .. Parts]);

    /// <summary>Whether this is <paramref name="ancestor"/> or below it.</summary>
    public bool IsAtOrBelow(DistinguishedName ancestor) =>
        _key == ancestor._key || _key.EndsWith("," + ancestor._key, StringComparison.Ordinal);

    /// <summary>The nearest name that both are at or below; null when they have none in common.</summary>
    public DistinguishedName? CommonWith(DistinguishedName other)
    {
        var at = this;
        while (at is not null && !other.IsAtOrBelow(at)) at = at.Parent;
        return at;
    }

    /// <summary>
    /// Whether one name, as the directory spells it, is another or below it: as <see cref="IsAtOrBelow(DistinguishedName)"/>,
    /// without parsing, for walking many objects.
    /// </summary>
    public static bool IsAtOrBelow(string name, string ancestor) =>
        name.EndsWith(ancestor, StringComparison.OrdinalIgnoreCase)
            && (name.Length == ancestor.Length || name[name.Length - ancestor.Length - 1] == ',');

    /// <summary>Parses a name, or throws <see cref="FormatException"/>.</summary>
    public static DistinguishedName Parse(string text) =>
        TryParse(text, out var name) ? name : throw new FormatException($"'{text}' is not a distinguished name.");

    /// <summary>Parses a name of at least one part; multi-valued parts (<c>+</c>) and the <c>#hex</c> form are refused.</summary>
    public static bool TryParse(string? text, [NotNullWhen(true)] out DistinguishedName? name)
    {
        name = null;
        if (string.IsNullOrWhiteSpace(text)) return false;
        var parts = new List<(string, string)>();
        foreach (var part in NameText.Split(text, ','))
        {
            var equals = part.IndexOf('=', StringComparison.Ordinal);
            if (equals <= 0) return false;
            var type = part[..equals].Trim();
            if (!type.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.')) return false;
            if (!NameText.TryUnescape(part[(equals + 1)..], out var value) || value.Length == 0) return false;
            parts.Add((type.ToUpperInvariant(), value));
        }

        name = new DistinguishedName(parts) { Written = text.Trim() };
        return true;
    }

    /// <summary>The DNS name of the domain that a name lies in [RFC 2247]; empty for what is no name, or in none.</summary>
    public static string DnsDomainOf(string text) =>
        TryParse(text, out var name) ? string.Join('.', name.Parts.Where(p => p.Type == "DC").Select(p => p.Value)) : "";

    /// <summary>Escapes a value for use in a name [RFC 4514 2.4].</summary>
    public static string Escape(string value)
    {
        var text = new StringBuilder(value.Length + 4);
        for (var i = 0; i < value.Length; i++)
        {
            var c = value[i];
            if (c == '\0') text.Append("\\00");
            else if (c < ' ')
                text.Append('\\').Append(((int)c).ToString("X2", System.Globalization.CultureInfo.InvariantCulture));
            else
            {
                var edge = (c == ' ' && (i == 0 || i == value.Length - 1)) || (c == '#' && i == 0);
                if (edge || c is '"' or '+' or ',' or ';' or '<' or '>' or '\\' or '=') text.Append('\\');
                text.Append(c);
            }
        }

        return text.ToString();
    }

    /// <inheritdoc/>
    public bool Equals(DistinguishedName? other) => other is not null && _key == other._key;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as DistinguishedName);

    /// <inheritdoc/>
    public override int GetHashCode() => _key.GetHashCode(StringComparison.Ordinal);

    /// <inheritdoc/>
    public override string ToString() => Text;
}
