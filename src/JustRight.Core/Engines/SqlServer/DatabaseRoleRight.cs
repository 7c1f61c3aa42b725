using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>Membership of a role in a database.</summary>
public sealed class DatabaseRoleRight(string instance, string database, string role) : DatabaseRight(
    NeedKind.DatabaseRole, instance, database, role, $"database-role:{role}@{instance}/{database}")
{
    /// <summary>The role of those who may do everything in a database, which its owner is in.</summary>
    public const string Owners = "db_owner";

    private const string Jobs = "msdb";
    private static readonly string[] AgentRoles = ["SQLAgentUserRole", "SQLAgentReaderRole", "SQLAgentOperatorRole"];

    private static readonly Dictionary<string, RightReach> Known = new(StringComparer.OrdinalIgnoreCase)
    {
        [Owners] = new(80, "db_owner can do anything in its database"),
        ["db_securityadmin"] = new(75, "db_securityadmin can grant itself any right in its database"),
        ["db_accessadmin"] = new(40, "db_accessadmin lets others in"),
        ["db_ddladmin"] = new(40, "db_ddladmin changes the database's structure"),
    };

    /// <summary>The role.</summary>
    public string Role { get; } = role;

    /// <inheritdoc/>
    public override PlacePart Within => new DatabaseRolePart(Instance, Database, Role);

    /// <inheritdoc/>
    public override RightReach Reach => Same(Database, Jobs) && Same(Role, Owners)
        ? new RightReach(780, "db_owner of msdb can run jobs as sysadmin")
        : Known.GetValueOrDefault(Role, new RightReach(10, $"{Role} stays within its database"));

    /// <inheritdoc/>
    public override bool IsRole => true;

    /// <inheritdoc/>
    public override bool IsStep(PathStep step, Right end) =>
        step.Role is { } role && Same(role, Role) && Same(end.Place, Place);

    /// <summary>
    /// The owner of a database is in its owner role by that alone: the ownership is told, unless the role is needed.
    /// </summary>
    public override bool IsShadow(Held held, IReadOnlyList<Right> needed) => Same(Role, Owners)
        && held.Tails.All(t => t.Tail.Steps.Any(s => s.Meaning == StepMeaning.Ownership)) && !needed.Contains(this);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabaseRole, Role, PlaceKind.Database, Place);

    /// <summary>
    /// A database's owner role has what the other fixed roles have but the denying ones, and so has the all-powerful role of the
    /// instance; neither is a member of a role that somebody made. Of the three agent roles each holds the one before.
    /// </summary>
    private protected override IReadOnlyList<Right> FindAbove()
    {
        if (Same(Role, Owners)) return [Everything];
        return SqlServerRoles.IsFixedIn(Database, Role)
            ? [.. AgentRolesAbove(), new DatabaseRoleRight(Instance, Database, Owners), Everything]
            : [];
    }

    /// <inheritdoc/>
    internal override bool IsDbo => Same(Role, Owners);

    /// <inheritdoc/>
    internal override IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways) => ways.OfRole(this);

    private protected override IReadOnlyList<Right> FindEntrances() => [ConnectSql, Connect];

    private protected override Right InSystemDatabaseOf(string partner) => new DatabaseRoleRight(partner, Database, Role);

    private protected override bool IsOwner(SurveyView view, Holdings holdings) =>
        Read(view)?.Owner == view.Graph.SidOf(holdings.Account);

    private protected override void Give(Giving giving, bool newLogin)
    {
        EnsureUser(giving);
        giving.Add(StepOrder.Databases, new AddDatabaseRoleMember(Instance, Database, Role, giving.Principal));
    }

    private protected override Taken TakeOwn(Taking taking) => taking.Path.Has(StepMeaning.Ownership)
        ? Taken.NoStep
        : Taken.By(new RemoveDatabaseRoleMember(Instance, Database, Role, taking.Principal));

    private IEnumerable<Right> AgentRolesAbove()
    {
        var at = Array.FindIndex(AgentRoles, a => Same(a, Role));
        return at < 0 ? [] : AgentRoles.Skip(at + 1).Select(a => new DatabaseRoleRight(Instance, Database, a));
    }
}
