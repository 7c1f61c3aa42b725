using JustRight.Core.Directory;
using JustRight.Core.Rights;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>As which roles an account of the domain may sign in at each instance, worked out once.</summary>
internal sealed class RolesOfHolder
{
    private const string Everybody = "public";

    private readonly Holdings _holdings;
    private readonly Dictionary<string, IReadOnlyList<string>> _roles = new(StringComparer.OrdinalIgnoreCase);

    private RolesOfHolder(Holdings holdings)
    {
        _holdings = holdings;
        var principal = holdings.View.Graph.PrincipalOf(holdings.Account);
        Account = principal is null ? default : new DomainName(principal.Name, RealmOf(principal.Dn));
    }

    /// <summary>The account, as servers hear of it.</summary>
    public DomainName Account { get; }

    /// <summary>Of an account.</summary>
    public static RolesOfHolder Of(Holdings holdings) => holdings.Kept(() => new RolesOfHolder(holdings));

    /// <summary>The step of a path that signs in as a role.</summary>
    public static PathStep Login(string instance, string role) =>
        new(StepKind.Login, $"{instance} role {role}") { Role = role };

    /// <summary>What is held of a right with what comes of everybody's having it, for each role of the account.</summary>
    public static Held? WithEverybodys(Right right, string instance, Holdings holdings, Held? held)
    {
        var all = new Held(right);
        if (held is not null) all.Tails.AddRange(held.Tails);
        foreach (var role in Of(holdings).At(instance))
            all.Tails.Add((holdings.Account, new RightTail(
                holdings.View.Graph.SidOf(holdings.Account), right,
                [Login(instance, role), PathStep.ThroughEverybodys(Everybody)], null)));
        return all.Tails.Count == 0 ? null : all;
    }

    /// <summary>The DNS name of the domain that a distinguished name ends with; empty when it names none.</summary>
    public static string RealmOf(string dn) =>
        string.Join(
            '.',
            dn.Split(',').Select(p => p.Trim()).Where(p => p.StartsWith("DC=", StringComparison.OrdinalIgnoreCase))
                .Select(p => p[3..]));

    /// <summary>Its roles at an instance; none where that was not read.</summary>
    public IReadOnlyList<string> At(string instance)
    {
        if (_roles.TryGetValue(instance, out var known)) return known;
        return _roles[instance] = _holdings.View.Instance(instance)?.PostgreSql is { } catalog && Account.Name is not null
            && _holdings.View.Graph.PrincipalOf(_holdings.Account) is { Kind: not Surveys.PrincipalKind.Group }
            ? RoleAuthority.Of(catalog).SignIns.RolesOf(Account)
            : [];
    }
}
