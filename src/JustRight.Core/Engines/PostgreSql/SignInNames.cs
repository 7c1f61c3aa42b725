using System.Text.RegularExpressions;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>A role as which an account may sign in.</summary>
/// <param name="How">By which rule, in words.</param>
/// <param name="Databases">The databases the rule is for, as it names them.</param>
public sealed record SignInName(string Role, string How, IReadOnlyList<string> Databases);

/// <summary>
/// As which roles an account of the domain may sign in [PostgreSQL, Client Authentication; User Name Maps]: by a ticket, whose
/// name
/// the map turns into a role, or by its directory password, when the role has the account's own name. The first rule that fits
/// counts.
/// </summary>
public sealed class SignInNames(PostgreSqlCatalog catalog, RoleAuthority authority)
{
    private static readonly TimeSpan PatternTimeout = TimeSpan.FromSeconds(1);
    private readonly HashSet<string> _roles = [.. catalog.Roles.Select(r => r.Name)];

    /// <summary>The roles that exist.</summary>
    /// <param name="account">The account's logon name.</param>
    /// <param name="realm">The domain's DNS name.</param>
    public IReadOnlyList<SignInName> Of(string account, string realm) =>
        [.. Names(account, realm).Where(n =>
            _roles.Contains(n.Role) && IsFor(n.Rule, n.Role) && !IsShadowed(n.At, n.Rule, n.Role)).Select(n =>
                new SignInName(n.Role, n.How, n.Rule.Databases))];

    /// <summary>
    /// The name a role must have, and the role it must be put into (or null), so that the account may sign in as it; null when
    /// no rule lets it in by any name.
    /// </summary>
    public (string Role, string? Into)? ForNewRole(string account, string realm)
    {
        foreach (var name in Names(account, realm).Where(n => !IsShadowed(n.At, n.Rule, n.Role)))
        {
            if (name.Rule.Users.Contains("all") || name.Rule.Users.Contains(name.Role)) return (name.Role, null);
            if (name.Rule.Users.FirstOrDefault(u => u.StartsWith('+') && _roles.Contains(u[1..])) is { } into)
                return (name.Role, into[1..]);
        }

        return null;
    }

    private IEnumerable<(int At, SignInRule Rule, string Role, string How)> Names(string account, string realm)
    {
        for (var i = 0; i < catalog.SignInRules.Count; i++)
        {
            var rule = catalog.SignInRules[i];
            if (rule.Type == "local") continue;
            switch (rule.Method)
            {
                case "ldap":
                    yield return (i, rule, account, "by its directory password");
                    break;
                case "gss" or "sspi" when Option(rule, "krb_realm") is not { } only
                    || string.Equals(only, realm, StringComparison.OrdinalIgnoreCase):
                    var name = Option(rule, "include_realm") == "0" ? account : $"{account}@{realm.ToUpperInvariant()}";
                    if (Option(rule, "map") is not { } map) yield return (i, rule, name, "by its ticket");
                    else foreach (var role in Mapped(map, name)) yield return (i, rule, role, $"by Kerberos and the map {map}");
                    break;
            }
        }
    }

    private IEnumerable<string> Mapped(string map, string name)
    {
        foreach (var line in catalog.NameMap.Where(l => l.Map == map))
        {
            if (!line.SystemName.StartsWith('/'))
            {
                if (line.SystemName == name) yield return line.Role;
                continue;
            }

            var match = TryMatch(line.SystemName[1..], name);
            if (match is { Success: true })
                yield return line.Role.Replace(
                    @"\1", match.Groups.Count > 1 ? match.Groups[1].Value : "", StringComparison.Ordinal);
        }
    }

    /// <summary>The engine's patterns are of another make; one that is not one here matches nobody.</summary>
    private static Match? TryMatch(string pattern, string name)
    {
        try
        {
            return Regex.Match(name, pattern, RegexOptions.CultureInvariant, PatternTimeout);
        }
        catch (ArgumentException)
        {
            return null;
        }
        catch (RegexMatchTimeoutException)
        {
            return null;
        }
    }

    /// <summary>A rule is for a role by name, for all, or for the members of another role.</summary>
    private bool IsFor(SignInRule rule, string role) =>
        rule.Users.Any(u =>
            u == "all" || u == role
                || (u.StartsWith('+') && authority.IsMember(role, u[1..])
                    && !(authority.RulesAll(role) && !IsTrulyMember(role, u[1..]))));

    /// <summary>For a rule, a superuser is in a role only when it truly is.</summary>
    private bool IsTrulyMember(string role, string of) =>
        role == of || catalog.Memberships.Any(m => m.Member == role && (m.Role == of || IsTrulyMember(m.Role, of)));

    /// <summary>Whether an earlier rule settles it for everybody who comes that way, so that this one never counts.</summary>
    private bool IsShadowed(int at, SignInRule rule, string role) =>
        catalog.SignInRules.Take(at)
            .Any(e => e.AnyAddress && (e.Type == "host" || e.Type == rule.Type) && e.Databases.Contains("all") && IsFor(e, role));

    private static string? Option(SignInRule rule, string name) =>
        rule.Options.Select(o => o.Split('=', 2)).FirstOrDefault(o => o.Length == 2 && o[0] == name)?[1];
}
