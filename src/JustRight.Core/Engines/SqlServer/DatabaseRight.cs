using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>A right in a database, or on it.</summary>
public abstract class DatabaseRight : SqlServerRight
{
    private static readonly string[] SystemDatabases = ["master", "model", "msdb"];

    private protected DatabaseRight(NeedKind kind, string instance, string database, string words, string key)
        : base(kind, instance, $"{instance}/{database}", words, key) => Database = database;

    /// <summary>The database.</summary>
    public string Database { get; }

    /// <inheritdoc/>
    public override PlacePart Within => new DatabasePart(Instance, Database);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => base.WhyUnread(view) ?? view.WhyDatabaseUnread(Instance, Database);

    private protected override string? WhyDenialsUnread(SurveyView view) =>
        base.WhyDenialsUnread(view) ?? view.WhyDatabaseUnread(Instance, Database);

    private protected override IEnumerable<InstanceLogin> Entrants(InstanceSnapshot instance) => base.Entrants(instance)
        .Concat(instance.Databases.FirstOrDefault(d => Same(d.Name, Database))?.Users ?? []);

    /// <summary>Whether it does all in its database that its owner can.</summary>
    internal abstract bool IsDbo { get; }

    /// <inheritdoc/>
    public sealed override AbsentThing? AbsentIn(SurveyView view) => view.AbsentDatabase(Instance, Database);

    /// <summary>
    /// A database comes over with its users, roles and permissions; the login, and the system databases, do not.
    /// </summary>
    public sealed override Right AtPartner(string partner) =>
        SystemDatabases.Contains(Database, StringComparer.OrdinalIgnoreCase) && InSystemDatabaseOf(partner) is { } there
            ? there
            : new InstancePermissionRight(partner, SqlServerPermissions.ConnectSql);

    /// <summary>The same in the system database of a partner; null when only the way in is asked there.</summary>
    private protected abstract Right? InSystemDatabaseOf(string partner);

    /// <summary>Who has a user of its own, or through a group, does not come as guest, and holds nothing of guest's.</summary>
    internal sealed override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons)
    {
        var held = base.HeldIn(holdings, logons);
        if (held is null || !held.Tails.Any(t => t.Tail.IsGuests) || !HasUser(holdings.View, holdings)) return held;
        var own = new Held(held.Right);
        own.Tails.AddRange(held.Tails.Where(t => !t.Tail.IsGuests));
        return own.Tails.Count == 0 ? null : own;
    }

    private protected sealed override bool Reaches(RightTail denial, SurveyView view, Holdings holdings) =>
        !denial.IsGuests || !HasUser(view, holdings);

    private protected override string? WhyDenialMayNotCount(RightTail denial, SurveyView view, Holdings holdings) =>
        denial.Right is InstancePermissionRight && EntersWithoutLogin(view, holdings)
            ? $"{Place} is contained: whether it lets in whom the instance keeps out is not known"
            : null;

    /// <summary>
    /// A contained database knows its users by itself, where the instance is set so [Contained Database Users].
    /// </summary>
    private protected sealed override bool EntersWithoutLogin(SurveyView view, Holdings holdings) =>
        view.Instance(Instance) is { AdmitsContained: true } && Read(view) is { IsContained: true } && HasUser(view, holdings);

    private bool HasUser(SurveyView view, Holdings holdings) =>
        Read(view)?.Users.Any(u => u.MayConnect && holdings.Reaches(u.Sid)) == true;

    private protected DatabaseSnapshot? Read(SurveyView view) => view.Database(Instance, Database);

    private protected DatabasePermissionRight Connect => new(Instance, Database, SqlServerPermissions.Connect, null);

    /// <summary>The user in the database, that anything there hangs on.</summary>
    private protected void EnsureUser(Giving giving)
    {
        if (Read(giving.View)?.Users.Any(u => giving.IsHolder(u.Sid)) != true)
            giving.Add(StepOrder.Instances, new CreateDatabaseUser(Instance, Database, giving.Principal));
    }
}
