using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>An attribute of a role, as sheets ask for it: a permission at the instance.</summary>
public sealed class RoleAttributeRight(string instance, string attribute) : PostgreSqlRight(
    NeedKind.InstancePermission, instance, instance, attribute.ToUpperInvariant(),
    Fold($"instance-permission:{attribute}@{instance}"))
{
    /// <summary>Its word, one of <see cref="RoleAttributeNames.All"/>.</summary>
    public string Attribute { get; } = attribute.ToUpperInvariant();

    /// <inheritdoc/>
    public override RightReach Reach => RoleAttributeNames.All.TryGetValue(Attribute, out var known)
        ? new RightReach(known.Points, $"{Attribute} lets it {known.Lets}")
        : RightReach.NotKnown(Attribute);

    /// <inheritdoc/>
    public override bool OnlyLetsIn => Attribute == RoleAttributeNames.Login;

    /// <inheritdoc/>
    public override Right AtPartner(string partner) => new RoleAttributeRight(partner, Attribute);

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.At(NeedKind.InstancePermission, Attribute, PlaceKind.Instance, Instance);

    private protected override IReadOnlyList<Right> FindAbove() =>
        Attribute is RoleAttributeNames.Superuser or RoleAttributeNames.Login ? [] : [Superuser];

    private protected override IReadOnlyList<Right> FindEntrances() => [Login];

    private protected override void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn)
    {
        if (!OnlyLetsIn) giving.Add(StepOrder.Instances, new GrantInstancePermission(Instance, Attribute, signIn.Role));
    }

    private protected override Taken TakeFrom(string role, Taking taking) =>
        Taken.By(new RevokeInstancePermission(Instance, Attribute, role), OnlyLetsIn ? TakenOrder.Login : TakenOrder.Right);
}
