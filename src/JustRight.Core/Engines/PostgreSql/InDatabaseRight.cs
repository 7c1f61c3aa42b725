using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>A right in a database, or on it.</summary>
public abstract class InDatabaseRight : PostgreSqlRight
{
    private protected InDatabaseRight(NeedKind kind, string instance, string database, string words, string key)
        : base(kind, instance, $"{instance}/{database}", words, key) => Database = database;

    /// <summary>The database.</summary>
    public string Database { get; }

    /// <inheritdoc/>
    public sealed override AbsentThing? AbsentIn(SurveyView view) => view.AbsentDatabase(Instance, Database);

    private protected DatabasePrivilegeRight Connect => new(Instance, Database, DatabasePrivilegeRight.ConnectPrivilege, null);

    private protected override string? WhyShut(Holdings holdings) =>
        this != Connect && !IsOpen(holdings, Connect) ? $"it holds the right, and lacks CONNECT on {Place}" : null;

    private protected PostgreSqlDatabase? Find(PostgreSqlCatalog catalog) =>
        catalog.Databases.FirstOrDefault(d => Same(d.Name, Database));
}
