using System.Text.Json;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Cards;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Trials;
using JustRight.Formats.SignIn;
using JustRight.Lab;
using JustRight.Lab.People;

namespace JustRight.SignIn.Tests;

/// <summary>The card of each demo product, as its file or page has it, used by an ordinary LDAP client on a real server; and the lab held against that server.</summary>
public sealed class DemoCardTests
{
    [Collection("the controller's address")]
    public sealed class WithStaff(StaffServer server) : IClassFixture<StaffServer>
    {
        [Fact]
        public async Task The_cards_of_the_roster_and_the_gateway_work_as_they_stand()
        {
            await server.ToolAsync("domain", "passwordsettings", "set", "--complexity=off", "--min-pwd-length=1");
            var estate = DemoPeople.EstateAt(server);
            var (roster, plan) = DemoPeople.PlanOf("rennet-roster-plants", estate);
            using (var connection = server.Write()) DemoPeople.WriteStaff(connection, plan);

            var fields = Properties(SettingsFile.Write(roster.Wants.Settings.Form, CardMaker.Make(roster).Fields));
            fields["people.reader.password"].ShouldBe("<secret: svc-roster-reader>");
            await UseAsync(fields["people.directory"], fields["people.directory.trust"], fields["people.reader"], LabPasswords.PretendOf("svc-roster-reader"), fields["people.below"], fields["people.all"], fields["people.who"], 8, "a.brandt", "x.zell");
            (await LdapTools.SearchAsync(fields["people.directory"], fields["people.directory.trust"], fields["people.reader"], LabPasswords.PretendOf("svc-roster-reader"), fields["teams.below"], fields["teams.which"])).ShouldNotBeNull().Count.ShouldBe(1);

            var (gateway, _) = DemoPeople.PlanOf("millrace-gateway", estate);
            var page = SettingsFile.Write(gateway.Wants.Settings.Form, CardMaker.Make(gateway).Fields).Split('\n').Where(l => l.Length > 0).ToDictionary(l => l[..23].Trim(), l => l[25..]);
            page["Protection"].ShouldBe("None");
            page["Follow groups in groups"].ShouldBe("On");
            await UseAsync($"ldap://{page["Server"]}:{page["Port"]}", server.CaFolder, page["Look up as"], LabPasswords.PretendOf("svc-millrace"), page["People under"], page["People are"], null, 25, "v.wick", null);
            (await LdapTools.SearchAsync($"ldap://{page["Server"]}:{page["Port"]}", server.CaFolder, page["Look up as"], LabPasswords.PretendOf("svc-millrace"), page["Groups under"], page["Groups are"])).ShouldNotBeNull()
                .ShouldBe(["CN=vpn-drivers,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example", "CN=vpn-keepers,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example", "CN=vpn-lab,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example"], ignoreOrder: true);

            await CompareAsync(gateway, "svc-millrace", "v.wick", "bind-writes", "bind-groups", "bind-password-end", "confidential", "who-am-i", "empty-password"); // what of these the server's own defaults decide
        }

        private static Dictionary<string, string> Properties(string text) => text.Split('\n').Where(l => l.Length > 0 && l[0] != '#').ToDictionary(l => l[..l.IndexOf('=', StringComparison.Ordinal)], l => l[(l.IndexOf('=', StringComparison.Ordinal) + 1)..].Replace("\\\\", "\\", StringComparison.Ordinal));
    }

    public sealed class WithContractors(ContractorsServer server) : IClassFixture<ContractorsServer>
    {
        [Fact]
        public async Task The_card_of_the_contractors_log_works_as_it_stands()
        {
            using (var connection = server.Write()) DemoPeople.WriteContractors(connection);
            var (log, _) = DemoPeople.PlanOf("brinebook-contractors", DemoPeople.EstateAt(server));
            using var file = JsonDocument.Parse(SettingsFile.Write(log.Wants.Settings.Form, CardMaker.Make(log).Fields));
            var (door, people) = (file.RootElement.GetProperty("door"), file.RootElement.GetProperty("people"));
            door.GetProperty("lock").GetString().ShouldBe("sealed");
            var address = $"ldaps://{door.GetProperty("server")}:{door.GetProperty("port")}";
            var who = $"(&{people.GetProperty("match")}({people.GetProperty("typed")}={{0}}))";
            await UseAsync(address, door.GetProperty("trust").GetString()!, door.GetProperty("caller").GetString()!, LabPasswords.PretendOf("brinebook"), people.GetProperty("under").GetString()!, people.GetProperty("match").GetString()!, who, 7, "k.osei", "u.jansdal");
            await CompareAsync(log, "brinebook", "k.osei");
        }
    }

    /// <summary>Bind, search, sign in, as the product does it.</summary>
    private static async Task UseAsync(string address, string caFolder, string bindAs, string password, string peopleBase, string all, string? who, int expected, string person, string? stranger)
    {
        (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, all)).ShouldNotBeNull().Count.ShouldBe(expected);
        var typed = (who ?? $"(&{all}(sAMAccountName={{0}}))").Replace("{0}", FilterValue.Of(person).Escaped, StringComparison.Ordinal);
        var found = (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, typed)).ShouldNotBeNull().ShouldHaveSingleItem();
        (await LdapTools.SearchAsync(address, caFolder, found, LabPasswords.PretendOf(person), peopleBase, typed)).ShouldNotBeNull();
        (await LdapTools.SearchAsync(address, caFolder, found, "not the password", peopleBase, typed)).ShouldBeNull();
        if (stranger is null) return;
        (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, who!.Replace("{0}", stranger, StringComparison.Ordinal))).ShouldNotBeNull().ShouldBeEmpty();
        (await LdapTools.SearchAsync(address, caFolder, bindAs, password, peopleBase, who.Replace("{0}", FilterValue.Of("*").Escaped, StringComparison.Ordinal))).ShouldNotBeNull().ShouldBeEmpty();
    }

    /// <summary>The trial says of the lab what it says of the real server, check by check.</summary>
    private static async Task CompareAsync(PlannedSignIn plan, string bind, string person, params string[] but)
    {
        var folder = Directory.CreateTempSubdirectory("justright-lab-");
        var lab = LabFile.Open(Path.Combine(folder.FullName, "lab.json"), Path.Combine(Checkout.Top, "demo-data/lab/fennmoor.json"));
        var passwords = new TrialPasswords(new NewPassword(LabPasswords.PretendOf(bind)), new NewPassword(LabPasswords.PretendOf(person)));
        var real = await SignInTrialRunner.RunAsync("demo", false, plan, new LdapPeopleDirectory(plan.Directory), passwords, TimeProvider.System, new Nobody(), CancellationToken.None);
        var pretend = await SignInTrialRunner.RunAsync("demo", true, plan, new LabPeopleDirectory(lab, plan.Directory, plan.Domain, TimeProvider.System), passwords, TimeProvider.System, new Nobody(), CancellationToken.None);
        folder.Delete(true);
        pretend.Checks.Where(c => !but.Contains(c.Id)).Select(c => $"{c.Id} {c.Verdict}").ShouldBe(real.Checks.Where(c => !but.Contains(c.Id)).Select(c => $"{c.Id} {c.Verdict}"), string.Join('\n', real.Checks.Select(c => $"{c.Verdict} {c.Id} {c.Fact}")));
        pretend.People.ShouldBeEquivalentTo(real.People);
        pretend.GroupNames.ShouldBe(real.GroupNames);
    }

    private sealed class Nobody : ITrialWatcher
    {
        public void Said(TrialCheck check)
        {
        }

        public void Counting(string what, int sofar)
        {
        }
    }
}
