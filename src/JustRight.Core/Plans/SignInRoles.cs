using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;

namespace JustRight.Core.Plans;

/// <summary>Lays the roles of a product over the groups that stand for them here, and says who is to be in them.</summary>
internal static class SignInRoles
{
    /// <summary>The roles of a sheet with their groups.</summary>
    public static IReadOnlyList<PlannedRole> Of(
        Sheet sheet, SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, PlanNames names, List<Fault> faults)
    {
        foreach (var unknown in here.Roles.Where(r => wants.Roles.All(w => w.Key != r.Key)))
            faults.Add(new Fault(
                "unknown-role", unknown.At, $"sign-in.roles.{unknown.Key}", $"'{unknown.Key}' is not a role of {sheet.Title}.")
            {
                Expected = "a role of the sheet",
                Nearest = Spelling.Nearest(unknown.Key, wants.Roles.Select(r => r.Key)),
            });
        var planned = new List<PlannedRole>();
        foreach (var role in wants.Roles)
        {
            var own = here.Roles.FirstOrDefault(r => r.Key == role.Key);
            foreach (var bad in own?.Groups.Where(g => !DistinguishedName.TryParse(g, out _)) ?? [])
                faults.Add(new Fault(
                    "not-a-dn", own!.At, $"sign-in.roles.{role.Key}.groups", "This is not a distinguished name.")
                { Found = $"'{bad}'" });
            if (own is { Members.Count: > 0 } && directory.Family == DirectoryFamily.AdLike
                && GroupOf(role, own, directory, names) is null)
                faults.Add(new Fault(
                    "needless-key", own.At, $"sign-in.roles.{role.Key}.members",
                    "The plan has no group for this role here, so it can have no members.")
                { Expected = "a role with a group of the sheet, and a directory of the domain or of the inetOrgPerson family" });
            IReadOnlyList<RoleGroup> groups = own is { Groups.Count: > 0 }
                ? [.. own.Groups.Select(g => new RoleGroup(NameOf(g) ?? g, g))]
                : GroupOf(role, own, directory, names) is { } group ? [new RoleGroup(group.Name, group.Dn)] : [];
            if (groups.Count == 0)
                faults.Add(new Fault(
                    "missing-key", own?.At ?? here.At, $"sign-in.roles.{role.Key}.groups",
                    $"No group of the plan in '{directory.Key}' stands for the role {role.Called} ({role.At}).")
                { Expected = "groups: the distinguished names of groups of that directory" });
            planned.Add(new PlannedRole(role.Key, role.Called, groups, own?.Person));
        }

        return planned;
    }

    /// <summary>Who is to be in which group of the plan.</summary>
    /// <param name="enter">The group of the plan whose members may enter; null where there is none.</param>
    public static IReadOnlyList<SignInMembership> Memberships(
        SheetSignIn wants, InstallSignIn here, PeopleDirectory directory, PlannedGroup? enter, PlanNames names)
    {
        var all = new List<SignInMembership>();
        if (enter is not null) Add(enter.Key, enter.Name, here.EnterMembers, true, here.Line("enter-members"));
        if ((enter?.Name ?? (directory.IsOfDomain ? NameOf(here.EnterThrough) : null)) is { } entering)
            Add(
                wants.Enter ?? "", entering, here.ExpectedNames.Concat(here.MayEnter is { } one ? [one] : []), false,
                here.At);

        foreach (var role in here.Roles)
            if (wants.Roles.FirstOrDefault(r => r.Key == role.Key) is { } wanted
                && GroupOf(wanted, role, directory, names) is { } group)
            {
                Add(group.Key, group.Name, role.Members, true, role.At);
                Add(group.Key, group.Name, role.Person is { } person ? [person] : [], false, role.At);
            }

        return [.. all.DistinctBy(m => (m.GroupKey, Name: m.Member.ToUpperInvariant()))];

        void Add(string key, string group, IEnumerable<string> members, bool placed, Origin at) =>
            all.AddRange(members.Select(m => new SignInMembership(key, group, m, placed, at)));
    }

    /// <summary>The name of a group by its distinguished name: the value of its first part; null for what is none.</summary>
    public static string? NameOf(string? dn) => DistinguishedName.TryParse(dn, out var name) ? name.Parts[0].Value : null;

    /// <summary>The group of the plan that stands for a role; null when groups of the directory's own do.</summary>
    private static PlannedGroup? GroupOf(SheetRole role, InstallRole? here, PeopleDirectory directory, PlanNames names) =>
        role.Group is { } key && directory.IsOfDomain && here is not { Groups.Count: > 0 }
            ? names.Groups.First(g => g.Key == key)
            : null;
}
