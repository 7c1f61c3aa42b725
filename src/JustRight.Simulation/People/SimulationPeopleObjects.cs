using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.People;

/// <summary>The objects of the simulated directories as a search shows them.</summary>
internal static class SimulationPeopleObjects
{
    private const uint FirstOwnRid = 1000; // below it, a domain's own objects [MS-DTYP 2.4.2.4]
    private const int DefaultMaximumAgeDays = 42; // the age at which passwords end in a new domain

    /// <summary>Everything in a directory.</summary>
    public static List<PeopleObject> Of(SimulationState state, PeopleDirectory directory) =>
        directory.IsOfDomain ? OfDomain(state) : Beside(state, directory);

    private static List<PeopleObject> OfDomain(SimulationState state)
    {
        var holders = state.Principals.Where(p => p.Kind == PrincipalKind.Group)
            .SelectMany(g => g.Members.Select(m => (Member: state.Find(m)?.Dn, Group: g.Dn))).Where(m => m.Member is not null)
            .ToLookup(m => m.Member!, m => m.Group);
        List<PeopleObject> objects = [Object(state.Root, ("objectClass", ["top", "domainDNS"]))];
        objects.AddRange(SimulationAccessLists.Containers(state).Select(dn =>
            Object(
                dn,
                (
                    "objectClass",
                    ["top", dn.StartsWith("OU=", StringComparison.OrdinalIgnoreCase) ? "organizationalUnit" : "container"]))));
        objects.AddRange(state.Principals.Select(p => OfPrincipal(state, p, [.. holders[p.Dn]])));
        return objects;
    }

    private static PeopleObject OfPrincipal(SimulationState state, SimulationPrincipal principal, string[] memberOf)
    {
        var name = DistinguishedName.Parse(principal.Dn).Parts[0].Value;
        string[] classes = principal.Kind switch
        {
            PrincipalKind.Group => ["top", "group"],
            PrincipalKind.Computer => ["top", "person", "organizationalPerson", "user", "computer"],
            _ => ["top", "person", "organizationalPerson", "user"],
        };
        var category = principal.Kind switch { PrincipalKind.Group => "Group", PrincipalKind.Computer => "Computer", _ => "Person" };
        var values = new List<(string, string[])>
        {
            ("objectClass", classes), (
                "objectCategory", [$"CN={category},CN=Schema,CN=Configuration,{state.Root}"]), ("cn", [name]), ("name", [name]), (
                "sAMAccountName", [principal.Name]), (
                "distinguishedName", [principal.Dn]), ("memberOf", memberOf),
            ("description", principal.Description.Length > 0 ? [principal.Description] : []),
            ("objectGUID", [UniqueId($"{state.Root} {principal.Rid}")]),
        };
        if (principal.Rid < FirstOwnRid) values.Add(("isCriticalSystemObject", ["TRUE"]));
        if (principal.Kind == PrincipalKind.Group)
        {
            values.Add(("groupType", [GroupType(principal)]));
            values.Add(("member", [.. principal.Members.Select(m => state.Find(m)?.Dn).OfType<string>()]));
            return Object(principal.Dn, [.. values]);
        }

        values.Add(("primaryGroupID", [principal.PrimaryGroupRid.ToString(CultureInfo.InvariantCulture)]));
        values.Add(("userAccountControl", [Control(principal)]));
        if (End(principal) is { } end) values.Add(("msDS-UserPasswordExpiryTimeComputed", [end]));
        if (name.Split(' ') is [var given, var surname])
        {
            var domain = DistinguishedName.DnsDomainOf(state.Root);
            var mail = $"{given}.{surname}@{domain}".ToLowerInvariant();
            values.AddRange([
                ("givenName", [given]), ("sn", [surname]), ("displayName", [name]), ("mail", [mail]),
                ("userPrincipalName", [$"{principal.Name}@{domain}"])]);
        }

        return Object(principal.Dn, [.. values]);
    }

    private static List<PeopleObject> Beside(SimulationState state, PeopleDirectory directory)
    {
        var inside = state.People.Where(p => DistinguishedName.Parse(p.Dn).IsAtOrBelow(directory.Root)).ToList();
        var holders = inside.SelectMany(g => g.Values.GetValueOrDefault("member", []).Select(m => (Member: m, g.Dn)))
            .ToLookup(m => m.Member, m => m.Dn, StringComparer.OrdinalIgnoreCase);
        return [.. inside.Select(p =>
            Object(
                p.Dn,
                [
                    .. p.Values.Select(v => (v.Key, v.Value.ToArray())),
                    ("memberOf", directory.BackLink ? [.. holders[p.Dn]] : []), ("entryUUID", [UniqueId(p.Dn)])]))];
    }

    /// <summary>What a directory gives each object for good: here the same each time for the same object.</summary>
    private static string UniqueId(string of) => new Guid(SHA256.HashData(Encoding.UTF8.GetBytes(of)).AsSpan(0, 16)).ToString();

    private static PeopleObject Object(string dn, params (string Attribute, string[] Values)[] values) =>
        new(
            dn,
            values.Where(v => v.Values.Length > 0)
                .ToDictionary(v => v.Attribute, v => (IReadOnlyList<string>)v.Values, StringComparer.OrdinalIgnoreCase));

    /// <summary>The kind of a group as a signed number [MS-ADTS 2.2.12].</summary>
    private static string GroupType(SimulationPrincipal group)
    {
        var scope = group.Scope switch { GroupScope.Universal => 8u, GroupScope.DomainLocal => 4u, _ => 2u };
        return unchecked((int)(scope | (group.IsSecurity ? 0x80000000u : 0))).ToString(CultureInfo.InvariantCulture);
    }

    /// <summary>The flags of an account [MS-ADTS 2.2.16].</summary>
    private static string Control(SimulationPrincipal account)
    {
        var flags = account.Kind == PrincipalKind.Computer ? 0x1000 : 0x200;
        if (account.State.HasFlag(AccountState.Disabled)) flags |= 0x2;
        if (account.State.HasFlag(AccountState.PasswordNeverExpires)) flags |= 0x10000;
        return flags.ToString(CultureInfo.InvariantCulture);
    }

    private static string? End(SimulationPrincipal account) =>
        account.State.HasFlag(AccountState.PasswordNeverExpires) ? long.MaxValue.ToString(CultureInfo.InvariantCulture)
        : account.PasswordSetAt?.AddDays(DefaultMaximumAgeDays).ToFileTime().ToString(CultureInfo.InvariantCulture);
}
