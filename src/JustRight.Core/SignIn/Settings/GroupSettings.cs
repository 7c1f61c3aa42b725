using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using static JustRight.Core.SignIn.Settings.SettingsMaker;

namespace JustRight.Core.SignIn.Settings;

/// <summary>What a product is told of groups: who may enter, which it sees, and which stand for its roles.</summary>
internal static class GroupSettings
{
    /// <summary>The settings, in their order.</summary>
    public static IEnumerable<SignInSetting> Of(PlannedSignIn plan, Filter? groups)
    {
        var (directory, map) = (plan.Directory, AttributeMap.Of(plan.Directory));
        if (plan.EnterName is not null)
        {
            yield return Setting(
                SettingKeys.EnterGroup, plan.EnterDn,
                plan.EnterDn is null
                    ? "the group's location is unknown: run a survey"
                    : $"only its members may sign in ({plan.Wants.At})");
            yield return Setting(SettingKeys.EnterGroupName, plan.EnterName, "the same group by its name");
        }

        yield return Setting(SettingKeys.NestedGroups, YesNo(plan.NestedCount), NestedReason(plan));
        if (directory.Family == DirectoryFamily.AdLike)
            yield return Setting(
                SettingKeys.PrimaryGroup, YesNo(plan.Wants.CountsPrimaryGroup),
                plan.Wants.CountsPrimaryGroup
                    ? $"the product counts it ({plan.Wants.At})"
                    : "no group names those whose primary group it is, so no filter finds them by it");
        yield return Setting(SettingKeys.GroupClass, map.GroupClass, $"groups are of this class in '{directory.Key}'");
        if (groups is not null) yield return Setting(SettingKeys.GroupsFilter, groups.Text, GroupsReason(plan));
        yield return Setting(SettingKeys.GroupName, map.GroupName, "the name of a group");
        yield return Setting(SettingKeys.Member, map.Member, $"groups in '{directory.Key}' have their members there");
        yield return Setting(
            SettingKeys.MemberHolds, map.MemberIsName ? "dn" : "logon-name",
            map.MemberIsName ? "members are distinguished names" : "members are logon names");
    }

    /// <summary>What is said of one role.</summary>
    public static IEnumerable<SignInSetting> OfRole(PlannedSignIn plan, PlannedRole role)
    {
        var unplaced = role.Groups.Where(g => g.Dn is null).Select(g => g.Name).ToList();
        yield return new SignInSetting(
            SettingKeys.RoleGroup, unplaced.Count > 0 ? [] : [.. role.Groups.Select(g => g.Dn!)],
            unplaced.Count > 0
                ? $"the location of {string.Join(", ", unplaced)} is unknown: run a survey"
                : $"the groups whose members have the role {role.Called}");
        yield return new SignInSetting(
            SettingKeys.RoleGroupName, [.. role.Groups.Select(g => g.Name)], "the same groups by their names");
        yield return Setting(SettingKeys.RoleName, role.Called, "the product's own name for the role");
    }

    private static string NestedReason(PlannedSignIn plan) => plan.Wants.Nested switch
    {
        NestedGroups.ByFilter when plan.Directory.Family == DirectoryFamily.AdLike =>
            "the filter lets the directory resolve nested groups",
        NestedGroups.ByFilter =>
            "the product leaves it to the directory, which does not resolve nested groups: only direct members count",
        NestedGroups.ByProduct => "the product resolves nested groups itself",
        NestedGroups.No => "only direct members count",
    };

    private static string GroupsReason(PlannedSignIn plan)
    {
        var starts = plan.GroupsStart.Count == 0
            ? "all groups"
            : $"groups whose names start with {string.Join(" or ", plan.GroupsStart)}";
        var without = plan.Wants.Groups!.BuiltIn || plan.Directory.Family != DirectoryFamily.AdLike
            ? ""
            : ", without those that a domain comes with";
        return $"{starts}{without}: what an administrator sees when choosing one";
    }
}
