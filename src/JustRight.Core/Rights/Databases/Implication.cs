namespace JustRight.Core.Rights;

/// <summary>Which stronger right brings a weaker one along.</summary>
public static class Implication
{
    private static readonly string[] AgentRoles = ["SQLAgentUserRole", "SQLAgentReaderRole", "SQLAgentOperatorRole"];

    /// <summary>
    /// The rights that would bring <paramref name="needed"/> along, weakest first. The all-powerful instance role implies every
    /// role of its instance and its databases; a database's owner role implies the other fixed roles but the denying ones; of
    /// the three agent roles each holds the one before.
    /// </summary>
    public static IReadOnlyList<Right> Above(Right needed) => needed switch
    {
        InstanceRoleRight r when !Same(r.Role, "sysadmin") => [new InstanceRoleRight(r.Instance, "sysadmin")],
        DatabaseRoleRight r =>
        [
            .. AgentRolesAbove(r),
            .. Same(r.Role, "db_owner") || r.Role.StartsWith("db_deny", StringComparison.OrdinalIgnoreCase) ? [] : new Right[] { new DatabaseRoleRight(r.Instance, r.Database, "db_owner") },
            new InstanceRoleRight(r.Instance, "sysadmin"),
        ],
        _ => [],
    };

    private static IEnumerable<Right> AgentRolesAbove(DatabaseRoleRight r)
    {
        var at = Array.FindIndex(AgentRoles, a => Same(a, r.Role));
        return at < 0 ? [] : AgentRoles.Skip(at + 1).Select(a => new DatabaseRoleRight(r.Instance, r.Database, a));
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
