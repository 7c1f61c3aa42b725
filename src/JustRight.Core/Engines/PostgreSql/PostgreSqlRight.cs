using JustRight.Core.Changes;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// A right at an instance of the PostgreSQL family, or in a database of it, that the role holds as which an account signs in.
/// Nothing is ever denied there, but each door must be open.
/// </summary>
public abstract class PostgreSqlRight : Right
{
    private protected PostgreSqlRight(NeedKind kind, string instance, string place, string words, string key)
        : base(kind, place, words, key, namesAreExact: true) => Instance = instance;

    /// <summary>The instance.</summary>
    public string Instance { get; }

    /// <inheritdoc/>
    public sealed override string AtInstance => Instance;

    /// <inheritdoc/>
    public sealed override bool MachineMayHold => true;

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view)
    {
        if (view.WhyInstanceUnread(Instance) is { } unread) return unread;
        if (view.Instance(Instance)?.PostgreSql is not { } catalog) return null;
        return (catalog.SignInUnread ?? RoleAuthority.Of(catalog).SignIns.WhyNamesUnknown) is { } unknown
            ? $"the roles of accounts at {Instance} could not be read: {unknown}"
            : null;
    }

    /// <inheritdoc/>
    public override AbsentThing? AbsentIn(SurveyView view) => null;

    /// <summary>Each role as which an account may sign in is an answer of its own: one that is open is enough.</summary>
    public sealed override Gate GateFor(SurveyView view, Holdings holdings) =>
        Gate.BestOf(AsRole.With(holdings, this).Select(r => GateAs(r, view, holdings)))
        ?? Gate.Shut($"it has no role at {Instance}");

    /// <summary>The database that it is in or on, or null.</summary>
    private protected virtual string? InDatabase => null;

    /// <summary>Why what is held does not count for whoever signs in and is no superuser, or null.</summary>
    private protected virtual string? WhyShut(AsRole role, PostgreSqlDatabase? database) => null;

    private Gate GateAs(AsRole role, SurveyView view, Holdings holdings)
    {
        if (!role.Holds(Login)) return Gate.Shut($"it holds the right, and its role at {Instance} lacks LOGIN");
        if (view.Instance(Instance)?.PostgreSql is not { } catalog) return Gate.Open;
        var database = catalog.Databases.FirstOrDefault(d => d.Name == InDatabase);
        if (database?.Door == DatabaseDoor.Shut) return Gate.Shut($"{Place} takes no connections");
        if (!role.Holds(Superuser))
        {
            if (catalog.Roles.First(r => r.Name == role.Name).NoConnections)
                return Gate.Shut($"it holds the right, and its role at {Instance} may have no connection (its limit is 0)");
            if (database?.Door == DatabaseDoor.ForSuperusers)
                return Gate.Shut($"it holds the right, and {Place} takes no connection (its limit is 0)");
            if (WhyShut(role, database) is { } shut) return Gate.Shut(shut);
        }

        return RoleAuthority.Of(catalog).SignIns.At(RolesOfHolder.Of(holdings).Account, role.Name, database?.Name);
    }

    /// <summary>
    /// A role that is there already is let in, and undoing shuts it out again: it is never dropped. Without a role there is no
    /// right.
    /// </summary>
    public sealed override void Give(Giving giving)
    {
        if (giving.View.Instance(Instance)?.PostgreSql is not { } catalog) return;
        var signIn = new RoleOfAccount(giving, catalog, InDatabase);
        if (!signIn.MayLogIn)
        {
            if (signIn.Exists)
                giving.Add(
                    StepOrder.Logins, new GrantInstancePermission(Instance, RoleAttributeNames.Login, signIn.Role),
                    "the role exists and may not sign in");
            else
                giving.AddBlocked(
                    StepOrder.Logins, new CreateLogin(Instance, signIn.Role),
                    giving.Blocked ?? (signIn.Role.Length == 0 ? RoleOfAccount.NoWayIn(giving.Account) : null));
        }

        if (signIn.Role.Length == 0) return;
        if (signIn.Into is { } into)
            giving.Add(
                StepOrder.Instances, new AddInstanceRoleMember(Instance, into, signIn.Role), "only its members may sign in");
        GiveTo(giving, catalog, signIn);
    }

    /// <summary>Adds the steps that give it to the role.</summary>
    private protected abstract void GiveTo(Giving giving, PostgreSqlCatalog catalog, RoleOfAccount signIn);

    /// <inheritdoc/>
    public sealed override Taken Take(Taking taking)
    {
        if (taking.Path.Steps.FirstOrDefault(s => s.Kind == StepKind.Login)?.Role is not { } role) return Taken.NoStep;
        if (taking.View.Instance(Instance)?.PostgreSql is { } catalog && IsGrantedOn(catalog, role))
            return Taken.HandedOn;

        // What comes through another role, or by everybody's right, is no entry of the role's own.
        return taking.Path.Steps.Any(s => s.Kind == StepKind.Role && s.Meaning != StepMeaning.TakenOn)
            ? Taken.NoStep
            : TakeFrom(role, taking);
    }

    /// <summary>The step that takes it away from the role itself.</summary>
    private protected abstract Taken TakeFrom(string role, Taking taking);

    /// <summary>Whether the role's own entry may be handed on (<c>WITH GRANT OPTION</c>, <c>WITH ADMIN OPTION</c>).</summary>
    private protected virtual bool IsGrantedOn(PostgreSqlCatalog catalog, string role) => false;

    private protected RoleAttributeRight Login => new(Instance, RoleAttributeNames.Login);

    private protected RoleAttributeRight Superuser => new(Instance, RoleAttributeNames.Superuser);

    /// <summary>A name of an estate, or a word of the language, as keys have it.</summary>
    private protected static string Fold(string name) => name.ToLowerInvariant();
}
