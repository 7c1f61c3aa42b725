using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission at an instance.</summary>
public sealed class InstancePermissionRight(string instance, string permission) : SqlServerRight(
    NeedKind.InstancePermission, instance, instance, permission.ToUpperInvariant(),
    $"instance-permission:{permission}@{instance}")
{
    /// <summary>The permission, such as <c>VIEW SERVER STATE</c>.</summary>
    public string Permission { get; } = permission.ToUpperInvariant();

    /// <summary>Whether its denial keeps out the owner of a database too.</summary>
    public bool IsOwnersToo => Permission is SqlServerPermissions.ConnectSql or SqlServerPermissions.ControlServer;

    /// <inheritdoc/>
    public override RightReach Reach => SqlServerPermissions.OfInstance(Permission) is { } known
        ? new RightReach(known.Points, $"{Permission} lets it {known.Lets}")
        : RightReach.NotKnown(Permission);

    /// <summary>What a login is born with lets it in.</summary>
    public override bool OnlyLetsIn => Permission == SqlServerPermissions.ConnectSql;

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new InstancePermissionRight(partner, Permission);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => base.WhyUnread(view) ?? view.WhyPermissionsUnread(Instance);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstancePermission, Permission, PlaceKind.Instance, Instance);

    private protected override IReadOnlyList<Right> FindAbove() =>
        [.. Covering, .. SqlServerRoles.With(Instance, [this, .. Covering.OfType<InstancePermissionRight>()]), Everything];

    private protected override IReadOnlyList<Right> FindCovering() =>
        [.. SqlServerPermissions.AboveAtInstance(Permission).Select(p => new InstancePermissionRight(Instance, p))];

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql];

    private protected override bool IsGrantedOn(InstanceSnapshot instance, Sid holder) =>
        instance.Permissions.Any(p => IsEntry(p, holder, Permission, null));

    private protected override void Give(Giving giving, bool newLogin)
    {
        if (newLogin && OnlyLetsIn) return; // a login is born with it
        giving.Add(StepOrder.Instances, new GrantInstancePermission(Instance, Permission, giving.Principal));
    }

    private protected override Taken TakeOwn(Taking taking) => OnlyLetsIn
        ? Taken.By(new DropLogin(Instance, taking.Principal), TakenOrder.Login)
        : Taken.By(new RevokeInstancePermission(Instance, Permission, taking.Principal));
}
