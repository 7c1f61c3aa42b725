namespace JustRight.Core.SignIn.Filters;

/// <summary>
/// Which objects a search of a directory is for [RFC 4511 4.5.1.7]. A closed hierarchy; its text is that of RFC 4515.
/// </summary>
public abstract record Filter
{
    private Filter()
    {
    }

    /// <summary>All of the parts are true.</summary>
    public sealed record And(IReadOnlyList<Filter> Parts) : Filter;

    /// <summary>At least one of the parts is true.</summary>
    public sealed record Or(IReadOnlyList<Filter> Parts) : Filter;

    /// <summary>
    /// The part is false. What cannot be said stays unsaid: by an attribute that the directory does not know, no object is
    /// found, nor by the opposite.
    /// </summary>
    public sealed record Not(Filter Part) : Filter;

    /// <summary>The object has a value of the attribute.</summary>
    public sealed record Present(string Attribute) : Filter;

    /// <summary>A value of the attribute is equal to one, by the attribute's own rule.</summary>
    public sealed record Same(string Attribute, FilterValue Value) : Filter;

    /// <summary>A value of the attribute is equal to one or comes after it.</summary>
    public sealed record AtLeast(string Attribute, FilterValue Value) : Filter;

    /// <summary>A value of the attribute is equal to one or comes before it.</summary>
    public sealed record AtMost(string Attribute, FilterValue Value) : Filter;

    /// <summary>A value of the attribute is about one, as the directory understands that.</summary>
    public sealed record About(string Attribute, FilterValue Value) : Filter;

    /// <summary>A value of the attribute begins with one part, has others in their order, and ends with one.</summary>
    /// <param name="Start">What it begins with, or null.</param>
    /// <param name="Middle">What it has in between, in this order.</param>
    /// <param name="End">What it ends with, or null.</param>
    public sealed record Like(string Attribute, FilterValue? Start, IReadOnlyList<FilterValue> Middle, FilterValue? End) : Filter;

    /// <summary>A value matches by a rule that the filter names.</summary>
    /// <param name="Attribute">The attribute; null for every one that the rule is for.</param>
    /// <param name="Rule">The matching rule, by name or number; null for the attribute's own.</param>
    /// <param name="NamesToo">Whether the parts of the object's name count as its values.</param>
    public sealed record ByRule(string? Attribute, string? Rule, bool NamesToo, FilterValue Value) : Filter;

    /// <summary>The filter as text [RFC 4515], every value escaped.</summary>
    public string Text => this switch
    {
        And f => $"(&{string.Concat(f.Parts.Select(p => p.Text))})",
        Or f => $"(|{string.Concat(f.Parts.Select(p => p.Text))})",
        Not f => $"(!{f.Part.Text})",
        Present f => $"({f.Attribute}=*)",
        Same f => $"({f.Attribute}={f.Value.Escaped})",
        AtLeast f => $"({f.Attribute}>={f.Value.Escaped})",
        AtMost f => $"({f.Attribute}<={f.Value.Escaped})",
        About f => $"({f.Attribute}~={f.Value.Escaped})",
        Like f => $"({f.Attribute}={f.Start?.Escaped}*{string.Concat(f.Middle.Select(m => m.Escaped + "*"))}{f.End?.Escaped})",
        ByRule f => $"({f.Attribute}{(f.NamesToo ? ":dn" : "")}{(f.Rule is null ? "" : ":" + f.Rule)}:={f.Value.Escaped})",
        _ => throw new InvalidOperationException($"Unknown filter {GetType().Name}."),
    };

    /// <summary>
    /// The attribute that a single comparison is about; null for combinations, and where it is about every attribute.
    /// </summary>
    public static string? AttributeOf(Filter filter) => filter switch
    {
        Present f => f.Attribute,
        Same f => f.Attribute,
        AtLeast f => f.Attribute,
        AtMost f => f.Attribute,
        About f => f.Attribute,
        Like f => f.Attribute,
        ByRule f => f.Attribute,
        _ => null,
    };

    /// <summary>The attributes of all comparisons of a filter, in their order.</summary>
    public static IEnumerable<string> AttributesOf(Filter filter) => filter switch
    {
        And f => f.Parts.SelectMany(AttributesOf),
        Or f => f.Parts.SelectMany(AttributesOf),
        Not f => AttributesOf(f.Part),
        _ => AttributeOf(filter) is { } attribute ? [attribute] : [],
    };

    /// <inheritdoc cref="Text"/>
    public sealed override string ToString() => Text;
}
