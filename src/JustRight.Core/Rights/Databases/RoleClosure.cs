using JustRight.Core.Rights.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>Which principal is in which role, through roles nested in roles.</summary>
internal static class RoleClosure
{
    /// <summary>Every (principal, role) pair with the roles in between, nearest first.</summary>
    public static IEnumerable<(Sid Sid, string Role, IReadOnlyList<PathStep> Steps)> Of(IReadOnlyList<RoleMembers> roles)
    {
        var holders = roles
            .SelectMany(r => r.MemberRoles.Select(m => (Inner: m, Outer: r.Role)))
            .ToLookup(p => p.Inner, p => p.Outer, StringComparer.OrdinalIgnoreCase);
        foreach (var role in roles)
        {
            foreach (var sid in role.Members)
            {
                var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { role.Role };
                var queue = new Queue<(string Role, PathStep[] Steps)>([(role.Role, [])]);
                while (queue.TryDequeue(out var at))
                {
                    yield return (sid, at.Role, at.Steps);
                    foreach (var outer in holders[at.Role].Where(seen.Add))
                        queue.Enqueue((outer, [.. at.Steps, new PathStep(StepKind.Role, at.Role)]));
                }
            }
        }
    }
}
