using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Database instances of the SQL Server family.</summary>
public sealed class SqlServerEngine : Engine
{
    private static readonly string[] Ruling = [SqlServerRight.AllPowerful, "securityadmin"];

    /// <inheritdoc/>
    public override string Family => "sqlserver";

    /// <inheritdoc/>
    public override IEnumerable<RightTail> Given(Survey survey, MembershipGraph graph, AccessTree? tree) =>
        Instances(survey).SelectMany(i => new InstanceGrants(i, HostOf(i, survey)).Given());

    /// <inheritdoc/>
    public override IEnumerable<RightTail> Denied(Survey survey) =>
        Instances(survey).SelectMany(i => new InstanceGrants(i, HostOf(i, survey)).Denied());

    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at)
    {
        if (at.Spot is not { Instance: { } instance } spot || spot.Engine != Family) return null;
        var database = need.Database ?? spot.Database;
        return need.Kind switch
        {
            NeedKind.InstanceRole => new InstanceRoleRight(instance, need.Value),
            NeedKind.InstancePermission => InstancePermissionRight.Parse(instance, need.Value),
            NeedKind.DatabaseRole => new DatabaseRoleRight(instance, database!, need.Value),
            NeedKind.DatabasePermission => DatabasePermissionRight.Parse(instance, database!, need.Value),
            NeedKind.DatabaseOwner => new DatabaseOwnerRight(instance, database!),
            NeedKind.Logon or NeedKind.KeptOut or NeedKind.Privilege or NeedKind.LocalGroup or NeedKind.Service => null,
            NeedKind.DomainGroup or NeedKind.Directory or NeedKind.Spn or NeedKind.Delegation => null,
            NeedKind.ProductRole or NeedKind.Task => null,
        };
    }

    /// <inheritdoc/>
    public override IReadOnlyCollection<string>? NamesFor(NeedKind kind, string? on)
    {
        if (kind is not (NeedKind.InstancePermission or NeedKind.DatabasePermission)) return null;
        var atInstance = kind == NeedKind.InstancePermission;
        if (on is null)
            return [.. SqlServerPermissions.On(atInstance ? SqlServerClass.Server : SqlServerClass.Database).Keys];
        return SqlServerSecurable.TryParse(on) is { } thing && thing.IsOfInstance == atInstance
            ? [.. SqlServerPermissions.On(thing.Class).Keys]
            : [];
    }

    /// <inheritdoc/>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view)
    {
        if (change is not InstanceChange at || view.Instance(at.Instance)?.PostgreSql is not null) return null;
        var whose = view.NodeOf(at is ChangeDatabaseOwner { Former: { } former } ? former : at.Principal);
        return [.. TakenBy(at).Select(r => Loss.OfEntry(whose, r))];
    }

    /// <inheritdoc/>
    public override IReadOnlyList<string>? RulersOf(InstanceSnapshot instance, SurveyView view) => instance.PostgreSql is not null
        ? null
        :
        [
            .. instance.Roles.Where(r => Ruling.Contains(r.Role, StringComparer.OrdinalIgnoreCase)).SelectMany(r => r.Members)
                .Concat(instance.Permissions.Where(IsControl).Select(p => p.Holder))
                .Distinct()
                .Select(sid => view.Graph.IndexOf(sid) is >= 0 and var node ? view.Graph.NameOf(node) : sid.ToString())
                .Order(StringComparer.OrdinalIgnoreCase),
        ];

    /// <inheritdoc/>
    public override IReadOnlyList<WayToMore>? WaysToMore(InstanceSnapshot instance, Holdings holdings) =>
        instance.PostgreSql is null ? SqlServer.WaysToMore.Of(instance.Name, holdings) : null;

    /// <summary>What a change takes from its principal, or from the owner of before.</summary>
    private static IEnumerable<Right> TakenBy(InstanceChange change) => change switch
    {
        RemoveInstanceRoleMember c => [new InstanceRoleRight(c.Instance, c.Role)],
        RevokeInstancePermission c => [InstancePermissionRight.Parse(c.Instance, c.Permission)],
        RemoveDatabaseRoleMember c => [new DatabaseRoleRight(c.Instance, c.Database, c.Role)],
        RevokeDatabasePermission c => [new DatabasePermissionRight(c.Instance, c.Database, c.Permission, c.On)],
        ChangeDatabaseOwner c =>
        [
            new DatabaseOwnerRight(c.Instance, c.Database),
            new DatabaseRoleRight(c.Instance, c.Database, DatabaseRoleRight.Owners),
        ],
        DropLogin c => [new InstancePermissionRight(c.Instance, SqlServerPermissions.ConnectSql)],
        DropDatabaseUser c => [new DatabasePermissionRight(c.Instance, c.Database, SqlServerPermissions.Connect, null)],
        CreateLogin or CreateDatabaseUser or AddInstanceRoleMember or AddDatabaseRoleMember => [],
        GrantInstancePermission or GrantDatabasePermission => [],
        _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
    };

    private static bool IsControl(PermissionEntry entry) => entry is { Role: null, On: null }
        && entry.State != PermissionState.Deny
        && string.Equals(entry.Permission, SqlServerPermissions.ControlServer, StringComparison.OrdinalIgnoreCase);

    private static IEnumerable<InstanceSnapshot> Instances(Survey survey) => survey.Instances.Where(i => i.PostgreSql is null);

    private static HostSnapshot? HostOf(InstanceSnapshot instance, Survey survey) => survey.Hosts.FirstOrDefault(h =>
        h.Unread is null && string.Equals(h.Name, instance.Host, StringComparison.OrdinalIgnoreCase));
}
