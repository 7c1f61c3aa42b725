using System.Globalization;

namespace JustRight.Core.SignIn.Filters;

/// <summary>Says in words whom a filter is for.</summary>
public static class FilterWords
{
    private const string ClassAttribute = "objectClass", ControlAttribute = "userAccountControl", MemberOf = "memberOf";

    private static readonly (long Bit, string Is)[] ControlBits =
    [
        (2, "disabled"), (16, "locked out"), (32, "allowed an empty password"), (
            64, "not allowed to change its password"), (512, "an ordinary account"), (4096, "a computer of the domain"),
        (8192, "a controller"), (65536, "with a password that never expires"), (262144, "asked for a smart card"), (
            8388608, "with a password that has expired"),
    ];

    /// <summary>The filter in words, behind a name such as <c>objects that</c>.</summary>
    public static string Of(Filter filter) => Words(filter, false);

    private static string Words(Filter filter, bool inside) => filter switch
    {
        Filter.And { Parts: [] } => "are anything at all",
        Filter.Or { Parts: [] } => "do not exist",
        Filter.And f => Joined(f.Parts, " and ", inside),
        Filter.Or f => Joined(f.Parts, " or ", inside),
        Filter.Not f => Negated(f.Part),
        Filter.Present f => $"have {f.Attribute}",
        Filter.Same f when Is(f.Attribute, ClassAttribute) => $"are of class {f.Value}",
        Filter.Same f when Is(f.Attribute, MemberOf) => $"are directly in {f.Value}",
        Filter.Same f => f.Value.Octets.IsEmpty ? $"have an empty {f.Attribute}" : $"have {f.Attribute} {Quoted(f.Value)}",
        Filter.AtLeast f => $"have {f.Attribute} {Quoted(f.Value)} or after",
        Filter.AtMost f => $"have {f.Attribute} {Quoted(f.Value)} or before",
        Filter.About f => $"have {f.Attribute} about {Quoted(f.Value)}",
        Filter.Like f => $"have {f.Attribute} that {string.Join(" and ", Parts(f))}",
        Filter.ByRule f => Rule(f),
        _ => throw new InvalidOperationException($"Unknown filter {filter.GetType().Name}."),
    };

    private static string Joined(IReadOnlyList<Filter> parts, string by, bool inside)
    {
        var words = string.Join(by, parts.Select(p => Words(p, parts.Count > 1)));
        return inside && parts.Count > 1 ? $"({words})" : words;
    }

    private static string Negated(Filter part) => part switch
    {
        Filter.Not f => Words(f.Part, true), // for what can be said either way
        Filter.Present f => $"have no {f.Attribute}",
        Filter.ByRule { Rule: MatchingRules.AllBits } f when Bits(f) is { } bits => $"are not {bits}",
        Filter.ByRule { Rule: MatchingRules.Chain } f when Is(f.Attribute, MemberOf) =>
            $"are not in {f.Value}, neither directly nor through other groups",
        Filter.Same f when Is(f.Attribute, ClassAttribute) => $"are not of class {f.Value}",
        Filter.Same f when Is(f.Attribute, MemberOf) => $"are not directly in {f.Value}",
        _ => $"do not {Words(part, true)}",
    };

    private static IEnumerable<string> Parts(Filter.Like like)
    {
        if (like.Start is { } start) yield return $"begins with {Quoted(start)}";
        foreach (var middle in like.Middle)
            yield return $"contains {Quoted(middle)}{(like.Middle.Count > 1 && middle != like.Middle[^1] ? " then" : "")}";
        if (like.End is { } end) yield return $"ends with {Quoted(end)}";
    }

    private static string Rule(Filter.ByRule f) => f.Rule switch
    {
        MatchingRules.AllBits when Bits(f) is { } bits => $"are {bits}",
        MatchingRules.AllBits => $"have all bits of {f.Value} set in {f.Attribute}",
        MatchingRules.AnyBit => $"have a bit of {f.Value} set in {f.Attribute}",
        MatchingRules.Chain when Is(f.Attribute, MemberOf) => $"are in {f.Value}, directly or through other groups",
        MatchingRules.Chain => $"reach {f.Value} by {f.Attribute}, directly or from object to object",
        null => $"have {f.Attribute ?? "anything"} {Quoted(f.Value)}{(f.NamesToo ? ", or that in their name" : "")}",
        _ => $"have {f.Attribute ?? "anything"} that matches {Quoted(f.Value)} by the rule {f.Rule}{(f.NamesToo ? ", or that in their name" : "")}",
    };

    /// <summary>What the bits of an account's flags say; null for other attributes, and for bits not known here.</summary>
    private static string? Bits(Filter.ByRule f)
    {
        if (!Is(f.Attribute, ControlAttribute)
            || !long.TryParse(f.Value.Text, NumberStyles.None, CultureInfo.InvariantCulture, out var bits) || bits == 0)
            return null;
        var known = ControlBits.Where(b => (bits & b.Bit) != 0).ToList();
        return known.Sum(b => b.Bit) == bits ? string.Join(" and ", known.Select(b => b.Is)) : null;
    }

    private static string Quoted(FilterValue value) => $"'{value}'";

    private static bool Is(string? attribute, string name) => string.Equals(attribute, name, StringComparison.OrdinalIgnoreCase);
}
