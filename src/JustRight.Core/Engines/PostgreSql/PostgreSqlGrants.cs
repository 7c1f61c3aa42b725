using JustRight.Core.Directory;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// What an instance of the PostgreSQL family gives to accounts of the domain, through the roles as which they may sign in.
/// </summary>
internal sealed class PostgreSqlGrants(InstanceSnapshot instance, PostgreSqlCatalog catalog)
{
    private readonly RoleAuthority _authority = RoleAuthority.Of(catalog);
    private readonly Dictionary<string, PostgreSqlDatabase> _databases = catalog.Databases.ToDictionary(
        d => d.Name, StringComparer.Ordinal);

    /// <summary>
    /// Everything that accounts hold there through roles. What a superuser could do besides is not listed: that it is one says
    /// it; nor is what everybody has who gets in, which is looked up where it is asked for.
    /// </summary>
    public IEnumerable<RightTail> Given(IEnumerable<DirectoryPrincipal> principals)
    {
        foreach (var principal in principals.Where(p => p.Kind != PrincipalKind.Group))
            foreach (var role in _authority.SignIns.RolesOf(new DomainName(principal.Name, RolesOfHolder.RealmOf(principal.Dn))))
                foreach (var tail in Of(principal.Sid, role)) yield return tail;
    }

    private IEnumerable<RightTail> Of(Sid account, string name)
    {
        var login = RolesOfHolder.Login(instance.Name, name);
        var attributes = catalog.Roles.First(r => r.Name == name).Attributes;
        foreach (var (word, known) in RoleAttributeNames.All.OrderBy(a => a.Key, StringComparer.Ordinal))
            if (attributes.HasFlag(known.Attribute)) yield return Tail(new RoleAttributeRight(instance.Name, word), []);
        var held = _authority.PrivilegesOf(name, null);
        foreach (var (role, between) in held.Where(h => h.Key != name))
            yield return Tail(new RoleMembershipRight(instance.Name, role), Between(between));
        foreach (var (role, between) in _authority.RulesAll(name) ? [] : _authority.MayBecome(name).Where(b =>
            !held.ContainsKey(b.Key)))
            yield return Tail(new RoleMembershipRight(instance.Name, role), [.. Between(between), TakenOn(role)]);
        foreach (var database in _databases.Values)
            foreach (var tail in In(database, _authority.PrivilegesOf(name, database.Owner))) yield return tail;

        foreach (var parameter in catalog.Parameters)
            foreach (var entry in parameter.Entries.Where(e => e.Grantee is not null && held.ContainsKey(e.Grantee)))
                yield return Tail(
                    new ParameterRight(instance.Name, new ParameterPrivilege(entry.Privilege, parameter.Name)),
                    entry.Grantee == name ? [] : [.. Between(held[entry.Grantee!]), PathStep.Through(entry.Grantee!)]);

        RightTail Tail(Right right, IReadOnlyList<PathStep> steps, Right? via = null) =>
            new(account, right, [login, .. steps], via);

        IEnumerable<RightTail> In(PostgreSqlDatabase database, IReadOnlyDictionary<string, IReadOnlyList<string>> roles)
        {
            if (roles.ContainsKey(database.Owner))
                yield return Tail(new DatabaseOwnershipRight(instance.Name, database.Name), Through(database.Owner));
            foreach (var entry in database.Entries.Where(e => e.Grantee is not null && roles.ContainsKey(e.Grantee)))
                yield return Tail(
                    new DatabasePrivilegeRight(instance.Name, database.Name, entry.Privilege, null), Through(entry.Grantee!));
            foreach (var schema in database.Schemas)
                foreach (var tail in On(PostgreSqlSecurable.OfSchema(schema.Name), schema.Owner, schema.Entries, null))
                    yield return tail;
            foreach (var thing in database.Objects)
                foreach (var tail in On(thing.Thing, thing.Owner, thing.Entries, thing.RunsAsOwner ? thing.Owner : null))
                    yield return tail;

            // Whoever owns something is told to own it, and its own entries under that.
            IEnumerable<RightTail> On(
                PostgreSqlSecurable thing, string owner, IReadOnlyList<PrivilegeEntry> entries, string? runsAs)
            {
                var isOwned = roles.ContainsKey(owner) && thing.Class != SecurableClass.Column;
                var owned = isOwned ? new ObjectOwnershipRight(instance.Name, database.Name, thing) : null;
                if (owned is not null) yield return Tail(owned, Through(owner));
                foreach (var entry in entries.Where(e => e.Grantee is not null && roles.ContainsKey(e.Grantee)))
                    yield return Tail(
                        new DatabasePrivilegeRight(instance.Name, database.Name, entry.Privilege, thing.Words),
                        runsAs is null ? Through(entry.Grantee!) : [.. Through(entry.Grantee!), RunsAs(runsAs)],
                        entry.Grantee == owner ? owned : null);
            }

            PathStep[] Through(string role) => role == name ? [] : [.. Between(roles[role]), PathStep.Through(role)];
        }
    }

    /// <summary>Whoever calls a routine of this kind does what it does with the rights of its owner.</summary>
    private static PathStep RunsAs(string owner) => new(StepKind.Right, $"runs as {owner} (SECURITY DEFINER)");

    private static PathStep TakenOn(string role) =>
        new(StepKind.Role, $"SET ROLE {role}") { Role = role, Meaning = StepMeaning.TakenOn };

    private static PathStep[] Between(IReadOnlyList<string> roles) => [.. roles.Select(r => PathStep.Through(r))];
}
