using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Person;

/// <summary>What only a person sees: identities inside products, and tasks.</summary>
public sealed class PersonEngine : Engine
{
    /// <inheritdoc/>
    public override Right? RightOf(Need need, AskedAt at)
    {
        var confirmedFor = TimeSpan.FromDays(need.ConfirmedForDays);
        if (need.Kind == NeedKind.ProductRole)
            return new ProductRoleRight(new InsideProduct(at.Product, need.Value, need.Lets, confirmedFor));
        if (need is not { Kind: NeedKind.Task, Task: { } task }) return null;
        var asked = new TaskAsked(
            at.Product, need.Value, task.Work, task.DoneWhen, confirmedFor, task.Team, task.WaitsFor);
        return new TaskRight(asked, at.Spot?.Name ?? at.Product);
    }

    /// <summary>What a person does takes nothing that a survey reads.</summary>
    public override IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view) =>
        change is ProductChange or DoTask ? [] : null;
}
