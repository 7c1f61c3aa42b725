using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Person;

/// <summary>A task of an account: nobody but a person can do it, and tell that it is done.</summary>
/// <param name="task">What is to be done.</param>
/// <param name="place">The host, instance, database or branch it is done at; the product for one that has no place.</param>
public sealed class TaskRight(TaskAsked task, string place)
    : Right(NeedKind.Task, place, task.Task, $"to-do:{task.Task}@{place}")
{
    /// <summary>What is to be done.</summary>
    public override TaskAsked Confirmable { get; } = task;

    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Person;

    /// <inheritdoc/>
    public override RightReach Reach => new(1, "a person does it, and nothing is given to the account");

    /// <summary>No survey reads it at all: that is not unread.</summary>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    /// <summary>A step for a person: none of ours makes it.</summary>
    public override void Give(Giving giving) => giving.AddBlocked(
        StepOrder.Products, new DoTask(Confirmable.Team, Place, Confirmable.Task, Confirmable.Work, Confirmable.DoneWhen),
        "a person does it and confirms it: "
        + $"justright confirm {giving.Install} {giving.Account.Key} {Confirmable.Task} --proof \"how you saw it\"");

    /// <summary>What a person did, no step takes back.</summary>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];
}
