using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Rights;

namespace JustRight.Core.Fit.Databases;

/// <summary>
/// What stands between an account and a right of a database instance that it holds: a denial, or the lack of a way in. A denial
/// outweighs every grant, but not for members of the all-powerful role, nor in a database for its owner.
/// </summary>
public static class DatabaseGate
{
    /// <summary>The denials that count for the account, of the right itself, of what covers it, or of the way in.</summary>
    public static IReadOnlyList<(int Node, RightTail Tail)> Denials(SurveyView view, Right right, Holdings holdings)
    {
        if (right.AtInstance is null) return [];
        var found = view.Index.DeniedFor(right).Select(t => (Node: view.Graph.IndexOf(t.Holder), Tail: t)).Where(t => holdings.Reaches(t.Tail.Holder)).ToList();
        if (found.Count == 0 || IsImmune(right, holdings)) return [];
        return IsOwner(view, right, holdings) ? [.. found.Where(t => t.Tail.Right is InstancePermissionRight { Permission: SqlServerPermissions.ConnectSql or SqlServerPermissions.ControlServer })] : found;
    }

    /// <summary>Whether nothing can be denied to the account at the right's instance: it is in the all-powerful role.</summary>
    public static bool IsImmune(Right right, Holdings holdings) =>
        right.AtInstance is { } instance && holdings.Of(new InstanceRoleRight(instance, Implication.AllPowerful)) is not null;

    /// <summary>Why what the account holds does not count, or null when it can get in.</summary>
    public static string? WhyShut(SurveyView view, Right right, Holdings holdings)
    {
        if (right.AtInstance is not { } name || view.Instance(name) is not { } at) return null;
        if (at.PostgreSql is not null) return PostgreSqlGate.WhyShut(right, name, holdings);
        if (at.Engine != "sqlserver") return null;
        foreach (var way in Implication.Entrances(right))
        {
            if (right == way || (way is DatabasePermissionRight && IsOwner(view, right, holdings))) continue;
            if (Implication.Above(way).Prepend(way).Any(r => holdings.Of(r) is not null)) continue;
            return way is InstancePermissionRight ? $"it holds the right, and has no login at {name}" : $"it holds the right, and has no user in {way.Place}";
        }

        return null;
    }

    /// <summary>
    /// What is held beyond the needs, without what only lets the account in to what else it holds or needs there, and without what
    /// everybody has who gets in: neither is excess by itself.
    /// </summary>
    /// <param name="leaving">Whether all that is held goes: then what lets in goes too, but for what is needed.</param>
    public static IEnumerable<Held> WithoutMereEntrances(
        IReadOnlyList<Held> held, IReadOnlyList<Right> needed, bool leaving = false)
    {
        var used = EntrancesTo([.. leaving ? [] : held.Select(h => h.Right).Where(r => !IsEntrance(r)), .. needed]);
        used.UnionWith(Schemas([.. leaving ? [] : held.Select(h => h.Right), .. needed]));
        if (!leaving)
        {
            foreach (var entrance in held.Select(h => h.Right).OfType<DatabasePermissionRight>()
                .Where(IsEntrance).Where(r => !used.Contains(r.Key)).ToList())
                used.Add(Implication.Entrances(entrance)[0].Key); // the user is what is excess; the login only lets it in
        }

        return held.Where(h =>
            !(IsEntrance(h.Right) && used.Contains(h.Right.Key)) && !IsOwnersShadow(h, needed)
            && !h.Tails.All(t => t.Tail.Steps.Any(s => s is { Kind: StepKind.Role, Name: "public" })));
    }

    /// <summary>The keys of what lets an account in to what some rights are about.</summary>
    private static HashSet<string> EntrancesTo(IReadOnlyList<Right> rights)
    {
        var used = rights.SelectMany(Implication.Entrances).Select(r => r.Key).ToHashSet(StringComparer.Ordinal);
        used.UnionWith(
            rights.Select(r => r.AtInstance).OfType<string>()
                .Select(i => new InstancePermissionRight(i, RoleAttributeNames.Login).Key));
        return used;
    }

    /// <summary>The keys of what opens the schemas that some rights are about.</summary>
    private static IEnumerable<string> Schemas(IReadOnlyList<Right> rights) =>
        rights.OfType<DatabasePermissionRight>().Where(r => r.Within is not null)
            .Select(r => new DatabasePermissionRight(r.Instance, r.Database, "USAGE", r.Within).Key);

    /// <summary>Whether a right only lets in: to the instance, to a database, to a schema.</summary>
    public static bool IsEntrance(Right right) =>
        right is InstancePermissionRight { Permission: SqlServerPermissions.ConnectSql or RoleAttributeNames.Login } or DatabasePermissionRight { Permission: SqlServerPermissions.Connect, On: null } or DatabasePermissionRight { Permission: "USAGE" };

    /// <summary>The owner of a database is in its owner role by that alone: one of the two is told, the one that is needed or else the ownership.</summary>
    private static bool IsOwnersShadow(Held held, IReadOnlyList<Right> needed) => held.Right switch
    {
        DatabaseOwnerRight owner => needed.Contains(new DatabaseRoleRight(owner.Instance, owner.Database, "db_owner")),
        DatabaseRoleRight { Role: "db_owner" } => held.Tails.All(t => t.Tail.Steps.Any(s => s.Name.StartsWith("owner of ", StringComparison.Ordinal))) && !needed.Contains(held.Right),
        _ => false,
    };

    private static bool IsOwner(SurveyView view, Right right, Holdings holdings) =>
        right is DatabaseRoleRight or DatabasePermissionRight && view.Instance(right.AtInstance!)?.Databases.FirstOrDefault(d => string.Equals($"{right.AtInstance}/{d.Name}", right.Place, StringComparison.OrdinalIgnoreCase))?.Owner == view.Graph.SidOf(holdings.Account);
}
