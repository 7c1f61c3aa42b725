using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>Membership of a role.</summary>
public sealed class RoleMembershipRight(string instance, string role)
    : PostgreSqlRight(NeedKind.InstanceRole, instance, instance, role, $"instance-role:{role}@{Fold(instance)}")
{
    /// <summary>The role.</summary>
    public string Role { get; } = role;

    /// <inheritdoc/>
    public override RightReach Reach => RoleAttributeNames.PredefinedRoles.TryGetValue(Role, out var known)
        ? new RightReach(known.Points, known.Reason)
        : new RightReach(60, $"{Role} is a role of the instance");

    /// <inheritdoc/>
    public override bool IsRole => true;

    /// <inheritdoc/>
    public override bool IsStep(PathStep step, Right end) =>
        step is { Kind: StepKind.Role, Role: { } role } && role == Role
            && string.Equals(end.AtInstance, Instance, StringComparison.OrdinalIgnoreCase);

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new RoleMembershipRight(partner, Role);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstanceRole, Role, PlaceKind.Instance, Instance);

    /// <summary>What a role has counts for whoever is in it by a way that hands on, and not first by SET ROLE.</summary>
    public override bool HandsOn(Held held) => held.Tails.Any(t => t.Tail.Steps.All(s => s.Meaning != StepMeaning.TakenOn));

    private protected override IReadOnlyList<Right> FindAbove() => [Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() => [Login];

    private protected override string? WhyShut(AsRole role, PostgreSqlDatabase? database) =>
        role.Of(this) is { } held && !HandsOn(held)
            ? $"it is in {Role}, and has its rights only after SET ROLE"
            : null;

    private protected override bool IsGrantedOn(PostgreSqlCatalog catalog, string role) =>
        catalog.Memberships.Any(m => m.Member == role && m.Role == Role && m.Admin);

    /// <summary>
    /// Who is in it and has its rights first after SET ROLE is helped by inheriting: up to release 15 that is an attribute of the
    /// role for all its memberships, later of each membership.
    /// </summary>
    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn)
    {
        var change = new AddInstanceRoleMember(Instance, Role, signIn.Role);
        var isIn = catalog.Memberships.Any(m => m.Member == signIn.Role && m.Role == Role);
        if (signIn.Exists && !signIn.Authority.Has(signIn.Role, RoleAttributes.Inherit))
            giving.Add(
                StepOrder.Instances, new GrantInstancePermission(Instance, RoleAttributeNames.Inherits, signIn.Role),
                "without it the role has what its roles have first after SET ROLE; with it, what all of them have");
        else if (isIn)
            giving.AddBlocked(
                StepOrder.Instances, change,
                $"{signIn.Role} is in it, and has its rights first after SET ROLE: GRANT … WITH INHERIT TRUE");
        if (!isIn) giving.Add(StepOrder.Instances, change);
    }

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.By(new RemoveInstanceRoleMember(Instance, Role, role));
}
