using System.DirectoryServices.Protocols;
using System.Globalization;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Whether the attributes are there that the product reads of people.</summary>
internal static class AttributeChecks
{
    /// <summary>The attributes of people that the product's settings name, each once, with its neutral name.</summary>
    public static IReadOnlyList<(string Key, string Attribute)> Read(SignInTestRun run)
    {
        var asked = run.Settings.Fields.Select(f => f.Key).OfType<string>().ToHashSet(StringComparer.Ordinal);
        return [.. AttributeMap.Keys.Where(asked.Contains).Select(k => (k, AttributeMap.AttributeOf(run.Plan.Directory, k)))
            .Where(a => a.Item2 is not null).Select(a => (a.k, a.Item2!))
            .DistinctBy(a => a.Item2, StringComparer.OrdinalIgnoreCase)];
    }

    /// <summary>Whether somebody has them all, as the bind account sees it.</summary>
    public static void OfPerson(
        SignInTestRun run, IPeopleSession session, PeopleObject person, IReadOnlyList<(string Key, string Attribute)> attributes,
        string id, string asks)
    {
        var read = session.Read(person.Dn, [.. attributes.Select(a => a.Attribute)]);
        var empty = attributes.Where(a => read is null || read.All(a.Attribute).Count == 0)
            .Select(a => $"{a.Attribute} ({a.Key})").ToList();
        if (empty.Count == 0)
            run.Pass(id, asks, $"Yes: {string.Join(", ", attributes.Select(a => a.Attribute))}");
        else
            run.Caution(
                id, asks, SignInCause.AttributeEmpty,
                $"No: {string.Join(", ", empty)} of {person.Dn} is empty, or may not be read.",
                "Fill it in, let the bind account read it, or say in the estate where the organization keeps it: attributes.");
    }

    /// <summary>Whether the catalog of the forest holds them [MS-ADTS 2.2.10, isMemberOfPartialAttributeSet].</summary>
    public static void OfCatalog(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        if (session.Read("", "schemaNamingContext")?.First("schemaNamingContext") is not { } schema)
        {
            run.Unseen(id, asks, SignInCause.NotSaid, "The directory does not show its schema.", "Ask somebody who can read it.");
            return;
        }

        string[] asked =
        [
            .. Read(run).Select(a => a.Attribute).Concat(Filter.AttributesOf(run.Settings.People))
                .Concat(run.Plan.TypedAttributes)
                .Distinct(StringComparer.OrdinalIgnoreCase).Order(StringComparer.OrdinalIgnoreCase),
        ];
        var missing = NotHeld(session, schema, asked);
        var needed = missing.Intersect(
            Filter.AttributesOf(run.Settings.People).Concat(run.Plan.TypedAttributes), StringComparer.OrdinalIgnoreCase).ToList();
        if (missing.Count == 0) run.Pass(id, asks, $"Yes: {string.Join(", ", asked)}");
        else if (needed.Count > 0)
            run.Fail(
                id, asks, SignInCause.NotInCatalog,
                $"No: {string.Join(", ", needed)} is not in it, by which people are found.",
                "Use the directory itself, or have the schema put the attribute into the catalog.");
        else
            run.Caution(
                id, asks, SignInCause.NotInCatalog,
                $"No: {string.Join(", ", missing)} is not in it: the product shows nothing there.",
                "Use the directory itself, or have the schema put the attribute into the catalog.");
    }

    /// <summary>
    /// Which attributes the catalog does not hold. A back link (an odd number) is there where its forward link is, whose number
    /// is one less [MS-ADTS 3.1.1.1.6].
    /// </summary>
    private static List<string> NotHeld(IPeopleSession session, string schema, string[] asked)
    {
        const string name = "lDAPDisplayName", link = "linkID", held = "isMemberOfPartialAttributeSet";
        var known = Described("lDAPDisplayName", asked).ToDictionary(a => a.First(name) ?? "", StringComparer.OrdinalIgnoreCase);
        var forward = known.Values.Select(Forward).OfType<string>().Distinct().ToArray();
        var links = forward.Length == 0
            ? []
            : Described(link, forward).Where(a => a.First(held) == "TRUE").Select(a => a.First(link)).ToHashSet();
        return [.. asked.Where(a =>
            !known.TryGetValue(a, out var it) || (it.First(held) != "TRUE" && !links.Contains(Forward(it) ?? "none")))];

        IEnumerable<PeopleObject> Described(string by, string[] values) => session.Search(
            schema, SearchScope.Subtree,
            new Filter.And([
                new Filter.Same("objectClass", FilterValue.Of("attributeSchema")),
                new Filter.Or([.. values.Select(v => new Filter.Same(by, FilterValue.Of(v)))])]).Text,
            SignInTestRun.OwnPageSize, name, link, held);

        static string? Forward(PeopleObject attribute) =>
            int.TryParse(attribute.First(link), CultureInfo.InvariantCulture, out var number) && number % 2 == 1
                ? (number - 1).ToString(CultureInfo.InvariantCulture)
                : null;
    }
}
