using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Person;

/// <summary>What only a person sees: identities inside products.</summary>
public sealed class PersonEngine : Engine
{
    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at) => need.Kind == NeedKind.ProductRole
        ? new ProductRoleRight(new InsideProduct(at.Product, need.Value, need.Lets, TimeSpan.FromDays(need.ConfirmedForDays)))
        : null;

    /// <summary>What is done inside a product takes nothing that a survey reads.</summary>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view) => change is ProductChange ? [] : null;
}
