using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>A privilege in a database: on the database itself, or on something in it.</summary>
public sealed class DatabasePrivilegeRight : InDatabaseRight
{
    /// <summary>What lets a role in to a database.</summary>
    internal const string ConnectPrivilege = "CONNECT";

    private const string UsagePrivilege = "USAGE";
    private const int InDatabaseOnly = 20;

    /// <summary>A privilege.</summary>
    /// <param name="privilege">Such as <c>SELECT</c>; <c>TEMP</c> is <c>TEMPORARY</c>.</param>
    /// <param name="on">Such as <c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>; null for the database itself.</param>
    public DatabasePrivilegeRight(string instance, string database, string privilege, string? on)
        : this(instance, database, privilege, on is null ? null : PostgreSqlSecurable.TryParse(on), on)
    {
    }

    private DatabasePrivilegeRight(string instance, string database, string privilege, PostgreSqlSecurable? thing, string? on)
        : base(NeedKind.DatabasePermission, instance, database, Said(Whole(privilege), thing, on), Whole(privilege), thing)
    {
        Privilege = Whole(privilege);
        Thing = thing;
        On = thing?.Words ?? on;
    }

    /// <summary>The privilege, such as <c>SELECT</c>.</summary>
    public string Privilege { get; }

    /// <summary>What within the database it is on, or null for the database itself.</summary>
    public string? On { get; }

    /// <summary>What within the database it is on; null for the database itself, and for what is not known here.</summary>
    public PostgreSqlSecurable? Thing { get; }

    /// <inheritdoc/>
    public override RightReach Reach => RoleAttributeNames.Privileges.TryGetValue(Privilege, out var known)
        ? new RightReach(known.Points, $"{Privilege} lets it {known.Lets}{(On is null ? "" : $", on {On} only")}")
        : new RightReach(InDatabaseOnly, $"{Words} stays within its database");

    /// <inheritdoc/>
    public override bool OnlyLetsIn => On is null ? Privilege == ConnectPrivilege
        : Privilege == UsagePrivilege && Thing?.Class == SecurableClass.Schema;

    /// <summary>Reads a sheet's words: <c>SELECT on OBJECT::sales.orders</c>; <c>OWNER on …</c> is no privilege but
    /// ownership.</summary>
    public static InDatabaseRight Parse(string instance, string database, string text)
    {
        var words = Securable.Parse(text);
        return words.Permission == ObjectOwnershipRight.Word && words.On is not null
            && PostgreSqlSecurable.TryParse(words.On) is { } thing
            ? new ObjectOwnershipRight(instance, database, thing)
            : new DatabasePrivilegeRight(instance, database, words.Permission, words.On);
    }

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) =>
        base.WhyUnread(view) ?? view.WhyPermissionsUnread(Instance) ?? WhyInside(view) ?? WhyThingUnread(view);

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view)
    {
        if (base.AbsentIn(view) is { } noDatabase) return noDatabase;
        if (Thing is null || Thing.IsOfEngine || DatabaseIn(view) is not { Unread: null } database) return null;
        if ((Thing.Table ?? Thing) is var thing && database.Find(thing) is not null) return null;
        var near = database.Things.Select(t => t.Thing).Where(t => t.Class == thing.Class);
        return new AbsentThing(
            $"{Lower(thing.ClassWord)} {thing.NameWords} in {Place}",
            Spelling.Nearest(thing.NameWords, near.Select(t => t.NameWords)));
    }

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabasePermission, Words, PlaceKind.Database, Place);

    /// <summary>
    /// Policies of row security hide rows from others than the table's owner [PostgreSQL, Row Security Policies].
    /// </summary>
    public override IReadOnlyList<string> CautionsIn(Holdings holdings)
    {
        if (Thing is null || DatabaseIn(holdings.View)?.Find(Thing.Table ?? Thing) is not { HidesRows: true } table) return [];
        var owner = new ObjectOwnershipRight(Instance, Database, table.Thing);
        Right[] seesAll = [owner, new RoleAttributeRight(Instance, RoleAttributeNames.SeesAllRows), Superuser];
        return seesAll.Any(r => holdings.Of(r) is not null)
            ? []
            : [$"{table.Thing.Words} has row security: its policies may hide rows"];
    }

    /// <summary>By entries of roles, or because everybody has it.</summary>
    internal override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons)
    {
        var held = base.HeldIn(holdings, logons);
        return DatabaseIn(holdings.View) is { } database
            && EntriesOn(database).Any(e => e.Grantee is null && e.Privilege == Privilege)
            ? RolesOfHolder.WithEverybodys(this, Instance, holdings, held)
            : held;
    }

    /// <summary>
    /// A table's privilege covers its columns; and the predefined roles stand for privileges on every table and schema
    /// [PostgreSQL, GRANT; Predefined Roles].
    /// </summary>
    private protected override IReadOnlyList<Right> FindAbove()
    {
        if (Thing?.Table is { } table)
        {
            var whole = new DatabasePrivilegeRight(Instance, Database, Privilege, table.Words);
            return [whole, .. whole.Above];
        }

        return [.. AllDataRoles(), Superuser];
    }

    private protected override IReadOnlyList<Right> FindEntrances() =>
        Thing?.Around is { } schema ? [Login, Connect, UsageOf(schema)] : [Login, Connect];

    private protected override string? WhyShut(AsRole role, PostgreSqlDatabase? database)
    {
        if (base.WhyShut(role, database) is { } shut) return shut;
        if (ChangesEngine && database?.Find(Thing!) is { IsView: false })
            return "it holds the right, and superusers alone change the engine's own tables";
        return Thing?.Around is { } schema && !role.Opens(UsageOf(schema))
            ? $"it holds the right, and lacks USAGE on the schema {schema.Name}"
            : null;
    }

    private protected override bool IsGrantedOn(PostgreSqlCatalog catalog, string role) =>
        Find(catalog) is { } database
        && EntriesOn(database).Any(e => e.Grantee == role && e.GrantOn && e.Privilege == Privilege);

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn)
    {
        if (Find(catalog) is { } database) OpenDoors(giving, database, signIn);
        giving.Add(StepOrder.Databases, new GrantDatabasePermission(Instance, Database, Privilege, On, signIn.Role));
    }

    private protected override Taken TakeFrom(string role, Taking taking) =>
        taking.View.Instance(Instance)?.PostgreSql is { } catalog && Find(catalog) is { } database && Thing is not null
            && database.Find(Thing.Table ?? Thing)?.Owner == role
            ? Taken.Not("the owner of something can always give it back to itself: it ends with another owner")
            : Taken.By(new RevokeDatabasePermission(Instance, Database, Privilege, On, role));

    private static string Whole(string privilege) =>
        privilege.ToUpperInvariant() is var word && word == "TEMP" ? "TEMPORARY" : word;

    private static string Said(string privilege, PostgreSqlSecurable? thing, string? on) =>
        on is null ? privilege : $"{privilege} on {thing?.Words ?? on}";

    private static string Lower(string word) => word.ToLowerInvariant();

    private DatabasePrivilegeRight UsageOf(PostgreSqlSecurable schema) =>
        new(Instance, Database, UsagePrivilege, schema, schema.Words);

    /// <summary>Why it was not read what is given on its thing.</summary>
    private string? WhyThingUnread(SurveyView view)
    {
        if (On is null) return null;
        if (Thing is null) return $"what is given on {On} is not read";
        return Thing.IsOfEngine && DatabaseIn(view) is { } database && database.Find(Thing) is null
            ? $"of the engine's own only what was changed is read, and {Thing.Words} was not"
            : null;
    }

    /// <summary>
    /// Whether it is leave to change what the engine keeps for itself [PostgreSQL, aclchk.c, pg_class_aclmask].
    /// </summary>
    private bool ChangesEngine => Thing is { Class: SecurableClass.Relation or SecurableClass.Column, Schema: "pg_catalog" }
        && Privilege is ("INSERT" or "UPDATE" or "DELETE" or "TRUNCATE" or "USAGE");

    private IEnumerable<Right> AllDataRoles()
    {
        var reads = (Thing?.Class, Privilege) is (SecurableClass.Relation, "SELECT") or (SecurableClass.Schema, UsagePrivilege);
        var writes = (Thing?.Class, Privilege) is (SecurableClass.Relation, "INSERT" or "UPDATE" or "DELETE")
            or (SecurableClass.Schema, UsagePrivilege);
        if (reads) yield return new RoleMembershipRight(Instance, RoleAttributeNames.ReadsAllData);
        if (writes) yield return new RoleMembershipRight(Instance, RoleAttributeNames.WritesAllData);
    }

    /// <summary>What the role lacks to get to where the privilege is.</summary>
    private void OpenDoors(Giving giving, PostgreSqlDatabase database, RoleOfAccount signIn)
    {
        if (Privilege != ConnectPrivilege && !signIn.Authority.OnDatabase(signIn.Role, database, ConnectPrivilege))
            giving.Add(
                StepOrder.Instances, new GrantDatabasePermission(Instance, database.Name, ConnectPrivilege, null, signIn.Role),
                "without it nothing else there can be used");
        if (Thing?.Around is not { } around) return;
        if (database.Schemas.FirstOrDefault(s => s.Name == around.Name) is not { } schema) return;
        if (signIn.Authority.OnSchema(signIn.Role, database, schema, UsagePrivilege)) return;
        giving.Add(
            StepOrder.Instances, new GrantDatabasePermission(Instance, database.Name, UsagePrivilege, around.Words, signIn.Role),
            "without it nothing in the schema can be used");
    }

    private IReadOnlyList<PrivilegeEntry> EntriesOn(PostgreSqlDatabase database) => On is null
        ? database.Entries
        : Thing is null ? [] : database.Find(Thing)?.Entries ?? [];
}
