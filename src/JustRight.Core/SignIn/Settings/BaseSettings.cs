using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using static JustRight.Core.SignIn.Settings.SettingsMaker;

namespace JustRight.Core.SignIn.Settings;

/// <summary>What a product is told of where people and groups are.</summary>
internal static class BaseSettings
{
    /// <summary>The settings, in their order.</summary>
    public static IEnumerable<SignInSetting> Of(PlannedSignIn plan)
    {
        var directory = plan.Directory;
        if (plan.Wants.Bases == ProductBases.One)
        {
            var common = Common([.. directory.PeopleBranches, .. directory.GroupsBranches]);
            yield return Setting(
                SettingKeys.Base, common?.Written,
                common is null
                    ? "people and groups have no common container"
                    : "the product has one base: the nearest container of both people and groups");
        }
        else
        {
            yield return Branches(plan, SettingKeys.PeopleBase, "people", directory.PeopleBranches);
            yield return Branches(plan, SettingKeys.GroupsBase, "groups", directory.GroupsBranches);
        }

        yield return Depth(plan, SettingKeys.PeopleDepth, "people", plan.PeopleDepth, directory.PeopleDepth);
        yield return Depth(plan, SettingKeys.GroupsDepth, "groups", plan.GroupsDepth, directory.GroupsDepth);
    }

    /// <summary>The nearest container of some branches; null when they have none.</summary>
    internal static DistinguishedName? Common(IReadOnlyList<DistinguishedName> branches) =>
        branches.Skip(1).Aggregate((DistinguishedName?)branches[0], (common, next) => common?.CommonWith(next));

    private static SignInSetting Branches(
        PlannedSignIn plan, string key, string whose, IReadOnlyList<DistinguishedName> branches)
    {
        var of = $"the branch of {whose} in '{plan.Directory.Key}'";
        if (branches.Count == 1) return Setting(key, branches[0].Written, of);
        if (plan.Wants.Bases == ProductBases.Several)
            return new SignInSetting(
                key, [.. branches.Select(b => b.Written)], $"the branches of {whose} in '{plan.Directory.Key}'");
        var common = Common(branches);
        return Setting(
            key, common?.Written,
            common is null
                ? $"the {branches.Count} branches of {whose} have no common container, and the product has one base for them"
                : $"the product has one base for {whose}: the nearest container of the {branches.Count} branches");
    }

    private static SignInSetting Depth(
        PlannedSignIn plan, string key, string whose, SearchDepth depth, SearchDepth here) => Setting(
        key, depth.Word(),
        depth == here
            ? $"how far below its branches '{plan.Directory.Key}' keeps {whose}"
            : $"the product knows nothing else; '{plan.Directory.Key}' keeps {whose} {here.Word()}");
}
