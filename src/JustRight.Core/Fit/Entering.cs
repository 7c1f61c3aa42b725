using JustRight.Core.Engines;
using JustRight.Core.Plans;
using JustRight.Core.Sheets;

namespace JustRight.Core.Fit;

/// <summary>Who is to sign in to a product needs to be in the group whose members may enter.</summary>
internal static class Entering
{
    /// <summary>
    /// The memberships that the sign-in of a plan rests on, each with the logon name of who needs it: the members that the
    /// install puts into the group, and the people of whom it expects that they can sign in.
    /// </summary>
    public static IEnumerable<(string Name, PlannedGrant Grant)> Of(Plan plan)
    {
        if (plan.SignIn is not { EnterName: { } group } signIn) yield break;
        var right = AllEngines.Membership(plan.Domain, group);
        var install = signIn.Install;
        var names = install.EnterMembers.Concat(install.ExpectedNames).Concat(install.MayEnter is { } one ? [one] : []);
        foreach (var name in names.Distinct(StringComparer.OrdinalIgnoreCase))
        {
            yield return (name, new PlannedGrant(
                $"sign-in/{name}/{right.Key}", name, right, null, null, GivenBy.Us, Until.Always, Team.Directory,
                $"may sign in to {plan.Title}", null, install.At));
        }
    }
}
