namespace JustRight.Connectors.PostgreSql;

/// <summary>
/// What is asked of an instance of the PostgreSQL family: its system catalogs, which everybody who gets in may read.
/// </summary>
public static class PostgreSqlQuestions
{
    /// <summary>Release (as a number such as 150018), its words, and who asks.</summary>
    public const string Instance = "SELECT current_setting('server_version_num')::int, current_setting('server_version'), session_user::text";

    /// <summary>Roles with their attributes.</summary>
    public const string Roles = "SELECT rolname::text, rolsuper, rolinherit, rolcreaterole, rolcreatedb, rolcanlogin, rolreplication, rolbypassrls FROM pg_roles";

    /// <summary>From this release on each membership says for itself what it hands on.</summary>
    public const int MembershipsSayThemselves = 160000;

    /// <summary>From this release on the name map can be asked for.</summary>
    public const int NameMapCanBeAsked = 150000;

    /// <summary>Memberships: member, role, inherit, set, admin.</summary>
    /// <param name="release">The release as a number.</param>
    public static string Memberships(int release)
    {
        var (inherit, set) = release >= MembershipsSayThemselves
            ? ("a.inherit_option", "a.set_option")
            : ("m.rolinherit", "true");
        return $"SELECT m.rolname::text, r.rolname::text, bool_or({inherit}), bool_or({set}), bool_or(a.admin_option) FROM pg_auth_members a JOIN pg_roles m ON m.oid = a.member JOIN pg_roles r ON r.oid = a.roleid GROUP BY 1, 2";
    }

    /// <summary>
    /// Databases that take connections: name, owner, whether the reader gets in, and one row for each privilege given.
    /// </summary>
    public static string Databases { get; } = $"SELECT d.datname::text, pg_get_userbyid(d.datdba)::text, has_database_privilege(d.oid, 'CONNECT'), {Entry} FROM pg_database d LEFT JOIN LATERAL aclexplode(coalesce(d.datacl, acldefault('d', d.datdba))) e ON true WHERE d.datallowconn ORDER BY d.datname";

    /// <summary>Schemas that are not the engine's own.</summary>
    public static string Schemas { get; } = $"SELECT n.nspname::text, pg_get_userbyid(n.nspowner)::text, {Entry} FROM pg_namespace n LEFT JOIN LATERAL aclexplode(coalesce(n.nspacl, acldefault('n', n.nspowner))) e ON true WHERE {NotOwn} ORDER BY n.nspname";

    /// <summary>Tables and views of those schemas.</summary>
    public static string Tables { get; } = $"SELECT n.nspname::text, c.relname::text, pg_get_userbyid(c.relowner)::text, {Entry} FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace LEFT JOIN LATERAL aclexplode(coalesce(c.relacl, acldefault('r', c.relowner))) e ON true WHERE c.relkind IN ('r', 'v', 'm', 'p', 'f') AND {NotOwn} ORDER BY c.oid";

    /// <summary>What tables made later are born with.</summary>
    public static string Defaults { get; } = $"SELECT pg_get_userbyid(a.defaclrole)::text, n.nspname::text, {Entry} FROM pg_default_acl a LEFT JOIN pg_namespace n ON n.oid = a.defaclnamespace LEFT JOIN LATERAL aclexplode(a.defaclacl) e ON true WHERE a.defaclobjtype = 'r' ORDER BY a.oid";

    /// <summary>The rules of sign-in, and the name map: only for readers who were given them.</summary>
    public const string SignInRules = "SELECT type, database, user_name, address, netmask, auth_method, coalesce(options, '{}') FROM pg_hba_file_rules WHERE error IS NULL ORDER BY line_number";

    /// <summary>The name map.</summary>
    public const string NameMap = "SELECT map_name, sys_name, pg_username FROM pg_ident_file_mappings WHERE error IS NULL ORDER BY line_number";

    private const string Entry = "CASE WHEN e.grantee = 0 THEN NULL ELSE pg_get_userbyid(e.grantee)::text END, e.privilege_type::text, coalesce(e.is_grantable, false)";
    private const string NotOwn = "n.nspname !~ '^pg_' AND n.nspname <> 'information_schema'";
}
