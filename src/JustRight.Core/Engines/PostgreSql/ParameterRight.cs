using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>Leave to set a parameter that others may not set, from release 15 on [PostgreSQL, GRANT ON PARAMETER].</summary>
public sealed class ParameterRight(string instance, ParameterPrivilege asked) : PostgreSqlRight(
    NeedKind.InstancePermission, instance, instance, asked.Words, Fold($"instance-permission:{asked.Words}@{instance}"))
{
    private const int OfSession = 20;
    private const int OfServer = 500;
    private readonly ParameterPrivilege _asked = asked;

    /// <inheritdoc/>
    public override RightReach Reach => _asked.Privilege == "SET"
        ? new RightReach(OfSession, $"{Words} changes it for sessions of its own")
        : new RightReach(OfServer, $"{Words} changes the server for everybody");

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new ParameterRight(partner, _asked);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstancePermission, Words, PlaceKind.Instance, Instance);

    /// <summary>By entries of roles, or because everybody has it.</summary>
    internal override Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons)
    {
        var held = base.HeldIn(holdings, logons);
        return holdings.View.Instance(Instance)?.PostgreSql is { } catalog
            && EntriesIn(catalog).Any(e => e.Grantee is null && e.Privilege == _asked.Privilege)
            ? RolesOfHolder.WithEverybodys(this, Instance, holdings, held)
            : held;
    }

    private protected override IReadOnlyList<Right> FindAbove() => [Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() => [Login];

    private protected override bool IsGrantedOn(PostgreSqlCatalog catalog, string role) =>
        EntriesIn(catalog).Any(e => e.Grantee == role && e.GrantOn && e.Privilege == _asked.Privilege);

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn) =>
        giving.Add(StepOrder.Instances, new GrantInstancePermission(Instance, Words, signIn.Role));

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.By(new RevokeInstancePermission(Instance, Words, role));

    private IEnumerable<PrivilegeEntry> EntriesIn(PostgreSqlCatalog catalog) =>
        catalog.Parameters.Where(p => Fold(p.Name) == _asked.Parameter).SelectMany(p => p.Entries);
}
