using JustRight.Core.Directory;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.Settings;

namespace JustRight.Core.Tests.SignIn;

public sealed class SettingsTests
{
    private static readonly InstallSignIn Nothing = new("staff", new Faults.Origin("install.yaml", 3, 1));

    [Theory]
    [InlineData(SettingKeys.Address, "ldaps://fm-dc01:636")]
    [InlineData(SettingKeys.BindName, "CN=svc-reader,OU=Service,DC=x")]
    [InlineData(SettingKeys.BindPassword, "<secret: svc-reader>")]
    [InlineData(
        SettingKeys.PeopleFilter,
        "(&(objectCategory=person)(objectClass=user)(!(userAccountControl:1.2.840.113556.1.4.803:=2))(memberOf:1.2.840.113556.1.4.1941:=CN=app-staff,OU=Groups,DC=x))")]
    [InlineData(
        SettingKeys.SignInFilter,
        "(&(objectCategory=person)(objectClass=user)(!(userAccountControl:1.2.840.113556.1.4.803:=2))(memberOf:1.2.840.113556.1.4.1941:=CN=app-staff,OU=Groups,DC=x)(sAMAccountName={0}))")]
    [InlineData(SettingKeys.GroupsFilter, "(&(objectClass=group)(cn=app-*)(!(isCriticalSystemObject=TRUE)))")]
    [InlineData(SettingKeys.LogonName, "sAMAccountName")]
    [InlineData(SettingKeys.NestedGroups, "yes")]
    [InlineData(SettingKeys.PageSize, "500")]
    [InlineData(SettingKeys.ShortDomain, "FENNMOOR")]
    public void On_an_AD_like_directory(string key, string value) =>
        SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Staff))[key].ShouldBe(value);

    [Theory]
    [InlineData(SettingKeys.PeopleFilter, "(&(objectClass=inetOrgPerson)(memberOf=cn=app-staff,ou=Groups,dc=c,dc=x))")]
    [InlineData(SettingKeys.GroupsFilter, "(&(objectClass=groupOfNames)(cn=app-*))")]
    [InlineData(SettingKeys.LogonName, "uid")]
    [InlineData(SettingKeys.UniqueId, "entryUUID")]
    [InlineData(SettingKeys.NestedGroups, "no")]
    [InlineData(SettingKeys.Member, "member")]
    [InlineData(SettingKeys.Domain, null)]
    public void On_a_directory_of_inetOrgPerson(string key, string? value) =>
        SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Contractors))[key].ShouldBe(value);

    [Theory]
    [InlineData(BindForm.Upn, "svc-reader@fennmoor.example")]
    [InlineData(BindForm.ShortName, "FENNMOOR\\svc-reader")]
    public void The_bind_account_is_written_as_the_product_wants_it(BindForm form, string value) =>
        SettingsMaker.Make(SettingsScene.Plan(
            SettingsScene.Staff, SettingsScene.Wants with { BindForm = form }))[SettingKeys.BindName]
            .ShouldBe(value);

    [Fact]
    public void Without_a_back_link_the_group_is_looked_up_and_the_settings_say_so()
    {
        var plan = SettingsScene.Plan(SettingsScene.Contractors with { BackLink = false, Groups = Estates.GroupKind.PosixGroup });
        var settings = SettingsMaker.Make(plan);
        settings[SettingKeys.PeopleFilter].ShouldBe("(objectClass=inetOrgPerson)");
        settings[SettingKeys.MemberOf].ShouldBeNull();
        (settings[SettingKeys.GroupClass], settings[SettingKeys.Member], settings[SettingKeys.MemberHolds])
            .ShouldBe(("posixGroup", "memberUid", "logon-name"));
        Codes(plan).ShouldContain("group-not-in-filter");
        Codes(plan).ShouldContain("not-known");
    }

    [Fact]
    public void What_only_a_survey_knows_is_not_guessed()
    {
        var plan = SettingsScene.Plan(SettingsScene.Staff) with { BindDn = null, EnterDn = null };
        var settings = SettingsMaker.Make(plan);
        settings[SettingKeys.BindName].ShouldBeNull();
        settings[SettingKeys.PeopleFilter].ShouldBeNull();
        settings.Fields.Single(f => f.Name == "who").Value.ShouldBeNull();
        Codes(plan).Count(c => c == "not-known").ShouldBe(2);
        SettingsMaker.Make(plan.Located(name => $"CN={name},DC=x"))[SettingKeys.BindName].ShouldBe("CN=svc-reader,DC=x");
    }

    [Fact]
    public void Fields_speak_the_products_own_words_and_secrets_stay_references()
    {
        var fields = SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Staff)).Fields;
        fields.Single(f => f.Name == "lock").Value.ShouldBe("SEALED");
        fields.Single(f => f.Name == "secret").IsReference.ShouldBeTrue();
    }

    [Fact]
    public void One_base_is_the_nearest_branch_that_has_both()
    {
        var wants = SettingsScene.Wants with { Bases = ProductBases.One };
        SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Staff, wants))[SettingKeys.Base].ShouldBe("DC=x");
        SettingsMaker.Make(SettingsScene.Plan(
            SettingsScene.Staff with { GroupsIn = SettingsScene.Name("OU=Teams,OU=People,DC=x") }, wants))[SettingKeys.Base]
            .ShouldBe("OU=People,DC=x");
    }

    [Fact]
    public void Every_value_among_the_settings_has_its_reason_and_its_place_in_the_table()
    {
        foreach (var directory in new[] { SettingsScene.Staff, SettingsScene.Contractors })
        {
            var settings = SettingsMaker.Make(SettingsScene.Plan(directory));
            settings.Settings.ShouldAllBe(s => s.Because.Length > 5);
            settings.Settings.Select(s => s.Key)
                .ShouldBe(SettingKeys.All.Select(k => k.Key).Where(k => settings.Settings.Any(s => s.Key == k)));
        }
    }

    [Fact]
    public void A_product_does_not_ask_for_more_than_the_directory_gives()
    {
        SettingsMaker.Make(SettingsScene.Plan(
            SettingsScene.Staff, SettingsScene.Wants with { PageSize = 5000 }))[SettingKeys.PageSize]
            .ShouldBe("1000");
        SettingsMaker.Make(SettingsScene.Plan(
            SettingsScene.Contractors, SettingsScene.Wants with { PageSize = 5000 }))[SettingKeys.PageSize]
            .ShouldBe("5000");
        SettingsMaker.Make(SettingsScene.Plan(
            SettingsScene.Staff, SettingsScene.Wants with { PageSize = null }))[SettingKeys.PageSize]
            .ShouldBeNull();
    }

    [Fact]
    public void A_placeholder_may_have_what_filters_give_a_meaning()
    {
        var text = SettingsMaker.Make(
            SettingsScene.Plan(
                SettingsScene.Contractors, SettingsScene.Wants with { TypedName = "$(login*)" }))[SettingKeys.SignInFilter]
            .ShouldNotBeNull();
        text.ShouldEndWith("(uid=$(login*)))");
        FilterParser.TryParse(text.Replace("$(login*)", FilterValue.Of("a*b").Escaped, StringComparison.Ordinal), out _, out _)
            .ShouldBeTrue();
    }

    [Fact]
    public void Plain_text_does_not_pass_unnoticed()
    {
        var wants = SettingsScene.Wants with { Security = [WireSecurity.Plain] };
        Weight("plain-text", SettingsScene.Plan(SettingsScene.Staff, wants, WireSecurity.Plain)).ShouldBe(FindingWeight.Wrong);
        Weight(
            "plain-text-allowed",
            SettingsScene.Plan(SettingsScene.Staff with { PlainTextBecause = "a simulation" }, wants, WireSecurity.Plain))
            .ShouldBe(FindingWeight.Caution);
        Codes(SettingsScene.Plan(SettingsScene.Staff)).ShouldNotContain("plain-text");
    }

    [Fact]
    public void Values_that_do_not_go_together_are_found()
    {
        Weight("group-outside", SettingsScene.Plan(SettingsScene.Staff) with { EnterDn = "CN=app-staff,OU=Elsewhere,DC=x" })
            .ShouldBe(FindingWeight.Wrong);
        Weight("bind-outside", SettingsScene.Plan(SettingsScene.Staff)).ShouldBe(FindingWeight.Caution);
        Codes(SettingsScene.Plan(SettingsScene.Staff) with { BindDn = "CN=svc,OU=People,DC=x" }).ShouldNotContain("bind-outside");
        Weight("everyone", SettingsScene.Plan(SettingsScene.Staff) with { EnterName = null, EnterDn = null })
            .ShouldBe(FindingWeight.Caution);
        Weight(
            "built-in-groups",
            SettingsScene.Plan(SettingsScene.Staff, SettingsScene.Wants with { Groups = new SheetGroupList([], true, default!) }))
            .ShouldBe(FindingWeight.Caution);
        Weight(
            "too-many",
            SettingsScene.Plan(
                SettingsScene.Staff, SettingsScene.Wants with { PageSize = null },
                install: Nothing with { ExpectedPeople = 1001 }))
            .ShouldBe(FindingWeight.Wrong);
        Codes(SettingsScene.Plan(
            SettingsScene.Staff, SettingsScene.Wants with { PageSize = null }, install: Nothing with { ExpectedPeople = 1000 }))
            .ShouldNotContain("too-many");
        Codes(SettingsScene.Plan(SettingsScene.Staff, install: Nothing with { ExpectedPeople = 1001 }))
            .ShouldNotContain("too-many");
    }

    [Theory]
    [InlineData("OU=People ", "space-at-end")]
    [InlineData(" x", "space-at-end")]
    [InlineData("a\tb", "control-character")]
    public void A_value_with_what_nobody_sees_is_found(string text, string code)
    {
        var field = new SettingsField("fixed", null, text, new Dictionary<string, string>(), default!);
        Weight(
            code,
            SettingsScene.Plan(
                SettingsScene.Staff,
                SettingsScene.Wants with { Settings = [SettingsScene.Wants.Settings[0] with { Fields = [field] }] }))
            .ShouldBe(FindingWeight.Wrong);
    }

    [Fact]
    public void Against_the_people_last_read()
    {
        PeopleObject[] objects =
        [
            Person("CN=Anna,OU=People,DC=x", "512", "CN=app-staff,OU=Groups,DC=x"),
            new(
                "CN=app-staff,OU=Groups,DC=x",
                Values(
                    ("objectClass", "group"), ("cn", "app-staff"), ("member", "CN=Anna,OU=People,DC=x"),
                    ("member", "CN=crew,OU=Groups,DC=x"))),
            new("CN=crew,OU=Groups,DC=x", Values(("objectClass", "group"), ("cn", "crew"))),
        ];
        var table = new ObjectTable(PeopleSchemas.AdLike, objects);
        Codes(SettingsScene.Plan(SettingsScene.Staff), table).ShouldBe(["bind-outside"]);
        Codes(SettingsScene.Plan(SettingsScene.Staff, SettingsScene.Wants with { Nested = NestedGroups.No }), table)
            .ShouldContain("groups-inside");
        Codes(SettingsScene.Plan(SettingsScene.Staff) with { EnterDn = "CN=crew,OU=Groups,DC=x" }, table)
            .ShouldContain("finds-nothing");
        Codes(
            SettingsScene.Plan(
                SettingsScene.Staff, SettingsScene.Wants with { Groups = new SheetGroupList(["zz-"], false, default!) }),
            table)
            .ShouldContain("finds-nothing");
        Codes(SettingsScene.Plan(SettingsScene.Staff), new ObjectTable(PeopleSchemas.InetOrgPerson, objects))
            .ShouldContain("unknown-attribute");
        Codes(SettingsScene.Plan(SettingsScene.Staff)).ShouldContain("no-people-read");
        var unread = SettingsScene.Plan(SettingsScene.Staff);
        SettingsChecks.Check(unread, SettingsMaker.Make(unread), null, "no account is named")
            .Single(f => f.Weight == FindingWeight.Unseen).Text.ShouldBe("The filters were not tested: no account is named");
    }

    private static PeopleObject Person(string dn, string control, string group) =>
        new(
            dn,
            Values(
                ("objectClass", "user"), ("objectCategory", "CN=Person,CN=Schema,CN=Configuration"),
                ("userAccountControl", control), ("memberOf", group), ("sAMAccountName", "anna")));

    private static Dictionary<string, IReadOnlyList<string>> Values(params (string Attribute, string Value)[] values) =>
        values.GroupBy(v => v.Attribute)
            .ToDictionary(v => v.Key, v => (IReadOnlyList<string>)[.. v.Select(x => x.Value)], StringComparer.OrdinalIgnoreCase);

    private static IReadOnlyList<SettingsFinding> Findings(PlannedSignIn plan, ObjectTable? people = null) =>
        SettingsChecks.Check(plan, SettingsMaker.Make(plan), people);

    private static List<string> Codes(PlannedSignIn plan, ObjectTable? people = null) =>
        [.. Findings(plan, people).Select(f => f.Code)];

    private static FindingWeight Weight(string code, PlannedSignIn plan) => Findings(plan).First(f => f.Code == code).Weight;
}
