using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.PostgreSql;

/// <summary>The role as which an account signs in, or would if it were made.</summary>
internal sealed class RoleOfAccount
{
    /// <summary>Finds it by the server's rules of sign-in.</summary>
    /// <param name="database">The database that it has to get in to; null for any.</param>
    public RoleOfAccount(Giving giving, PostgreSqlCatalog catalog, string? database)
    {
        Authority = RoleAuthority.Of(catalog);
        var account = giving.Account;
        var found = giving.View.Graph.IndexOf(account.Name) is >= 0 and var node ? giving.View.Graph.PrincipalOf(node) : null;
        var name = new DomainName(account.Name, RolesOfHolder.RealmOf(found?.Dn ?? account.Dn ?? ""));
        var roles = Authority.SignIns.RolesOf(name);
        var existing = roles.FirstOrDefault(r => Authority.SignIns.At(name, r, database).State == GateState.Open);
        var wanted = existing is null ? Authority.SignIns.ForRole(name, database) : null;
        Role = existing ?? wanted?.Role ?? (roles.Count > 0 ? roles[0] : "");
        Into = wanted?.Into;
        Exists = catalog.Roles.Any(r => r.Name == Role);
        MayLogIn = Authority.Has(Role, RoleAttributes.Login);
    }

    /// <summary>Its name; empty when no rule lets the account in.</summary>
    public string Role { get; }

    /// <summary>The role whose members alone may sign in, or null.</summary>
    public string? Into { get; }

    /// <summary>Whether it is there.</summary>
    public bool Exists { get; }

    /// <summary>Whether it may sign in.</summary>
    public bool MayLogIn { get; }

    /// <summary>What roles may do at the instance.</summary>
    public RoleAuthority Authority { get; }

    /// <summary>Why no role can be made for an account that no rule of sign-in lets in.</summary>
    public static string NoWayIn(GivenAccount account) =>
        $"no sign-in rule of the server lets {account.Name} in by Kerberos or directory password: the DBA adds one first "
        + "(pg_hba.conf and the name map)";
}
