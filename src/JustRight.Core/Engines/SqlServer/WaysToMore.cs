using JustRight.Core.Rights;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// What an account can come to at an instance beyond what it was granted, and how: by acting as another login or user, by adding
/// itself to roles it may change, by what an instance trusts a database's owner with, by chains of ownership [EXECUTE AS; ALTER
/// SERVER ROLE; ALTER ROLE; TRUSTWORTHY database property; Ownership chains].
/// </summary>
public static class WaysToMore
{
    /// <summary>The ways from all that an account holds at an instance, nearest first.</summary>
    public static IReadOnlyList<WayToMore> Of(string instance, Holdings holdings) => Walk(
        holdings, instance, holdings.All().Select(h => h.Right).OfType<SqlServerRight>()
            .Where(r => string.Equals(r.Instance, instance, StringComparison.OrdinalIgnoreCase)));

    /// <summary>The ways that begin with one right, where the account holds it itself.</summary>
    internal static IReadOnlyList<WayToMore> From(SqlServerRight right, Holdings holdings) =>
        Walk(holdings, right.Instance, [right]);

    private static List<WayToMore> Walk(Holdings holdings, string instance, IEnumerable<SqlServerRight> from)
    {
        var found = new List<WayToMore>();
        var reached = new HashSet<Right>();
        var queue = new Queue<(SqlServerRight Right, IReadOnlyList<string> Steps)>(
            from.Select(r => (r, (IReadOnlyList<string>)[])));
        while (queue.TryDequeue(out var at))
        {
            // Most rights lead nowhere: only of those that do is asked whether they count.
            var next = new WaysFrom(holdings, at.Right).Next().ToList();
            if (next.Count == 0 || (at.Steps.Count == 0 && !Counts(at.Right, holdings))) continue;
            if (found.Count == 0 && Has(new InstanceRoleRight(instance, SqlServerRight.AllPowerful), holdings)) return found;
            foreach (var (right, why) in next)
            {
                if (right.OnlyLetsIn || !reached.Add(right) || Has(right, holdings)) continue;
                found.Add(new WayToMore(right, [.. at.Steps, why]));
                queue.Enqueue((right, found[^1].Steps));
            }
        }

        return found;
    }

    private static bool Counts(Right right, Holdings holdings) =>
        holdings.Of(right) is not null && right.GateFor(holdings.View, holdings).State == GateState.Open;

    private static bool Has(Right right, Holdings holdings) => right.Above.Prepend(right).Any(r => Counts(r, holdings));
}
