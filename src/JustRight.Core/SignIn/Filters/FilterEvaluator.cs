using System.Globalization;
using System.Numerics;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Filters;

/// <summary>
/// Says for which objects a filter holds, as a directory of the family would: three-valued logic [RFC 4511 4.5.1.7], rules by
/// attribute [RFC 4517 4.2], on AD-like directories also the rules for bits and chains [MS-ADTS 3.1.1.3.4.4].
/// </summary>
public static class FilterEvaluator
{
    /// <summary>The truth of a filter for each object of a table, in their order.</summary>
    public static Truth[] Evaluate(Filter filter, ObjectTable table) => new Run(table).Of(filter);

    /// <summary>The objects that a search with the filter would give, in the order of the table.</summary>
    public static IReadOnlyList<PeopleObject> Matching(Filter filter, ObjectTable table)
    {
        var truths = Evaluate(filter, table);
        var found = new List<PeopleObject>();
        for (var i = 0; i < truths.Length; i++)
            if (truths[i] == Truth.True) found.Add(table.Objects[i]);
        return found;
    }

    /// <summary>
    /// The parts of a filter that only the directory itself can judge: comparing by sound, looking names up in many attributes,
    /// the order of text in an AD-like one, and attributes that were not read.
    /// </summary>
    public static IReadOnlyList<Filter> NotJudged(Filter filter, ObjectTable table) => filter switch
    {
        Filter.And f => [.. f.Parts.SelectMany(p => NotJudged(p, table))],
        Filter.Or f => [.. f.Parts.SelectMany(p => NotJudged(p, table))],
        Filter.Not f => NotJudged(f.Part, table),
        Filter.About => [filter],
        // a rule that we do not know, and values of attributes that nobody read
        Filter.ByRule { Rule: { } rule } when table.Schema.Family != DirectoryFamily.AdLike
            && rule is not (MatchingRules.AllBits or MatchingRules.AnyBit) && NamedRules.Of(rule) is null => [filter],
        Filter.ByRule { Attribute: null } when !table.WasAllRead => [filter],
        // text is in the order of the controller's own language
        Filter.AtLeast or Filter.AtMost when table.Schema is { Family: DirectoryFamily.AdLike } schema
            && schema.Attribute(Filter.AttributeOf(filter)!)?.Rule == ValueRule.CaseIgnore => [filter],
        _ when Filter.AttributeOf(filter) is { } attribute
            && (attribute.Equals("anr", StringComparison.OrdinalIgnoreCase)
                || (table.Schema.Attribute(attribute) is not null && !table.WasRead(attribute))) => [filter],
        _ => [],
    };

    private sealed class Run(ObjectTable table)
    {
        private readonly int _count = table.Objects.Count;

        public Truth[] Of(Filter filter)
        {
            switch (filter)
            {
                case Filter.And f:
                    return Combined(f.Parts, Truth.True, static (a, b) => a < b ? a : b);
                case Filter.Or f:
                    return Combined(f.Parts, Truth.False, static (a, b) => a > b ? a : b);
                case Filter.Not f:
                    var truths = Of(f.Part);
                    for (var i = 0; i < truths.Length; i++) truths[i] = (Truth)(2 - (int)truths[i]);
                    return truths;
                case Filter.Present f:
                    return KindOf(f.Attribute) is { } there
                        ? Any(Column(f.Attribute, there), static _ => true)
                        : All(Truth.Undefined);
                case Filter.Same f:
                    return KindOf(f.Attribute) is { } same ? Same(f.Attribute, same, same.Rule, f.Value) : All(Truth.Undefined);
                case Filter.AtLeast f:
                    return KindOf(f.Attribute) is { } least
                        ? Ordered(f.Attribute, least, f.Value, static c => c >= 0)
                        : All(Truth.Undefined);
                case Filter.AtMost f:
                    return KindOf(f.Attribute) is { } most
                        ? Ordered(f.Attribute, most, f.Value, static c => c <= 0)
                        : All(Truth.Undefined);
                case Filter.About f:
                    // [MS-ADTS 3.1.1.3.1.3.1]: there the same as being equal
                    return table.Schema.Family == DirectoryFamily.AdLike
                        ? Of(new Filter.Same(f.Attribute, f.Value))
                        : All(Truth.Undefined);
                case Filter.Like f:
                    return KindOf(f.Attribute) is { } like ? Like(like, f) : All(Truth.Undefined);
                case Filter.ByRule f:
                    return ByRule(f);
                default:
                    throw new InvalidOperationException($"Unknown filter {filter.GetType().Name}.");
            }
        }

        /// <param name="ofNone">What no part at all comes to [RFC 4526].</param>
        private Truth[] Combined(IReadOnlyList<Filter> parts, Truth ofNone, Func<Truth, Truth, Truth> by)
        {
            var truths = All(ofNone);
            foreach (var part in parts)
            {
                var more = Of(part);
                for (var i = 0; i < truths.Length; i++) truths[i] = by(truths[i], more[i]);
            }

            return truths;
        }

        /// <summary>The attribute; null when the directory does not know it, or an option of it.</summary>
        private AttributeKind? KindOf(string attribute) => table.Schema.Attribute(attribute) is { } kind
            && AttributeOptions.Of(attribute).All(o => AttributeOptions.IsLanguage(o) || table.HasOption(o)) ? kind : null;

        private ObjectTable.Column Column(string attribute, AttributeKind kind, ValueRule? rule = null) =>
            table.ColumnOf(kind, rule ?? kind.Rule, AttributeOptions.Of(attribute));

        private Truth[] All(Truth truth)
        {
            var truths = new Truth[_count];
            Array.Fill(truths, truth);
            return truths;
        }

        private Truth[] Any(ObjectTable.Column column, Func<string, bool> holds)
        {
            var truths = new Truth[_count];
            for (var i = 0; i < _count; i++)
            {
                for (var at = column.Starts[i]; at < column.Starts[i + 1]; at++)
                {
                    if (!holds(column.Values[at])) continue;
                    truths[i] = Truth.True;
                    break;
                }
            }

            return truths;
        }

        private Truth[] Same(string attribute, AttributeKind kind, ValueRule rule, FilterValue value)
        {
            if (!kind.Equal || !CanCompare(kind, value) || value.Text is not { } text) return All(Truth.Undefined);
            if (rule == ValueRule.Class) return OfClass(kind, text);
            if (IsCategory(kind) && table.NormalName(text) is null) text = ObjectCategories.NameOf(text, table) ?? text;
            return table.Prepared(text, rule) is { } prepared
                ? Any(Column(attribute, kind, rule), v => string.Equals(v, prepared, StringComparison.Ordinal))
                : All(Truth.Undefined);
        }

        private static bool CanCompare(AttributeKind kind, FilterValue value) =>
            !value.Octets.IsEmpty && SyntaxAlphabets.Takes(kind.Syntax, value.Octets);

        /// <summary>
        /// AD-like directories keep every class of an object; the others keep some, and take those above as meant.
        /// </summary>
        private Truth[] OfClass(AttributeKind kind, string name)
        {
            var wanted = (table.Schema.ClassName(name) ?? name).ToLowerInvariant();
            if (table.Schema.Family == DirectoryFamily.AdLike) return Any(table.ColumnOf(kind), v => v == wanted);
            if (!table.Schema.HasClass(name)) return All(Truth.Undefined);
            var at = new Dictionary<string, bool>(StringComparer.Ordinal);
            return Any(
                table.ColumnOf(kind),
                v => at.TryGetValue(v, out var known)
                    ? known
                    : at[v] = table.Schema.ClassAndAbove(v).Contains(wanted, StringComparer.OrdinalIgnoreCase));
        }

        private Truth[] Ordered(string attribute, AttributeKind kind, FilterValue value, Func<int, bool> holds)
        {
            if (!kind.Ordered || !CanCompare(kind, value) || value.Text is not { } text
                || table.Prepared(text, kind.Rule) is not { } prepared)
                return All(Truth.Undefined);
            if (kind.Rule != ValueRule.WholeNumber)
                return Any(Column(attribute, kind), v => holds(string.CompareOrdinal(v, prepared)));
            var number = BigInteger.Parse(prepared, CultureInfo.InvariantCulture);
            return Any(Column(attribute, kind), v => holds(BigInteger.Parse(v, CultureInfo.InvariantCulture).CompareTo(number)));
        }

        private Truth[] Like(AttributeKind kind, Filter.Like like)
        {
            if (!kind.Parts || like.Middle.Append(like.Start).Append(like.End).Any(p => p is not null && !CanCompare(kind, p)))
                return All(Truth.Undefined);
            var fold = kind.Rule != ValueRule.CaseExact;
            var middle = new List<string>();
            foreach (var part in like.Middle)
            {
                if (part.Text is not { } text) return All(Truth.Undefined);
                middle.Add(Part(text, t => PreparedText.Middle(t, fold)));
            }

            if ((like.Start is { Text: null }) || (like.End is { Text: null })) return All(Truth.Undefined);
            var start = like.Start?.Text is { } first ? Part(first, t => PreparedText.Start(t, fold)) : "";
            var end = like.End?.Text is { } last ? Part(last, t => PreparedText.End(t, fold)) : "";
            return Any(Column(like.Attribute, kind), v => Fits(v, start, middle, end));

            string Part(string text, Func<string, string> prepare) => kind.Rule switch
            {
                ValueRule.Telephone => PreparedText.Telephone(text),
                ValueRule.Numeric => text.Replace(" ", "", StringComparison.Ordinal),
                ValueRule.CaseIgnore or ValueRule.CaseExact => prepare(text),
                _ => text,
            };
        }

        private static bool Fits(string value, string start, List<string> middle, string end)
        {
            if (!value.StartsWith(start, StringComparison.Ordinal)) return false;
            var at = start.Length;
            foreach (var part in middle)
            {
                var found = value.IndexOf(part, at, StringComparison.Ordinal);
                if (found < 0) return false;
                at = found + part.Length;
            }

            return value.Length - end.Length >= at && value.EndsWith(end, StringComparison.Ordinal);
        }

        private Truth[] ByRule(Filter.ByRule f)
        {
            if (f.Value.Text is not { } text) return All(Truth.Undefined);
            var kind = f.Attribute is null ? null : KindOf(f.Attribute);
            if (f.Attribute is not null && kind is null) return All(Truth.Undefined);
            if (f.Rule is MatchingRules.AllBits or MatchingRules.AnyBit)
                return kind is { Rule: ValueRule.WholeNumber }
                    ? Bits(kind, text, f.Rule == MatchingRules.AllBits)
                    : All(Truth.Undefined);
            if (table.Schema.Family == DirectoryFamily.AdLike)
            {
                if (f.Rule == MatchingRules.Chain)
                    return kind is { Rule: ValueRule.Name } && table.NormalName(text) is { } name
                        ? Chain(kind, name)
                        : All(Truth.Undefined);
                return f.Rule is null && kind is not null ? Same(f.Attribute!, kind, kind.Rule, f.Value) : All(Truth.Undefined);
            }

            var named = f.Rule is null ? null : NamedRules.Of(f.Rule);
            if (f.Rule is not null && named is null) return All(Truth.Undefined);
            List<AttributeKind> kinds = kind is not null
                ? [kind]
                : [.. table.Schema.AttributeNames.Select(n => KindOf(n)!).Distinct().Where(k => named is null || named.Fits(k))];
            var truths = All(Truth.False);
            foreach (var one in kinds)
            {
                var rule = named?.Rule ?? one.Rule;
                var found = named?.Fits(one) == false ? All(Truth.Undefined) : Same(f.Attribute ?? one.Name, one, rule, f.Value);
                // what stands in a name has no options
                if (f.NamesToo && named?.Fits(one) != false && AttributeOptions.Of(f.Attribute ?? "").Length == 0
                    && table.Prepared(text, rule) is { } prepared)
                    found = Or(found, Any(table.NamePartsOf(one, rule), v => v == prepared));
                truths = kinds.Count == 1 ? found : Or(truths, found);
            }

            return truths;
        }

        private static Truth[] Or(Truth[] a, Truth[] b) => [.. a.Zip(b, (x, y) => x > y ? x : y)];

        private Truth[] Bits(AttributeKind kind, string text, bool all)
        {
            if (!long.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var mask))
                return All(Truth.Undefined);
            return Any(
                table.ColumnOf(kind),
                v => long.TryParse(v, CultureInfo.InvariantCulture, out var value)
                    && (all ? (value & mask) == mask : (value & mask) != 0));
        }

        /// <summary>Follows the attribute backwards from the named object: who has it, who has one of those, and so on.</summary>
        private Truth[] Chain(AttributeKind kind, string target)
        {
            var column = table.ColumnOf(kind);
            var holders = new Dictionary<string, List<int>>(StringComparer.Ordinal);
            for (var i = 0; i < _count; i++)
            {
                for (var at = column.Starts[i]; at < column.Starts[i + 1]; at++)
                {
                    if (!holders.TryGetValue(column.Values[at], out var list)) holders[column.Values[at]] = list = [];
                    list.Add(i);
                }
            }

            var truths = new Truth[_count];
            var next = new Queue<string>([target]);
            while (next.TryDequeue(out var name))
            {
                foreach (var i in holders.GetValueOrDefault(name) ?? [])
                {
                    if (truths[i] == Truth.True) continue;
                    truths[i] = Truth.True;
                    if (table.NormalName(table.Objects[i].Dn) is { } further) next.Enqueue(further);
                }
            }

            return truths;
        }

        private bool IsCategory(AttributeKind kind) =>
            table.Schema.Family == DirectoryFamily.AdLike
                && kind.Name.Equals("objectCategory", StringComparison.OrdinalIgnoreCase);
    }
}
