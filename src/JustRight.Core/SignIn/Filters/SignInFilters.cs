using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Core.SignIn.Filters;

/// <summary>Builds the filters that products want, with every value escaped.</summary>
public static class SignInFilters
{
    private const string Control = "userAccountControl";
    private const string DisabledBit = "2"; // ADS_UF_ACCOUNTDISABLE [MS-ADTS 2.2.16]

    /// <summary>A value that no name has, put where a product wants its own placeholder.</summary>
    private const string Marker = "justright-typed-name";

    /// <summary>People who can sign in: no computers and nobody disabled; with a group, its members alone.</summary>
    /// <param name="group">The group, where people carry the groups they are in; or null for everyone.</param>
    /// <param name="throughOthers">Whether members of groups inside the group count, where the directory can follow them.</param>
    /// <param name="further">What else they must match.</param>
    public static Filter People(
        PeopleDirectory directory, string? group, bool throughOthers, params IReadOnlyList<Filter> further)
    {
        var map = AttributeMap.Of(directory);
        var parts = new List<Filter>();
        if (directory.Family == DirectoryFamily.AdLike)
        {
            parts.Add(new Filter.Same("objectCategory", FilterValue.Of("person"))); // computers are of class user too
            parts.Add(new Filter.Same("objectClass", FilterValue.Of(map.PeopleClass)));
            parts.Add(new Filter.Not(new Filter.ByRule(Control, MatchingRules.AllBits, false, FilterValue.Of(DisabledBit))));
        }
        else
        {
            parts.Add(new Filter.Same("objectClass", FilterValue.Of(map.PeopleClass)));
        }

        if (group is not null && map.MemberOf is { } memberOf)
            parts.Add(throughOthers
                && directory.Family == DirectoryFamily.AdLike
                    ? new Filter.ByRule(memberOf, MatchingRules.Chain, false, FilterValue.Of(group))
                    : new Filter.Same(memberOf, FilterValue.Of(group)));
        parts.AddRange(further.SelectMany(f => f is Filter.And all ? all.Parts : [f]));
        return All(parts);
    }

    /// <summary>The one person with a logon name, among those that a filter is for.</summary>
    public static Filter Person(Filter people, PeopleDirectory directory, string logonName) =>
        Typed(people, [AttributeMap.Of(directory).LogonName], logonName);

    /// <summary>Whoever has what was typed in one of some attributes, among those that a filter is for.</summary>
    public static Filter Typed(Filter people, IReadOnlyList<string> attributes, string typed)
    {
        var ways = attributes.Select(a => (Filter)new Filter.Same(a, FilterValue.Of(typed))).ToList();
        return All([.. people is Filter.And all ? all.Parts : [people], ways is [var one] ? one : new Filter.Or(ways)]);
    }

    /// <summary>
    /// As <see cref="Typed"/>, with a product's own placeholder where the name goes: text that is no filter by itself.
    /// </summary>
    public static string TypedText(Filter people, IReadOnlyList<string> attributes, string placeholder) =>
        Typed(people, attributes, Marker).Text.Replace(Marker, placeholder, StringComparison.Ordinal);

    /// <summary>The groups that an administrator sees.</summary>
    /// <param name="namesStart">What their names start with, any of which will do; none for all.</param>
    /// <param name="builtIn">Whether the directory's own are among them.</param>
    public static Filter Groups(PeopleDirectory directory, IReadOnlyList<string> namesStart, bool builtIn)
    {
        var map = AttributeMap.Of(directory);
        var parts = new List<Filter> { new Filter.Same("objectClass", FilterValue.Of(map.GroupClass)) };
        var starts = namesStart.Select(s => (Filter)new Filter.Like(map.GroupName, FilterValue.Of(s), [], null)).ToList();
        if (starts.Count == 1) parts.Add(starts[0]);
        if (starts.Count > 1) parts.Add(new Filter.Or(starts));
        // [MS-ADTS 3.1.1.3.1.2]: what a domain comes with
        if (!builtIn && directory.Family == DirectoryFamily.AdLike)
            parts.Add(new Filter.Not(new Filter.Same("isCriticalSystemObject", FilterValue.Of("TRUE"))));
        return All(parts);
    }

    private static Filter All(List<Filter> parts) => parts.Count == 1 ? parts[0] : new Filter.And(parts);
}
