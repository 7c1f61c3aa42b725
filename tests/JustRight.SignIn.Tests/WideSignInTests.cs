using System.DirectoryServices.Protocols;
using System.Net;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Settings;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.SignIn.Tests;

/// <summary>
/// Several servers, several branches, other things to type, roles, further parts of filters, attributes: each told right on a
/// real server, and where it counts people compared with an ordinary client.
/// </summary>
public abstract class WideSignInTests : IAsyncLifetime
{
    private static readonly Origin Here = new("test", 1, 1);
    private readonly IPeopleServer _server;

    protected WideSignInTests(IPeopleServer server)
    {
        _server = server;
        Scene = new SignInTestScene(server);
    }

    protected SignInTestScene Scene { get; }

    protected bool AdLike => _server.Directory.Family == DirectoryFamily.AdLike;

    private string Plants => $"ou=Plants,{_server.Directory.Root.Text}";

    public sealed class OnContractors(ContractorsServer server) : WideSignInTests(server), IClassFixture<ContractorsServer>
    {
        [Theory]
        [InlineData(SignInTestScene.PersonPassword, CheckVerdict.Pass)]
        [InlineData("not the password", CheckVerdict.Fail)]
        [InlineData(null, CheckVerdict.Unseen)]
        public async Task Who_signs_in_binds_by_a_distinguished_name(string? password, CheckVerdict verdict)
        {
            var plan = AsPerson(BindForm.Dn);
            SettingsMaker.Make(plan)[SettingKeys.PersonTemplate].ShouldBe($"uid={{0}},{server.Directory.PeopleIn.Written}");
            await BindsAsync(plan, password, verdict);
        }
    }

    [Collection("the controller's address")]
    public sealed class OnStaff(StaffServer server) : WideSignInTests(server), IClassFixture<StaffServer>
    {
        [Theory]
        [InlineData(BindForm.Upn, SignInTestScene.PersonPassword, CheckVerdict.Pass)]
        [InlineData(BindForm.Upn, "not the password", CheckVerdict.Fail)]
        [InlineData(BindForm.ShortName, SignInTestScene.PersonPassword, CheckVerdict.Pass)]
        [InlineData(BindForm.ShortName, "not the password", CheckVerdict.Fail)]
        public async Task Who_signs_in_binds_by_a_template(BindForm form, string password, CheckVerdict verdict) =>
            await BindsAsync(AsPerson(form), password, verdict);

        [Fact]
        public async Task The_catalog_of_the_forest_answers_on_its_own_ports()
        {
            var catalog = server.Directory with
            {
                Offers = new Dictionary<WireSecurity, int> { [WireSecurity.Tls] = 3269, [WireSecurity.Plain] = 3268 },
                IsCatalog = true,
            };
            var good = await Scene.TryAsync(Scene.Plan(WireSecurity.Tls, directory: catalog));
            Of(good, "catalog").ShouldBe((CheckVerdict.Pass, null), Words(good));
            Of(good, "people").ShouldBe((CheckVerdict.Pass, null), Words(good));
            Of(good, "bind-writes").Verdict.ShouldBe(CheckVerdict.Unseen, Words(good));
            Of(good, "person-signs-in").ShouldBe((CheckVerdict.Pass, null), Words(good));
            var shown = await Scene.TryAsync(
                Scene.Plan(WireSecurity.Tls, directory: catalog, fields: Field("photo", SettingKeys.Photo)));
            Of(shown, "catalog").ShouldBe((CheckVerdict.Caution, SignInCause.NotInCatalog), Words(shown));
            var found = await Scene.TryAsync(Scene.Plan(WireSecurity.Tls, directory: catalog) with
            {
                FurtherParts = [FilterParser.Parse("(department=*)")],
            });
            Of(found, "catalog").ShouldBe((CheckVerdict.Fail, SignInCause.NotInCatalog), Words(found));
        }

        [Fact]
        public async Task A_primary_group_counts_where_the_product_counts_it()
        {
            const string name = "w.primary";
            var token = Write(c =>
            {
                Scene.WritePerson(c, name);
                c.SendRequest(new ModifyRequest(Scene.Enter, DirectoryAttributeOperation.Add, "member", Scene.DnOf(name)));
                var read = (SearchResponse)c.SendRequest(
                    new SearchRequest(Scene.Enter, "(objectClass=*)", SearchScope.Base, "primaryGroupToken"));
                var primary = (string)read.Entries[0].Attributes["primaryGroupToken"][0];
                c.SendRequest(new ModifyRequest(
                    Scene.DnOf(name), DirectoryAttributeOperation.Replace, "primaryGroupID", primary));
                return primary;
            });
            token.ShouldNotBeEmpty();
            var plan = Scene.Plan(WireSecurity.Tls, i => i with { MayEnter = name });
            plan = plan with { Wants = plan.Wants with { Nested = NestedGroups.ByProduct } };
            var not = await Scene.TryAsync(plan);
            Of(not, "person").ShouldBe((CheckVerdict.Fail, SignInCause.PrimaryGroup), Words(not));
            var counted = await Scene.TryAsync(plan with { Wants = plan.Wants with { CountsPrimaryGroup = true } });
            Of(counted, "person").ShouldBe((CheckVerdict.Pass, null), Words(counted));
        }
    }

    public ValueTask InitializeAsync()
    {
        if (!There(Plants))
            Write(c =>
            {
                if (!There(Scene.DnOf("anna"))) Scene.Write(c);
                Scene.WriteBranch(c, Plants);
                Scene.WriteBranch(c, $"ou=Deep,{Plants}");
                Scene.WritePerson(c, "w.anna", Plants, ("mail", "w.anna@fennmoor.example"), ("title", "keeper"));
                Scene.WritePerson(c, "w.ben", Plants, ("mail", "w.ben@fennmoor.example"), ("telephoneNumber", "7"));
                Scene.WritePerson(c, "w.benno", Plants, ("mail", "W.Ben@fennmoor.example"));
                Scene.WritePerson(c, "w.cleo", Plants);
                Scene.WritePerson(c, "w.deep", $"ou=Deep,{Plants}", ("mail", "w.deep@fennmoor.example"));
                return 0;
            });
        var root = _server.Directory.Root.Text;
        Scene.BindIs(AdLike ? $"CN=svc-roster,{root}" : $"uid=roster-reader,ou=Services,{root}");
        return ValueTask.CompletedTask;
    }

    public ValueTask DisposeAsync()
    {
        GC.SuppressFinalize(this);
        return ValueTask.CompletedTask;
    }

    [Fact]
    public async Task Each_other_server_is_looked_at()
    {
        var directory = _server.Directory with { OtherHosts = [_server.Directory.Host, "127.0.0.99", "localhost"] };
        var test = await Scene.TryAsync(
            Scene.Plan(WireSecurity.Tls, directory: directory),
            resolve: (host, _) => Task.FromResult<IPAddress[]>(
                [IPAddress.Parse(host == "127.0.0.99" ? host : _server.Directory.Host)]));
        Of(test, $"server/{_server.Directory.Host}").ShouldBe((CheckVerdict.Pass, null), Words(test));
        Of(test, "server/127.0.0.99").ShouldBe((CheckVerdict.Fail, SignInCause.Silent), Words(test));
        Of(test, "server/localhost").ShouldBe((CheckVerdict.Fail, SignInCause.CertificateName), Words(test));
        Of(test, "bind").Verdict.ShouldBe(CheckVerdict.Pass, Words(test));
    }

    [Theory]
    [InlineData(SearchDepth.Subtree)]
    [InlineData(SearchDepth.OneLevel)]
    public async Task Several_branches_are_searched_as_deep_as_people_are(SearchDepth depth)
    {
        var directory = _server.Directory with
        {
            MorePeopleIn = [DistinguishedName.Parse(Plants), DistinguishedName.Parse($"ou=Deep,{Plants}")],
            PeopleDepth = depth,
        };
        var plan = Everybody(directory);
        var expected = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        foreach (var branch in SettingsMaker.Make(plan).Find(SettingKeys.PeopleBase, null)!.Values)
            expected.UnionWith((await LdapTools.SearchAsync(
                directory.Address(WireSecurity.Tls), directory.CaFolder!, Scene.Bind, SignInTestScene.BindPassword, branch,
                SettingsMaker.Make(plan)[SettingKeys.PeopleFilter]!,
                scope: depth switch { SearchDepth.Subtree => "sub", SearchDepth.OneLevel => "one" })).ShouldNotBeNull());
        expected.Count.ShouldBeGreaterThan(8);
        var test = await Scene.TryAsync(plan);
        test.People.ShouldNotBeNull(Words(test)).Found.ShouldBe(expected.Count, Words(test));
        var alone = await Scene.TryAsync(Everybody(directory with
        {
            PeopleIn = DistinguishedName.Parse(Plants),
            MorePeopleIn = [],
        }) with
        {
            Install = plan.Install with { MayEnter = "w.deep" },
        });
        Of(alone, "person").ShouldBe(
            depth == SearchDepth.OneLevel ? (CheckVerdict.Fail, SignInCause.OutsideBase) : (CheckVerdict.Pass, null),
            Words(alone));
    }

    [Theory]
    [InlineData("w.anna", CheckVerdict.Pass, null)]
    [InlineData("w.ben", CheckVerdict.Fail, SignInCause.SharedName)]
    [InlineData("w.cleo", CheckVerdict.Fail, SignInCause.NothingToType)]
    public async Task What_people_type_means_one_of_them(string name, CheckVerdict verdict, SignInCause? cause)
    {
        var plan = InPlants(name) with { PeopleType = [TypedForm.Mail] };
        var test = await Scene.TryAsync(plan);
        Of(test, "person").ShouldBe((verdict, cause), Words(test));
        Of(test, "special-characters").Verdict.ShouldBe(CheckVerdict.Pass, Words(test));
        var either = await Scene.TryAsync(plan with { PeopleType = [TypedForm.Mail, TypedForm.LogonName] });
        Of(either, "person").Verdict.ShouldBe(
            name == "w.ben" ? CheckVerdict.Fail : CheckVerdict.Pass, Words(either));
    }

    [Fact]
    public async Task Further_parts_and_exclusions_are_what_the_directory_answers()
    {
        var plan = Everybody(_server.Directory with { PeopleIn = DistinguishedName.Parse(Plants) }) with
        {
            FurtherParts = [FilterParser.Parse("(mail=*)"), new Filter.Not(FilterParser.Parse("(title=keeper)"))],
        };
        var test = await Scene.TryAsync(plan);
        test.People.ShouldNotBeNull(Words(test)).Found.ShouldBe(3, Words(test));
    }

    [Fact]
    public async Task What_the_product_reads_of_a_person_and_is_not_there_is_told()
    {
        var plan = InPlants("w.ben");
        plan = plan with
        {
            Wants = plan.Wants with
            {
                Settings = [plan.Wants.Settings[0] with
                {
                    Fields = [Field("m", SettingKeys.Mail), Field("p", SettingKeys.Phone), Field("t", SettingKeys.JobTitle)],
                }],
            },
        };
        var test = await Scene.TryAsync(plan);
        Of(test, "person-attributes").ShouldBe((CheckVerdict.Caution, SignInCause.AttributeEmpty), Words(test));
        var fact = test.Checks.Single(c => c.Id == "person-attributes").Fact;
        fact.ShouldContain("title (job-title)");
        fact.ShouldNotContain("mail");
        fact.ShouldNotContain("telephoneNumber");
        var elsewhere = await Scene.TryAsync(plan with
        {
            Directory = plan.Directory with { Attributes = new Dictionary<string, string> { [SettingKeys.JobTitle] = "sn" } },
        });
        Of(elsewhere, "person-attributes").ShouldBe((CheckVerdict.Pass, null), Words(elsewhere));
    }

    [Theory]
    [InlineData("roster-drivers", "emil", CheckVerdict.Pass, null)]
    [InlineData("roster-staff", "anna", CheckVerdict.Pass, null)]
    [InlineData("roster-drivers", "anna", CheckVerdict.Fail, SignInCause.NotInGroup)]
    [InlineData("roster-staff", "emil", CheckVerdict.Fail, SignInCause.OnlyNested)]
    [InlineData("gone", "anna", CheckVerdict.Fail, SignInCause.GroupMissing)]
    [InlineData("roster-staff", "nobody", CheckVerdict.Fail, SignInCause.NotInDirectory)]
    [InlineData("roster-staff", null, CheckVerdict.Unseen, SignInCause.NothingExpected)]
    public async Task A_role_is_proved_by_one_person(string group, string? person, CheckVerdict verdict, SignInCause? cause)
    {
        var plan = Everybody(_server.Directory);
        var test = await Scene.TryAsync(plan with
        {
            Roles = [
                new PlannedRole("one", "One", [new RoleGroup(group, Scene.GroupDn(group))], person),
                new PlannedRole("other", "Other", [new RoleGroup("roster-staff", Scene.Enter)], "anna")],
        });
        Of(test, "role/one").ShouldBe((verdict, cause), Words(test));
        Of(test, "role/other").Verdict.ShouldBe(CheckVerdict.Pass, Words(test));
        if (cause != SignInCause.OnlyNested) return;
        var nested = await Scene.TryAsync(plan with
        {
            Wants = plan.Wants with { Nested = NestedGroups.ByProduct },
            Roles = [new PlannedRole("one", "One", [new RoleGroup(group, Scene.GroupDn(group))], person)],
        });
        Of(nested, "role/one").Verdict.ShouldBe(CheckVerdict.Pass, Words(nested));
    }

    protected async Task BindsAsync(PlannedSignIn plan, string? password, CheckVerdict verdict)
    {
        var test = await Scene.TryAsync(plan, personPassword: password);
        Of(test, "bind").ShouldBe(
            (verdict, verdict switch
            {
                CheckVerdict.Fail => SignInCause.WrongPassword,
                CheckVerdict.Unseen => SignInCause.PasswordNotKnown,
                CheckVerdict.Pass or CheckVerdict.Caution => null,
            }),
            Words(test));
        test.Checks.ShouldNotContain(c => c.Id == "bind-writes" || c.Id == "person-signs-in", Words(test));
        if (verdict == CheckVerdict.Pass) Of(test, "person").ShouldBe((CheckVerdict.Pass, null), Words(test));
    }

    /// <summary>A product that binds as the person who signs in.</summary>
    protected PlannedSignIn AsPerson(BindForm form)
    {
        var plan = Everybody(_server.Directory);
        return plan with
        {
            Wants = plan.Wants with { BindsAs = BindsAs.Person, BindForm = form },
            BindDn = null,
            BindLogonName = null,
        };
    }

    protected static SettingsField Field(string name, string key) =>
        new(name, key, null, new Dictionary<string, string>(), Here);

    protected static (CheckVerdict Verdict, SignInCause? Cause) Of(SignInTest test, string id)
    {
        var check = test.Checks.SingleOrDefault(c => c.Id == id).ShouldNotBeNull($"no check {id}\n{Words(test)}");
        return (check.Verdict, check.Cause);
    }

    protected static string Words(SignInTest test) =>
        string.Join('\n', test.Checks.Select(c => $"{c.Verdict} {c.Id} ({c.Cause}): {c.Fact} -> {c.Fix}"));

    protected T Write<T>(Func<LdapConnection, T> write)
    {
        using var connection = _server.Write();
        return write(connection);
    }

    /// <summary>Where no group has a say.</summary>
    private PlannedSignIn Everybody(PeopleDirectory directory)
    {
        var plan = Scene.Plan(
            WireSecurity.Tls,
            i => i with { MayEnter = "anna", MayNotEnter = [], ExpectedNames = [], ExpectedPeople = null }, directory);
        return plan with
        {
            EnterDn = null,
            EnterName = null,
            Wants = plan.Wants with
            {
                Bases = ProductBases.Several,
                Depths = [SearchDepth.Subtree, SearchDepth.OneLevel],
                Enter = null,
                Nested = NestedGroups.No,
            },
        };
    }

    private PlannedSignIn InPlants(string name)
    {
        var plan = Everybody(_server.Directory with { PeopleIn = DistinguishedName.Parse(Plants) });
        return plan with { Install = plan.Install with { MayEnter = name } };
    }

    private bool There(string dn) => Write(c =>
    {
        try
        {
            var request = new SearchRequest(dn, "(objectClass=*)", SearchScope.Base, "1.1");
            return ((SearchResponse)c.SendRequest(request)).Entries.Count > 0;
        }
        catch (DirectoryOperationException)
        {
            return false;
        }
    });
}
