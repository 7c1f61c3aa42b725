using System.Diagnostics.CodeAnalysis;
using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace JustRight.Core.SignIn.Filters;

/// <summary>Why a text is no filter.</summary>
/// <param name="Position">Where, counted from 0 in characters of the text.</param>
/// <param name="Message">What is wrong there.</param>
/// <param name="Expected">What would do.</param>
public sealed record FilterFault(int Position, string Message, string Expected)
{
    /// <summary>In one line, with the position counted from 1.</summary>
    public override string ToString() =>
        string.Create(CultureInfo.InvariantCulture, $"character {Position + 1}: {Message} Expected: {Expected}.");
}

/// <summary>
/// Reads filters [RFC 4515 3]. Space between parts, which people add to keep long filters readable, is passed over.
/// </summary>
public sealed partial class FilterParser
{
    /// <summary>How deep filters may be nested: directories refuse far less.</summary>
    public const int MostNested = 100;

    private readonly string _text;
    private int _at;
    private FilterFault? _fault;

    private FilterParser(string text) => _text = text;

    /// <summary>Reads a filter.</summary>
    /// <param name="fault">What is wrong with the text, when it is none.</param>
    public static bool TryParse(string text, [NotNullWhen(true)] out Filter? filter, [NotNullWhen(false)] out FilterFault? fault)
    {
        var parser = new FilterParser(text);
        filter = parser.Part(0);
        if (filter is not null && parser._at < text.Length)
            parser.Fail(parser._at, "There is text after the end of the filter.", "one filter, in parentheses");
        fault = parser._fault;
        if (fault is not null) filter = null;
        return filter is not null;
    }

    /// <summary>Reads a filter, or throws <see cref="FormatException"/>.</summary>
    public static Filter Parse(string text) =>
        TryParse(text, out var filter, out var fault) ? filter : throw new FormatException($"'{text}' is no filter: {fault}");

    private Filter? Part(int depth)
    {
        SkipSpace();
        if (depth > MostNested)
            return Fail(
                _at, "This is nested too deep.", string.Create(CultureInfo.InvariantCulture, $"at most {MostNested} levels"));
        if (!Take('('))
            return Fail(
                _at, _at < _text.Length ? $"A filter cannot begin with '{_text[_at]}'." : "The filter ends too early.", "'('");
        SkipSpace();
        Filter? filter = Peek switch
        {
            '&' => Parts(depth) is { } all ? new Filter.And(all) : null,
            '|' => Parts(depth) is { } any ? new Filter.Or(any) : null,
            '!' => Negated(depth),
            _ => Item(),
        };
        if (filter is null) return null;
        if (!Take(')'))
            return Fail(_at, _at < _text.Length ? $"'{_text[_at]}' cannot stand here." : "A parenthesis is not closed.", "')'");
        SkipSpace();
        return filter;
    }

    private List<Filter>? Parts(int depth)
    {
        _at++; // none at all is all, or nothing [RFC 4526]
        var parts = new List<Filter>();
        for (SkipSpace(); Peek == '('; SkipSpace())
        {
            if (Part(depth + 1) is not { } part) return null;
            parts.Add(part);
        }

        return parts;
    }

    private Filter.Not? Negated(int depth)
    {
        _at++;
        return Part(depth + 1) is { } part ? new Filter.Not(part) : null;
    }

    private Filter? Item()
    {
        var start = _at;
        while (_at < _text.Length && _text[_at] is not ('=' or '>' or '<' or '~' or ':' or '(' or ')')) _at++;
        var attribute = _text[start.._at].Trim();
        if (Peek == ':') return Extensible(start, attribute);
        if (!IsAttribute(attribute))
            return Fail(
                start, attribute.Length == 0 ? "No attribute is named." : $"'{attribute}' is not an attribute name.",
                "a name such as mail, or a number such as 2.5.4.3");
        var sign = Peek;
        if (sign is '>' or '<' or '~') _at++;
        if (!Take('=')) return Fail(_at, "A comparison is missing.", "=, >=, <=, ~= or :=");
        if (sign == '=') return Equality(attribute);
        return Value(false) is not { } value ? null : sign switch
        {
            '>' => new Filter.AtLeast(attribute, value),
            '<' => new Filter.AtMost(attribute, value),
            _ => new Filter.About(attribute, value),
        };
    }

    /// <summary>Equality, presence or parts of a value: which one, the asterisks say.</summary>
    private Filter? Equality(string attribute)
    {
        var parts = new List<FilterValue>();
        do
        {
            if (Value(true) is not { } part) return null;
            parts.Add(part);
        }
        while (Take('*'));
        if (parts.Count == 1) return new Filter.Same(attribute, parts[0]);
        if (parts.Count == 2 && parts.All(p => p.Octets.IsEmpty)) return new Filter.Present(attribute);
        var middle = parts[1..^1];
        return middle.Any(m => m.Octets.IsEmpty)
            ? Fail(_at, "Two asterisks stand side by side.", "one asterisk, or \\2a for a literal asterisk")
            : new Filter.Like(attribute, NullIfEmpty(parts[0]), middle, NullIfEmpty(parts[^1]));
    }

    private Filter? Extensible(int start, string attribute)
    {
        if (attribute.Length > 0 && !IsAttribute(attribute))
            return Fail(start, $"'{attribute}' is not an attribute name.", "a name such as mail, or a number such as 2.5.4.3");
        var namesToo = false;
        string? rule = null;
        while (Take(':') && Peek != '=')
        {
            var word = _at;
            while (_at < _text.Length && _text[_at] is not (':' or '=' or '(' or ')')) _at++;
            var text = _text[word.._at];
            if (!namesToo && rule is null && string.Equals(text, "dn", StringComparison.OrdinalIgnoreCase)) namesToo = true;
            else if (rule is null && IsAttribute(text)) rule = text;
            else return Fail(word, $"'{text}' is no matching rule.", "a rule such as 1.2.840.113556.1.4.803");
        }

        if (!Take('=')) return Fail(_at, "The comparison is not complete.", "':='");
        if (attribute.Length == 0 && rule is null)
            return Fail(start, "Neither an attribute nor a rule is named.", "an attribute, a rule, or both");
        return Value(false) is { } value
            ? new Filter.ByRule(attribute.Length == 0 ? null : attribute, rule, namesToo, value)
            : null;
    }

    /// <summary>A value up to the parenthesis that ends it, or to an asterisk where those may stand.</summary>
    private FilterValue? Value(bool asterisks)
    {
        var octets = new MemoryStream();
        Span<byte> encoded = stackalloc byte[4];
        while (_at < _text.Length && _text[_at] != ')' && !(asterisks && _text[_at] == '*'))
        {
            var c = _text[_at];
            if (c == '\\')
            {
                if (_at + 2 >= _text.Length
                    || !byte.TryParse(
                        _text.AsSpan(_at + 1, 2), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var octet))
                {
                    Fail(
                        _at, "A backslash alone has no meaning.",
                        "two hexadecimal digits after it, such as \\5c for a backslash");
                    return null;
                }

                octets.WriteByte(octet);
                _at += 3;
                continue;
            }

            if (c is '(' or '*' or '\0')
            {
                Fail(
                    _at, $"{(c == '\0' ? "NUL" : $"'{c}'")} must be escaped in a value.",
                    c switch { '(' => "\\28", '*' => "\\2a", _ => "\\00" });
                return null;
            }

            if (!Rune.TryGetRuneAt(_text, _at, out var rune))
            {
                Fail(_at, "This is half of a surrogate pair.", "a whole character");
                return null;
            }

            octets.Write(encoded[..rune.EncodeToUtf8(encoded)]);
            _at += rune.Utf16SequenceLength;
        }

        return new FilterValue(octets.ToArray());
    }

    private static FilterValue? NullIfEmpty(FilterValue value) => value.Octets.IsEmpty ? null : value;

    private char Peek => _at < _text.Length ? _text[_at] : '\0';

    private bool Take(char c)
    {
        if (Peek != c || _at >= _text.Length) return false;
        _at++;
        return true;
    }

    private void SkipSpace()
    {
        while (_at < _text.Length && char.IsWhiteSpace(_text[_at])) _at++;
    }

    private Filter? Fail(int at, string message, string expected)
    {
        _fault ??= new FilterFault(at, message, expected);
        return null;
    }

    /// <summary>An attribute description [RFC 4512 2.5]: a name or number, and options behind semicolons.</summary>
    private static bool IsAttribute(string text) => AttributeDescription().IsMatch(text);

    [GeneratedRegex(@"^([A-Za-z][A-Za-z0-9-]*|(0|[1-9][0-9]*)(\.(0|[1-9][0-9]*))+)(;[A-Za-z0-9-]+)*\z")]
    private static partial Regex AttributeDescription();
}
