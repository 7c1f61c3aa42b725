using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;

namespace JustRight.Core.Rights;

/// <summary>Where a step stands among the others: what it rests on comes before it.</summary>
public enum StepOrder
{
    /// <summary>Branches of the directory.</summary>
    Branches,

    /// <summary>Domain groups.</summary>
    Groups,

    /// <summary>Accounts.</summary>
    Accounts,

    /// <summary>Members of domain groups, and entries on the accounts themselves.</summary>
    Members,

    /// <summary>Rights on hosts, lists of policies, entries on branches.</summary>
    HostsAndBranches,

    /// <summary>Logins of instances.</summary>
    Logins,

    /// <summary>What is given at an instance, and users of databases.</summary>
    Instances,

    /// <summary>What is given in databases.</summary>
    Databases,

    /// <summary>What a person does inside a product.</summary>
    Products,

    /// <summary>Refreshes of policies.</summary>
    Refreshes,

    /// <summary>Settings of services.</summary>
    ServiceSettings,

    /// <summary>Accounts of services.</summary>
    ServiceAccounts,

    /// <summary>Restarts.</summary>
    Restarts,
}

/// <summary>What a judgement says of a right that is to be given.</summary>
public enum GivenState
{
    /// <summary>It is not held.</summary>
    Missing,

    /// <summary>It is held, and another way than planned.</summary>
    HeldAnotherWay,

    /// <summary>It is not known whether it is held.</summary>
    Unseen,

    /// <summary>Setup gives it, and it would not last.</summary>
    Pending,
}

/// <summary>The account that is to hold a right.</summary>
/// <param name="Key">Its key in the plan.</param>
/// <param name="Name">Its logon name.</param>
/// <param name="Dn">Where it belongs, or null for one that was there before.</param>
public sealed record GivenAccount(string Key, string Name, string? Dn, string Purpose);

/// <summary>Whom membership of a group is given to: the account, or groups of the plan in between.</summary>
/// <param name="Why">What for, where that is not the account's own need.</param>
/// <param name="At">The line it comes from, where that is not the need's.</param>
public sealed record Entrant(string Name, string? Why, Origin? At);

/// <summary>An account that what a holder is given reaches, or what it is denied.</summary>
/// <param name="IsPerson">Whether a plan says that it is somebody's own.</param>
/// <param name="IsUnknown">Whether no install has to do with it.</param>
/// <param name="Needs">What the installs need of it.</param>
public sealed record Reached(string Name, bool IsPerson, bool IsUnknown, IReadOnlyList<(string Install, Right Right)> Needs);

/// <summary>What the kind of a right is told when it is to be given, and with what it answers: steps.</summary>
public abstract class Giving
{
    /// <summary>The survey.</summary>
    public abstract SurveyView View { get; }

    /// <summary>The domain's short name.</summary>
    public abstract string Domain { get; }

    /// <summary>The install that needs it.</summary>
    public abstract string Install { get; }

    /// <summary>The account.</summary>
    public abstract GivenAccount Account { get; }

    /// <summary>
    /// The logon name of who is to be entered: the account, or the group of the plan through which it should hold it.
    /// </summary>
    public abstract string Holder { get; }

    /// <summary>The holder as <c>DOMAIN\name</c>.</summary>
    public string Principal => $"{Domain}\\{Holder}";

    /// <summary>What is said of the right now.</summary>
    public abstract GivenState State { get; }

    /// <summary>The policy that governs it, or null.</summary>
    public abstract GovernedRight? Governed { get; }

    /// <summary>What for.</summary>
    public abstract string Why { get; }

    /// <summary>Why it cannot be given now, or null.</summary>
    public abstract string? Blocked { get; }

    /// <summary>Why the holder cannot be entered: it is a group that is not there and that no step makes; or null.</summary>
    public abstract string? HolderAbsent { get; }

    /// <summary>Why it is not known what its place is like, or null.</summary>
    public abstract string? Unread { get; }

    /// <summary>Whether the holder is the principal with a SID.</summary>
    public bool IsHolder(Sid sid) =>
        View.Graph.IndexOf(Holder) is var node && node >= 0 && View.Graph.SidOf(node) == sid;

    /// <summary>Whether the holder is given a right directly already.</summary>
    public bool Holds(Right right) =>
        View.Graph.IndexOf(Holder) is var node && node >= 0 && View.Index.Gives(View.Graph.SidOf(node), right);

    /// <summary>The rights on a host that the plan gives the account besides.</summary>
    public abstract IEnumerable<Right> BesideOn(string host);

    /// <summary>Who is put into a domain group, that the account be in it.</summary>
    public abstract IReadOnlyList<Entrant> WhoEnters(string group);

    /// <summary>The accounts that are in a holder, itself among them, as they are and as this plan has them.</summary>
    public abstract IEnumerable<Reached> WhoIsIn(string holder);

    /// <summary>
    /// Whose needed right a group denies on some host, so that nobody who needs it may be put into the group; null for nobody's.
    /// </summary>
    /// <param name="entrant">Who is to be put into the group.</param>
    public abstract string? WhoIsDeniedBy(string group, string entrant);

    /// <summary>
    /// Whose right, that another install needs, a refresh of the policies takes on a host, in words; null when it takes none.
    /// </summary>
    public abstract string? WhoLosesByRefresh(string host);

    /// <summary>A step, blocked by what blocks the right.</summary>
    /// <param name="why">What for, where that is not the need itself.</param>
    public void Add(StepOrder order, Change change, string? why = null) => AddBlocked(order, change, Blocked, why);

    /// <summary>A step that something of its own blocks, or nothing.</summary>
    public abstract void AddBlocked(StepOrder order, Change change, string? blocked, string? why = null, Origin? at = null);

    /// <summary>The step that gives another right of the same account gives this one too.</summary>
    public abstract void ComesWith(Right other);

    /// <summary>No step gives it: a person must decide.</summary>
    public abstract void LeaveToPerson(string why);

    /// <summary>What a kind gathers over a whole worklist, made when it is first asked for.</summary>
    public abstract T Shared<T>()
        where T : SharedSteps, new();
}

/// <summary>Steps that many rights share, added when all of them were asked.</summary>
public abstract class SharedSteps
{
    /// <summary>Adds them.</summary>
    public abstract void Finish();
}
