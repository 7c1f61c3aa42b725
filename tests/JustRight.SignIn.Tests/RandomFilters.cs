using JustRight.Core.Directory;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.SignIn.Tests;

/// <summary>Filters such as people write them, and such as they should not, about the objects of a table.</summary>
internal sealed class RandomFilters(ObjectTable table, int seed)
{
    private static readonly string[] Classes = [
        "person", "user", "inetOrgPerson", "group", "groupOfNames", "top", "organizationalPerson", "posixAccount", "nosuchclass",
        "USER", "2.16.840.1.113730.3.2.2", "2.5.6.6", "2.5.6.9", "1.2.3.4"];

    private static readonly string[] Rules = [
        "caseIgnoreMatch", "caseExactMatch", "CaseIgnoreMatch", "2.5.13.5", "integerMatch", "numericStringMatch",
        "telephoneNumberMatch", "distinguishedNameMatch", "generalizedTimeMatch", "objectIdentifierMatch", "caseIgnoreIA5Match",
        "caseExactIA5Match", "booleanMatch"];
    private readonly Random _random = new(seed);
    private readonly string[] _attributes = table.Schema.Family == DirectoryFamily.AdLike
        ? [
            "cn", "sAMAccountName", "sn", "givenName", "mail", "title", "description", "employeeID", "memberOf", "member",
            "userAccountControl", "groupType", "objectCategory", "primaryGroupID", "displayName", "NAME", "noSuchAttribute",
            "distinguishedName"]
        : [
            "cn", "uid", "sn", "givenName", "mail", "title", "description", "employeeNumber", "memberOf", "member", "uidNumber",
            "gidNumber", "surname", "name", "displayName", "noSuchAttribute", "2.5.4.4", "UserId", "telephoneNumber",
            "x121Address", "createTimestamp", "entryUUID", "cn;lang-de", "CN;Lang-DE", "name;lang-de", "cn;lang-fr",
            "givenName;lang-de-at",
            "seeAlso"];

    /// <summary>The next filter.</summary>
    public Filter Next(int depth = 3)
    {
        if (depth == 0 || _random.Next(3) == 0) return Leaf();
        return _random.Next(4) switch
        {
            0 => new Filter.Not(Next(depth - 1)),
            1 => new Filter.Or([.. Enumerable.Range(0, Parts()).Select(_ => Next(depth - 1))]),
            _ => new Filter.And([.. Enumerable.Range(0, Parts()).Select(_ => Next(depth - 1))]),
        };
    }

    /// <summary>How many parts; now and then none at all [RFC 4526], which the other family does not take.</summary>
    private int Parts() => table.Schema.Family != DirectoryFamily.AdLike && _random.Next(20) == 0 ? 0 : 1 + _random.Next(3);

    private Filter Leaf()
    {
        var attribute = _attributes[_random.Next(_attributes.Length)];
        switch (_random.Next(12))
        {
            case 0:
                return new Filter.Present(attribute);
            case 1:
                return new Filter.Same("objectClass", FilterValue.Of(Classes[_random.Next(Classes.Length)]));
            case 2:
                return new Filter.AtLeast(attribute, Value(attribute));
            case 3:
                return new Filter.AtMost(attribute, Value(attribute));
            case 4 or 5:
                return Like(attribute);
            case 6 when table.Schema.Family == DirectoryFamily.AdLike:
                return new Filter.ByRule(
                    _random.Next(3) > 0 ? "memberOf" : "member", MatchingRules.Chain, false,
                    FilterValue.Of(table.Objects[_random.Next(table.Objects.Count)].Dn));
            case 6:
                var of = _random.Next(2) == 0 ? attribute : _random.Next(2) == 0 ? "cn" : "sn";
                return new Filter.ByRule(of, Rules[_random.Next(Rules.Length)], _random.Next(4) == 0, Value(of));
            case 7:
                var bits = table.Schema.Family == DirectoryFamily.AdLike
                    ? new[] { "userAccountControl", "groupType" }
                    : ["uidNumber", "gidNumber"];
                return new Filter.ByRule(
                    bits[_random.Next(2)], _random.Next(2) == 0 ? MatchingRules.AllBits : MatchingRules.AnyBit, false,
                    FilterValue.Of(new[] { "1", "2", "3", "512", "2147483648", "32", "0" }[_random.Next(7)]));
            default:
                return new Filter.Same(attribute, Value(attribute));
        }
    }

    private Filter.Like Like(string attribute)
    {
        var text = Text(attribute);
        var cut = _random.Next(text.Length + 1);
        while (cut < text.Length && char.IsLowSurrogate(text[cut])) cut++;
        return _random.Next(4) switch
        {
            0 when cut > 0 => new Filter.Like(attribute, FilterValue.Of(Changed(text[..cut])), [], null),
            1 when cut < text.Length => new Filter.Like(attribute, null, [], FilterValue.Of(Changed(text[cut..]))),
            2 when cut > 0 && cut < text.Length =>
                new Filter.Like(attribute, FilterValue.Of(Changed(text[..cut])), [], FilterValue.Of(Changed(text[cut..]))),
            _ => new Filter.Like(attribute, null, [FilterValue.Of(Changed(text))], null),
        };
    }

    private FilterValue Value(string attribute) => FilterValue.Of(Changed(Text(attribute)));

    /// <summary>Most often a value that an object has; else one of another attribute.</summary>
    private string Text(string attribute)
    {
        var of = _random.Next(8) == 0 ? _attributes[_random.Next(_attributes.Length)] : attribute;
        for (var i = 0; i < 20; i++)
        {
            var one = table.Objects[_random.Next(table.Objects.Count)];
            var values = one.All(of) is { Count: > 0 } own ? own : one.All(table.Schema.Attribute(of)?.Name ?? of);
            if (values.Count > 0 && values[0].Length > 0) return values[_random.Next(values.Count)];
        }

        return "none";
    }

    private string Changed(string text) => _random.Next(8) switch
    {
        0 => text.ToUpperInvariant(),
        1 => text.ToLowerInvariant(),
        2 => text.Replace(" ", "  ", StringComparison.Ordinal),
        3 => text + "x",
        4 when text.Length == 15 && text.EndsWith('Z') => text[..^1] + new[] { ".0Z", "+0000", ",5Z", "-0130" }[_random.Next(4)],
        _ => text,
    };
}
