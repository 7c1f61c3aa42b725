using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// A right at an instance of the SQL Server family, or in a database of it. A denial outweighs every grant, but not for members
/// of the all-powerful role, nor for whoever owns what it is on; and without a login, or a user, it is of no use.
/// </summary>
public abstract class SqlServerRight : Right
{
    /// <summary>The instance role that may do everything and cannot be denied anything.</summary>
    public const string AllPowerful = "sysadmin";

    private protected SqlServerRight(NeedKind kind, string instance, string place, string words, string key)
        : base(kind, place, words, key) => Instance = instance;

    /// <summary>The instance.</summary>
    public string Instance { get; }

    /// <inheritdoc/>
    public sealed override string AtInstance => Instance;

    /// <inheritdoc/>
    public sealed override bool MachineMayHold => true;

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => view.WhyInstanceUnread(Instance);

    /// <summary>A login may stand for a local group of the instance's host: whom that lets in only the host knows.</summary>
    public sealed override string? WhyEntrantsUnread(SurveyView view)
    {
        if (view.Instance(Instance) is not { } instance) return null;
        foreach (var login in Entrants(instance).Where(l => l.Sid.IsBuiltIn || IsOf(instance.Host, l.Name)))
            if (view.WhyMembersUnread(instance.Host, login.Sid) is { } why)
                return $"{login.Name} has a login there, and {why}";
        return null;
    }

    /// <summary>Everybody who is let in on the way to it.</summary>
    private protected virtual IEnumerable<InstanceLogin> Entrants(InstanceSnapshot instance) => instance.Logins;

    /// <summary>Whether a principal's name is one of a host's own, which go by its shortened name [MS-NBTE 2.2.1].</summary>
    private static bool IsOf(string host, string name)
    {
        const int most = 15;
        var own = host.Split('.')[0];
        return name.Split('\\') is [var of, _] && Same(of, own.Length > most ? own[..most] : own);
    }

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public sealed override Gate GateFor(SurveyView view, Holdings holdings)
    {
        var isImmune = holdings.Of(Everything) is not null;
        var denials = Denials.Of(view, this, holdings).Where(d => Reaches(d.Tail, view, holdings)).ToList();
        if (denials.Count > 0 && Shut(view, holdings, denials, isImmune) is { } shut) return shut;
        if (!isImmune && WhyDenialsUnread(view) is { } unread)
            return Gate.Unseen($"a deny may stand where nothing was read: {unread}");
        if (!isImmune && Denials.WhyUnseen(view, this, holdings.Account) is { } unseen) return Gate.Unseen(unseen);
        return WayIn(view, holdings);
    }

    /// <summary>What the denials of it come to; null when none of them counts.</summary>
    private Gate? Shut(
        SurveyView view, Holdings holdings, IReadOnlyList<(int Node, RightTail Tail)> denials, bool isImmune)
    {
        var isOwner = IsOwner(view, holdings);
        var owned = OwnershipIn(view, holdings);
        var counting = denials.Where(d => IsSwitchedOff(d.Tail) || (!isImmune && !(isOwner && IsNotOfOwners(d.Tail.Right))
            && !(owned == Ownership.Direct && !IsAtDoor(d.Tail.Right)))).ToList();
        if (counting.Count == 0) return null;
        var isOff = counting.Any(d => IsSwitchedOff(d.Tail));
        if (!isOff && view.WhyUnseen(Everything, holdings.Account) is { } why)
            return Gate.Unseen($"it is denied, and may be in {AllPowerful}, which nothing is denied: {why}");
        string? doubt = null;
        foreach (var denial in counting)
        {
            doubt = owned == Ownership.ThroughRole && !IsAtDoor(denial.Tail.Right)
                ? "it is denied, and owned by a role that the account is in: which counts is not published"
                : WhyDenialMayNotCount(denial.Tail, view, holdings);
            if (doubt is null) return Gate.Denied(counting);
        }

        return Gate.Unseen(doubt!);
    }

    /// <summary>Whether a denial that reaches the account reaches it on its way to this right.</summary>
    private protected virtual bool Reaches(RightTail denial, SurveyView view, Holdings holdings) => true;

    /// <summary>Why a denial that reaches the account may not count all the same; null when it counts.</summary>
    private protected virtual string? WhyDenialMayNotCount(RightTail denial, SurveyView view, Holdings holdings) => null;

    /// <summary>Why what could deny it was not read, or null when it was.</summary>
    private protected virtual string? WhyDenialsUnread(SurveyView view) => view.WhyPermissionsUnread(Instance);

    /// <summary>A login that is switched off keeps its holder out, whatever else it has [ALTER LOGIN … DISABLE].</summary>
    private protected static bool IsSwitchedOff(RightTail tail) => tail.Steps.Any(s => s.Meaning == StepMeaning.SwitchedOff);

    /// <summary>Whether a denied right is no matter to the owner of the database.</summary>
    private static bool IsNotOfOwners(Right denied) => denied is not InstancePermissionRight { IsOwnersToo: true };

    /// <summary>Whether a denied right keeps out of the place, and is not only about what is done there.</summary>
    private bool IsAtDoor(Right denied) => Entrances.Any(e => e == denied || e.Covering.Contains(denied));

    private Gate WayIn(SurveyView view, Holdings holdings)
    {
        foreach (var way in Entrances)
        {
            if (this == way || way is DatabasePermissionRight && IsOwner(view, holdings)) continue;
            if (way == ConnectSql && EntersWithoutLogin(view, holdings)) continue;
            if (way.Above.Prepend(way).Any(r => holdings.Of(r) is not null)) continue;
            if (view.WhyUnseen(way, holdings.Account) is { } unseen) return Gate.Unseen($"how it gets in is not known: {unseen}");
            return Gate.Shut(
                way is InstancePermissionRight
                    ? $"it holds the right, and has no login at {Instance}"
                    : $"it holds the right, and has no user in {way.Place}");
        }

        return Gate.Open;
    }

    /// <summary>Whether the account owns the database that the right is in.</summary>
    private protected virtual bool IsOwner(SurveyView view, Holdings holdings) => false;

    /// <summary>Whether the database lets its users in by itself.</summary>
    private protected virtual bool EntersWithoutLogin(SurveyView view, Holdings holdings) => false;

    /// <summary>Whether, and how, the account owns what the right is on.</summary>
    private protected virtual Ownership OwnershipIn(SurveyView view, Holdings holdings) => Ownership.None;

    /// <summary>How an account owns something.</summary>
    /// <param name="owned">The owners that are entered at the place.</param>
    /// <param name="role">A role of the place.</param>
    private protected static Ownership OwnershipOf(
        SqlServerSecurable? thing, IReadOnlyList<OwnedThing> owned, Holdings holdings, Func<string, Right> role)
    {
        if (owned.Count == 0) return Ownership.None;
        for (var at = thing; at is not null; at = at.Around)
        {
            var words = at.Words;
            if (owned.FirstOrDefault(o => Same(o.On, words)) is not { } entry) continue; // the owner of what it lies in owns it
            return entry.Role is null ? holdings.Reaches(entry.Owner) ? Ownership.Direct : Ownership.None
                : holdings.Of(role(entry.Role)) is not null ? Ownership.ThroughRole
                : Ownership.None;
        }

        return Ownership.None;
    }

    /// <summary>Where the right is in no table, or in none of its instance's release: why it cannot be judged; or null.</summary>
    private protected string? WhyNotKnown(SurveyView view, SqlServerClass? kind, string permission, string? on)
    {
        var what = new Securable(permission, on).Words;
        if (kind is not { } known || SqlServerPermissions.Of(known, permission) is not { } row)
            return $"{what} is no permission that is known here";
        return view.Instance(Instance) is { } instance && SqlServerRelease.Of(instance.Release) is { } release
            && release < row.Since
            ? $"{what} begins with release {SqlServerRelease.Name(row.Since)}, and {Instance} is of {instance.Release}"
            : null;
    }

    /// <summary>The rights that it leads to next, beyond itself, each with the step in words.</summary>
    internal abstract IEnumerable<(SqlServerRight Right, string Why)> LeadsTo(WaysFrom ways);

    /// <summary>With what the account can become more than it was granted.</summary>
    public override IReadOnlyList<string> CautionsIn(Holdings holdings) =>
    [
        .. WaysToMore.From(this, holdings).Where(w => w.Right.Reach.Points >= RightReach.Ruling)
            .Select(w => $"it leads to {w.Right}: {w.Words}"),
    ];

    /// <inheritdoc/>
    public sealed override void Give(Giving giving)
    {
        var login = EnsureLogin(giving);
        Give(giving, login);
    }

    /// <summary>Adds the steps after that of the login.</summary>
    /// <param name="newLogin">Whether the login is made now.</param>
    private protected abstract void Give(Giving giving, bool newLogin);

    /// <inheritdoc/>
    public sealed override Taken Take(Taking taking)
    {
        if (taking.View.Instance(Instance) is { } instance && IsGrantedOn(instance, taking.Sid))
            return Taken.HandedOn;
        var own = !taking.Path.Has(StepKind.Role) && !taking.Path.Has(StepKind.LocalGroup);
        return own ? TakeOwn(taking) : Taken.NoStep;
    }

    /// <summary>The step that takes away an entry of the principal's own.</summary>
    private protected abstract Taken TakeOwn(Taking taking);

    /// <summary>
    /// Whether the principal's own entry may be handed on (<c>WITH GRANT OPTION</c>). Taking it away takes from others too what
    /// was handed on, or is refused; and giving it back would not bring those back. No step of ours does that.
    /// </summary>
    private protected virtual bool IsGrantedOn(InstanceSnapshot instance, Sid holder) => false;

    /// <inheritdoc/>
    public abstract override Drafted Draft(Estate estate, DirectorySchema? schema);

    private protected InstancePermissionRight ConnectSql => new(Instance, SqlServerPermissions.ConnectSql);

    private protected InstanceRoleRight Everything => new(Instance, AllPowerful);

    private protected static bool IsEntry(PermissionEntry entry, Sid holder, string permission, string? on) =>
        entry.State == PermissionState.GrantOn && entry.Role is null && entry.Holder == holder
        && Same(entry.Permission, permission)
        && (on is null ? entry.On is null : entry.On is not null && Same(entry.On, on));

    private protected static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);

    /// <summary>A login hangs on nothing else of the instance. Whether it had to be made.</summary>
    private bool EnsureLogin(Giving giving)
    {
        if (giving.View.Instance(Instance)?.Logins.Any(l => giving.IsHolder(l.Sid)) == true) return false;
        giving.AddBlocked(StepOrder.Logins, new Changes.CreateLogin(Instance, giving.Principal), giving.Unread);
        return true;
    }

    /// <summary>How an account owns something.</summary>
    private protected enum Ownership
    {
        /// <summary>It does not.</summary>
        None,

        /// <summary>Itself, or as a group whose login or user owns it.</summary>
        Direct,

        /// <summary>As a member of a role that owns it.</summary>
        ThroughRole,
    }
}
