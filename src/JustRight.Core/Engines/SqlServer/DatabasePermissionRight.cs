using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission in a database: on the database itself, on a schema of it, or on an object of a schema.</summary>
public sealed class DatabasePermissionRight : DatabaseRight
{
    private const int InDatabaseOnly = 20;
    private readonly Securable _securable;

    /// <summary>A permission.</summary>
    /// <param name="on"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
    public DatabasePermissionRight(string instance, string database, string permission, string? on)
        : this(instance, database, new Securable(permission.ToUpperInvariant(), on))
    {
    }

    private DatabasePermissionRight(string instance, string database, Securable securable)
        : base(
            NeedKind.DatabasePermission, instance, database, securable.Words,
            $"database-permission:{securable.Words}@{instance}/{database}") => _securable = securable;

    /// <summary>The permission, such as <c>EXECUTE</c>.</summary>
    public string Permission => _securable.Permission;

    /// <summary>What within the database it is on, or null for the database itself.</summary>
    public string? On => _securable.On;

    /// <inheritdoc/>
    public override RightReach Reach => SqlServerPermissions.OfDatabase(Permission) is { } known
        ? new RightReach(
            On is null ? known.Points : Math.Max(1, known.Points / 2),
            $"{Permission} lets it {known.Lets}{(On is null ? "" : $", on {On} only")}")
        : new RightReach(InDatabaseOnly, $"{Words} stays within its database");

    /// <summary>What a user is born with lets it in.</summary>
    public override bool OnlyLetsIn => On is null && Permission == SqlServerPermissions.Connect;

    /// <summary>Reads a sheet's words: <c>EXECUTE</c>, <c>EXECUTE on SCHEMA::reports</c>.</summary>
    public static DatabasePermissionRight Parse(string instance, string database, string text) =>
        new(instance, database, Securable.Parse(text));

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => view.WhyInstanceUnread(Instance)
        ?? view.WhyPermissionsUnread(Instance) ?? view.WhyDatabaseUnread(Instance, Database);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabasePermission, _securable.Words, PlaceKind.Database, Place);

    /// <summary>The permissions that cover it, and the fixed roles that hold one of these.</summary>
    private protected override IReadOnlyList<Right> FindAbove() =>
    [
        .. Covering,
        .. SqlServerRoles.With(Instance, Database, [this, .. Covering.OfType<DatabasePermissionRight>()]),
        .. SqlServerRoles.With(Instance, [.. Covering.OfType<InstancePermissionRight>()]),
        Everything,
    ];

    /// <summary>
    /// Those within the database, nearest first; then those of the instance that cover one on the whole database.
    /// </summary>
    private protected override IReadOnlyList<Right> FindCovering()
    {
        var within = SqlServerSecurables.Covering(Permission, On).ToList();
        var inDatabase = within.Prepend((Permission, On)).Where(c => c.On is null).Select(c => c.Permission);
        var atInstance = inDatabase.Select(p => SqlServerPermissions.OfDatabase(p)?.Above ?? SqlServerPermissions.ControlServer);
        return
        [
            .. within.Select(c => new DatabasePermissionRight(Instance, Database, c.Permission, c.On)),
            .. atInstance.SelectMany(p => SqlServerPermissions.AboveAtInstance(p).Prepend(p)).Distinct()
                .Select(p => new InstancePermissionRight(Instance, p)),
        ];
    }

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql, Connect];

    private protected override Right InSystemDatabaseOf(string partner) =>
        new DatabasePermissionRight(partner, Database, Permission, On);

    private protected override bool IsOwner(SurveyView view, Holdings holdings) =>
        Read(view)?.Owner == view.Graph.SidOf(holdings.Account);

    private protected override bool IsGrantedOn(InstanceSnapshot instance, Sid holder) =>
        instance.Databases.FirstOrDefault(d => Same(d.Name, Database))?.Permissions
            .Any(p => IsEntry(p, holder, Permission, On)) == true;

    private protected override void Give(Giving giving, bool newLogin)
    {
        EnsureUser(giving);
        giving.Add(StepOrder.Databases, new GrantDatabasePermission(Instance, Database, Permission, On, giving.Principal));
    }

    private protected override Taken TakeOwn(Taking taking) => OnlyLetsIn
        ? Taken.By(new DropDatabaseUser(Instance, Database, taking.Principal), TakenOrder.User)
        : Taken.By(new RevokeDatabasePermission(Instance, Database, Permission, On, taking.Principal));
}
