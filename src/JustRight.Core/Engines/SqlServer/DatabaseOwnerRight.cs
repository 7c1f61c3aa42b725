using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Ownership of a database.</summary>
public sealed class DatabaseOwnerRight(string instance, string database) : DatabaseRight(
    NeedKind.DatabaseOwner, instance, database, "owner", $"database-owner:@{instance}/{database}")
{
    private const string Jobs = "msdb";
    private const string Dbo = "an owner is dbo there, and cannot be a user too";

    /// <inheritdoc/>
    public override RightReach Reach => Same(Database, Jobs)
        ? new RightReach(780, "the owner of msdb can run jobs as sysadmin")
        : new RightReach(80, "the owner of a database can do anything in it, and drop it");

    /// <summary>Who owns it is read at the instance, even where the database itself could not be read.</summary>
    public override string? WhyUnread(SurveyView view) => view.WhyInstanceUnread(Instance);

    /// <summary>What is denied in the database does not reach its owner.</summary>
    private protected override string? WhyDenialsUnread(SurveyView view) => view.WhyPermissionsUnread(Instance);

    /// <summary>Where its owner role is needed, the ownership that brings it is no more than that.</summary>
    public override bool IsShadow(Held held, IReadOnlyList<Right> needed) =>
        needed.Contains(new DatabaseRoleRight(Instance, Database, DatabaseRoleRight.Owners));

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabaseOwner, "yes", PlaceKind.Database, Place);

    /// <inheritdoc/>
    internal override bool IsDbo => true;

    /// <inheritdoc/>
    internal override IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways) => ways.OfOwner(this);

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql];

    private protected override Right? InSystemDatabaseOf(string partner) => null;

    /// <summary>An owner is dbo there, and may not be a user beside that.</summary>
    private protected override void Give(Giving giving, bool newLogin)
    {
        var database = Read(giving.View);
        if (database?.Users.Any(u => giving.IsHolder(u.Sid)) == true) DropUser(giving, database);
        giving.Add(StepOrder.Databases, new ChangeDatabaseOwner(Instance, Database, giving.Principal, database?.OwnerName));
    }

    private protected override Taken TakeOwn(Taking taking) =>
        Taken.OfOwner(taking, Instance, Database, taking.Principal, owner => WhyNoOwner(owner, taking.View));

    /// <summary>
    /// Why a login cannot own it. Of logins of the engine's own only those are read that were given something: one of them that
    /// is not known is looked for when the step is made.
    /// </summary>
    private string? WhyNoOwner(string owner, SurveyView view)
    {
        if (!owner.Contains('\\', StringComparison.Ordinal)) return null;
        if (view.Instance(Instance)?.Logins.FirstOrDefault(l => Same(l.Name, owner)) is not { } login)
            return $"it has no login at {Instance}";
        return Read(view)?.Users.Any(u => u.Sid == login.Sid) == true ? "it is a user there, and an owner cannot be one too"
            : null;
    }

    /// <summary>What the user holds goes by steps of its own: dropped with it, nobody could put it back.</summary>
    private void DropUser(Giving giving, DatabaseSnapshot database)
    {
        foreach (var role in database.Roles.Where(m => m.Members.Any(giving.IsHolder)))
            giving.Add(
                StepOrder.Instances, new RemoveDatabaseRoleMember(Instance, Database, role.Role, giving.Principal), Dbo);
        foreach (var entry in database.Permissions.Where(p =>
            p is { State: PermissionState.Grant, Role: null } && giving.IsHolder(p.Holder) && !IsConnect(p)))
            giving.Add(
                StepOrder.Instances,
                new RevokeDatabasePermission(Instance, Database, entry.Permission, entry.On, giving.Principal), Dbo);
        giving.AddBlocked(
            StepOrder.Instances, new DropDatabaseUser(Instance, Database, giving.Principal),
            giving.Blocked ?? WhyNot(giving, database), Dbo);
    }

    /// <summary>Why its user cannot be dropped, or not so that undoing restores it.</summary>
    private static string? WhyNot(Giving giving, DatabaseSnapshot database) =>
        database.Owned.FirstOrDefault(o => o.Role is null && giving.IsHolder(o.Owner)) is { } owned
            ? $"its user owns {owned.On}: give that another owner first"
        : database.Permissions.Where(p => p.State != PermissionState.Grant && p.Role is null)
            .FirstOrDefault(p => giving.IsHolder(p.Holder)) is { } entry
            ? "its user has an entry that no step puts back: "
                + $"{(entry.State == PermissionState.Deny ? "DENY" : "with grant option")} "
                + $"{entry.Permission}{(entry.On is null ? "" : $" on {entry.On}")}"
        : null;

    private static bool IsConnect(PermissionEntry entry) =>
        entry.On is null && entry.Permission == SqlServerPermissions.Connect;
}
