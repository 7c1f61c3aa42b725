using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>An account of a domain as a server of this family hears of it.</summary>
/// <param name="Name">Its logon name.</param>
/// <param name="Realm">The domain's DNS name.</param>
public readonly record struct DomainName(string Name, string Realm)
{
    /// <summary>Its name in a ticket.</summary>
    public string Principal => $"{Name}@{Realm.ToUpperInvariant()}";
}

/// <summary>
/// As which roles accounts of the domain may sign in, and to which databases [PostgreSQL, Client Authentication]. Of the rules of
/// sign-in the first that matches the way one comes, the database, the role and the address decides, whatever it decides.
/// Accounts come by the network from an address that is not known; that a product runs on the server's own machine is not
/// thought of.
/// </summary>
public sealed class SignIns
{
    private static readonly IReadOnlyList<Way> Ways =
        [.. from c in Enum.GetValues<Carrier>() from v6 in new[] { false, true } select new Way(c, v6)];
    private readonly PostgreSqlCatalog _catalog;
    private readonly RoleAuthority _authority;
    private readonly IReadOnlyList<SignInRule> _rules;
    private readonly SignInMethods _methods;
    private readonly HashSet<string> _roles;
    private readonly ILookup<string, string> _spelled;

    /// <summary>Reads a catalog.</summary>
    internal SignIns(PostgreSqlCatalog catalog, RoleAuthority authority)
    {
        (_catalog, _authority) = (catalog, authority);
        _rules = [.. catalog.SignInRules.Where(r => r.Type != SignInRule.OwnMachine)];
        _methods = new SignInMethods(catalog);
        _roles = [.. catalog.Roles.Select(r => r.Name)];
        _spelled = _roles.ToLookup(r => r, StringComparer.OrdinalIgnoreCase);
    }

    private enum Carrier
    {
        Plain,
        Tls,
        Kerberos,
    }

    /// <summary>Why it is not known as whom accounts come, or null when it is.</summary>
    public string? WhyNamesUnknown => _rules.Select(_methods.WhyNamesUnknown).FirstOrDefault(why => why is not null);

    /// <summary>The roles as which an account may sign in to one database at least, or for all that is known might.</summary>
    public IReadOnlyList<string> RolesOf(DomainName account) =>
        [.. Names(account).SelectMany(n => _spelled[n]).Distinct(StringComparer.Ordinal)
            .Where(r => At(account, r, null).State != GateState.Shut)];

    /// <summary>Whether an account may sign in as a role.</summary>
    /// <param name="database">To which database; null for any of them.</param>
    public Gate At(DomainName account, string role, string? database) => At(account, role, database, null);

    /// <summary>
    /// The name a role must have, and the role it must be put into (or null), so that the account may sign in as it; null when
    /// no rule lets it in by any name.
    /// </summary>
    /// <param name="database">To which database; null for any of them.</param>
    public (string Role, string? Into)? ForRole(DomainName account, string? database)
    {
        var groups = _rules.SelectMany(r => r.Users).Where(u => u.StartsWith('+') && _roles.Contains(u[1..])).Select(u => u[1..])
            .Distinct(StringComparer.Ordinal).ToList();
        foreach (var name in Names(account))
        {
            if (At(account, name, database, null).State == GateState.Open) return (name, null);
            if (groups.FirstOrDefault(g => At(account, name, database, g).State == GateState.Open) is { } into)
                return (name, into);
        }

        return null;
    }

    /// <summary>Every name of a role as which some rule would take an account.</summary>
    private IEnumerable<string> Names(DomainName account) =>
        _rules.SelectMany(r => _methods.NamesBy(r, account)).Distinct(StringComparer.Ordinal);

    private Gate At(DomainName account, string role, string? database, string? put) => Gate.BestOf(
        from d in database is null ? _catalog.Databases.Select(d => d.Name) : [database]
        from way in Ways
        select First(account, role, d, way, put)) ?? Gate.Shut("no database takes connections");

    /// <summary>What the first rule that matches decides.</summary>
    private Gate First(DomainName account, string role, string database, Way way, string? put)
    {
        string? onlyFrom = null, notFrom = null;
        foreach (var rule in _rules.Where(r => way.Is(r)))
        {
            if ((IsForDatabase(rule, database, role, put) & IsForRole(rule, role, put)) is not { } matches)
                return Gate.Unseen(
                    $"a rule of sign-in goes by a pattern: {string.Join(',', rule.Databases)} {string.Join(',', rule.Users)}");
            if (!matches) continue;
            var lets = _methods.Lets(rule, account, role);
            if (rule.Address is SignInAddress.Loopback or SignInAddress.Some)
            {
                if (lets != false) onlyFrom ??= rule.AddressWords;
                else if (rule.Address == SignInAddress.Some) notFrom ??= rule.AddressWords;
                continue;
            }

            return (lets, notFrom, onlyFrom) switch
            {
                (null, _, _) => Gate.Unseen(_methods.WhyUnknown(rule)),
                (true, null, _) => Gate.Open,
                (true, { } from, _) => Gate.Unseen($"from {from} it may not sign in as {role}, from elsewhere it may"),
                (false, _, { } from) => OnlyFrom(from),
                (false, _, null) => Out(),
            };
        }

        return onlyFrom is { } some ? OnlyFrom(some) : Out();

        Gate OnlyFrom(string from) => Gate.Unseen($"it may sign in as {role} from {from} alone");

        Gate Out() => Gate.Shut($"no rule of sign-in lets it in to {database} as {role}");
    }

    /// <summary>
    /// By a name, by <c>all</c>, by the role's own name, or by being in the role of the database's name; <c>replication</c> is no
    /// database. Null when a pattern decides.
    /// </summary>
    private bool? IsForDatabase(SignInRule rule, string database, string role, string? put) =>
        AnyOf(rule.Databases, asked => asked switch
        {
            "all" => true,
            "sameuser" => database == role,
            "samerole" or "samegroup" => IsTrulyIn(role, database, put),
            "replication" => false,
            _ => asked == database,
        });

    /// <summary>By its name, by <c>all</c>, or by being in a role. Null when a pattern decides.</summary>
    private bool? IsForRole(SignInRule rule, string role, string? put) => AnyOf(rule.Users, asked =>
        asked == "all" || asked == role || (asked.StartsWith('+') && IsTrulyIn(role, asked[1..], put)));

    private static bool? AnyOf(IEnumerable<string> asked, Func<string, bool> fits)
    {
        bool? any = false;
        foreach (var one in asked)
        {
            if (one.StartsWith('/')) any = null; // from release 16 on
            else if (fits(one)) return true;
        }

        return any;
    }

    /// <summary>For a rule, a superuser is in a role only when it truly is.</summary>
    /// <param name="put">A role that it is thought into, or null.</param>
    private bool IsTrulyIn(string role, string of, string? put) => _roles.Contains(of)
        && ((_roles.Contains(role) && _authority.IsTrulyIn(role, of)) || (put is not null && _authority.IsTrulyIn(put, of)));

    /// <summary>A way to come: encrypted by whom, and by which family of addresses.</summary>
    private readonly record struct Way(Carrier By, bool V6)
    {
        /// <summary>Whether a rule can be for it.</summary>
        public bool Is(SignInRule rule) =>
            rule.Address != (V6 ? SignInAddress.AllOfV4 : SignInAddress.AllOfV6) && rule.Type switch
            {
                "hostssl" => By == Carrier.Tls,
                "hostnossl" => By != Carrier.Tls,
                "hostgssenc" => By == Carrier.Kerberos,
                "hostnogssenc" => By != Carrier.Kerberos,
                _ => true,
            };
    }
}
