using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>
/// Whom a rule of sign-in takes an account of the domain for [PostgreSQL, GSSAPI; SSPI; LDAP Authentication; User Name Maps]: by
/// a ticket, whose name the rule's map turns into roles, or by its directory password, as the role of its own name.
/// </summary>
internal sealed class SignInMethods
{
    private readonly ILookup<string, Line> _maps;
    private readonly StringComparison _case;

    /// <summary>Reads a catalog.</summary>
    public SignInMethods(PostgreSqlCatalog catalog)
    {
        _maps = catalog.NameMap.ToLookup(l => l.Map, l => new Line(l), StringComparer.Ordinal);
        _case = catalog.KerberosIgnoresCase ? StringComparison.OrdinalIgnoreCase : StringComparison.Ordinal;
    }

    /// <summary>The names of roles as which a rule would take an account, as far as they are known.</summary>
    public IEnumerable<string> NamesBy(SignInRule rule, DomainName account) => rule.Method switch
    {
        SignInRule.Password => [account.Name],
        SignInRule.Ticket or SignInRule.WindowsTicket when NameIn(rule, account) is { } name =>
            rule.Option("map") is { } map ? _maps[map].Select(l => l.RoleOf(name, _case)).OfType<string>() : [name],
        _ => [],
    };

    /// <summary>Whether a rule lets an account in as a role; null when that is not known.</summary>
    public bool? Lets(SignInRule rule, DomainName account, string role)
    {
        if (rule.Method == SignInRule.Password)
            return WhyMethodUnknown(rule) is not null ? null
                : string.Equals(role, account.Name, StringComparison.OrdinalIgnoreCase);
        if (rule.Method is not (SignInRule.Ticket or SignInRule.WindowsTicket)) return false;
        if (WhyMethodUnknown(rule) is not null) return null;
        if (NameIn(rule, account) is not { } name) return false;
        if (rule.Option("map") is not { } map) return string.Equals(role, name, _case);
        foreach (var line in _maps[map])
        {
            if (line.IsUnknown) return null;
            if (line.LacksGroupFor(name)) return false; // a fault, at which the engine stops
            if (string.Equals(line.RoleOf(name, _case), role, _case)) return true;
        }

        return false;
    }

    /// <summary>Why it is not known whom a rule lets in; empty when it is.</summary>
    public string WhyUnknown(SignInRule rule) => WhyMethodUnknown(rule) ?? WhyNamesUnknown(rule) ?? "";

    /// <summary>Why it is not known which names a rule takes accounts for, or null when it is.</summary>
    public string? WhyNamesUnknown(SignInRule rule) =>
        rule.Method is SignInRule.Ticket or SignInRule.WindowsTicket && rule.Option("map") is { } map
            && _maps[map].FirstOrDefault(l => l.IsUnknown) is { } line
            ? $"the name map {map} has a pattern that Just Right cannot tell: {line.Text}"
            : null;

    private static string? WhyMethodUnknown(SignInRule rule)
    {
        if (rule.Option("clientcert") is not null) return "a rule of sign-in asks for a certificate besides";
        if (rule is { Method: SignInRule.WindowsTicket, IncludesRealm: true })
            return "a rule of sign-in goes by the realm that Windows gives, which the server does not show";
        if (rule.Method != SignInRule.Password) return null;
        if (rule.Option("ldapprefix") is { Length: > 0 } prefix && !prefix.EndsWith('\\'))
            return $"a rule of sign-in puts {prefix} before names";
        if (rule.Option("ldapsearchfilter") is not null) return "a rule of sign-in looks names up by a filter of its own";
        return rule.Option("ldapsearchattribute") is { } by and not ("sAMAccountName" or "uid")
            ? $"a rule of sign-in looks names up by {by}"
            : null;
    }

    /// <summary>The account's name in its ticket, as the rule hands it on; null when the rule is for another realm.</summary>
    private string? NameIn(SignInRule rule, DomainName account) =>
        rule.Option("krb_realm") is { } only && !string.Equals(only, account.Realm.ToUpperInvariant(), _case) ? null
            : rule.IncludesRealm ? account.Principal : account.Name;

    /// <summary>A line of a map.</summary>
    private sealed class Line(NameMapLine line)
    {
        private const string FirstGroup = @"\1";
        private readonly bool _isPattern = line.SystemName.StartsWith('/');
        private readonly NameMapPattern? _pattern =
            line.SystemName.StartsWith('/') ? NameMapPattern.TryParse(line.SystemName[1..]) : null;

        /// <summary>As it is written.</summary>
        public string Text => line.SystemName;

        /// <summary>Whether it may say what the engine alone can tell; also from release 16 on: all, a member of a role, a
        /// pattern.</summary>
        public bool IsUnknown => (_isPattern && _pattern is null)
            || line.Role is "all" || line.Role.StartsWith('+') || line.Role.StartsWith('/');

        /// <summary>The role that it takes a name for, or null when it is not for that name.</summary>
        public string? RoleOf(string name, StringComparison by)
        {
            if (IsUnknown) return null;
            if (!_isPattern) return string.Equals(line.SystemName, name, by) ? line.Role : null;
            var (matches, first) = _pattern!.On(name);
            return !matches ? null : Refers && first is null ? null : ReplaceFirst(first);
        }

        /// <summary>Whether it is for a name, and refers to a group that it has not.</summary>
        public bool LacksGroupFor(string name) =>
            _isPattern && Refers && _pattern!.On(name) is (true, null);

        private bool Refers => line.Role.Contains(FirstGroup, StringComparison.Ordinal);

        /// <summary>The engine puts the group once only.</summary>
        private string ReplaceFirst(string? group) => line.Role.IndexOf(FirstGroup, StringComparison.Ordinal) is >= 0 and var at
            ? line.Role[..at] + group + line.Role[(at + FirstGroup.Length)..]
            : line.Role;
    }
}
