using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission in a database: on the database itself, or on something in it.</summary>
public sealed class DatabasePermissionRight : DatabaseRight
{
    private const int InDatabaseOnly = 20;
    private const int MostNamed = 3;
    private readonly SqlServerClass? _kind;

    /// <summary>A permission.</summary>
    /// <param name="on">Such as <c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>; null for the database itself.</param>
    public DatabasePermissionRight(string instance, string database, string permission, string? on)
        : this(instance, database, SqlServerAsked.Of(permission, on))
    {
    }

    private DatabasePermissionRight(string instance, string database, SqlServerAsked asked)
        : base(
            NeedKind.DatabasePermission, instance, database, asked.Words,
            $"database-permission:{asked.Words}@{instance}/{database}")
    {
        (Permission, On, Thing) = (asked.Permission, asked.On, asked.Thing);
        _kind = On is null ? SqlServerClass.Database : Thing is { IsOfInstance: false } ? Thing.Class : null;
    }

    /// <summary>The permission, such as <c>EXECUTE</c>.</summary>
    public string Permission { get; }

    /// <summary>What within the database it is on, or null for the database itself.</summary>
    public string? On { get; }

    /// <summary>What within the database it is on; null for the database itself, and for what is not known here.</summary>
    internal SqlServerSecurable? Thing { get; }

    /// <inheritdoc/>
    public override RightReach Reach
    {
        get
        {
            if (_kind is not { } kind || SqlServerPermissions.Of(kind, Permission) is not { } row)
                return new RightReach(InDatabaseOnly, $"{Words} stays within its database");
            if (row.Points is { } points) return new RightReach(points, $"{Words} lets it {row.Lets}");
            var whole = SqlServerPermissions.Of(SqlServerClass.Database, Permission)!;
            return new RightReach(Math.Max(1, whole.Points!.Value / 2), $"{Permission} lets it {whole.Lets}, on {On} only");
        }
    }

    /// <summary>What a user is born with lets it in.</summary>
    public override bool OnlyLetsIn => On is null && Permission == SqlServerPermissions.Connect;

    /// <summary>Reads a sheet's words: <c>EXECUTE</c>, <c>EXECUTE on SCHEMA::reports</c>.</summary>
    public static DatabasePermissionRight Parse(string instance, string database, string text)
    {
        var words = Securable.Parse(text);
        return new DatabasePermissionRight(instance, database, words.Permission, words.On);
    }

    /// <summary>What belongs to the engine itself is given to everybody in hundreds, and is not read.</summary>
    public override string? WhyUnread(SurveyView view) => view.WhyInstanceUnread(Instance)
        ?? view.WhyPermissionsUnread(Instance) ?? view.WhyDatabaseUnread(Instance, Database)
        ?? WhyNotKnown(view, _kind, Permission, On)
        ?? (Thing is { IsOfEngine: true } ? $"what is granted on the engine's own is not read: {On}" : null);

    /// <summary>What is denied on something in it, though it is held on the whole.</summary>
    public override IReadOnlyList<string> CautionsIn(Holdings holdings)
    {
        var inner = Read(holdings.View)?.Permissions
            .Where(p => p.State == PermissionState.Deny && p.On is not null && Same(p.Permission, Permission) && IsWithin(p.On))
            .Select(p => new DatabasePermissionRight(Instance, Database, Permission, p.On)).Distinct()
            .Where(r => r.GateFor(holdings.View, holdings) is { State: GateState.Shut, Denials.Count: > 0 })
            .Select(r => r.On!).ToList() ?? [];
        var more = inner.Count > MostNamed ? $" and {inner.Count - MostNamed} more" : "";
        return inner.Count == 0
            ? base.CautionsIn(holdings)
            : [.. base.CautionsIn(holdings), $"it is denied on {string.Join(", ", inner.Take(MostNamed))}{more}"];
    }

    private bool IsWithin(string on)
    {
        for (var at = SqlServerSecurable.TryParse(on); at is not null; at = at.Around)
            if (On is null || (at.Around is { } outer && Same(outer.Words, On))) return true;
        return false;
    }

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabasePermission, Words, PlaceKind.Database, Place);

    /// <summary>The permissions that cover it, and the fixed roles that hold one of these.</summary>
    private protected override IReadOnlyList<Right> FindAbove() =>
    [
        .. Covering,
        .. SqlServerRoles.With(Instance, Database, [this, .. Covering.OfType<DatabasePermissionRight>()]),
        .. SqlServerRoles.With(Instance, [.. Covering.OfType<InstancePermissionRight>()]),
        Everything,
    ];

    /// <summary>Those within the database, nearest first; then those of the instance.</summary>
    private protected override IReadOnlyList<Right> FindCovering() => _kind is not { } kind ? []
        :
        [
            .. SqlServerCovering.Of(kind, Permission, Thing).Select(c => c.Class == SqlServerClass.Server
                ? (Right)new InstancePermissionRight(Instance, c.Permission)
                : new DatabasePermissionRight(Instance, Database, c.Permission, c.On?.Words)),
        ];

    /// <inheritdoc/>
    internal override bool IsDbo => this is { On: null, Permission: SqlServerPermissions.Control };

    /// <inheritdoc/>
    internal override IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways) => ways.OfPermission(this);

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql, Connect];

    private protected override Right InSystemDatabaseOf(string partner) =>
        new DatabasePermissionRight(partner, Database, Permission, On);

    private protected override bool IsOwner(SurveyView view, Holdings holdings) =>
        Read(view)?.Owner == view.Graph.SidOf(holdings.Account);

    private protected override Ownership OwnershipIn(SurveyView view, Holdings holdings) => OwnershipOf(
        Thing, Read(view)?.Owned ?? [], holdings, role => new DatabaseRoleRight(Instance, Database, role));

    /// <summary>
    /// A table's denial does not outweigh a grant on a column, unless the instance is set otherwise [GRANT Object Permissions].
    /// </summary>
    private protected override string? WhyDenialMayNotCount(RightTail denial, SurveyView view, Holdings holdings) =>
        Thing is { Class: SqlServerClass.Column, Around: { } table } && holdings.Of(this) is not null
            && denial.Right is DatabasePermissionRight { On: { } on } && Same(on, table.Words)
            ? $"it is granted on the column and denied on {on}: which counts hangs on settings that are not read"
            : base.WhyDenialMayNotCount(denial, view, holdings);

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
        : taking.Path.Has(StepMeaning.Ownership) ? Taken.Not(OwnedThing.WhyKept(On!))
        : Taken.By(new RevokeDatabasePermission(Instance, Database, Permission, On, taking.Principal));
}
