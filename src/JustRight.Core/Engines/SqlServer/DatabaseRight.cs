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
    public override string? WhyUnread(SurveyView view) => base.WhyUnread(view) ?? view.WhyDatabaseUnread(Instance, Database);

    private protected override string? WhyDenialsUnread(SurveyView view) =>
        base.WhyDenialsUnread(view) ?? view.WhyDatabaseUnread(Instance, Database);

    private protected override IEnumerable<InstanceLogin> Entrants(InstanceSnapshot instance) => base.Entrants(instance)
        .Concat(instance.Databases.FirstOrDefault(d => Same(d.Name, Database))?.Users ?? []);

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

    private protected DatabaseSnapshot? Read(SurveyView view) => view.Database(Instance, Database);

    private protected DatabasePermissionRight Connect => new(Instance, Database, SqlServerPermissions.Connect, null);

    /// <summary>The user in the database, that anything there hangs on.</summary>
    private protected void EnsureUser(Giving giving)
    {
        if (Read(giving.View)?.Users.Any(u => giving.IsHolder(u.Sid)) != true)
            giving.Add(StepOrder.Instances, new CreateDatabaseUser(Instance, Database, giving.Principal));
    }
}
