using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;

namespace JustRight.Core.Rights;

/// <summary>
/// One right at one concrete place of an estate. Two rights are the same when their <see cref="Key"/> is: names of hosts,
/// groups, instances and roles are compared with regard to case where their systems do. What a right means, its kind
/// answers itself: what is above it, what door must be open, what gives it and what takes it. Nothing else names a kind.
/// </summary>
public abstract class Right : IEquatable<Right>, IComparable<Right>
{
    private IReadOnlyList<Right>? _above;
    private IReadOnlyList<Right>? _covering;
    private IReadOnlyList<Right>? _entrances;
    private IReadOnlyList<PathStep>? _lastSteps;

    /// <param name="namesAreExact">Whether the key holds names that count by case, and folded what does not.</param>
    private protected Right(NeedKind? kind, string place, string words, string key, bool namesAreExact = false)
    {
        Kind = kind;
        Place = place;
        Words = words;
        Key = namesAreExact ? key : key.ToLowerInvariant();
    }

    /// <summary>The kind of need that asks for it, or null for what every account needs of itself.</summary>
    public NeedKind? Kind { get; }

    /// <summary>The host, instance, database or domain it holds at.</summary>
    public string Place { get; }

    /// <summary>A few words for a table cell, without the place: <c>Administrators</c>, <c>log on as a service</c>.</summary>
    public string Words { get; }

    /// <summary>Its stable identity, also used on the wire.</summary>
    public string Key { get; }

    // Where it holds.

    /// <summary>The host it holds on, or null for a right elsewhere.</summary>
    public virtual string? OnHost => null;

    /// <summary>The database instance it holds at, or in a database of; null for a right elsewhere.</summary>
    public virtual string? AtInstance => null;

    /// <summary>The object of the directory that carries it, or the branch of many; null for a right elsewhere.</summary>
    public virtual string? OnObject => null;

    /// <summary>
    /// What of its host or instance it is a right in; null where that is the whole of it, or no host and no instance.
    /// </summary>
    public virtual PlacePart? Within => null;

    // What it is, for those that are no common right.

    /// <summary>Who can tell whether it is held.</summary>
    public virtual JudgedBy JudgedBy => JudgedBy.Survey;

    /// <summary>For membership of a domain group, which only leads to other rights: the group's logon name.</summary>
    public virtual string? DomainGroup => null;

    /// <summary>For a service principal name of an account: the name.</summary>
    public virtual string? ServiceName => null;

    /// <summary>A service principal name that it is about, whose holder matters to it.</summary>
    public virtual string? ServiceNameAsked => ServiceName;

    /// <summary>For a right over all that lies below a branch: what it is.</summary>
    public virtual BranchAsked? Below => null;

    /// <summary>For what only a person sees: what it is.</summary>
    public virtual Confirmable? Confirmable => null;

    /// <summary>For something that a service must be: what it is.</summary>
    public virtual ServiceAsked? OfService => null;

    /// <summary>For something that an account needs of itself: what it is.</summary>
    public virtual AccountAspect? OfAccount => null;

    /// <summary>For a right that stands on a list of user rights of its host: the list's constant.</summary>
    public virtual string? OnList => null;

    // What it reaches, and what reaches it.

    /// <summary>What else an account could do with it.</summary>
    public abstract RightReach Reach { get; }

    /// <summary>The rights that would bring it along, weakest first.</summary>
    public IReadOnlyList<Right> Above => _above ??= FindAbove();

    /// <summary>
    /// The rights that cover it, nearest first: whoever is given one of them has it too, and whoever is denied one of them is
    /// denied it too.
    /// </summary>
    public IReadOnlyList<Right> Covering => _covering ??= FindCovering();

    /// <summary>What lets an account in where it holds, the outermost door first: without these it is of no use.</summary>
    public IReadOnlyList<Right> Entrances => _entrances ??= FindEntrances();

    /// <summary>Whether it only lets in to what else is held at its place.</summary>
    public virtual bool OnlyLetsIn => false;

    /// <summary>Whether it only keeps its holder from something: then it is never more than is needed.</summary>
    public virtual bool OnlyRestrains => false;

    /// <summary>Why nobody may hold it, whatever rules say; null for rights that rules decide about.</summary>
    public virtual string? WhyForbidden => null;

    /// <summary>How it is said that it is held.</summary>
    public virtual string HeldWord => "held";

    /// <summary>What is said where it is not held and nothing else explains it; null for the usual.</summary>
    public virtual string? LackIn(Holdings holdings) => null;

    /// <summary>Whether other rights at its place come along with it: what only comes along is told under it.</summary>
    public virtual bool BringsAlong => false;

    /// <summary>Whether it is a role, whose own affair is what else it holds.</summary>
    public virtual bool IsRole => false;

    /// <summary>For a role: whether a step of a path to another right goes through it.</summary>
    /// <param name="end">The right at the end of the path.</param>
    public virtual bool IsStep(PathStep step, Right end) => false;

    /// <summary>Whether a computer account may hold it for what runs on its machine.</summary>
    public virtual bool MachineMayHold => false;

    /// <summary>Whether holding it lets its holder do a part of what another right is about.</summary>
    public virtual bool Lets(Right act, SurveyView view) => false;

    /// <summary>
    /// Whether what is needed asks for all that it gives, where its kind is not asked for by name: null where it is, and only the
    /// same right needs it.
    /// </summary>
    public virtual bool? IsMadeUpBy(IEnumerable<Right> needed, SurveyView view) => null;

    /// <summary>Why it is more than what is needed asks for, where its kind can say it; null where it cannot.</summary>
    public virtual string? WhyBeyond(IReadOnlyList<Right> needed, SurveyView view) => null;

    /// <summary>Whether it is but another side of a right that is told, or needed.</summary>
    public virtual bool IsShadow(Held held, IReadOnlyList<Right> needed) => false;

    /// <summary>
    /// The same at an instance that takes over from its own, or what stands for it there; null when it moves along.
    /// </summary>
    public virtual Right? AtPartner(string partner) => null;

    // What a survey says of it.

    /// <summary>Why its place could not be read, or null when it was.</summary>
    public abstract string? WhyUnread(SurveyView view);

    /// <summary>Why it is not known who else is let in to its place, or null when it is.</summary>
    public virtual string? WhyEntrantsUnread(SurveyView view) => null;

    /// <summary>
    /// What it is a right in and is not there, though it was looked for; null when it is there, or nothing need be.
    /// </summary>
    public abstract AbsentThing? AbsentIn(SurveyView view);

    /// <summary>Whether it is given to a principal directly.</summary>
    /// <param name="node">The principal's node.</param>
    public virtual bool IsGivenTo(int node, SurveyView view) => view.Index.Gives(view.Graph.SidOf(node), this);

    /// <summary>What is held of it, by whatever path, or null.</summary>
    /// <param name="logons">The types of log-on by which the account is used: some rights come with the log-on itself.</param>
    internal virtual Held? HeldIn(Holdings holdings, IReadOnlyList<string> logons) => holdings.Entered(this);

    /// <summary>
    /// Whether what is held of it brings along what it is above, and opens what it is a door to, without more ado.
    /// </summary>
    public virtual bool HandsOn(Held held) => true;

    /// <summary>For a right over a branch: what was found below it, object by object; or why that cannot be said.</summary>
    public virtual (BranchFacts? Facts, string? Unseen) BranchIn(Holdings holdings) => (null, null);

    /// <summary>What stands between an account and it.</summary>
    public abstract Gate GateFor(SurveyView view, Holdings holdings);

    /// <summary>What else stands between what is held and its use, which no survey can tell for certain.</summary>
    public virtual IReadOnlyList<string> CautionsIn(Holdings holdings) => [];

    /// <summary>What a policy does to it at the next refresh; or why that is not known. Neither where no policy can.</summary>
    /// <param name="holdings">Of the account, or null when there is none yet.</param>
    public virtual (GovernedRight? Governed, string? Unseen) GovernedIn(SurveyView view, Holdings? holdings) => (null, null);

    /// <summary>
    /// What a policy does at the next refresh to who is denied it; or why that is not known. Neither where no policy can.
    /// </summary>
    public virtual (GovernedDenial? Governed, string? Unseen) DenialGovernedIn(SurveyView view, Holdings holdings) =>
        (null, null);

    /// <summary>What its paths end with, after those through whom it comes.</summary>
    public IReadOnlyList<PathStep> LastSteps => _lastSteps ??= FindLastSteps();

    // What gives it, takes it, and asks for it.

    /// <summary>Adds the steps that give it.</summary>
    public abstract void Give(Giving giving);

    /// <summary>The step that takes it away where a path of it ends.</summary>
    public abstract Taken Take(Taking taking);

    /// <summary>The needs of the sheet language that ask for it and for no more.</summary>
    /// <param name="schema">The directory's, or null when it was not read.</param>
    public abstract Drafted Draft(Estate estate, DirectorySchema? schema);

    private protected abstract IReadOnlyList<Right> FindAbove();

    private protected virtual IReadOnlyList<Right> FindCovering() => [];

    private protected abstract IReadOnlyList<Right> FindEntrances();

    private protected virtual IReadOnlyList<PathStep> FindLastSteps() => [new PathStep(StepKind.Right, $"{Words} on {Place}")];

    /// <inheritdoc/>
    public bool Equals(Right? other) => other is not null && Key == other.Key;

    /// <inheritdoc/>
    public override bool Equals(object? obj) => Equals(obj as Right);

    /// <inheritdoc/>
    public override int GetHashCode() => Key.GetHashCode(StringComparison.Ordinal);

    /// <inheritdoc/>
    public int CompareTo(Right? other) => string.CompareOrdinal(Key, other?.Key);

    /// <summary>The right with its place.</summary>
    public override string ToString() => $"{Words} on {Place}";

    /// <inheritdoc cref="Equals(Right)"/>
    public static bool operator ==(Right? a, Right? b) => a is null ? b is null : a.Equals(b);

    /// <summary>Not the same right.</summary>
    public static bool operator !=(Right? a, Right? b) => !(a == b);

    /// <summary>Ordered by key.</summary>
    public static bool operator <(Right a, Right b) => a.CompareTo(b) < 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator >(Right a, Right b) => a.CompareTo(b) > 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator <=(Right a, Right b) => a.CompareTo(b) <= 0;

    /// <summary>Ordered by key.</summary>
    public static bool operator >=(Right a, Right b) => a.CompareTo(b) >= 0;
}
