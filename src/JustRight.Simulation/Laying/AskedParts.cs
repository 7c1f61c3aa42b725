using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>
/// Lays what the plan of an install takes for granted: accounts and groups that were there before, databases, roles, local
/// groups.
/// What the plan makes is not laid, and what the product's setup makes is there only once that was played.
/// </summary>
internal sealed class AskedParts(SimulationState state, Estate estate)
{
    private const uint FirstOwnRid = 1002; // of local groups that a host makes after its own accounts

    private readonly Dictionary<string, SimulationHost> _hosts = state.Hosts.ToDictionary(
        h => h.Name, StringComparer.OrdinalIgnoreCase);

    /// <summary>Lays what one plan takes for granted.</summary>
    public void Lay(Plan plan)
    {
        var (accountsIn, groupsIn) = (BranchOf(plan, estate.Naming.AccountsIn), BranchOf(plan, estate.Naming.GroupsIn));
        foreach (var account in plan.Accounts.Where(a => a.Existing))
            EstateState.Add(state, account.Name, PrincipalKind.User, accountsIn);
        foreach (var group in plan.Groups.Where(g => g.Existing))
            EstateState.Add(state, group.Name, PrincipalKind.Group, groupsIn, g => g.Scope = group.Scope);
        var planned = plan.Groups.Select(g => g.Name).ToHashSet(StringComparer.OrdinalIgnoreCase);
        var asked = plan.Grants.Select(g => g.Right.DomainGroup).Concat(plan.Forbidden.Select(f => f.Group)).OfType<string>();
        foreach (var group in asked.Where(g => g.Length > 0 && !planned.Contains(g)))
            EstateState.Add(state, group, PrincipalKind.Group, groupsIn);
        foreach (var grant in plan.Grants)
        {
            if (grant.Right.Below is { } below) EstateState.AddBranch(state, below.Branch);
            if (grant is { MadeBySetup: false, Right.Within: { } part }) Lay(part);
        }

        if (plan.SignIn is { } signIn) Lay(signIn, planned);
    }

    /// <summary>Lays what the setup of a product makes, before any right in it is given: databases, groups, services.</summary>
    public void LaySetup(Plan plan)
    {
        foreach (var part in plan.Grants.Where(g => g.MadeBySetup).Select(g => g.Right.Within).OfType<PlacePart>()) Lay(part);
        foreach (var service in plan.Services) Lay(service);
    }

    private void Lay(PlacePart part)
    {
        switch (part)
        {
            case LocalGroupPart p:
                if (_hosts.GetValueOrDefault(p.Host) is { } host && !host.LocalGroups.Exists(g => Same(g.Name, p.Group)))
                    host.LocalGroups.Add(new SimulationLocalGroup { Name = p.Group, Sid = OwnSid(host) });
                break;
            case InstanceRolePart p:
                if (Instance(p.Instance) is { } instance && !Has(instance.Roles, p.Role)) instance.Roles[p.Role] = [];
                break;
            case DatabasePart p:
                Database(p.Instance, p.Database);
                break;
            case DatabaseRolePart p:
                if (Database(p.Instance, p.Database) is { } database && !Has(database.Roles, p.Role)) database.Roles[p.Role] = [];
                break;
        }
    }

    /// <summary>As setup leaves a service: it runs as the host itself until somebody sets its account.</summary>
    private void Lay(PlannedService service)
    {
        if (_hosts.GetValueOrDefault(service.Host) is not { } host) return;
        var made = LayService(host, service.Name);
        foreach (var first in service.After) LayService(host, first);
        if (service.GivenBy != GivenBy.Setup || made is null) return;
        if (service.Start is { } start) made.Start = ServiceWords.Of(start);
        made.WaitsFor = [.. service.After];
    }

    /// <summary>Lays a service; null when it was there.</summary>
    private static SimulationService? LayService(SimulationHost host, string name)
    {
        if (host.Services.Exists(s => Same(s.Name, name))) return null;
        var made = UsualHost.Service(name, name, "LocalSystem");
        host.Services.Add(made);
        return made;
    }

    /// <summary>Whom the sign-in names. People of a directory beside the domain have one of their own.</summary>
    private void Lay(PlannedSignIn signIn, HashSet<string> planned)
    {
        if (!signIn.Directory.IsOfDomain)
        {
            LayBeside(signIn);
            return;
        }

        var people = signIn.Directory.PeopleIn.Text;
        foreach (var member in signIn.Memberships.Select(m => m.Member).Where(m => !planned.Contains(m)))
            EstateState.Add(state, member, PrincipalKind.User, people);
        foreach (var dn in new[] { signIn.BindDn }.OfType<string>()) AddAt(dn, PrincipalKind.User);
        foreach (var dn in signIn.Roles.SelectMany(r => r.Groups).Select(g => g.Dn).OfType<string>())
            AddAt(dn, PrincipalKind.Group);
        if (signIn.EnterDn is { } enter) AddAt(enter, PrincipalKind.Group);

        void AddAt(string dn, PrincipalKind kind)
        {
            var name = DistinguishedName.Parse(dn);
            if (!planned.Contains(name.Parts[0].Value) && signIn.BindLogonName != name.Parts[0].Value)
                EstateState.Add(state, name.Parts[0].Value, kind, name.Parent!.Text);
        }
    }

    private void LayBeside(PlannedSignIn signIn)
    {
        var directory = signIn.Directory;
        AddObject(directory.Root, "organization");
        foreach (var branch in directory.PeopleBranches.Concat(directory.GroupsBranches)) AddObject(branch, "organizationalUnit");
        if (signIn.BindDn is { } bind) AddObject(DistinguishedName.Parse(bind), "inetOrgPerson");
        foreach (var group in signIn.Roles.SelectMany(r => r.Groups).Select(g => g.Dn).Append(signIn.EnterDn).OfType<string>())
            AddObject(DistinguishedName.Parse(group), "groupOfNames");
    }

    private void AddObject(DistinguishedName name, string kind)
    {
        if (state.People.Exists(p => DistinguishedName.Parse(p.Dn).Equals(name))) return;
        var made = new SimulationPerson { Dn = name.Text };
        var (type, value) = name.Parts[0];
        made.Values["objectClass"] = ["top", kind];
        made.Values[type.ToLowerInvariant()] = [value];
        if (kind == "inetOrgPerson" && !made.Values.ContainsKey("uid")) made.Values["uid"] = [value];
        state.People.Add(made);
    }

    private SimulationDatabase? Database(string instance, string name)
    {
        if (Instance(instance) is not { } at) return null;
        if (at.Databases.Find(d => Same(d.Name, name)) is { } known) return known;
        var made = UsualInstance.Database(name);
        at.Databases.Add(made);
        return made;
    }

    private SimulationInstance? Instance(string name) => state.Instances.Find(i => Same(i.Name, name));

    /// <summary>A SID of the host's own for a group that the product's setup makes [MS-DTYP 2.4.2.4].</summary>
    private static string OwnSid(SimulationHost host)
    {
        var own = UsualDomain.SidOf(host.Name);
        return string.Create(CultureInfo.InvariantCulture, $"{own}-{FirstOwnRid + host.LocalGroups.Count}");
    }

    private static bool Has(SortedDictionary<string, List<string>> roles, string role) => roles.Keys.Any(r => Same(r, role));

    /// <summary>Where something lies that was there before the plan: beside the OU that its product has to itself.</summary>
    private string BranchOf(Plan plan, string said)
    {
        var branch = ProductBranches.Of(estate, said, plan.Product);
        return ((ProductBranches.IsOwn(said) ? branch.Parent : null) ?? branch).Text;
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
