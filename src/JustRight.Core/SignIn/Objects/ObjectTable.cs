using System.Globalization;
using System.Text.RegularExpressions;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Objects of a directory laid out by attribute, so that a filter is evaluated over all of them at once. Columns are prepared
/// when
/// they are first asked for and kept; a table may be read by several threads.
/// </summary>
public sealed partial class ObjectTable
{
    private readonly Dictionary<string, Column> _columns = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string?> _names = new(StringComparer.Ordinal);
    private readonly HashSet<string>? _read;
    private readonly Lazy<string[]> _withOptions;
    private readonly Lock _lock = new();

    /// <summary>A table.</summary>
    /// <param name="schema">What the directory knows.</param>
    /// <param name="objects">The objects.</param>
    /// <param name="read">The attributes that were read, by first name; null when everything was.</param>
    public ObjectTable(AttributeSchema schema, IReadOnlyList<PeopleObject> objects, IEnumerable<string>? read = null)
    {
        (Schema, Objects) = (schema, objects);
        _read = read?.ToHashSet(StringComparer.OrdinalIgnoreCase);
        _withOptions = new(() => [.. Objects.SelectMany(o => o.Values.Keys)
            .Where(k => k.Contains(';', StringComparison.Ordinal)).Distinct(StringComparer.OrdinalIgnoreCase)]);
    }

    /// <summary>What the directory knows.</summary>
    public AttributeSchema Schema { get; }

    /// <summary>The objects, in the order they came.</summary>
    public IReadOnlyList<PeopleObject> Objects { get; }

    /// <summary>
    /// Prepares the columns of all attributes that were read, so that the first filter that asks for one does not wait for it.
    /// </summary>
    public void Prepare()
    {
        foreach (var kind in (_read ?? []).Select(Schema.Attribute).OfType<AttributeKind>()) ColumnOf(kind);
    }

    /// <summary>Whether every attribute was read of the objects.</summary>
    public bool WasAllRead => _read is null;

    /// <summary>Whether an attribute was read of the objects.</summary>
    public bool WasRead(string attribute) => _read is null || _read.Contains(Schema.Attribute(attribute)?.Name ?? attribute);

    /// <summary>A name in the one form in which two spellings of it are the same text; null when it is none.</summary>
    internal string? NormalName(string text)
    {
        lock (_names)
        {
            if (!_names.TryGetValue(text, out var normal))
                _names[text] = normal = ComparedName.TryRead(text, out var name, n => Schema.Attribute(n)?.Name) ? name.Key : null;
            return normal;
        }
    }

    /// <summary>The values of an attribute, and of those that are kinds of it, prepared by its rule.</summary>
    internal Column ColumnOf(AttributeKind kind) => ColumnOf(kind, kind.Rule, []);

    /// <summary>The values of an attribute prepared by another rule.</summary>
    /// <param name="options">The options that values must have [RFC 4512 2.5.2]; none for all values.</param>
    internal Column ColumnOf(AttributeKind kind, ValueRule rule, string[] options)
    {
        var key = $"{kind.Name}\n{rule}\n{string.Join(';', options)}";
        lock (_lock)
        {
            if (!_columns.TryGetValue(key, out var column))
                _columns[key] = column = Prepare(NamesOf(Schema.WithKindsBelow(kind), options), rule);
            return column;
        }
    }

    /// <summary>Whether some value of the table has an option.</summary>
    internal bool HasOption(string option) =>
        _withOptions.Value.Any(name => AttributeOptions.Has(AttributeOptions.Of(name), option));

    /// <summary>What the objects call the values of some attributes with some options.</summary>
    private List<string> NamesOf(IEnumerable<AttributeKind> kinds, string[] options)
    {
        var all = kinds.ToHashSet();
        List<string> names = options.Length == 0 ? [.. all.Select(k => k.Name)] : [];
        if (Schema.Family != DirectoryFamily.AdLike)
            names.AddRange(_withOptions.Value.Where(name =>
                Schema.Attribute(name) is { } kind && all.Contains(kind)
                && options.All(o => AttributeOptions.Has(AttributeOptions.Of(name), o))));
        return names;
    }

    /// <summary>The values that stand in the objects' own names for an attribute, prepared by a rule.</summary>
    internal Column NamePartsOf(AttributeKind kind, ValueRule rule)
    {
        var names = Schema.WithKindsBelow(kind).SelectMany(k => Schema.AttributeNames.Where(n => Schema.Attribute(n) == k))
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return Fill(o => NameText.Values(o.Dn).Where(p => names.Contains(p.Type)).Select(p => p.Value), rule);
    }

    private Column Prepare(List<string> names, ValueRule rule) =>
        Fill(o => names.Count == 1 ? o.All(names[0]) : names.SelectMany(o.All), rule);

    private Column Fill(Func<PeopleObject, IEnumerable<string>> valuesOf, ValueRule rule)
    {
        var starts = new int[Objects.Count + 1];
        var values = new List<string>(Objects.Count);
        // classes, groups and flags repeat
        var known = rule is ValueRule.CaseIgnore or ValueRule.CaseExact or ValueRule.Octets
            ? null
            : new Dictionary<string, string?>(StringComparer.Ordinal);
        for (var i = 0; i < Objects.Count; i++)
        {
            starts[i] = values.Count;
            foreach (var value in valuesOf(Objects[i]))
            {
                string? prepared = null;
                if (known?.TryGetValue(value, out prepared) != true)
                {
                    prepared = Prepared(value, rule);
                    known?.TryAdd(value, prepared);
                }

                if (prepared is not null) values.Add(prepared);
            }
        }

        starts[^1] = values.Count;
        return new Column(starts, [.. values]);
    }

    /// <summary>A value as it is compared; null when it is none that the rule is for.</summary>
    internal string? Prepared(string value, ValueRule rule) => rule switch
    {
        ValueRule.CaseIgnore => PreparedText.Whole(value, true),
        ValueRule.CaseExact => PreparedText.Whole(value, false),
        ValueRule.Telephone => PreparedText.Telephone(value),
        ValueRule.Numeric => PreparedText.Numeric(value),
        ValueRule.Uuid => Guid.TryParseExact(value, "D", out _) ? value.ToLowerInvariant() : null,
        ValueRule.WholeNumber => WholeNumberText().IsMatch(value) ? value : null,
        ValueRule.Name => NormalName(value),
        ValueRule.Class => (Schema.ClassName(value) ?? value).ToLowerInvariant(),
        ValueRule.Time => GeneralizedTime.Read(value)?.ToString("yyyyMMddHHmmss.fffffff", CultureInfo.InvariantCulture),
        ValueRule.Boolean => value is "TRUE" or "FALSE" ? value : null,
        ValueRule.Octets => value,
    };

    [GeneratedRegex(@"^(0|-?[1-9][0-9]*)\z")]
    private static partial Regex WholeNumberText();

    /// <summary>
    /// The prepared values of one attribute: those of object <c>i</c> stand from <c>Starts[i]</c> up to <c>Starts[i + 1]</c>.
    /// </summary>
    internal sealed record Column(int[] Starts, string[] Values);
}
