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
    private readonly IReadOnlyList<ByRole> _databases = [.. catalog.Databases.Select(d => new ByRole(d))];

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
        foreach (var database in _databases)
            foreach (var tail in In(database, _authority.PrivilegesOf(name, database.Database.Owner))) yield return tail;
        foreach (var parameter in catalog.Parameters)
            foreach (var entry in parameter.Entries.Where(e => e.Grantee is not null && held.ContainsKey(e.Grantee)))
                yield return Tail(
                    new ParameterRight(instance.Name, new ParameterPrivilege(entry.Privilege, parameter.Name)),
                    entry.Grantee == name ? [] : [.. Between(held[entry.Grantee!]), PathStep.Through(entry.Grantee!)]);

        RightTail Tail(Right right, IReadOnlyList<PathStep> steps, Right? via = null) =>
            new(account, right, [login, .. steps], via);

        IEnumerable<RightTail> In(ByRole by, IReadOnlyDictionary<string, IReadOnlyList<string>> roles)
        {
            var database = by.Database.Name;
            if (roles.ContainsKey(by.Database.Owner))
                yield return Tail(new DatabaseOwnershipRight(instance.Name, database), Through(by.Database.Owner));
            foreach (var role in roles.Keys)
            {
                foreach (var thing in by.OwnedBy[role])
                    yield return Tail(new ObjectOwnershipRight(instance.Name, database, thing.Thing), Through(role));
                foreach (var (thing, entry) in by.GivenTo[role])
                {
                    // Whoever owns something is told to own it, and its own entries under that.
                    var owned = thing is not null && thing.Owner == role && thing.Thing.Class != SecurableClass.Column
                        ? new ObjectOwnershipRight(instance.Name, database, thing.Thing)
                        : null;
                    yield return Tail(
                        new DatabasePrivilegeRight(instance.Name, database, entry.Privilege, thing?.Thing.Words),
                        thing is { RunsAsOwner: true } ? [.. Through(role), RunsAs(thing.Owner)] : Through(role), owned);
                }
            }

            PathStep[] Through(string role) => role == name ? [] : [.. Between(roles[role]), PathStep.Through(role)];
        }
    }

    /// <summary>Whoever calls a routine of this kind does what it does with the rights of its owner.</summary>
    private static PathStep RunsAs(string owner) => new(StepKind.Right, $"runs as {owner} (SECURITY DEFINER)");

    private static PathStep TakenOn(string role) =>
        new(StepKind.Role, $"SET ROLE {role}") { Role = role, Meaning = StepMeaning.TakenOn };

    private static PathStep[] Between(IReadOnlyList<string> roles) => [.. roles.Select(r => PathStep.Through(r))];

    /// <summary>
    /// What is given and owned in a database, by the role: most accounts have few roles, and databases many things.
    /// </summary>
    private sealed class ByRole(PostgreSqlDatabase database)
    {
        public PostgreSqlDatabase Database => database;

        /// <summary>Entries by their role, with what they are on; null for the database itself.</summary>
        public ILookup<string, (PostgreSqlObject? Thing, PrivilegeEntry Entry)> GivenTo { get; } =
            database.Entries.Select(e => ((PostgreSqlObject?)null, Entry: e))
                .Concat(database.Things.SelectMany(t => t.Entries, (t, e) => ((PostgreSqlObject?)t, Entry: e)))
                .Where(e => e.Entry.Grantee is not null).ToLookup(e => e.Entry.Grantee!, StringComparer.Ordinal);

        /// <summary>What a role owns.</summary>
        public ILookup<string, PostgreSqlObject> OwnedBy { get; } =
            database.Things.Where(t => t.Thing.Class != SecurableClass.Column).ToLookup(t => t.Owner, StringComparer.Ordinal);
    }
}
