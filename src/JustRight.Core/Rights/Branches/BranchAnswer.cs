using JustRight.Core.Directory;

namespace JustRight.Core.Rights.Branches;

/// <summary>Why an account may not do something to an object.</summary>
public enum FailureCause
{
    /// <summary>No entry anywhere up the tree gives it.</summary>
    NothingGivesIt,

    /// <summary>An entry further up gives it, and inheritance stops on the way.</summary>
    InheritanceStops,

    /// <summary>An entry denies it.</summary>
    Denied,

    /// <summary>The object is in a protected group: its list is reset within the hour, by design [MS-ADTS 3.1.1.6.1].</summary>
    ProtectedGroup,

    /// <summary>The object was in a protected group; its list was left closed.</summary>
    LeftByProtectedGroup,

    /// <summary>An entry that is not understood could decide it.</summary>
    NotUnderstood,

    /// <summary>
    /// An entry for somebody whom the account may belong to could decide it: what it is in could not be read whole.
    /// </summary>
    MembershipUnread,

    /// <summary>What would decide it was not read.</summary>
    Unread,

    /// <summary>Objects of its class know no such thing: a group has no password.</summary>
    NotOfItsClass,
}

/// <summary>Objects that fail for the same reason at the same place.</summary>
/// <param name="Cause">The reason.</param>
/// <param name="At">The objects where it lies, as indexes of the tree: where inheritance stops, where the denying entry stands.
/// Empty when it lies nowhere.</param>
/// <param name="Demands">What fails.</param>
/// <param name="Words">The reason in one sentence.</param>
/// <param name="Objects">The objects that fail, as indexes of the tree.</param>
/// <param name="Entry">For a denial: the index of the denying entry in the list where it stands.</param>
public sealed record FailureGroup(
    FailureCause Cause, IReadOnlyList<int> At, IReadOnlyList<Demand> Demands, string Words, IReadOnlyList<int> Objects,
    int Entry);

/// <summary>What an account may do to the objects of one class below a branch, or to given objects.</summary>
/// <param name="Can">How many objects grant all that is asked.</param>
/// <param name="Cannot">How many refuse something of it.</param>
/// <param name="Unseen">How many could not be judged.</param>
/// <param name="Failures">Those that refuse or could not be judged, by cause and place, the largest group first.</param>
/// <param name="Uncovered">Containers in which an object created tomorrow would refuse, as indexes of the tree.</param>
/// <param name="Objects">All that was judged, as indexes of the tree.</param>
/// <param name="Deciders">Of those that grant: the SIDs of whom the deciding entries name, with one object each.</param>
public sealed record BranchAnswer(
    int Can, int Cannot, int Unseen, IReadOnlyList<FailureGroup> Failures, IReadOnlyList<int> Uncovered, IReadOnlyList<int> Objects, IReadOnlyList<(
        Sid Trustee, int Object)> Deciders)
{
    /// <summary>
    /// Whether everything that exists grants it; or, where nothing exists yet, everything that would be created.
    /// </summary>
    public bool Holds => Cannot == 0 && Unseen == 0 && (Can > 0 || Uncovered.Count == 0);

    /// <summary>Several answers about different objects as one.</summary>
    public static BranchAnswer Together(IReadOnlyList<BranchAnswer> answers) => answers is [var only] ? only : new BranchAnswer(
        answers.Sum(a => a.Can), answers.Sum(a => a.Cannot), answers.Sum(a => a.Unseen),
        [.. answers.SelectMany(a => a.Failures).OrderByDescending(f => f.Objects.Count)],
        [.. answers.SelectMany(a => a.Uncovered)], [.. answers.SelectMany(a => a.Objects)],
        [.. answers.SelectMany(a => a.Deciders).DistinctBy(d => d.Trustee)]);

    /// <summary>That none of some objects could be judged, or none can, for a reason that is not in their lists.</summary>
    public static BranchAnswer None(FailureCause cause, string words, IReadOnlyList<int> objects) => new(
        0, cause == FailureCause.Unread ? 0 : objects.Count, cause == FailureCause.Unread ? objects.Count : 0,
        [new FailureGroup(cause, [], [], words, objects, -1)], [], objects, []);
}
