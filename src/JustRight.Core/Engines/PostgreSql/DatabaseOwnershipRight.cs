using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>Ownership of a database.</summary>
public sealed class DatabaseOwnershipRight(string instance, string database) : InDatabaseRight(
    NeedKind.DatabaseOwner, instance, database, "owner", "owner", null)
{
    /// <inheritdoc/>
    public override RightReach Reach => new(80, "the owner of a database can do anything in it, and drop it");

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.DatabaseOwner, "yes", PlaceKind.Database, Place);

    private protected override IReadOnlyList<Right> FindAbove() => [Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() => [Login, Connect];

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn) =>
        giving.Add(StepOrder.Databases, new ChangeDatabaseOwner(Instance, Database, signIn.Role, Find(catalog)?.Owner));

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.OfOwner(
            taking, Instance, Database, role,
            owner => taking.View.Instance(Instance)?.PostgreSql?.Roles.Any(r => r.Name == owner) == true ? null
                : "there is no such role");
}
