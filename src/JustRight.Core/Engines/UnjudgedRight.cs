using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines;

/// <summary>A right that no engine knows, or by a name that can be nowhere: always unseen.</summary>
public sealed class UnjudgedRight(NeedKind kind, string value, string place)
    : Right(kind, place, $"{NeedKinds.ByKind[kind].Key}: {value}", $"{NeedKinds.ByKind[kind].Key}:{value}@{place}")
{
    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Nobody;

    /// <inheritdoc/>
    public override RightReach Reach => RightReach.NotKnown(Words);

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => null;

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public override Gate GateFor(SurveyView view, Holdings holdings) => Gate.Unseen("it cannot be judged yet");

    /// <summary>Nobody knows how: no step.</summary>
    public override void Give(Giving giving) => giving.LeaveToPerson("this release does not know what it is");

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    private protected override IReadOnlyList<Right> FindAbove() => [];

    private protected override IReadOnlyList<Right> FindEntrances() => [];
}
