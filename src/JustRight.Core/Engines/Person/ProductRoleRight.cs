using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Person;

/// <summary>
/// An identity inside a product that an account is mapped to. No survey reads it: a person looks it up and confirms it.
/// </summary>
public sealed class ProductRoleRight(InsideProduct inside)
    : Right(NeedKind.ProductRole, inside.Product, inside.Identity, $"task:{inside.Identity}@{inside.Product}")
{
    /// <summary>What it is.</summary>
    public override InsideProduct Confirmable { get; } = inside;

    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Person;

    /// <inheritdoc/>
    public override RightReach Reach => new(30, Confirmable.Lets.Count == 0
        ? $"the rights of '{Confirmable.Identity}' are known only inside {Confirmable.Product}"
        : $"'{Confirmable.Identity}' lets it {string.Join(", ", Confirmable.Lets)} inside {Confirmable.Product}");

    /// <summary>No survey reads it at all: that is not unread.</summary>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <summary>No step of ours makes it: it happens inside the product.</summary>
    public override void Give(Giving giving)
    {
        var change = new MapToProductRole(Confirmable.Product, Confirmable.Identity, giving.Principal, Confirmable.Lets);
        giving.AddBlocked(StepOrder.Products, change, ByPerson(giving));
    }

    /// <summary>What a person does inside the product is no entry that a survey finds.</summary>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];

    private string ByPerson(Giving giving) =>
        "a person makes it inside the product and confirms it: "
        + $"justright confirm {giving.Install} {giving.Account.Key} \"{Confirmable.Identity}\"";
}
