using System.Text.Json;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Formats.SignIn;
using JustRight.Simulation;
using JustRight.Simulation.People;

namespace JustRight.SignIn.Tests;

/// <summary>The settings of each demo product, as its file or page has it, used by an ordinary LDAP client on a real server; and the simulation held against that server.</summary>
public sealed class DemoSettingsTests
{
    [Collection("the controller's address")]
    public sealed class WithStaff(StaffServer server) : IClassFixture<StaffServer>
    {
        [Fact]
        public async Task The_settings_of_the_roster_and_the_gateway_work_as_they_stand()
        {
            await server.ToolAsync("domain", "passwordsettings", "set", "--complexity=off", "--min-pwd-length=1");
            var estate = DemoPeople.EstateAt(server);
            var (roster, plan) = DemoPeople.PlanOf("rennet-roster-plants", estate);
            using (var connection = server.Write()) DemoPeople.WriteStaff(connection, plan);

            var fields = Properties(FileOf(roster));
            fields["people.reader.password"].ShouldBe("<secret: svc-roster-reader>");
            await UseAsync(
                fields["people.directory"], fields["people.directory.trust"], fields["people.reader"],
                SimulationPasswords.SimulatedOf("svc-roster-reader"), fields["people.below"], fields["people.all"],
                fields["people.who"], 8, "a.brandt", "x.zell");
            (await LdapTools.SearchAsync(
                fields["people.directory"], fields["people.directory.trust"], fields["people.reader"],
                SimulationPasswords.SimulatedOf("svc-roster-reader"), fields["teams.below"], fields["teams.which"]))
                .ShouldNotBeNull().Count.ShouldBe(1);

            var (gateway, _) = DemoPeople.PlanOf("millrace-gateway", estate);
            var page = FileOf(gateway).Split('\n')
                .Where(l => l.Length > 0).ToDictionary(l => l[..23].Trim(), l => l[25..]);
            page["Protection"].ShouldBe("None");
            page["Follow groups in groups"].ShouldBe("On");
            await UseAsync(
                $"ldap://{page["Server"]}:{page["Port"]}", server.CaFolder, page["Look up as"],
                SimulationPasswords.SimulatedOf("svc-millrace"), page["People under"], page["People are"], null, 25, "v.wick",
                null);
            (await LdapTools.SearchAsync(
                $"ldap://{page["Server"]}:{page["Port"]}", server.CaFolder, page["Look up as"],
                SimulationPasswords.SimulatedOf("svc-millrace"), page["Groups under"], page["Groups are"]))
                .ShouldNotBeNull()
                .ShouldBe(
                    [
                        "CN=vpn-drivers,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example",
                        "CN=vpn-keepers,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example",
                        "CN=vpn-lab,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example"],
                    ignoreOrder: true);

            // what of these the server's own defaults decide
            await CompareAsync(
                gateway, "svc-millrace", "v.wick", "bind-writes", "bind-groups", "bind-password-end", "confidential", "who-am-i",
                "empty-password");
        }

        private static Dictionary<string, string> Properties(string text) =>
            text.Split('\n').Where(l => l.Length > 0 && l[0] != '#')
                .ToDictionary(
                    l => l[..l.IndexOf('=', StringComparison.Ordinal)],
                    l => l[(l.IndexOf('=', StringComparison.Ordinal) + 1)..].Replace("\\\\", "\\", StringComparison.Ordinal));
    }

    public sealed class WithContractors(ContractorsServer server) : IClassFixture<ContractorsServer>
    {
        [Fact]
        public async Task The_settings_of_the_contractors_log_works_as_it_stands()
        {
            using (var connection = server.Write()) DemoPeople.WriteContractors(connection);
            var (log, _) = DemoPeople.PlanOf("brinebook-contractors", DemoPeople.EstateAt(server));
            using var file = JsonDocument.Parse(FileOf(log));
            var (door, people) = (file.RootElement.GetProperty("door"), file.RootElement.GetProperty("people"));
            door.GetProperty("lock").GetString().ShouldBe("sealed");
            var address = $"ldaps://{door.GetProperty("server")}:{door.GetProperty("port")}";
            var who = $"(&{people.GetProperty("match")}({people.GetProperty("typed")}={{0}}))";
            await UseAsync(
                address, door.GetProperty("trust").GetString()!, door.GetProperty("caller").GetString()!,
                SimulationPasswords.SimulatedOf("brinebook"), people.GetProperty("under").GetString()!,
                people.GetProperty("match").GetString()!, who, 7, "k.osei", "u.jansdal");
            await CompareAsync(log, "brinebook", "k.osei");
        }
    }

    /// <summary>The one file or page of a product, filled.</summary>
    private static string FileOf(PlannedSignIn plan)
    {
        var file = SettingsMaker.Make(plan).Files.ShouldHaveSingleItem();
        return SettingsFile.Write(file.Is, file.Fields);
    }

    /// <summary>Bind, search, sign in, as the product does it.</summary>
    private static async Task UseAsync(
        string address, string caFolder, string bindAs, string password, string peopleBase, string all, string? who, int expected,
        string person, string? other)
    {
        (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, all))
            .ShouldNotBeNull().Count.ShouldBe(expected);
        var typed = (who ?? $"(&{all}(sAMAccountName={{0}}))")
            .Replace("{0}", FilterValue.Of(person).Escaped, StringComparison.Ordinal);
        var found = (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, typed)).ShouldNotBeNull()
            .ShouldHaveSingleItem();
        (await LdapTools.SearchAsync(address, caFolder, found, SimulationPasswords.SimulatedOf(person), peopleBase, typed))
            .ShouldNotBeNull();
        (await LdapTools.SearchAsync(address, caFolder, found, "not the password", peopleBase, typed)).ShouldBeNull();
        if (other is null) return;
        (await LdapTools.SearchAsync(
            address, caFolder, bindAs, password, peopleBase, who!.Replace("{0}", other, StringComparison.Ordinal)))
            .ShouldNotBeNull().ShouldBeEmpty();
        (await LdapTools.SearchAsync(
            address, caFolder, bindAs, password, peopleBase,
            who.Replace("{0}", FilterValue.Of("*").Escaped, StringComparison.Ordinal)))
            .ShouldNotBeNull().ShouldBeEmpty();
    }

    /// <summary>The sign-in test says of the simulation what it says of the real server, check by check.</summary>
    private static async Task CompareAsync(PlannedSignIn plan, string bind, string person, params string[] but)
    {
        var folder = Directory.CreateTempSubdirectory("justright-simulation-");
        var simulation = SimulationFile.Open(
            Path.Combine(folder.FullName, "simulation.json"), Path.Combine(Checkout.Top, "demo-data/simulation/fennmoor.json"));
        var passwords = new SignInTestPasswords(
            new NewPassword(SimulationPasswords.SimulatedOf(bind)), new NewPassword(SimulationPasswords.SimulatedOf(person)));
        var real = await SignInTestRunner.RunAsync(
            "demo", false, plan, new LdapPeopleDirectory(plan.Directory), passwords, TimeProvider.System, new Nobody(),
            CancellationToken.None);
        var simulated = await SignInTestRunner.RunAsync(
            "demo", true, plan, new SimulationPeopleDirectory(simulation, plan.Directory, plan.Domain, TimeProvider.System),
            passwords, TimeProvider.System, new Nobody(), CancellationToken.None);
        folder.Delete(true);
        simulated.Checks.Where(c => !but.Contains(c.Id)).Select(c => $"{c.Id} {c.Verdict}")
            .ShouldBe(
                real.Checks.Where(c => !but.Contains(c.Id)).Select(c => $"{c.Id} {c.Verdict}"),
                string.Join('\n', real.Checks.Select(c => $"{c.Verdict} {c.Id} {c.Fact}")));
        simulated.People.ShouldBeEquivalentTo(real.People);
        simulated.GroupNames.ShouldBe(real.GroupNames);
    }

    private sealed class Nobody : ISignInTestObserver
    {
        public void Asking(string asks)
        {
        }

        public void Said(SignInCheck check)
        {
        }

        public void Counting(string what, int sofar)
        {
        }
    }
}
