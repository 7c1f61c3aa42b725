using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>A right in a database, or on it.</summary>
public abstract class InDatabaseRight : PostgreSqlRight
{
    /// <param name="privilege">The word of the privilege, or <c>owner</c>.</param>
    /// <param name="thing">What in the database it is on; null for the database itself.</param>
    private protected InDatabaseRight(
        NeedKind kind, string instance, string database, string words, string privilege, PostgreSqlSecurable? thing)
        : base(kind, instance, $"{instance}/{database}", words, KeyOf(kind, instance, database, words, privilege, thing)) =>
        Database = database;

    /// <summary>The database, exact in case.</summary>
    public string Database { get; }

    /// <summary>It moves along with its database; the role is one of the instance, and must be let in at the partner.</summary>
    public sealed override Right AtPartner(string partner) => new RoleAttributeRight(partner, RoleAttributeNames.Login);

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view)
    {
        if (view.Instance(Instance) is not { Unread: null, PostgreSql: { } catalog } instance) return null;
        if (Find(catalog) is not null) return null;
        return new AbsentThing(
            $"database {instance.Name}/{Database}", Spelling.Nearest(Database, catalog.Databases.Select(d => d.Name)));
    }

    private protected sealed override string? InDatabase => Database;

    private protected DatabasePrivilegeRight Connect => new(Instance, Database, DatabasePrivilegeRight.ConnectPrivilege, null);

    private protected override string? WhyShut(AsRole role, PostgreSqlDatabase? database) =>
        this != Connect && !role.Opens(Connect) ? $"it holds the right, and lacks CONNECT on {Place}" : null;

    /// <summary>Why what is in the database could not be read, or null when it was.</summary>
    private protected string? WhyInside(SurveyView view) =>
        DatabaseIn(view) is { Unread: { } reason } ? $"{Place} could not be read: {reason}" : null;

    private protected PostgreSqlDatabase? DatabaseIn(SurveyView view) =>
        view.Instance(Instance)?.PostgreSql is { } catalog ? Find(catalog) : null;

    private protected PostgreSqlDatabase? Find(PostgreSqlCatalog catalog) =>
        catalog.Databases.FirstOrDefault(d => d.Name == Database);

    /// <summary>Names are exact; the words of the language are not.</summary>
    private static string KeyOf(
        NeedKind kind, string instance, string database, string words, string privilege, PostgreSqlSecurable? thing)
    {
        var what = thing is null ? words : $"{privilege} on {thing.ClassWord}::";
        var name = thing is null ? "" : thing.NameWords;
        return kind == NeedKind.DatabaseOwner
            ? $"database-owner:@{Fold(instance)}/{database}"
            : $"database-permission:{Fold(what)}{name}@{Fold(instance)}/{database}";
    }
}
