using JustRight.Core.Engines;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>Who is to sign in to a product needs to be in the group whose members may enter.</summary>
internal static class Entering
{
    /// <summary>
    /// The memberships that the sign-in of a plan rests on, each with the logon name of who needs it: the members that the
    /// install puts into the groups, and the people of whom it expects that they can sign in or have a role.
    /// </summary>
    public static IEnumerable<(string Name, PlannedGrant Grant)> Of(Plan plan)
    {
        foreach (var membership in plan.SignIn?.Memberships ?? [])
        {
            var right = AllEngines.Membership(plan.Domain, membership.Group);
            yield return (membership.Member, new PlannedGrant(
                $"sign-in/{membership.Member}/{right.Key}", membership.Member, right, null, null, GivenBy.Us, Until.Always,
                Team.Directory, $"may sign in to {plan.Title}", null, plan.SignIn!.Install.At));
        }
    }
}
