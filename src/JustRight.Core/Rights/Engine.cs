using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>What a place gives and denies, worked out when it is asked.</summary>
public interface IPlaceGrants
{
    /// <summary>The place.</summary>
    string Place { get; }

    /// <summary>
    /// Everybody to whom it gives something directly, and everybody whom it denies something; with repetitions.
    /// </summary>
    IEnumerable<(Sid Sid, bool Denied)> Principals();

    /// <summary>Who is given a right directly.</summary>
    /// <param name="which">The principals that matter: most questions are about one account and what it is in.</param>
    IEnumerable<RightTail> Of(Right right, Func<Sid, bool> which);

    /// <summary>Everything that is given to a principal directly.</summary>
    /// <param name="passOver">The rights that need not be looked into: what comes along with them is left out.</param>
    IEnumerable<RightTail> To(Sid holder, Func<Right, bool>? passOver);

    /// <summary>Who is denied a right.</summary>
    IEnumerable<RightTail> Denying(Right right);
}

/// <summary>What a change takes from somebody.</summary>
/// <param name="Node">Whose membership or entry it is.</param>
/// <param name="Group">The node of the group that is left, or negative for an entry.</param>
/// <param name="Right">The right whose entry goes, or null for a membership.</param>
public readonly record struct Loss(int Node, int Group, Right? Right)
{
    /// <summary>An entry at a place.</summary>
    public static Loss OfEntry(int node, Right right) => new(node, -1, right);

    /// <summary>Membership of a domain group.</summary>
    public static Loss OfMembership(int node, int group) => new(node, group, null);
}

/// <summary>Where a need is asked: the spot of its place, where it has one, and what it is part of.</summary>
public sealed record AskedAt(Spot? Spot, string Domain, string Product);

/// <summary>
/// One kind of system that holds rights: what its part of a survey gives and denies, and how a need becomes a right there. Each
/// says nothing (null) of what is another's.
/// </summary>
public abstract class Engine
{
    /// <summary>The family, as sheets and estates name it; null for what has none.</summary>
    public virtual string? Family => null;

    /// <summary>The places of a survey that are asked one by one.</summary>
    public virtual IEnumerable<IPlaceGrants> Places(Survey survey, MembershipGraph graph) => [];

    /// <summary>What is given directly elsewhere than at those.</summary>
    /// <param name="tree">The access lists of the directory, or null when they were not read.</param>
    public virtual IEnumerable<RightTail> Given(Survey survey, MembershipGraph graph, AccessTree? tree) => [];

    /// <summary>What is denied directly elsewhere than at those.</summary>
    public virtual IEnumerable<RightTail> Denied(Survey survey) => [];

    /// <summary>Membership of a domain group; null from an engine that has none.</summary>
    public virtual Right? Membership(string domain, string group) => null;

    /// <summary>The right that a need asks for at a spot.</summary>
    public abstract Right? RightOf(Need need, AskedAt at);

    /// <summary>The names that a need of a kind may take; null where any will do.</summary>
    /// <param name="on">What the permission is asked for on, in the sheet's words; null for the place as a whole.</param>
    /// <returns>None where there is nothing like that in the family.</returns>
    public virtual IReadOnlyCollection<string>? NamesFor(NeedKind kind, string? on) => null;

    /// <summary>For a kind of need that this engine has no such thing for: how it is said there.</summary>
    public virtual string? SaidAs(NeedKind kind) => null;

    /// <summary>What a change takes from whom.</summary>
    public abstract IReadOnlyList<Loss>? LossesBy(Change change, SurveyView view);

    /// <summary>Who is entered directly as able to do, or to become able to do, anything at an instance, in order.</summary>
    public virtual IReadOnlyList<string>? RulersOf(InstanceSnapshot instance, SurveyView view) => null;

    /// <summary>What an account can come to at an instance beyond what it was granted; null at another's.</summary>
    public virtual IReadOnlyList<WayToMore>? WaysToMore(InstanceSnapshot instance, Holdings holdings) => null;
}
