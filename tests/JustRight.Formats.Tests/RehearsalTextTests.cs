using System.Text;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.Passwords;
using JustRight.Formats.Estates;
using JustRight.Formats.Installs;

namespace JustRight.Formats.Tests;

/// <summary>The texts of a rehearsal: they say the same of the estate, and nothing of how a real system is reached.</summary>
public sealed class RehearsalTextTests
{
    private const string Real = """
        estate: 1 # a comment
        name: plant
        title: "Plant: \"north\""
        domain: { dns: plant.example, short: PLANT }
        directory:
          reach: ldaps
          controller: dc01.plant.example
          more-controllers: [dc02.plant.example]
          ca-folder: /etc/authorities
          sign-in-as: PLANT\reader
          secret: hidden-thing
        branches:
          accounts: "OU=Accounts\\, Old,DC=plant,DC=example"
        naming: { accounts: "svc-{product}-{account}", groups: "app-{group}", accounts-in: accounts, groups-in: accounts }
        hosts:
          h1: { reach: ssh, host-key: "SHA256:AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA", sign-in-as: reader,
              secret: hidden-thing, restarts: 02:00-03:00 }
          h2: { reach: handed-over }
        host-access: { sign-in-as: reader, secret: hidden-thing }
        instances:
          s1: { host: h1, engine: sqlserver, release: "16.0", other-names: ["h1\\ONE"], reach: tls, sign-in-as: sa,
              secret: hidden-thing }
          p1: { host: h2, engine: postgresql, reach: tls, sign-in-as: reader, secret: hidden-thing }
        instance-access: { timeout-seconds: 5 }
        people-directories:
          staff:
            family: ad-like
            host: dc01.plant.example
            offers: [tls]
            people-in: OU=People,DC=plant,DC=example
            groups-in: DC=plant,DC=example
            ca-folder: /etc/authorities
            reach: ldap
            sign-in-as: CN=reader,DC=plant,DC=example
            secret: hidden-thing
        rules:
          two-person-approval: yes
          watch: { every-hours: 24 }
          notices: { mail: keepers@plant.example, webhook: "https://plant.example/hook", webhook-secret: hidden-thing }
          survey-no-older-than-hours: 72
          allowed-sharing:
            - { install: one, accounts: [a, b], why: "they are one: by design" }
        """;

    [Fact]
    public void Nothing_of_it_reaches_a_real_system()
    {
        EstateReader.Read(Encoding.UTF8.GetBytes(Real), "plant.yaml").Faults.ShouldBeEmpty();
        var text = RehearsalText.OfEstate(Real, "plant.yaml");
        foreach (var gone in new[] { "hidden-thing", "sign-in-as", "controller", "ssh", "reach: tls", "reach: ldap", "keepers",
            "hook", "two-person" })
            text.ShouldNotContain(gone);
        var (estate, faults) = EstateReader.Read(Encoding.UTF8.GetBytes(text), "plant.yaml");
        faults.ShouldBeEmpty(text);
        estate.ShouldNotBeNull();
        estate.ShouldSatisfyAllConditions(
            e => e.Name.ShouldBe("plant-rehearsal"), e => e.Title.ShouldBe("Plant: \"north\" (rehearsal)"),
            e => e.Rehearses.ShouldBe("plant"), e => e.Directory.Reach.ShouldBe(Reach.Simulation),
            e => e.Hosts.Select(h => h.Reach).ShouldBe([Reach.Simulation, Reach.Simulation]),
            e => e.Hosts.ShouldAllBe(h => h.Restarts == null),
            e => e.Instances.Select(i => i.Reach).ShouldBe([Reach.Simulation, Reach.None]),
            e => e.Instances[0].OtherNames.ShouldBe(["h1\\ONE"]), e => e.Instances[0].Release!.ToString().ShouldBe("16"),
            e => e.PeopleDirectories.Single().Reach.ShouldBe(Reach.Simulation),
            e => e.Branches.Single().Name.Text.ShouldBe("OU=Accounts\\, Old,DC=plant,DC=example"),
            e => e.Rules.SurveyNoOlderThan.ShouldBe(TimeSpan.FromHours(72)), e => e.Rules.Schedule.ShouldBeNull(),
            e => e.Rules.AllowedSharing.Single().ShouldSatisfyAllConditions(
                s => s.Install.ShouldBe("one-rehearsal"), s => s.Accounts.ShouldBe(["a", "b"]),
                s => s.Why.ShouldBe("they are one: by design")));
        SharedSystems.Of(estate, EstateReader.Read(Encoding.UTF8.GetBytes(Real), "plant.yaml").Estate!).ShouldBeNull();
        SharedSystems.AddressesOf(estate).ShouldBe(["rehearsal plant-rehearsal"]);
    }

    [Theory]
    [InlineData("directory: { reach: ldaps, controller: dc01.plant.example, ca-folder: /etc/a, sign-in-as: x, secret: y }",
        "directory")]
    [InlineData("directory: { reach: simulation, secret: y }", "directory")]
    [InlineData("hosts: { h1: { reach: handed-over } }", "hosts.h1")]
    [InlineData("rules: { notices: { mail: keepers@plant.example } }", "rules.notices")]
    [InlineData("name: another-rehearsal", "name")]
    public void A_rehearsal_that_reaches_further_is_no_sound_estate(string line, string field)
    {
        var text = RehearsalText.OfEstate(Real, "plant.yaml");
        var key = line[..(line.IndexOf(':', StringComparison.Ordinal) + 1)];
        var lines = text.Split('\n').ToList();
        var at = lines.FindIndex(l => l.StartsWith(key, StringComparison.Ordinal));
        var end = lines.FindIndex(at + 1, l => l.Length == 0 || !char.IsWhiteSpace(l[0]));
        lines.RemoveRange(at, end - at);
        lines.Insert(at, line);
        var instances = lines.FindIndex(l => l == "instances:");
        if (key == "hosts:") lines.RemoveRange(instances, lines.FindIndex(instances + 1,
            l => !char.IsWhiteSpace(l[0])) - instances);
        EstateReader.Read(Encoding.UTF8.GetBytes(string.Join('\n', lines)), "plant.yaml").Faults
            .ShouldContain(f => f.Field == field && f.Code.StartsWith("rehearsal"), string.Join('\n', lines));
    }

    [Fact]
    public void The_demos_installs_say_the_same_and_are_not_begun()
    {
        foreach (var file in Directory.GetFiles(Path.Combine(Checkout.Top, "demo-data", "installs")))
        {
            var (real, _) = InstallReader.Read(File.ReadAllBytes(file), file);
            var text = RehearsalText.OfInstall(File.ReadAllText(file), file);
            var (copy, faults) = InstallReader.Read(Encoding.UTF8.GetBytes(text), file);
            faults.ShouldBeEmpty(text);
            text.ShouldNotContain("bind-secret");
            copy!.ShouldSatisfyAllConditions(
                c => c.Name.ShouldBe($"{real!.Name}-rehearsal"), c => c.Estate.ShouldBe($"{real!.Estate}-rehearsal"),
                c => c.Stage.ShouldBe(Stage.Planned), c => c.Sheet.ShouldBe(real!.Sheet),
                c => c.Places.Select(p => $"{p.Key}: {string.Join(' ', p.Value.Values)}")
                    .ShouldBe(real!.Places.Select(p => $"{p.Key}: {string.Join(' ', p.Value.Values)}")),
                c => c.Accounts.Select(a => $"{a.Key} {a.Value.Name} {a.Value.Existing}")
                    .ShouldBe(real!.Accounts.Select(a => $"{a.Key} {a.Value.Name} {a.Value.Existing}")),
                c => c.Answers.Select(a => $"{a.Key} {a.Value.Text}")
                    .ShouldBe(real!.Answers.Select(a => $"{a.Key} {a.Value.Text}")),
                c => c.Choices.Select(a => $"{a.Key} {a.Value.Take} {a.Value.Why}")
                    .ShouldBe(real!.Choices.Select(a => $"{a.Key} {a.Value.Take} {a.Value.Why}")),
                c => (c.SignIn?.EnterMembers ?? []).ShouldBe(real!.SignIn?.EnterMembers ?? []),
                c => (c.SignIn?.ExpectedNames ?? []).ShouldBe(real!.SignIn?.ExpectedNames ?? []));
        }
    }

    [Theory]
    [InlineData("svc-a", @"FENNMOOR\svc-a", @"fennmoor-rehearsal/FENNMOOR\svc-a")]
    [InlineData(@"FENNMOOR\svc-a", @"FENNMOOR\svc-a", @"fennmoor-rehearsal/FENNMOOR\svc-a")]
    [InlineData(@"OTHER\svc-a", @"OTHER\svc-a", @"fennmoor-rehearsal/OTHER\svc-a")]
    public void The_password_of_an_account_is_kept_apart_from_that_of_the_real_one(string account, string real, string rehearsed)
    {
        var text = DemoFiles.Text("estates/fennmoor.yaml");
        PasswordSubject.Of(DemoFiles.Estate(text).Estate!, account).ShouldBe(new PasswordSubject(real, false));
        PasswordSubject.Of(DemoFiles.Estate(RehearsalText.OfEstate(text, "fennmoor.yaml")).Estate!, account)
            .ShouldBe(new PasswordSubject(rehearsed, true));
    }
}
