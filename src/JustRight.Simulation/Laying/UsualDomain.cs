using System.Buffers.Binary;
using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>What every domain comes with [MS-ADTS 6.1.1.6], and the branches that an estate names.</summary>
internal static class UsualDomain
{
    /// <summary>The relative identifier of Domain Computers [MS-DTYP 2.4.2.4].</summary>
    public const uint DomainComputersRid = 515;

    private const uint DomainAdmins = 512;
    private const string DefaultPolicy = "Default Domain Policy", DefaultPolicyId = "{31B2F340-016D-11D2-945F-00C04FB984F9}";

    /// <summary>Administrators and the system may do everything in the domain; whoever signed in may read.</summary>
    private const string RootList =
        "O:DAG:DAD:AI(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;DA)(A;CI;RPWPCRCCDCLCLORCWOWDSDDTSW;;;SY)(A;CI;RPLCLORC;;;AU)";

    private static readonly (uint Rid, string Name, AccountState State)[] Accounts =
        [(500, "Administrator", AccountState.None), (501, "Guest", AccountState.Disabled),
            (502, "krbtgt", AccountState.Disabled)];

    private static readonly (uint Rid, string Name, GroupScope Scope, bool IsAdministrators)[] Groups =
    [
        (DomainAdmins, "Domain Admins", GroupScope.Global, true), (513, "Domain Users", GroupScope.Global, false),
        (514, "Domain Guests", GroupScope.Global, false), (DomainComputersRid, "Domain Computers", GroupScope.Global, false),
        (516, "Domain Controllers", GroupScope.Global, false), (518, "Schema Admins", GroupScope.Universal, true),
        (519, "Enterprise Admins", GroupScope.Universal, true),
        (520, "Group Policy Creator Owners", GroupScope.Global, true), (525, "Protected Users", GroupScope.Global, false),
    ];

    /// <summary>A SID for a domain of which none is known: the same each time for the same name.</summary>
    public static string SidOf(string dnsName)
    {
        var hash = SHA256.HashData(Encoding.UTF8.GetBytes(dnsName.ToLowerInvariant()));
        var parts = Enumerable.Range(0, 3).Select(i => BinaryPrimitives.ReadUInt32LittleEndian(hash.AsSpan(4 * i)));
        return string.Create(CultureInfo.InvariantCulture, $"S-1-5-21-{string.Join('-', parts)}");
    }

    /// <summary>Lays what is not there yet. A group of another language is there by its identifier.</summary>
    public static void Lay(SimulationState state, Estate estate)
    {
        var users = $"CN=Users,{state.Root}";
        EstateState.AddBranch(state, users);
        foreach (var branch in estate.Branches) EstateState.AddBranch(state, branch.Name.Text);
        foreach (var people in estate.PeopleDirectories.Where(p => p.IsOfDomain))
            foreach (var branch in people.PeopleBranches.Concat(people.GroupsBranches)) EstateState.AddBranch(state, branch.Text);
        var known = state.Principals.Select(p => p.Rid).ToHashSet();
        foreach (var (rid, name, usable) in Accounts.Where(a => !known.Contains(a.Rid)))
            EstateState.Add(state, name, PrincipalKind.User, users, p => (p.Rid, p.State) = (rid, usable));
        foreach (var (rid, name, scope, isAdministrators) in Groups.Where(g => !known.Contains(g.Rid)))
            EstateState.Add(state, name, PrincipalKind.Group, users, p =>
            {
                (p.Rid, p.Scope) = (rid, scope);
                if (isAdministrators && state.Find(Accounts[0].Name) is { } administrator) p.Members.Add(administrator.Name);
            });
        state.AccessLists.TryAdd(state.Root, RootList);
        if (state.Policies.Count > 0) return;
        state.Policies.Add(new SimulationPolicy { Id = DefaultPolicyId, Name = DefaultPolicy });
        state.PolicyLinks.Add(new SimulationPolicyLinks { Dn = state.Root, Policies = [DefaultPolicy] });
    }

    /// <summary>Lays the account of a host, where new ones come unless somebody moves them.</summary>
    public static void LayComputer(SimulationState state, string host) => EstateState.Add(
        state, ServiceIdentity.ComputerAccount(host), PrincipalKind.Computer, $"CN=Computers,{state.Root}");

    /// <summary>What the lists of hosts call the administrators of the domain.</summary>
    public static string Administrators(SimulationState state) => NameOf(state, DomainAdmins);

    /// <summary>What the lists of hosts call the users of the domain.</summary>
    public static string Users(SimulationState state) => NameOf(state, DirectorySnapshot.DomainUsersRid);

    private static string NameOf(SimulationState state, uint rid) => state.Principals.First(p => p.Rid == rid).Name;
}
