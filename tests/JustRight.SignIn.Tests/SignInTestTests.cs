using System.DirectoryServices.Protocols;
using JustRight.Connectors;
using JustRight.Connectors.People;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>The sign-in test, and what it rests on, against a real server. Both families must pass.</summary>
public abstract class SignInTestTests(IPeopleServer server, SignInTestScene scene)
{
    private bool AdLike => server.Directory.Family == DirectoryFamily.AdLike;

    [Theory]
    [InlineData(WireSecurity.Tls)]
    [InlineData(WireSecurity.StartTls)]
    [InlineData(WireSecurity.Plain)]
    public async Task A_sign_in_that_is_just_right_passes_whichever_way_it_goes(WireSecurity security)
    {
        var why = server.Directory with { PlainTextBecause = "these are tests" };
        var test = await scene.TryAsync(scene.Plan(security, directory: why));
        string[] unseen = AdLike ? ["who-am-i"] : ["disabled", "bind-password-end"];
        test.Checks.Where(c => c.Verdict == CheckVerdict.Unseen).Select(c => c.Id).ShouldBe(unseen, Words(test));
        test.Checks.Where(c => c.Verdict == CheckVerdict.Fail).Select(c => c.Id).ShouldBeEmpty(Words(test));
        test.People.ShouldNotBeNull().Agrees.ShouldBe(true);
        test.Groups.ShouldNotBeNull().Agrees.ShouldBe(true);
        test.GroupNames.ShouldBe(["roster-drivers", "roster-staff"]);
        if (security != WireSecurity.Plain) Fact(test, "protection").ShouldStartWith("TLS 1.");
        test.Checks.ShouldAllBe(c => c.Took != null);
        test.Checks.ShouldNotContain(c => c.Verdict == CheckVerdict.Caution, Words(test));
    }

    [Fact]
    public async Task No_password_goes_over_an_unprotected_way_for_which_nobody_gave_a_reason()
    {
        var seen = new List<byte[]>();
        await using var listener = new ListeningBetween(server.Directory.Host, server.Directory.Offers[WireSecurity.Plain], seen);
        var through = server.Directory with
        {
            Offers = new Dictionary<WireSecurity, int> { [WireSecurity.Plain] = listener.Port },
            Host = "127.0.0.1",
        };
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Plain, directory: through));
        test.Checks.Single(c => c.Id == "protection").Cause.ShouldBe(SignInCause.Unprotected);
        var bind = test.Checks.Single(c => c.Id == "bind");
        (bind.Verdict, bind.Cause).ShouldBe((CheckVerdict.Unseen, SignInCause.Unprotected));
        listener.Heard(SignInTestScene.BindPassword).ShouldBeFalse();
        var people = new LdapPeopleDirectory(through);
        var password = new NewPassword(SignInTestScene.BindPassword);
        (await Should.ThrowAsync<PeopleDirectoryException>(
            () => people.BindAsync(WireSecurity.Plain, scene.Bind, password, CancellationToken.None)))
            .Cause.ShouldBe(SignInCause.Unprotected);
        (await people.TryPasswordAsync(WireSecurity.Plain, scene.Bind, password, CancellationToken.None))
            .Cause.ShouldBe(SignInCause.Unprotected);
        listener.Heard(SignInTestScene.BindPassword).ShouldBeFalse();

        // and with a reason it does: the test hears what it would hear
        await scene.TryAsync(scene.Plan(WireSecurity.Plain, directory: through with { PlainTextBecause = "these are tests" }));
        listener.Heard(SignInTestScene.BindPassword).ShouldBeTrue();
    }

    [Fact]
    public async Task What_has_not_begun_when_the_time_is_over_is_not_made_and_said()
    {
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Tls), longest: TimeSpan.Zero);
        test.Checks.Where(c => c.Cause == SignInCause.OutOfTime).Select(c => c.Id).ShouldBe(["bind", "anonymous"]);
        test.Checks.Single(c => c.Id == "certificate").Verdict.ShouldBe(CheckVerdict.Pass);
    }

    [Fact]
    public async Task People_missing_and_people_too_many_are_named_with_the_reason()
    {
        var plan = scene.Plan(
            WireSecurity.Tls,
            i => i with
            {
                ExpectedNames = ["anna", "ben", "cleo", "greta", "nobody", .. AdLike ? (string[])["fritz"] : []],
                ExpectedPeople = null,
            });
        var people = (await scene.TryAsync(plan)).People.ShouldNotBeNull();
        people.Missing.ShouldBe(
            [
                .. AdLike
                    ? [new NamedDifference("fritz", new WhyAbsent(SignInCause.Disabled, "disabled"))]
                    : (NamedDifference[])[],
                new("greta", new WhyAbsent(SignInCause.NotInGroup, "not in roster-staff")),
                new("nobody", new WhyAbsent(SignInCause.NotInDirectory, "not in the directory"))]);
        people.Extra.Select(e => e.Name).ShouldBe(AdLike ? ["dora", "emil"] : ["dora", "fritz"]);
    }

    [Fact]
    public async Task Where_the_product_follows_groups_itself_its_members_are_looked_up_page_by_page()
    {
        var plan = scene.Plan(
            WireSecurity.Tls,
            i => i with
            {
                ExpectedNames = ["anna", "ben", "cleo", "dora", "emil", .. AdLike ? (string[])[] : ["fritz"]],
                ExpectedPeople = null,
                MayNotEnter = ["greta"],
            });
        var test = await scene.TryAsync(plan with { Wants = plan.Wants with { Nested = Core.Sheets.NestedGroups.ByProduct } });
        test.People.ShouldNotBeNull(Words(test)).Agrees.ShouldBe(true, Words(test));
        Fact(test, "people").ShouldContain("in roster-staff, of");
        test.Checks.Single(c => c.Id == "kept-out/greta").Verdict.ShouldBe(CheckVerdict.Pass);
        test.Checks.ShouldNotContain(c => c.Verdict == CheckVerdict.Fail, Words(test));
    }

    [Fact]
    public async Task A_wrong_password_is_tried_once_and_said_nowhere()
    {
        const string wrong = "Aa1-not this one";
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Tls), wrong);
        var refused = test.Checks.Single(c => c.Id == "bind");
        (refused.Verdict, refused.Cause).ShouldBe((CheckVerdict.Fail, SignInCause.WrongPassword));
        test.People.ShouldBeNull();
        Words(test).ShouldNotContain(wrong);
        var person = await scene.TryAsync(scene.Plan(WireSecurity.Tls), personPassword: wrong);
        person.Checks.Single(c => c.Id == "person-signs-in").Verdict.ShouldBe(CheckVerdict.Fail);
        Words(person).ShouldNotContain(wrong);
    }

    [Fact]
    public async Task Somebody_who_is_in_the_group_and_must_not_enter_is_found_out()
    {
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Tls, i => i with { MayNotEnter = ["ben"], MayEnter = "greta" }));
        test.Checks.Single(c => c.Id == "kept-out/ben").Verdict.ShouldBe(CheckVerdict.Fail);
        test.Checks.Single(c => c.Id == "person").Fact.ShouldBe("greta is not found: not in roster-staff.");
    }

    [Fact]
    public async Task A_bind_account_that_could_write_is_found_out_and_nothing_is_changed()
    {
        var keeper = AdLike ? $"CN=Administrator,CN=Users,{server.Directory.Root.Text}" : server.Keeper;
        // A directory notes on a person who signs in that they did, for the first time or after a wrong password.
        await scene.TryAsync(scene.Plan(WireSecurity.Tls));
        var before = await StampsAsync();
        var test = await scene.TryAsync(
            scene.Plan(WireSecurity.Tls) with { BindDn = keeper, BindLogonName = "Administrator" }, server.KeeperPassword);
        var writes = test.Checks.Single(c => c.Id == "bind-writes");
        writes.Verdict.ShouldBe(CheckVerdict.Fail);
        writes.Fact.ShouldContain("description of ");
        writes.Fact.ShouldContain("member of " + scene.Enter);
        if (AdLike) test.Checks.Single(c => c.Id == "bind-groups").Verdict.ShouldBe(CheckVerdict.Fail);
        else test.Checks.Single(c => c.Id == "confidential").Fact.ShouldContain("userPassword");
        (await StampsAsync()).ShouldBe(before);
    }

    [Theory]
    [InlineData("ended", "it has expired")]
    [InlineData("other-name", "it is not for the name")]
    [InlineData("untrusted", "none of the trusted authorities issued it")]
    public async Task A_certificate_that_is_not_good_is_named_and_no_password_is_sent(string certificate, string reason)
    {
        await server.ShowAsync(certificate);
        try
        {
            foreach (var security in new[] { WireSecurity.Tls, WireSecurity.StartTls })
            {
                var test = await scene.TryAsync(scene.Plan(security));
                Fact(test, "certificate").ShouldContain(reason);
                test.Checks.Single(c => c.Id == "certificate").Verdict.ShouldBe(CheckVerdict.Fail);
                test.Checks[^1].Id.ShouldBe("bind");
                test.Checks[^1].Verdict.ShouldBe(CheckVerdict.Unseen);
                test.Checks[^1].Cause.ShouldBe(test.Checks.Single(c => c.Id == "certificate").Cause);
            }
        }
        finally
        {
            await server.ShowAsync("good");
        }

        Fact(await scene.TryAsync(scene.Plan(WireSecurity.StartTls)), "certificate").ShouldContain("59 days left");
    }

    [Fact]
    public async Task What_is_not_there_is_said()
    {
        var silent = server.Directory with { Offers = new Dictionary<WireSecurity, int> { [WireSecurity.Tls] = 9 } };
        var test = await scene.TryAsync(scene.Plan(WireSecurity.Tls, directory: silent));
        test.Checks.Single(c => c.Id == "connect").Verdict.ShouldBe(CheckVerdict.Fail);
        var nameless = server.Directory with { Host = "fm-dc77.fennmoor.invalid" };
        (await scene.TryAsync(scene.Plan(WireSecurity.Tls, directory: nameless))).Checks[0].Verdict.ShouldBe(CheckVerdict.Fail);
        var elsewhere = server.Directory with
        {
            PeopleIn = Core.Directory.DistinguishedName.Parse($"ou=Nowhere,{server.Directory.Root.Text}"),
        };
        (await scene.TryAsync(scene.Plan(WireSecurity.Tls, directory: elsewhere))).Checks.Single(c =>
            c.Id == "bases").Verdict.ShouldBe(CheckVerdict.Fail);
    }

    [Fact]
    public async Task Every_name_finds_its_owner_and_nobody_else()
    {
        using var session = await server.KeeperAsync();
        // the controller takes no such character in a name
        string[] kept = AdLike ? [.. PeopleScene.HostileNames.Where(n => !n.Contains('\u0001'))] : [.. PeopleScene.HostileNames];
        using (var connection = server.Write())
        {
            for (var i = 0; i < kept.Length; i++)
            {
                var dn = $"{(AdLike ? "CN" : "cn")}={Core.Directory.DistinguishedName.Escape(kept[i])},{server.Directory.PeopleIn.Text}";
                if (AdLike)
                    connection.Add(
                        dn, ("objectClass", ["user"]), ("sAMAccountName", [$"hostile{i}"]), ("displayName", [kept[i]]));
                else
                    connection.Add(
                        dn, ("objectClass", ["inetOrgPerson"]), ("sn", ["Hostile"]), ("uid", [kept[i]]),
                        ("displayName", [kept[i]]));
            }
        }

        var (types, classes) = session.Schema();
        var table = new ObjectTable(
            SchemaDescriptions.Read(server.Directory.Family, types, classes),
            [.. session.Search(
                server.Directory.PeopleIn.Text, SearchScope.Subtree, "(objectClass=*)", 100, "cn", "displayName", "uid", "objectClass")]);
        foreach (var name in kept)
        {
            var value = FilterValue.Of(name);
            Filter[] filters = [
                new Filter.Same("displayName", value), new Filter.Same("cn", value),
                new Filter.Like("displayName", value, [], null)];
            foreach (var filter in filters)
            {
                string[] found = [.. session.Search(
                    server.Directory.PeopleIn.Text, SearchScope.Subtree, filter.Text, null, "displayName").Select(
                    o => o.First("displayName")!)];
                string[] expected = filter is Filter.Like
                    ? [.. kept.Where(k => k.StartsWith(name, StringComparison.OrdinalIgnoreCase))]
                    : [name];
                found.Order(StringComparer.Ordinal)
                    .ShouldBe(expected.Order(StringComparer.Ordinal), $"{filter.Text} for '{name}'");
                FilterEvaluator.Matching(filter, table).Select(o => o.First("displayName")!).Order(StringComparer.Ordinal)
                    .ShouldBe(expected.Order(StringComparer.Ordinal), $"{filter.Text} for '{name}', by us");
            }
        }
    }

    /// <summary>When anything was last changed, object by object.</summary>
    private async Task<IReadOnlyList<string>> StampsAsync()
    {
        using var session = await server.KeeperAsync();
        var stamp = AdLike ? "uSNChanged" : "entryCSN";
        return [.. session.Search(server.Directory.Root.Text, SearchScope.Subtree, "(objectClass=*)", 200, stamp).Select(o =>
            $"{o.Dn} {o.First(stamp)}").Order(StringComparer.Ordinal)];
    }

    private static string Fact(SignInTest test, string id) => test.Checks.Single(c => c.Id == id).Fact;

    private static string Words(SignInTest test) =>
        string.Join('\n', test.Checks.Select(c => $"{c.Verdict} {c.Id}: {c.Fact} {c.Fix}"));
}

/// <summary>A server with the scene of the sign-in test on it.</summary>
public sealed class SceneOn<TServer> : IAsyncLifetime
    where TServer : IPeopleServer, IAsyncLifetime, new()
{
    /// <summary>The server.</summary>
    public TServer Server { get; } = new();

    /// <summary>The scene.</summary>
    public SignInTestScene Scene { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        await Server.InitializeAsync();
        Scene = new SignInTestScene(Server);
        using LdapConnection connection = Server.Write();
        Scene.Write(connection);
    }

    public ValueTask DisposeAsync() => Server.DisposeAsync();
}

/// <summary>Against the AD-compatible controller.</summary>
[Collection("the controller's address")]
public sealed class AdLikeTestTests(SceneOn<StaffServer> on)
    : SignInTestTests(on.Server, on.Scene), IClassFixture<SceneOn<StaffServer>>;

/// <summary>Against the inetOrgPerson directory.</summary>
public sealed class InetOrgPersonTestTests(SceneOn<ContractorsServer> on)
    : SignInTestTests(on.Server, on.Scene), IClassFixture<SceneOn<ContractorsServer>>
{
    [Theory]
    [InlineData(GroupKind.GroupOfNames, "groupOfNames", "member", true)]
    [InlineData(GroupKind.GroupOfUniqueNames, "groupOfUniqueNames", "uniqueMember", true)]
    [InlineData(GroupKind.PosixGroup, "posixGroup", "memberUid", false)]
    public async Task Each_kind_of_group_works_without_a_back_link(GroupKind kind, string objectClass, string member, bool byName)
    {
        var (name, directory) = ($"kind-{kind}", on.Server.Directory);
        var dn = $"cn={name},{directory.GroupsIn.Text}";
        string[] members = [.. new[] { "anna", "dora" }.Select(m => byName ? on.Scene.DnOf(m) : m)];
        using (var connection = on.Server.Write())
            connection.Add(
                dn,
                [
                    ("objectClass", [objectClass]), (member, members),
                    .. byName ? [] : new (string, string[])[] { ("gidNumber", ["7"]) }]);
        var plan = on.Scene.Plan(
            WireSecurity.Tls,
            i => i with
            {
                ExpectedNames = ["anna", "dora"],
                ExpectedPeople = null,
                ExpectedGroups = [name],
                GroupsStart = ["kind-" + kind],
                MayNotEnter = ["ben"],
            },
            directory with { Groups = kind, BackLink = false });
        var test = await on.Scene.TryAsync(plan with { EnterName = name, EnterDn = dn });
        string Words() => string.Join('\n', test.Checks.Select(c => $"{c.Verdict} {c.Id}: {c.Fact}"));
        test.Checks.ShouldNotContain(c => c.Verdict == CheckVerdict.Fail, Words());
        test.People.ShouldNotBeNull().Agrees.ShouldBe(true);
        test.Checks.Single(c => c.Id == "person-groups").Fact.ShouldContain(name);
        test.Checks.Single(c => c.Id == "kept-out/ben").Verdict.ShouldBe(CheckVerdict.Pass);
    }
}
