using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Settings;

/// <summary>Whether the groups that stand for a product's roles tell one role from another.</summary>
internal static class RoleChecks
{
    /// <summary>Every finding.</summary>
    public static IEnumerable<SettingsFinding> Of(PlannedSignIn plan)
    {
        var all = plan.Roles.SelectMany(r => r.Groups.Where(g => g.Dn is not null).Select(g => (Role: r, Group: g))).ToList();
        foreach (var shared in all.GroupBy(x => ComparedName.KeyOf(x.Group.Dn!))
            .Where(g => g.Select(x => x.Role.Key).Distinct().Count() > 1))
            yield return new SettingsFinding(
                "shared-role-group", FindingWeight.Caution, SettingKeys.RoleGroup,
                $"{shared.First().Group.Dn} stands for {string.Join(" and ", shared.Select(x => x.Role.Called).Distinct())}: "
                + "the product decides which of them its members have.",
                "Give each role a group of its own.");
        foreach (var role in plan.Roles.Where(r => r.Person is null))
            yield return new SettingsFinding(
                "role-not-tested", FindingWeight.Caution, SettingKeys.RoleGroup,
                $"The install names nobody who must have the role {role.Called}, so the sign-in test cannot prove it.",
                $"Name somebody: sign-in.roles.{role.Key}.person.");
    }
}
