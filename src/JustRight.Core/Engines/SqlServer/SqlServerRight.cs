using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// A right at an instance of the SQL Server family, or in a database of it. A denial outweighs every grant, but not for members
/// of the all-powerful role, nor in a database for its owner; and without a login, or a user, it is of no use.
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
        var local = instance.Logins.FirstOrDefault(l => l.Sid.IsBuiltIn);
        var why = local is null
            ? null
            : view.WhyHostUnread(instance.Host, HostSnapshot.LocalGroupsPart, local.Name.Split('\\')[^1]);
        return why is null ? null : $"{local!.Name} has a login there, and {why}";
    }

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <inheritdoc/>
    public sealed override Gate GateFor(SurveyView view, Holdings holdings)
    {
        var isImmune = holdings.Of(new InstanceRoleRight(Instance, AllPowerful)) is not null;
        var denials = isImmune ? [] : Denials.Of(view, this, holdings);
        var counting = denials.Count > 0 && IsOwner(view, holdings)
            ? [.. denials.Where(d => d.Tail.Right is InstancePermissionRight { IsOwnersToo: true })]
            : denials;
        if (counting.Count > 0) return Gate.Denied(counting);
        if (!isImmune && Denials.WhyUnseen(view, this, holdings.Account) is { } unseen) return Gate.Unseen(unseen);
        return WhyNoWayIn(view, holdings) is { } shut ? Gate.Shut(shut) : Gate.Open;
    }

    private string? WhyNoWayIn(SurveyView view, Holdings holdings)
    {
        foreach (var way in Entrances)
        {
            if (this == way || way is DatabasePermissionRight && IsOwner(view, holdings)) continue;
            if (way.Above.Prepend(way).Any(r => holdings.Of(r) is not null)) continue;
            return way is InstancePermissionRight
                ? $"it holds the right, and has no login at {Instance}"
                : $"it holds the right, and has no user in {way.Place}";
        }

        return null;
    }

    /// <summary>Whether the account owns the database that the right is in.</summary>
    private protected virtual bool IsOwner(SurveyView view, Holdings holdings) => false;

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
}
