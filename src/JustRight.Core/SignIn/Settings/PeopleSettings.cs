using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using static JustRight.Core.SignIn.Settings.SettingsMaker;

namespace JustRight.Core.SignIn.Settings;

/// <summary>What a product is told of people: who is found, and what stands where about them.</summary>
internal static class PeopleSettings
{
    /// <summary>The settings, in their order.</summary>
    public static IEnumerable<SignInSetting> Of(PlannedSignIn plan, Filter people)
    {
        var (directory, map) = (plan.Directory, AttributeMap.Of(plan.Directory));
        var family = directory.Family == DirectoryFamily.AdLike ? "an AD-like directory" : "a directory of inetOrgPerson";
        var unplaced = plan.GroupInFilter && plan.EnterDn is null;
        var unknown = $"the location of {plan.EnterName} is unknown: run a survey";
        yield return Setting(SettingKeys.PeopleClass, map.PeopleClass, $"people are of this class in {family}");
        yield return Setting(
            SettingKeys.PeopleFilter, unplaced ? null : people.Text, unplaced ? unknown : Reason(plan, people));
        if (plan.Wants is { TypedName: { } typed, BindsAs: not BindsAs.Person })
            yield return Setting(
                SettingKeys.SignInFilter, unplaced ? null : SignInFilters.TypedText(people, plan.TypedAttributes, typed),
                $"the same people, and of them the one whose {string.Join(" or ", plan.TypedAttributes)} was typed; "
                + $"the product puts the name in place of {typed} and must escape it [RFC 4515]");
        yield return new SignInSetting(
            SettingKeys.PeopleType, [.. plan.PeopleType.Select(f => f.Word())],
            plan.Install.PeopleType.Count > 0 ? "the install says so" : "the first that the product and the directory both know");
        yield return Setting(
            SettingKeys.LogonName, plan.TypedAttributes[0],
            plan.PeopleType[0] == TypedForm.ShortName
                ? $"what stands behind the backslash that people type in {family}"
                : $"what people type in {family}");
        foreach (var key in AttributeMap.Keys.Skip(1))
            if (AttributeMap.AttributeOf(directory, key) is { } attribute)
                yield return Setting(key, attribute, Because(plan, key, family));
        yield return Setting(
            SettingKeys.MemberOf, map.MemberOf,
            map.MemberOf is null
                ? $"people in '{directory.Key}' have no attribute with their groups"
                : "people have an attribute with their direct groups");
    }

    private static string Because(PlannedSignIn plan, string key, string family)
    {
        if (plan.Directory.Attributes.ContainsKey(key)) return $"the estate's '{plan.Directory.Key}' keeps it there";
        return key == SettingKeys.UniqueId
            ? "it stays the same when a person is renamed or moved; logon names and DNs do not"
            : $"where {family} keeps it";
    }

    private static string Reason(PlannedSignIn plan, Filter people)
    {
        var reason = $"objects that {FilterWords.Of(people)}";
        if (plan.EnterName is null || plan.GroupInFilter) return reason;
        return reason + (plan.Wants.Nested == NestedGroups.ByProduct
            ? $"; the product itself checks who is in {plan.EnterName}"
            : $"; people have no attribute with their groups here, so the product must read the members of {plan.EnterName}");
    }
}
