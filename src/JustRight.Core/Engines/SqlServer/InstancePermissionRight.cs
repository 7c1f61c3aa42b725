using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A permission at an instance, or on something of it: a login, a role, an endpoint, an availability group.</summary>
public sealed class InstancePermissionRight : SqlServerRight
{
    private readonly SqlServerClass? _kind;

    /// <summary>A permission.</summary>
    /// <param name="on">Such as <c>LOGIN::FENNMOOR\svc-mill</c>; null for the instance itself.</param>
    public InstancePermissionRight(string instance, string permission, string? on = null)
        : this(instance, SqlServerAsked.Of(permission, on))
    {
    }

    private InstancePermissionRight(string instance, SqlServerAsked asked)
        : base(NeedKind.InstancePermission, instance, instance, asked.Words, $"instance-permission:{asked.Words}@{instance}")
    {
        (Permission, On, Thing) = (asked.Permission, asked.On, asked.Thing);
        _kind = On is null ? SqlServerClass.Server : Thing is { IsOfInstance: true } ? Thing.Class : null;
    }

    /// <summary>The permission, such as <c>VIEW SERVER STATE</c>.</summary>
    public string Permission { get; }

    /// <summary>What of the instance it is on, or null for the instance itself.</summary>
    public string? On { get; }

    /// <summary>What of the instance it is on; null for the instance itself, and for what is not known here.</summary>
    internal SqlServerSecurable? Thing { get; }

    /// <summary>Whether its denial keeps out the owner of a database too.</summary>
    public bool IsOwnersToo => On is null && Permission is SqlServerPermissions.ConnectSql or SqlServerPermissions.ControlServer;

    /// <inheritdoc/>
    public override RightReach Reach => _kind is { } kind && SqlServerPermissions.Of(kind, Permission) is { } known
        ? new RightReach(known.Points!.Value, $"{Words} lets it {known.Lets}")
        : RightReach.NotKnown(Words);

    /// <summary>What a login is born with lets it in.</summary>
    public override bool OnlyLetsIn => On is null && Permission == SqlServerPermissions.ConnectSql;

    /// <summary>Reads a sheet's words: <c>VIEW SERVER STATE</c>, <c>IMPERSONATE on LOGIN::FENNMOOR\svc-mill</c>.</summary>
    public static InstancePermissionRight Parse(string instance, string text)
    {
        var words = Securable.Parse(text);
        return new InstancePermissionRight(instance, words.Permission, words.On);
    }

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new InstancePermissionRight(partner, Permission, On);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => base.WhyUnread(view) ?? view.WhyPermissionsUnread(Instance)
        ?? WhyNotKnown(view, _kind, Permission, On);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstancePermission, Words, PlaceKind.Instance, Instance);

    /// <inheritdoc/>
    internal override IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways) => ways.OfInstancePermission(this);

    private protected override IReadOnlyList<Right> FindAbove() =>
        [.. Covering, .. SqlServerRoles.With(Instance, [this, .. Covering.OfType<InstancePermissionRight>()]), Everything];

    private protected override IReadOnlyList<Right> FindCovering() => _kind is not { } kind ? []
        : [.. SqlServerCovering.Of(kind, Permission, Thing).Select(c =>
            new InstancePermissionRight(Instance, c.Permission, c.On?.Words))];

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql];

    private protected override bool IsGrantedOn(InstanceSnapshot instance, Sid holder) =>
        instance.Permissions.Any(p => IsEntry(p, holder, Permission, On));

    private protected override Ownership OwnershipIn(SurveyView view, Holdings holdings) => OwnershipOf(
        Thing, view.Instance(Instance)?.Owned ?? [], holdings, role => new InstanceRoleRight(Instance, role));

    private protected override void Give(Giving giving, bool newLogin)
    {
        if (newLogin && OnlyLetsIn) return; // a login is born with it
        giving.Add(StepOrder.Instances, new GrantInstancePermission(Instance, Words, giving.Principal));
    }

    private protected override Taken TakeOwn(Taking taking) => OnlyLetsIn
        ? WithItsJobs(taking) ?? Taken.By(new DropLogin(Instance, taking.Principal), TakenOrder.Login)
        : taking.Path.Has(StepMeaning.Ownership) ? Taken.Not(OwnedThing.WhyKept(On!))
        : Taken.By(new RevokeInstancePermission(Instance, Words, taking.Principal));

    /// <summary>A login that owns jobs cannot be dropped [DROP LOGIN].</summary>
    private Taken? WithItsJobs(Taking taking) =>
        taking.View.Instance(Instance)?.Agent?.Jobs.Where(j => j.Owner == taking.Sid).Select(j => j.Name).ToList()
            is { Count: > 0 } jobs
            ? Taken.Not($"its login owns {(jobs.Count == 1 ? "the job" : "the jobs")} {string.Join(", ", jobs)}: "
                + $"give {(jobs.Count == 1 ? "it" : "them")} another owner first")
            : null;
}
