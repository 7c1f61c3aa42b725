using System.DirectoryServices.Protocols;
using System.Text;
using System.Text.Json;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Plans;
using JustRight.Core.SignIn;
using JustRight.Core.Surveys;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Simulation;

namespace JustRight.SignIn.Tests;

/// <summary>The people of the demo on a real server, and the demo's installs planned for it.</summary>
internal static class DemoPeople
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    /// <summary>The simulation as it ships.</summary>
    public static SimulationState Simulation { get; } = JsonSerializer.Deserialize<SimulationState>(
        File.ReadAllBytes(Path.Combine(Checkout.Top, "demo-data/simulation/fennmoor.json")), Options)!;

    /// <summary>The demo's estate, with its directories where the server is.</summary>
    public static Estate EstateAt(IPeopleServer server)
    {
        var (estate, faults) = EstateReader.Read(
            File.ReadAllBytes(Path.Combine(Checkout.Top, "demo-data/estates/fennmoor.yaml")), "fennmoor.yaml");
        faults.ShouldBeEmpty();
        return estate! with
        {
            PeopleDirectories = [.. estate.PeopleDirectories.Select(d =>
                d with
                {
                    Host = server.Directory.Host,
                    CaFolder = server.Directory.CaFolder,
                    Offers = d.Offers.ToDictionary(o => o.Key, o => server.Directory.Offers[o.Key]),
                    Reach = Reach.Ldaps,
                })],
        };
    }

    /// <summary>The planned sign-in of one of the demo's installs, existing objects where the simulation has them.</summary>
    public static (PlannedSignIn SignIn, Plan Plan) PlanOf(string install, Estate estate)
    {
        var read = InstallReader.Read(
            File.ReadAllBytes(Path.Combine(Checkout.Top, $"demo-data/installs/{install}.yaml")), install).Install!;
        var (sheet, sheetFaults) = SheetReader.Read(
            File.ReadAllBytes(Path.Combine(Checkout.Top, $"demo-data/sheets/{read.Product}.yaml")), read.Product);
        sheetFaults.ShouldBeEmpty();
        var (plan, faults) = Planner.Make(
            sheet!, estate, read,
            new NameIndex(new Dictionary<string, string>(), new Dictionary<string, string>(), new HashSet<string>(), true));
        faults.ShouldBeEmpty();
        return (plan!.SignIn!.Located(name => Simulation.Principals.FirstOrDefault(p => p.Name == name)?.Dn), plan);
    }

    /// <summary>Writes the demo's staff to a controller: branches, people, groups, and what the plan makes.</summary>
    public static void WriteStaff(LdapConnection connection, Plan plan)
    {
        var branches = Simulation.Branches.Where(b => b.StartsWith("OU=", StringComparison.Ordinal))
            .Concat(plan.Branches.Select(b => b.Dn)).Distinct().OrderBy(b => b.Length);
        foreach (var branch in branches) connection.Add(branch, ("objectClass", ["organizationalUnit"]));
        foreach (var person in Simulation.Principals.Where(p => p.Kind == PrincipalKind.User))
            Person(connection, person.Name, person.Dn, person.State.HasFlag(AccountState.Disabled));
        foreach (var account in plan.Accounts.Where(a => a.Dn is not null)) Person(connection, account.Name, account.Dn!, false);
        var groups = Simulation.Principals.Where(p => p.Kind == PrincipalKind.Group && p.Rid >= 1000).ToList();
        foreach (var group in groups) connection.Add(group.Dn, ("objectClass", ["group"]), ("sAMAccountName", [group.Name]));
        foreach (var group in plan.Groups.Where(g => g.Dn is not null))
            connection.Add(group.Dn!, ("objectClass", ["group"]), ("sAMAccountName", [group.Name]));
        foreach (var group in groups.Where(g => g.Members.Count > 0)) Members(connection, group.Dn, group.Members);
        if (plan.SignIn is { EnterDn: { } enter } signIn) Members(connection, enter, signIn.Install.EnterMembers);
    }

    /// <summary>Writes the demo's contractors to an inetOrgPerson directory whose branches are there.</summary>
    public static void WriteContractors(LdapConnection connection)
    {
        foreach (var one in Simulation.People.Where(p =>
            p.Values["objectClass"].Any(c => c is "inetOrgPerson" or "groupOfNames")))
        {
            var values = one.Values.Select(v => (v.Key, v.Value.ToArray())).ToList();
            if (one.Values.GetValueOrDefault("uid") is [var uid])
                values.Add(("userPassword", [SimulationPasswords.SimulatedOf(uid)]));
            connection.Add(one.Dn, [.. values]);
        }
    }

    private static void Person(LdapConnection connection, string name, string dn, bool disabled)
    {
        var words = DistinguishedName.Parse(dn).Parts[0].Value.Split(' ');
        connection.SendRequest(new AddRequest(
            dn, new DirectoryAttribute("objectClass", "user"), new DirectoryAttribute(
                "sAMAccountName", name), new DirectoryAttribute("sn", words[^1]), new DirectoryAttribute(
                "displayName", string.Join(' ', words)),
            // [MS-ADTS 3.1.1.3.1.5.1]
            new DirectoryAttribute("userAccountControl", disabled ? "66050" : "66048"), new DirectoryAttribute(
                "unicodePwd", Encoding.Unicode.GetBytes($"\"{SimulationPasswords.SimulatedOf(name)}\""))));
    }

    private static void Members(LdapConnection connection, string group, IEnumerable<string> names)
    {
        var adding = new DirectoryAttributeModification { Name = "member", Operation = DirectoryAttributeOperation.Add };
        foreach (var name in names) adding.Add(Simulation.Principals.FirstOrDefault(p => p.Name == name)!.Dn);
        connection.SendRequest(new ModifyRequest(group, adding));
    }
}
