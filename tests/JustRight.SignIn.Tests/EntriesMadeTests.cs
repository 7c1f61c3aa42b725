using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Installs;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Entries;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;
using JustRight.Formats.Ldif;

namespace JustRight.SignIn.Tests;

/// <summary>
/// In a directory without bind account and groups: an ordinary client applies our LDIF, sets the password, and the sign-in test
/// passes; then there is nothing left to make.
/// </summary>
public sealed class EntriesMadeTests(ContractorsServer server) : IClassFixture<ContractorsServer>
{
    [Theory]
    [InlineData(GroupKind.GroupOfNames)]
    [InlineData(GroupKind.GroupOfUniqueNames)]
    public async Task What_is_not_there_is_made_by_an_ordinary_client(GroupKind kind)
    {
        var scene = new SignInTestScene(server);
        var directory = server.Directory with { Groups = kind, BackLink = false };
        var (root, groups) = (directory.Root.Text, directory.GroupsIn.Text);
        var (first, second) = ($"{kind}1".ToLowerInvariant(), $"ö, {kind}2".ToLowerInvariant());
        using (var connection = server.Write())
        {
            scene.WritePerson(connection, first);
            scene.WritePerson(connection, second);
        }

        var bind = $"uid=reader-{kind},ou=Services,{root}".ToLowerInvariant();
        var enter = $"cn=enter-{kind},{groups}";
        scene.BindIs(bind);
        var plan = scene.Plan(
            WireSecurity.Tls,
            i => i with
            {
                EnterMembers = [first],
                MayEnter = first,
                MayNotEnter = [],
                ExpectedNames = [],
                ExpectedPeople = null,
                Roles = [new InstallRole("keeper", [$"cn=keepers-{kind},{groups}", enter], [first], first, i.At)],
            },
            directory) with
        {
            BindDn = bind,
            EnterDn = enter,
            EnterName = $"enter-{kind}",
            Roles = [new PlannedRole("keeper", "Keeper", [new("k", $"cn=keepers-{kind},{groups}")], first)],
        };
        var ldif = SignInLdif.Write("roster", "contractors", SignInEntries.Of(plan, await ReadAsync(directory), false));
        ldif.ShouldNotBeNull().ShouldNotContain("not made");
        await ApplyAsync(ldif);
        await PasswordAsync(bind);

        var test = await scene.TryAsync(plan);
        var words = string.Join('\n', test.Checks.Select(c => $"{c.Verdict} {c.Id} ({c.Cause}): {c.Fact}"));
        foreach (var check in new[] { "bind", "enter-group", "people", "person", "person-signs-in", "role/keeper" })
            test.Checks.Single(c => c.Id == check).Verdict.ShouldBe(CheckVerdict.Pass, words);
        SignInEntries.Of(plan, await ReadAsync(directory), false).OfType<SignInEntry.Account>()
            .ShouldHaveSingleItem("the branch of accounts is not read");
        SignInEntries.Of(plan, await ReadAsync(directory), true).ShouldBeEmpty("the test has bound as it");

        var more = plan with { Install = plan.Install with { EnterMembers = [first, second] } };
        var added = SignInLdif.Write("roster", "contractors", SignInEntries.Of(more, await ReadAsync(directory), true));
        await ApplyAsync(added.ShouldNotBeNull());
        SignInEntries.Of(more, await ReadAsync(directory), true).ShouldBeEmpty();
    }

    [Fact]
    public async Task What_cannot_be_made_is_told_with_the_reason()
    {
        var scene = new SignInTestScene(server);
        var plan = scene.Plan(WireSecurity.Tls, i => i with { EnterMembers = [], Roles = [] }) with
        {
            BindDn = null,
            EnterDn = $"cn=empty,{server.Directory.GroupsIn.Text}",
        };
        var read = await ReadAsync(server.Directory);
        Why(plan, read).ShouldContain("at least one member");
        Why(plan, null).ShouldContain("take a survey");
        Why(plan with { Install = plan.Install with { EnterMembers = ["nobody.here"] } }, read)
            .ShouldBe("there is no nobody.here");
        Why(plan with { Directory = plan.Directory with { Groups = GroupKind.PosixGroup } }, read)
            .ShouldContain("needs a number");
    }

    private static string Why(PlannedSignIn plan, ObjectTable? read) =>
        SignInEntries.Of(plan, read, false).ShouldHaveSingleItem().ShouldBeOfType<SignInEntry.Impossible>().Why;

    private async Task<ObjectTable> ReadAsync(PeopleDirectory directory)
    {
        using var session = await server.KeeperAsync();
        return PeopleSurvey.Read(session, directory, "the keeper", DateTimeOffset.UtcNow, _ => { }).ToTable();
    }

    private Task ApplyAsync(string ldif) => ToolAsync("ldapmodify", ldif, ["-v"]);

    private Task PasswordAsync(string dn) => ToolAsync("ldappasswd", "", ["-s", SignInTestScene.BindPassword, dn]);

    private async Task ToolAsync(string program, string input, string[] arguments)
    {
        var end = await Programs.RunAsync(
            program,
            [
                "-x", "-H", server.Directory.Address(WireSecurity.Tls), "-D", server.Keeper, "-w", server.KeeperPassword,
                .. arguments,
            ],
            input, [("LDAPTLS_CACERT", Path.Combine(server.Directory.CaFolder!, "ca.pem"))]);
        end.Code.ShouldBe(0, $"{end.Output}\n{end.Error}\n{input}");
    }
}
