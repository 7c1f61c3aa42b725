using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// What covers a permission on something: a wider permission on the same thing, and one on what it lies in, up to the instance
/// [<c>sys.fn_builtin_permissions</c>, columns covering and parent covering permission]. A permission on a container covers the
/// one of the same name below only where the table says so; one that is not in the table is covered by the widest alone.
/// </summary>
internal static class SqlServerCovering
{
    /// <summary>
    /// What covers a permission, nearest first, not itself: a permission, its class, and what of the database or instance it is
    /// on; null for the database or the instance as a whole.
    /// </summary>
    /// <param name="kind">The class of what it is on.</param>
    /// <param name="on">What it is on; null for the database or the instance as a whole.</param>
    public static IEnumerable<(SqlServerClass Class, string Permission, SqlServerSecurable? On)> Of(
        SqlServerClass kind, string permission, SqlServerSecurable? on)
    {
        var level = SqlServerPermissions.Of(kind, permission) is null
            ? [permission, SqlServerPermissions.WidestOn(kind)]
            : Wider(kind, [permission]);
        foreach (var wider in level.Skip(1)) yield return (kind, wider, on);
        while (SqlServerPermissions.Around(kind) is { } outer)
        {
            var within = kind;
            (kind, on) = (outer, on?.Around);
            level = Wider(kind, [.. level.Select(p => SqlServerPermissions.Of(within, p)?.Above).OfType<string>()]);
            foreach (var wider in level) yield return (kind, wider, on);
        }
    }

    /// <summary>Some permissions on one thing, and the wider ones on it, each once.</summary>
    private static List<string> Wider(SqlServerClass kind, IEnumerable<string> permissions)
    {
        var found = permissions.Distinct().ToList();
        for (var at = 0; at < found.Count; at++)
            found.AddRange(SqlServerPermissions.Wider(kind, found[at]).Except(found).ToList());
        return found;
    }
}
