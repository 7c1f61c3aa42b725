using System.Collections.Frozen;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Filters;

/// <summary>
/// The matching rules that a filter may name [RFC 4517 4.2], each with its number, how it compares, and the syntaxes of the
/// attributes it is for. What is not among them is for the directory itself to judge.
/// </summary>
internal static class NamedRules
{
    private const string Syntaxes = "1.3.6.1.4.1.1466.115.121.1.";

    private static readonly (string Name, string Number, ValueRule Rule, string[] For)[] All =
    [
        ("objectIdentifierMatch", "2.5.13.0", ValueRule.Class, ["38"]),
        ("distinguishedNameMatch", "2.5.13.1", ValueRule.Name, ["12"]),
        ("caseIgnoreMatch", "2.5.13.2", ValueRule.CaseIgnore, ["15", "11", "44", "50"]),
        ("caseExactMatch", "2.5.13.5", ValueRule.CaseExact, ["15", "11", "44", "50"]),
        ("numericStringMatch", "2.5.13.8", ValueRule.Numeric, ["36"]),
        ("booleanMatch", "2.5.13.13", ValueRule.Boolean, ["7"]),
        ("integerMatch", "2.5.13.14", ValueRule.WholeNumber, ["27"]),
        ("telephoneNumberMatch", "2.5.13.20", ValueRule.Telephone, ["50"]),
        ("generalizedTimeMatch", "2.5.13.27", ValueRule.Time, ["24"]),
        ("caseExactIA5Match", "1.3.6.1.4.1.1466.109.114.1", ValueRule.CaseExact, ["26"]),
        ("caseIgnoreIA5Match", "1.3.6.1.4.1.1466.109.114.2", ValueRule.CaseIgnore, ["26"]),
    ];

    private static readonly FrozenDictionary<string, NamedRule> ByName = All
        .SelectMany(r => new[]
        {
            KeyValuePair.Create(r.Name, new NamedRule(r.Rule, [.. r.For.Select(s => Syntaxes + s)])),
            KeyValuePair.Create(r.Number, new NamedRule(r.Rule, [.. r.For.Select(s => Syntaxes + s)])),
        })
        .ToFrozenDictionary(StringComparer.OrdinalIgnoreCase);

    /// <summary>The rule of a name, in whichever case, or of a number; null for one that is not known here.</summary>
    public static NamedRule? Of(string name) => ByName.GetValueOrDefault(name);
}

/// <summary>A matching rule that a filter names.</summary>
/// <param name="Rule">How it compares.</param>
/// <param name="For">The syntaxes of the attributes it is for.</param>
internal sealed record NamedRule(ValueRule Rule, IReadOnlyCollection<string> For)
{
    /// <summary>Whether it is for an attribute: of another it can say nothing.</summary>
    public bool Fits(AttributeKind kind) => kind.Syntax.Length == 0 || For.Contains(kind.Syntax);
}
