using System.Text.RegularExpressions;
using JustRight.Core.Directory;

namespace JustRight.Core.SignIn.Objects;

/// <summary>
/// Reads what a directory says of its attributes and classes [RFC 4512 4.1.1, 4.1.2]. AD-like directories name no matching rules:
/// there the syntax alone says how values compare [MS-ADTS 3.1.1.2.2.2].
/// </summary>
public static partial class SchemaDescriptions
{
    private const string SyntaxPrefix = "1.3.6.1.4.1.1466.115.121.1.";

    /// <summary>A schema from its descriptions. What cannot be read is left out, as if the directory did not know it.</summary>
    /// <param name="attributeTypes">The values of <c>attributeTypes</c>.</param>
    /// <param name="objectClasses">The values of <c>objectClasses</c>.</param>
    public static AttributeSchema Read(
        DirectoryFamily family, IEnumerable<string> attributeTypes, IEnumerable<string> objectClasses)
    {
        var described = new Dictionary<string, Description>(StringComparer.OrdinalIgnoreCase);
        var all = attributeTypes.Select(Description.Of).OfType<Description>().ToList();
        foreach (var description in all)
            foreach (var name in description.Names) described.TryAdd(name, description);
        return new AttributeSchema(
            family,
            all.Select(d => ((IReadOnlyList<string>)[.. d.Names, d.Number], Kind(family, d, described))),
            objectClasses.Select(Description.Of).OfType<Description>()
                .Select(d => ((IReadOnlyList<string>)[.. d.Names, d.Number], d["SUP"])));
    }

    private static AttributeKind Kind(DirectoryFamily family, Description description, Dictionary<string, Description> all)
    {
        var syntax = Inherited("SYNTAX")?.Trim('\'').Split('{')[0] ?? "";
        if (family == DirectoryFamily.AdLike)
        {
            var rule = description.Names[0].Equals("objectClass", StringComparison.OrdinalIgnoreCase)
                ? ValueRule.Class
                : OfSyntax(syntax);
            return new AttributeKind(
                description.Names[0], rule, rule is not (ValueRule.Name or ValueRule.Class or ValueRule.Boolean),
                rule is ValueRule.CaseIgnore or ValueRule.CaseExact or ValueRule.Octets)
            {
                Syntax = syntax,
            };
        }

        var equality = Inherited("EQUALITY");
        return new AttributeKind(
            description.Names[0], OfEquality(equality) ?? OfSyntax(syntax),
            Inherited("ORDERING") is not null || equality is "integerMatch" or "generalizedTimeMatch",
            Inherited("SUBSTR") is not null)
        {
            Above = description["SUP"],
            Equal = equality is not null,
            Syntax = syntax,
        };

        string? Inherited(string word)
        {
            var at = description;
            for (var steps = 0; steps < 20; steps++)
            {
                if (at[word] is { } found) return found;
                if (at["SUP"] is not { } above || !all.TryGetValue(above, out at)) return null;
            }

            return null;
        }
    }

    private static ValueRule? OfEquality(string? rule) => rule switch
    {
        "numericStringMatch" => ValueRule.Numeric,
        "UUIDMatch" or "uuidMatch" => ValueRule.Uuid,
        "caseIgnoreMatch" or "caseIgnoreIA5Match" or "caseIgnoreListMatch" => ValueRule.CaseIgnore,
        "caseExactMatch" or "caseExactIA5Match" => ValueRule.CaseExact,
        "telephoneNumberMatch" => ValueRule.Telephone,
        "integerMatch" => ValueRule.WholeNumber,
        "distinguishedNameMatch" or "uniqueMemberMatch" => ValueRule.Name,
        "objectIdentifierMatch" => ValueRule.Class,
        "generalizedTimeMatch" => ValueRule.Time,
        "booleanMatch" => ValueRule.Boolean,
        null => null,
        _ => ValueRule.Octets,
    };

    private static ValueRule OfSyntax(string syntax) => syntax.StartsWith(SyntaxPrefix, StringComparison.Ordinal)
        ? syntax[SyntaxPrefix.Length..] switch
        {
            "12" or "34" => ValueRule.Name,
            "15" or "26" or "44" or "36" => ValueRule.CaseIgnore,
            "27" => ValueRule.WholeNumber,
            "24" or "53" => ValueRule.Time,
            "7" => ValueRule.Boolean,
            "38" => ValueRule.CaseIgnore,
            "50" => ValueRule.Telephone,
            _ => ValueRule.Octets,
        }
        : syntax switch
        {
            "1.2.840.113556.1.4.906" => ValueRule.WholeNumber,
            "1.2.840.113556.1.4.905" => ValueRule.CaseIgnore,
            _ => ValueRule.Octets,
        };

    private sealed record Description(string Number, IReadOnlyList<string> Names, IReadOnlyDictionary<string, string> Words)
    {
        public string? this[string word] => Words.GetValueOrDefault(word);

        /// <summary>A description in parentheses: a number, then words, each with a value, a list of values, or none.</summary>
        public static Description? Of(string text)
        {
            var tokens = Token().Matches(text).Select(m => m.Value).ToList();
            if (tokens.Count < 3 || tokens[0] != "(" || tokens[^1] != ")") return null;
            var names = new List<string>();
            var words = new Dictionary<string, string>();
            for (var i = 2; i < tokens.Count - 1; i++)
            {
                var word = tokens[i];
                if (word is not ("NAME" or "SUP" or "EQUALITY" or "ORDERING" or "SUBSTR" or "SYNTAX" or "DESC")) continue;
                var values = new List<string>();
                if (tokens[i + 1] == "(")
                {
                    for (i += 2; i < tokens.Count - 1 && tokens[i] != ")"; i++)
                        if (tokens[i] != "$") values.Add(tokens[i]);
                }
                else if (i + 1 < tokens.Count - 1)
                {
                    values.Add(tokens[++i]);
                }

                if (word == "NAME") names.AddRange(values.Select(v => v.Trim('\'')));
                else if (values.Count > 0) words[word] = values[0].Trim('\'');
            }

            return names.Count == 0 ? null : new Description(tokens[1], names, words);
        }
    }

    [GeneratedRegex(@"'[^']*'|[()]|\$|[^\s()'$]+")]
    private static partial Regex Token();
}
