using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Which principal is in which role, through roles nested in roles.</summary>
internal static class RoleClosure
{
    /// <summary>Every (principal, role) pair with the roles in between, nearest first.</summary>
    public static IEnumerable<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> Of(IReadOnlyList<RoleMembers> roles)
    {
        var holders = roles
            .SelectMany(r => r.MemberRoles.Select(m => (Inner: m, Outer: r.Role)))
            .ToLookup(p => p.Inner, p => p.Outer, StringComparer.OrdinalIgnoreCase);
        foreach (var role in roles.Where(r => r.Members.Count > 0))
        {
            // The roles around a role are the same for all its members: walked once.
            var around = new List<(string Role, PathStep[] Steps)> { (role.Role, []) };
            var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { role.Role };
            for (var at = 0; at < around.Count; at++)
            {
                var (inner, steps) = around[at];
                around.AddRange(holders[inner].Where(seen.Add).Select(outer =>
                    (outer, (PathStep[])[.. steps, PathStep.Through(inner)])));
            }

            foreach (var sid in role.Members)
                foreach (var (outer, steps) in around) yield return (sid, outer, steps);
        }
    }
}
