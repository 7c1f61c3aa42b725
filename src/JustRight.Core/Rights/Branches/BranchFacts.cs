using JustRight.Core.Rights.Access;

namespace JustRight.Core.Rights.Branches;

/// <summary>What was found of a right over a branch.</summary>
/// <param name="Can">How many objects grant it.</param>
/// <param name="Cannot">How many refuse it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Failures">Those that refuse or could not be judged, by cause and place, the largest group first.</param>
/// <param name="Uncovered">Distinguished names of containers in which an object created tomorrow would refuse.</param>
public sealed record BranchFacts(
    int Can, int Cannot, int Unseen, IReadOnlyList<BranchFailure> Failures, IReadOnlyList<string> Uncovered)
{
    private const int MostSamples = 20;
    private const int MostNamed = 3;

    /// <summary>The facts of an answer.</summary>
    public static BranchFacts Of(BranchAnswer answer, AccessTree tree) => new(
        answer.Can, answer.Cannot, answer.Unseen,
        [.. answer.Failures.Select(f =>
            new BranchFailure(
                f.Cause, f.Words, [.. f.At.Select(i => tree[i].Dn)], f.Objects.Count,
                [.. f.Objects.Take(MostSamples).Select(i => tree[i].Dn)]))],
        [.. answer.Uncovered.Select(i => tree[i].Dn)]);

    /// <summary>How many there are in all.</summary>
    public int Count => Can + Cannot + Unseen;

    /// <summary>One sentence on what refuses.</summary>
    /// <param name="of">The class of object.</param>
    public string Refusal(string of) =>
        $"{Cannot + Unseen} of {Count} objects of class {of} {(Cannot > 0 ? "refuse it" : "could not be judged")}: {string.Join("; ", Failures.Take(MostNamed).Select(f => f.Words))}{(Failures.Count > MostNamed ? $"; and {Failures.Count - MostNamed} more causes" : "")}";

    /// <summary>What tomorrow's objects would find.</summary>
    public IEnumerable<string> Tomorrow(string of) =>
        Uncovered.Take(MostNamed).Select(dn => $"a new {of} in {dn} would not be covered");
}

/// <summary>Objects that fail for one reason at one place.</summary>
/// <param name="Words">The reason in one sentence.</param>
/// <param name="At">Where it lies.</param>
/// <param name="Count">How many objects.</param>
/// <param name="Samples">Some of them.</param>
public sealed record BranchFailure(
    FailureCause Cause, string Words, IReadOnlyList<string> At, int Count, IReadOnlyList<string> Samples);
