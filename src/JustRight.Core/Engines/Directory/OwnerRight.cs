using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Engines.Directory;

/// <summary>Ownership of objects of the directory: an owner may change the access list [MS-ADTS 5.1.3.3.2].</summary>
/// <param name="where">The distinguished name of the object; or of the branch, when there are many.</param>
/// <param name="objects">How many objects.</param>
public sealed class OwnerRight(string where, int objects) : ObjectRight(
    where,
    objects == 1 ? "change its access list, as its owner" : $"change the access lists of {objects} objects, as their owner",
    $"owner@{(objects == 1 ? "" : "below ")}{where}")
{
    /// <summary>The object, or the branch.</summary>
    public string Where { get; } = where;

    /// <inheritdoc/>
    public override string OnObject => Where;

    /// <inheritdoc/>
    public override RightReach Reach => RightReach.NotKnown(Words);

    /// <summary>What an account creates is its own.</summary>
    public override bool? IsMadeUpBy(IEnumerable<Right> needed, SurveyView view) => needed.Any(n =>
        n.Below is { Act: DirectoryAct.Create or DirectoryAct.JoinComputers } asked
        && DistinguishedName.IsAtOrBelow(Where, asked.Branch));

    /// <summary>No need has its shape: it is never asked for.</summary>
    public override void Give(Giving giving) => throw new InvalidOperationException($"No need asks for {this}.");

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.Not("give the objects another owner");

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) =>
        Drafted.Not("a sheet cannot ask for object ownership; it can ask for the acts that the product needs");

    private protected override IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, $"{Words} on {Place}")];
}
