using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Cards;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Tests.SignIn;

public sealed class CardTests
{
    private static readonly InstallSignIn Nothing = new("staff", new Faults.Origin("install.yaml", 3, 1));

    [Theory]
    [InlineData(CardKeys.Address, "ldaps://fm-dc01:636")]
    [InlineData(CardKeys.BindName, "CN=svc-reader,OU=Service,DC=x")]
    [InlineData(CardKeys.BindPassword, "<secret: svc-reader>")]
    [InlineData(CardKeys.PeopleFilter, "(&(objectCategory=person)(objectClass=user)(!(userAccountControl:1.2.840.113556.1.4.803:=2))(memberOf:1.2.840.113556.1.4.1941:=CN=app-staff,OU=Groups,DC=x))")]
    [InlineData(CardKeys.SignInFilter, "(&(objectCategory=person)(objectClass=user)(!(userAccountControl:1.2.840.113556.1.4.803:=2))(memberOf:1.2.840.113556.1.4.1941:=CN=app-staff,OU=Groups,DC=x)(sAMAccountName={0}))")]
    [InlineData(CardKeys.GroupsFilter, "(&(objectClass=group)(cn=app-*)(!(isCriticalSystemObject=TRUE)))")]
    [InlineData(CardKeys.LogonName, "sAMAccountName")]
    [InlineData(CardKeys.NestedGroups, "yes")]
    [InlineData(CardKeys.PageSize, "500")]
    [InlineData(CardKeys.ShortDomain, "FENNMOOR")]
    public void On_an_AD_like_directory(string key, string value) => CardMaker.Make(CardScene.Plan(CardScene.Staff))[key].ShouldBe(value);

    [Theory]
    [InlineData(CardKeys.PeopleFilter, "(&(objectClass=inetOrgPerson)(memberOf=cn=app-staff,ou=Groups,dc=c,dc=x))")]
    [InlineData(CardKeys.GroupsFilter, "(&(objectClass=groupOfNames)(cn=app-*))")]
    [InlineData(CardKeys.LogonName, "uid")]
    [InlineData(CardKeys.UniqueId, "entryUUID")]
    [InlineData(CardKeys.NestedGroups, "no")]
    [InlineData(CardKeys.Member, "member")]
    [InlineData(CardKeys.Domain, null)]
    public void On_a_directory_of_inetOrgPerson(string key, string? value) => CardMaker.Make(CardScene.Plan(CardScene.Contractors))[key].ShouldBe(value);

    [Theory]
    [InlineData(BindForm.Upn, "svc-reader@fennmoor.example")]
    [InlineData(BindForm.ShortName, "FENNMOOR\\svc-reader")]
    public void The_bind_account_is_written_as_the_product_wants_it(BindForm form, string value) => CardMaker.Make(CardScene.Plan(CardScene.Staff, CardScene.Wants with { BindForm = form }))[CardKeys.BindName].ShouldBe(value);

    [Fact]
    public void Without_a_back_link_the_group_is_looked_up_and_the_card_says_so()
    {
        var plan = CardScene.Plan(CardScene.Contractors with { BackLink = false, Groups = Estates.GroupKind.PosixGroup });
        var card = CardMaker.Make(plan);
        card[CardKeys.PeopleFilter].ShouldBe("(objectClass=inetOrgPerson)");
        card[CardKeys.MemberOf].ShouldBeNull();
        (card[CardKeys.GroupClass], card[CardKeys.Member], card[CardKeys.MemberHolds]).ShouldBe(("posixGroup", "memberUid", "logon-name"));
        Codes(plan).ShouldContain("group-not-in-filter");
        Codes(plan).ShouldContain("not-known");
    }

    [Fact]
    public void What_only_a_survey_knows_is_not_guessed()
    {
        var plan = CardScene.Plan(CardScene.Staff) with { BindDn = null, EnterDn = null };
        var card = CardMaker.Make(plan);
        card[CardKeys.BindName].ShouldBeNull();
        card[CardKeys.PeopleFilter].ShouldBeNull();
        card.Fields.Single(f => f.Name == "who").Value.ShouldBeNull();
        Codes(plan).Count(c => c == "not-known").ShouldBe(2);
        CardMaker.Make(plan.Located(name => $"CN={name},DC=x"))[CardKeys.BindName].ShouldBe("CN=svc-reader,DC=x");
    }

    [Fact]
    public void Fields_speak_the_products_own_words_and_secrets_stay_references()
    {
        var fields = CardMaker.Make(CardScene.Plan(CardScene.Staff)).Fields;
        fields.Single(f => f.Name == "lock").Value.ShouldBe("SEALED");
        fields.Single(f => f.Name == "secret").IsReference.ShouldBeTrue();
    }

    [Fact]
    public void One_base_is_the_nearest_branch_that_has_both()
    {
        var wants = CardScene.Wants with { OneBase = true };
        CardMaker.Make(CardScene.Plan(CardScene.Staff, wants))[CardKeys.Base].ShouldBe("DC=x");
        CardMaker.Make(CardScene.Plan(CardScene.Staff with { GroupsIn = CardScene.Name("OU=Teams,OU=People,DC=x") }, wants))[CardKeys.Base].ShouldBe("OU=People,DC=x");
    }

    [Fact]
    public void Every_value_on_a_card_has_its_reason_and_its_place_in_the_table()
    {
        foreach (var directory in new[] { CardScene.Staff, CardScene.Contractors })
        {
            var card = CardMaker.Make(CardScene.Plan(directory));
            card.Settings.ShouldAllBe(s => s.Because.Length > 5);
            card.Settings.Select(s => s.Key).ShouldBe(CardKeys.All.Select(k => k.Key).Where(k => card.Settings.Any(s => s.Key == k)));
        }
    }

    [Fact]
    public void A_product_does_not_ask_for_more_than_the_directory_gives()
    {
        CardMaker.Make(CardScene.Plan(CardScene.Staff, CardScene.Wants with { PageSize = 5000 }))[CardKeys.PageSize].ShouldBe("1000");
        CardMaker.Make(CardScene.Plan(CardScene.Contractors, CardScene.Wants with { PageSize = 5000 }))[CardKeys.PageSize].ShouldBe("5000");
        CardMaker.Make(CardScene.Plan(CardScene.Staff, CardScene.Wants with { PageSize = null }))[CardKeys.PageSize].ShouldBeNull();
    }

    [Fact]
    public void A_placeholder_may_have_what_filters_give_a_meaning()
    {
        var text = CardMaker.Make(CardScene.Plan(CardScene.Contractors, CardScene.Wants with { TypedName = "$(login*)" }))[CardKeys.SignInFilter].ShouldNotBeNull();
        text.ShouldEndWith("(uid=$(login*)))");
        FilterParser.TryParse(text.Replace("$(login*)", FilterValue.Of("a*b").Escaped, StringComparison.Ordinal), out _, out _).ShouldBeTrue();
    }

    [Fact]
    public void Plain_text_does_not_pass_unnoticed()
    {
        var wants = CardScene.Wants with { Security = [WireSecurity.Plain] };
        Weight("plain-text", CardScene.Plan(CardScene.Staff, wants, WireSecurity.Plain)).ShouldBe(CardWeight.Wrong);
        Weight("plain-text-allowed", CardScene.Plan(CardScene.Staff with { PlainTextBecause = "a lab" }, wants, WireSecurity.Plain)).ShouldBe(CardWeight.Caution);
        Codes(CardScene.Plan(CardScene.Staff)).ShouldNotContain("plain-text");
    }

    [Fact]
    public void Values_that_do_not_go_together_are_found()
    {
        Weight("group-outside", CardScene.Plan(CardScene.Staff) with { EnterDn = "CN=app-staff,OU=Elsewhere,DC=x" }).ShouldBe(CardWeight.Wrong);
        Weight("bind-outside", CardScene.Plan(CardScene.Staff)).ShouldBe(CardWeight.Caution);
        Codes(CardScene.Plan(CardScene.Staff) with { BindDn = "CN=svc,OU=People,DC=x" }).ShouldNotContain("bind-outside");
        Weight("everyone", CardScene.Plan(CardScene.Staff) with { EnterName = null, EnterDn = null }).ShouldBe(CardWeight.Caution);
        Weight("built-in-groups", CardScene.Plan(CardScene.Staff, CardScene.Wants with { Groups = new SheetGroupList([], true, default!) })).ShouldBe(CardWeight.Caution);
        Weight("too-many", CardScene.Plan(CardScene.Staff, CardScene.Wants with { PageSize = null }, install: Nothing with { ExpectedPeople = 1001 })).ShouldBe(CardWeight.Wrong);
        Codes(CardScene.Plan(CardScene.Staff, CardScene.Wants with { PageSize = null }, install: Nothing with { ExpectedPeople = 1000 })).ShouldNotContain("too-many");
        Codes(CardScene.Plan(CardScene.Staff, install: Nothing with { ExpectedPeople = 1001 })).ShouldNotContain("too-many");
    }

    [Theory]
    [InlineData("OU=People ", "space-at-end")]
    [InlineData(" x", "space-at-end")]
    [InlineData("a\tb", "control-character")]
    public void A_value_with_what_nobody_sees_is_found(string text, string code)
    {
        var field = new SettingsField("fixed", null, text, new Dictionary<string, string>(), default!);
        Weight(code, CardScene.Plan(CardScene.Staff, CardScene.Wants with { Settings = CardScene.Wants.Settings with { Fields = [field] } })).ShouldBe(CardWeight.Wrong);
    }

    [Fact]
    public void Against_the_people_last_read()
    {
        PeopleObject[] objects =
        [
            Person("CN=Anna,OU=People,DC=x", "512", "CN=app-staff,OU=Groups,DC=x"),
            new("CN=app-staff,OU=Groups,DC=x", Values(("objectClass", "group"), ("cn", "app-staff"), ("member", "CN=Anna,OU=People,DC=x"), ("member", "CN=crew,OU=Groups,DC=x"))),
            new("CN=crew,OU=Groups,DC=x", Values(("objectClass", "group"), ("cn", "crew"))),
        ];
        var table = new ObjectTable(PeopleSchemas.AdLike, objects);
        Codes(CardScene.Plan(CardScene.Staff), table).ShouldBe(["bind-outside"]);
        Codes(CardScene.Plan(CardScene.Staff, CardScene.Wants with { Nested = NestedGroups.No }), table).ShouldContain("groups-inside");
        Codes(CardScene.Plan(CardScene.Staff) with { EnterDn = "CN=crew,OU=Groups,DC=x" }, table).ShouldContain("finds-nothing");
        Codes(CardScene.Plan(CardScene.Staff, CardScene.Wants with { Groups = new SheetGroupList(["zz-"], false, default!) }), table).ShouldContain("finds-nothing");
        Codes(CardScene.Plan(CardScene.Staff), new ObjectTable(PeopleSchemas.InetOrgPerson, objects)).ShouldContain("unknown-attribute");
        Codes(CardScene.Plan(CardScene.Staff)).ShouldContain("no-people-read");
        var unread = CardScene.Plan(CardScene.Staff);
        CardChecks.Check(unread, CardMaker.Make(unread), null, "no account is named").Single(f => f.Weight == CardWeight.Unseen).Text.ShouldBe("The filters were not tried: no account is named");
    }

    private static PeopleObject Person(string dn, string control, string group) =>
        new(dn, Values(("objectClass", "user"), ("objectCategory", "CN=Person,CN=Schema,CN=Configuration"), ("userAccountControl", control), ("memberOf", group)));

    private static Dictionary<string, IReadOnlyList<string>> Values(params (string Attribute, string Value)[] values) =>
        values.GroupBy(v => v.Attribute).ToDictionary(v => v.Key, v => (IReadOnlyList<string>)[.. v.Select(x => x.Value)], StringComparer.OrdinalIgnoreCase);

    private static IReadOnlyList<CardFinding> Findings(PlannedSignIn plan, ObjectTable? people = null) => CardChecks.Check(plan, CardMaker.Make(plan), people);

    private static List<string> Codes(PlannedSignIn plan, ObjectTable? people = null) => [.. Findings(plan, people).Select(f => f.Code)];

    private static CardWeight Weight(string code, PlannedSignIn plan) => Findings(plan).First(f => f.Code == code).Weight;
}
