using JustRight.Core.Faults;

namespace JustRight.Core.Conditions;

/// <summary>
/// Parser of the small grammar of <c>when</c> and of facts:
/// <code>
/// or      = and { "or" and }
/// and     = unary { "and" unary }
/// unary   = "not" unary | compare
/// compare = operand [ ( "=" | "!=" | "&lt;" | "&lt;=" | "&gt;" | "&gt;=" | "in" | "not" "in" ) operand ]
/// operand = name | number | 'text' | "yes" | "no" | "(" or ")"
/// name    = word { "." word }
/// </code>
/// </summary>
public sealed class ConditionParser
{
    private const int MaxLength = 1000;
    private const int MaxDepth = 40;
    private static readonly string[] Comparisons = ["<=", ">=", "!=", "=", "<", ">"];

    private readonly string _text;
    private readonly Origin _start;
    private int _at;
    private int _depth;

    private ConditionParser(string text, Origin start) => (_text, _start) = (text, start);

    /// <summary>Parses a condition.</summary>
    /// <param name="text">The condition.</param>
    /// <param name="start">Where its first character stands, for positions.</param>
    /// <param name="field">The path of keys, for the fault.</param>
    /// <param name="condition">The result, or null.</param>
    /// <param name="fault">What is wrong, or null.</param>
    public static bool TryParse(string text, Origin start, string field, out Condition? condition, out Fault? fault)
    {
        condition = null;
        fault = null;
        if (text.Length > MaxLength)
        {
            fault = new Fault("condition-too-long", start, field, $"A condition has at most {MaxLength} characters.");
            return false;
        }

        var parser = new ConditionParser(text, start);
        try
        {
            condition = parser.Or();
            parser.SkipSpace();
            if (parser._at < text.Length) throw parser.Wrong("the end, 'and' or 'or'");
            return true;
        }
        catch (ParseException e)
        {
            fault = new Fault("condition", e.At, field, "This condition cannot be read.")
            {
                Found = e.Found,
                Expected = e.Expected,
            };
            condition = null;
            return false;
        }
    }

    private Condition Or()
    {
        if (++_depth > MaxDepth) throw Wrong("less nesting");
        var left = And();
        while (Word("or")) left = new Condition.Or(left, And(), left.At);
        _depth--;
        return left;
    }

    private Condition And()
    {
        var left = Unary();
        while (Word("and")) left = new Condition.And(left, Unary(), left.At);
        return left;
    }

    private Condition Unary()
    {
        var at = Here();
        if (!Word("not")) return Comparison();
        if (++_depth > MaxDepth) throw Wrong("less nesting");
        var inner = Unary();
        _depth--;
        return new Condition.Not(inner, at);
    }

    private Condition Comparison()
    {
        var left = Operand();
        SkipSpace();
        foreach (var op in Comparisons)
        {
            if (string.CompareOrdinal(_text, _at, op, 0, op.Length) != 0) continue;
            _at += op.Length;
            if (op == "=" && _at < _text.Length && _text[_at] == '=') _at++;
            return new Condition.Compare(left, op, Operand(), left.At);
        }

        if (Word("in")) return new Condition.Compare(left, "in", Operand(), left.At);
        var back = _at;
        if (Word("not"))
        {
            if (Word("in")) return new Condition.Not(new Condition.Compare(left, "in", Operand(), left.At), left.At);
            _at = back;
        }

        return left;
    }

    private Condition Operand()
    {
        var at = Here();
        if (_at >= _text.Length) throw Wrong("a name, a number, 'text', yes or no");
        var c = _text[_at];
        if (c == '(')
        {
            _at++;
            var inner = Or();
            SkipSpace();
            if (_at >= _text.Length || _text[_at] != ')') throw Wrong("')'");
            _at++;
            return inner;
        }

        if (c == '\'')
        {
            var end = _text.IndexOf('\'', _at + 1);
            if (end < 0) throw Wrong("a closing '");
            var value = _text[(_at + 1)..end];
            _at = end + 1;
            return new Condition.Literal(ConditionValue.Of(value), at);
        }

        var word = TakeWhile(ch => char.IsAsciiLetterOrDigit(ch) || ch is '.' or '-' or '_');
        if (word.Length == 0) throw Wrong("a name, a number, 'text', yes or no");
        if (word is "yes" or "no") return new Condition.Literal(ConditionValue.Of(word == "yes"), at);
        if (word is "and" or "or" or "in" or "not")
            throw new ParseException(at, $"'{word}'", "a name, a number, 'text', yes or no");
        if (DottedNumber.TryParse(word, out var number)) return new Condition.Literal(ConditionValue.Of(number), at);
        return new Condition.Name(word, at);
    }

    private bool Word(string word)
    {
        SkipSpace();
        var end = _at + word.Length;
        if (string.CompareOrdinal(_text, _at, word, 0, word.Length) != 0) return false;
        if (end < _text.Length && (char.IsAsciiLetterOrDigit(_text[end]) || _text[end] is '-' or '_' or '.')) return false;
        _at = end;
        return true;
    }

    private string TakeWhile(Func<char, bool> good)
    {
        var from = _at;
        while (_at < _text.Length && good(_text[_at])) _at++;
        return _text[from.._at];
    }

    private void SkipSpace() => TakeWhile(c => c == ' ');

    private Origin Here()
    {
        SkipSpace();
        return _start.Right(_at);
    }

    private ParseException Wrong(string expected)
    {
        SkipSpace();
        return new ParseException(_start.Right(_at), _at >= _text.Length ? "the end" : $"'{_text[_at]}'", expected);
    }

    private sealed class ParseException(Origin at, string found, string expected) : Exception
    {
        public Origin At { get; } = at;

        public string Found { get; } = found;

        public string Expected { get; } = expected;
    }
}
