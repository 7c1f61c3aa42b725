using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>A right that access lists of the directory give.</summary>
public abstract class ObjectRight : Right
{
    private protected ObjectRight(string place, string words, string key)
        : base(NeedKind.Directory, place, words, key)
    {
    }

    /// <inheritdoc/>
    public sealed override string? WhyUnread(SurveyView view) =>
        view.Tree is null ? "the ACLs of the directory were not surveyed" : null;

    /// <inheritdoc/>
    public sealed override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <summary>What denies it was weighed already, object by object.</summary>
    public sealed override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Open;

    private protected sealed override IReadOnlyList<Right> FindAbove() => [];

    private protected sealed override IReadOnlyList<Right> FindEntrances() => [];

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, Words)];
}
