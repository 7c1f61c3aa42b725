using System.Collections.Frozen;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// What covers a permission on something within a database: a wider permission on the same thing, and one on what it lies in
/// [<c>sys.fn_builtin_permissions</c>, columns covering and parent covering permission; the tables of GRANT Schema Permissions
/// and GRANT Object Permissions]. A permission on a container covers the one of the same name below only where the tables say
/// so.
/// </summary>
internal static class SqlServerSecurables
{
    private const string Control = SqlServerPermissions.Control;

    private static readonly FrozenDictionary<string, Cover> OfSchema = Table(
        ("ALTER", Control, "ALTER ANY SCHEMA"),
        (Control, null, Control),
        ("CREATE SEQUENCE", "ALTER", "ALTER ANY SCHEMA"),
        ("DELETE", Control, "DELETE"),
        ("EXECUTE", Control, "EXECUTE"),
        ("INSERT", Control, "INSERT"),
        ("REFERENCES", Control, "REFERENCES"),
        ("SELECT", Control, "SELECT"),
        ("TAKE OWNERSHIP", Control, Control),
        ("UNMASK", Control, "UNMASK"),
        ("UPDATE", Control, "UPDATE"),
        ("VIEW CHANGE TRACKING", Control, Control),
        ("VIEW DEFINITION", Control, "VIEW DEFINITION"));

    private static readonly FrozenDictionary<string, Cover> OfObject = Table(
        ("ALTER", Control, "ALTER"),
        (Control, null, Control),
        ("DELETE", Control, "DELETE"),
        ("EXECUTE", Control, "EXECUTE"),
        ("INSERT", Control, "INSERT"),
        ("RECEIVE", Control, Control),
        ("REFERENCES", Control, "REFERENCES"),
        ("SELECT", "RECEIVE", "SELECT"),
        ("TAKE OWNERSHIP", Control, Control),
        ("UNMASK", Control, "UNMASK"),
        ("UPDATE", Control, "UPDATE"),
        ("VIEW CHANGE TRACKING", Control, "VIEW CHANGE TRACKING"),
        ("VIEW DEFINITION", Control, "VIEW DEFINITION"));

    /// <summary>What covers a permission within its database, nearest first; not itself.</summary>
    /// <param name="on">In the words of <see cref="Securable.On"/>; null for the database itself.</param>
    public static IEnumerable<(string Permission, string? On)> Covering(string permission, string? on)
    {
        var level = Wider([permission], on);
        foreach (var wider in level.Skip(1)) yield return (wider, on);
        while (on is not null)
        {
            var within = on;
            on = Securable.Around(on);
            level = Wider([.. level.Select(p => Of(p, within).Above)], on);
            foreach (var wider in level) yield return (wider, on);
        }
    }

    /// <summary>Some permissions on one thing, and the wider ones on it, each once.</summary>
    private static List<string> Wider(IReadOnlyList<string> permissions, string? on)
    {
        List<string> found = [.. permissions.Distinct()];
        for (var at = 0; at < found.Count; at++)
        {
            if (on is null) found.AddRange(SqlServerPermissions.AboveInDatabase(found[at]).Except(found).ToList());
            else if (Of(found[at], on).Same is { } same && !found.Contains(same)) found.Add(same);
        }

        return found;
    }

    /// <summary>
    /// A permission of which the tables say nothing is covered by all of its thing, and by its own name further up.
    /// </summary>
    private static Cover Of(string permission, string on)
    {
        var table = Securable.IsSchema(on) ? OfSchema : Securable.Around(on) is not null ? OfObject : null;
        return table?.TryGetValue(permission, out var known) == true ? known : new Cover(Control, permission);
    }

    private static FrozenDictionary<string, Cover> Table(params (string Permission, string? Same, string Above)[] rows) =>
        rows.ToFrozenDictionary(r => r.Permission, r => new Cover(r.Same, r.Above), StringComparer.OrdinalIgnoreCase);

    /// <summary>What covers a permission.</summary>
    /// <param name="Same">On the same thing; null for the widest.</param>
    /// <param name="Above">On what it lies in.</param>
    private readonly record struct Cover(string? Same, string Above);
}
