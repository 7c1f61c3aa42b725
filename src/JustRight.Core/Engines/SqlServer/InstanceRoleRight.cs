using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Membership of a role of an instance.</summary>
public sealed class InstanceRoleRight(string instance, string role)
    : SqlServerRight(NeedKind.InstanceRole, instance, instance, role, $"instance-role:{role}@{instance}")
{
    private static readonly Dictionary<string, RightReach> Known = new(StringComparer.OrdinalIgnoreCase)
    {
        ["sysadmin"] = new(800, "sysadmin can do anything on its instance, in every database"),
        ["securityadmin"] = new(790, "securityadmin can make itself sysadmin"),
        ["serveradmin"] = new(300, "serveradmin can stop and reconfigure the instance"),
        ["setupadmin"] = new(250, "setupadmin can add linked servers"),
        ["processadmin"] = new(250, "processadmin can end any session"),
        ["dbcreator"] = new(200, "dbcreator can create, alter and restore databases"),
        ["diskadmin"] = new(100, "diskadmin manages the instance's files"),
        ["bulkadmin"] = new(100, "bulkadmin can load files the instance can read"),
    };

    /// <summary>The role.</summary>
    public string Role { get; } = role;

    /// <inheritdoc/>
    public override PlacePart Within => new InstanceRolePart(Instance, Role);

    /// <inheritdoc/>
    public override RightReach Reach => Known.GetValueOrDefault(Role, new RightReach(60, $"{Role} is a role of the instance"));

    /// <inheritdoc/>
    public override bool IsRole => true;

    /// <inheritdoc/>
    public override bool IsStep(PathStep step, Right end) =>
        step.Role is { } role && Same(role, Role) && end.AtInstance is { } instance && Same(instance, Instance);

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new InstanceRoleRight(partner, Role);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstanceRole, Role, PlaceKind.Instance, Instance);

    /// <summary>
    /// The all-powerful role has what the fixed roles of its instance have; it is a member of none that somebody made.
    /// </summary>
    private protected override IReadOnlyList<Right> FindAbove() =>
        !Same(Role, AllPowerful) && SqlServerRoles.IsFixed(Role) ? [Everything] : [];

    /// <inheritdoc/>
    internal override IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways) => ways.OfInstanceRole(this);

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql];

    private protected override void Give(Giving giving, bool newLogin) =>
        giving.Add(StepOrder.Instances, new AddInstanceRoleMember(Instance, Role, giving.Principal));

    private protected override Taken TakeOwn(Taking taking) =>
        Taken.By(new RemoveInstanceRoleMember(Instance, Role, taking.Principal));
}
