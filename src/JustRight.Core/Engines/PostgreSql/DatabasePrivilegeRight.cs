using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>A privilege in a database: on the database itself, on a schema of it, or on a table.</summary>
public sealed class DatabasePrivilegeRight : InDatabaseRight
{
    /// <summary>What lets a role in to a database.</summary>
    internal const string ConnectPrivilege = "CONNECT";

    private const string UsagePrivilege = "USAGE";
    private const string ReadsAll = "pg_read_all_data";
    private const string WritesAll = "pg_write_all_data";
    private const int InDatabaseOnly = 20;
    private readonly Securable _securable;

    /// <summary>A privilege.</summary>
    /// <param name="on"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
    public DatabasePrivilegeRight(string instance, string database, string privilege, string? on)
        : this(instance, database, new Securable(privilege.ToUpperInvariant(), on))
    {
    }

    private DatabasePrivilegeRight(string instance, string database, Securable securable)
        : base(
            NeedKind.DatabasePermission, instance, database, securable.Words,
            $"database-permission:{securable.Words}@{instance}/{database}") => _securable = securable;

    /// <summary>The privilege, such as <c>SELECT</c>.</summary>
    public string Privilege => _securable.Permission;

    /// <summary>What within the database it is on, or null for the database itself.</summary>
    public string? On => _securable.On;

    /// <inheritdoc/>
    public override RightReach Reach => RoleAttributeNames.Privileges.TryGetValue(Privilege, out var known)
        ? new RightReach(known.Points, $"{Privilege} lets it {known.Lets}{(On is null ? "" : $", on {On} only")}")
        : new RightReach(InDatabaseOnly, $"{Words} stays within its database");

    /// <inheritdoc/>
    public override bool OnlyLetsIn => Privilege == UsagePrivilege || Privilege == ConnectPrivilege && On is null;

    /// <summary>Reads a sheet's words: <c>SELECT on OBJECT::sales.orders</c>.</summary>
    public static DatabasePrivilegeRight Parse(string instance, string database, string text) =>
        new(instance, database, Securable.Parse(text));

    /// <summary>It moves along with its database; the role is one of the instance, and must be let in at the partner.</summary>
    public override Right AtPartner(string partner) => new RoleAttributeRight(partner, RoleAttributeNames.Login);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) =>
        base.WhyUnread(view) ?? view.WhyPermissionsUnread(Instance) ?? view.WhyDatabaseUnread(Instance, Database);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabasePermission, _securable.Words, PlaceKind.Database, Place);

    /// <summary>
    /// The predefined roles that stand for privileges on every table and schema [PostgreSQL, Predefined Roles].
    /// </summary>
    private protected override IReadOnlyList<Right> FindAbove() => [.. AllDataRoles(), Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() =>
        Around is { } schema ? [Login, Connect, UsageOf(schema)] : [Login, Connect];

    private protected override string? WhyShut(Holdings holdings)
    {
        if (base.WhyShut(holdings) is { } shut) return shut;
        return Around is { } schema && !IsOpen(holdings, UsageOf(schema))
            ? $"it holds the right, and lacks USAGE on the schema {new Securable("", schema).SchemaName}"
            : null;
    }

    private protected override bool IsGrantedOn(PostgreSqlCatalog catalog, string role) =>
        catalog.Databases.FirstOrDefault(d => d.Name == Database) is { } database
        && EntriesOn(database).Any(e => e.Grantee == role && e.GrantOn && Same(e.Privilege, Privilege));

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn)
    {
        var database = Find(catalog);
        if (database is not null) OpenDoors(giving, database, signIn);
        var name = database?.Name ?? Database;
        giving.Add(StepOrder.Databases, new GrantDatabasePermission(Instance, name, Privilege, On, signIn.Role));
    }

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.By(new RevokeDatabasePermission(Instance, Database, Privilege, On, role));

    /// <summary>The schema that what it is on lies in, or null.</summary>
    private string? Around => On is null ? null : Securable.Around(On);

    private DatabasePrivilegeRight UsageOf(string schema) => new(Instance, Database, UsagePrivilege, schema);

    private IEnumerable<Right> AllDataRoles()
    {
        if (On is null) yield break;
        if (Privilege is "SELECT" or UsagePrivilege) yield return new RoleMembershipRight(Instance, ReadsAll);
        if (Privilege is "INSERT" or "UPDATE" or "DELETE" or UsagePrivilege)
            yield return new RoleMembershipRight(Instance, WritesAll);
    }

    /// <summary>What the role lacks to get to where the privilege is.</summary>
    private void OpenDoors(Giving giving, PostgreSqlDatabase database, RoleOfAccount signIn)
    {
        if (Privilege != ConnectPrivilege && !signIn.Authority.OnDatabase(signIn.Role, database, ConnectPrivilege))
            giving.Add(
                StepOrder.Instances, new GrantDatabasePermission(Instance, database.Name, ConnectPrivilege, null, signIn.Role),
                "without it nothing else there can be used");
        if (Around is not { } around) return;
        if (database.Schemas.FirstOrDefault(s => Securable.OfSchema(s.Name) == around) is not { } schema) return;
        if (signIn.Authority.OnSchema(signIn.Role, database, schema, UsagePrivilege)) return;
        giving.Add(
            StepOrder.Instances, new GrantDatabasePermission(Instance, database.Name, UsagePrivilege, around, signIn.Role),
            "without it nothing in the schema can be used");
    }

    private IEnumerable<PrivilegeEntry> EntriesOn(PostgreSqlDatabase database) => On is null
        ? database.Entries
        : database.Schemas.Where(s => Same(Securable.OfSchema(s.Name), On)).SelectMany(s => s.Entries)
            .Concat(database.Tables.Where(t => Same(Securable.OfObject(t.Schema, t.Name), On)).SelectMany(t => t.Entries));
}
