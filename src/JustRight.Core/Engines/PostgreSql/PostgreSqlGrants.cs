using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// What an instance of the PostgreSQL family gives to accounts of the domain, through the roles as which they may sign in.
/// </summary>
internal sealed class PostgreSqlGrants(InstanceSnapshot instance, PostgreSqlCatalog catalog)
{
    private const string Public = "public";
    private readonly RoleAuthority _authority = new(catalog);
    private readonly Dictionary<string, PostgreSqlDatabase> _databases = catalog.Databases.ToDictionary(
        d => d.Name, StringComparer.Ordinal);

    /// <summary>
    /// Everything that accounts hold there. What a superuser could do besides is not listed: that it is one says it.
    /// </summary>
    public IEnumerable<RightTail> Given(IEnumerable<DirectoryPrincipal> principals)
    {
        var names = new SignInNames(catalog, _authority);
        foreach (var principal in principals.Where(p => p.Kind != PrincipalKind.Group))
            foreach (var sameRole in names.Of(principal.Name, RealmOf(principal.Dn)).GroupBy(n => n.Role, StringComparer.Ordinal))
                foreach (var tail in Of(principal.Sid, sameRole.First())) yield return tail;
    }

    /// <summary>The DNS name of the domain that a distinguished name ends with; empty when it names none.</summary>
    public static string RealmOf(string dn) =>
        string.Join(
            '.',
            dn.Split(',').Select(p => p.Trim()).Where(p => p.StartsWith("DC=", StringComparison.OrdinalIgnoreCase))
                .Select(p => p[3..]));

    private IEnumerable<RightTail> Of(Sid account, SignInName name)
    {
        var login = new PathStep(StepKind.Login, $"{instance.Name} role {name.Role}") { Role = name.Role };
        var attributes = catalog.Roles.First(r => r.Name == name.Role).Attributes;
        foreach (var (word, known) in RoleAttributeNames.All.OrderBy(a => a.Key, StringComparer.Ordinal))
            if (attributes.HasFlag(known.Attribute)) yield return Tail(new RoleAttributeRight(instance.Name, word), []);
        var held = _authority.PrivilegesOf(name.Role, null);
        foreach (var (role, between) in held.Where(h => h.Key != name.Role))
            yield return Tail(new RoleMembershipRight(instance.Name, role), Between(between));
        foreach (var (role, between) in _authority.RulesAll(name.Role) ? [] : _authority.MayBecome(name.Role).Where(b =>
            !held.ContainsKey(b.Key)))
            yield return Tail(new RoleMembershipRight(instance.Name, role), [.. Between(between), TakenOn(role)]);
        foreach (var database in _databases.Values)
            foreach (var tail in In(database, _authority.PrivilegesOf(name.Role, database.Owner))) yield return tail;

        RightTail Tail(Right right, IReadOnlyList<PathStep> steps) => new(account, right, [login, .. steps], null);

        IEnumerable<RightTail> In(PostgreSqlDatabase database, IReadOnlyDictionary<string, IReadOnlyList<string>> roles)
        {
            if (roles.ContainsKey(database.Owner))
                yield return Tail(new DatabaseOwnershipRight(instance.Name, database.Name), Through(database.Owner));
            foreach (var tail in Entries(database.Entries, null)) yield return tail;
            foreach (var schema in database.Schemas)
                foreach (var tail in Entries(schema.Entries, Securable.OfSchema(schema.Name))) yield return tail;
            foreach (var table in database.Tables)
                foreach (var tail in Entries(table.Entries, Securable.OfObject(table.Schema, table.Name))) yield return tail;

            IEnumerable<RightTail> Entries(IReadOnlyList<PrivilegeEntry> entries, string? on)
            {
                foreach (var entry in entries.Where(e => e.Grantee is null || roles.ContainsKey(e.Grantee)))
                    yield return Tail(
                        new DatabasePrivilegeRight(instance.Name, database.Name, entry.Privilege, on),
                        entry.Grantee is null ? [PathStep.ThroughEverybodys(Public)] : Through(entry.Grantee));
            }

            PathStep[] Through(string role) => role == name.Role ? [] : [.. Between(roles[role]), PathStep.Through(role)];
        }
    }

    private static PathStep TakenOn(string role) =>
        new(StepKind.Role, $"SET ROLE {role}") { Role = role, Meaning = StepMeaning.TakenOn };

    private static PathStep[] Between(IReadOnlyList<string> roles) => [.. roles.Select(r => PathStep.Through(r))];
}
