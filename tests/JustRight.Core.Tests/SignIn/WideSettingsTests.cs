using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.Settings;

namespace JustRight.Core.Tests.SignIn;

/// <summary>What applications ask for beyond one server, one base, one filter and one group.</summary>
public sealed class WideSettingsTests
{
    private static readonly Origin Here = new("sheet.yaml", 9, 1);

    private static PeopleDirectory Wide { get; } = SettingsScene.Staff with
    {
        OtherHosts = ["fm-dc02", "fm-dc03"],
        PeopleIn = SettingsScene.Name("ou=Plants , dc=x"),
        MorePeopleIn = [SettingsScene.Name("ou=Offices,dc=x")],
        PeopleDepth = SearchDepth.OneLevel,
        FollowsReferrals = true,
        ConnectSeconds = 3,
        AnswerSeconds = 20,
        Attributes = new Dictionary<string, string> { ["phone"] = "ipPhone", ["display-name"] = "name" },
    };

    private static SheetSignIn Several { get; } = SettingsScene.Wants with
    {
        SeveralServers = true,
        Bases = ProductBases.Several,
        Depths = [SearchDepth.OneLevel, SearchDepth.Subtree],
    };

    [Theory]
    [InlineData(SettingKeys.Addresses, "ldaps://fm-dc01:636\nldaps://fm-dc02:636\nldaps://fm-dc03:636")]
    [InlineData(SettingKeys.Hosts, "fm-dc01\nfm-dc02\nfm-dc03")]
    [InlineData(SettingKeys.Referrals, "yes")]
    [InlineData(SettingKeys.ConnectTimeout, "3")]
    [InlineData(SettingKeys.AnswerTimeout, "20")]
    [InlineData(SettingKeys.PeopleBase, "ou=Plants , dc=x\nou=Offices,dc=x")]
    [InlineData(SettingKeys.PeopleDepth, "one-level")]
    [InlineData(SettingKeys.GroupsDepth, "subtree")]
    [InlineData(SettingKeys.Phone, "ipPhone")]
    [InlineData(SettingKeys.DisplayName, "name")]
    [InlineData(SettingKeys.Photo, "thumbnailPhoto")]
    [InlineData(SettingKeys.Manager, "manager")]
    public void A_directory_of_several_servers_and_branches(string key, string value) =>
        SettingsMaker.Make(SettingsScene.Plan(Wide, Several))[key].ShouldBe(value);

    [Fact]
    public void A_product_with_one_base_looks_below_the_nearest_container_and_the_settings_say_so()
    {
        var plan = SettingsScene.Plan(Wide, SettingsScene.Wants);
        SettingsMaker.Make(plan)[SettingKeys.PeopleBase].ShouldBe("dc=x");
        Codes(plan).ShouldContain("wider-base");
        Codes(plan).ShouldContain("other-depth");
        Codes(SettingsScene.Plan(Wide, Several)).ShouldNotContain("wider-base");
        Codes(SettingsScene.Plan(Wide, Several)).ShouldNotContain("other-depth");
        Weight("other-depth", SettingsScene.Plan(SettingsScene.Staff, Several with { Depths = [SearchDepth.OneLevel] }))
            .ShouldBe(FindingWeight.Wrong);
    }

    [Theory]
    [InlineData("(sAMAccountName={0})", TypedForm.LogonName)]
    [InlineData("(userPrincipalName={0})", TypedForm.Upn)]
    [InlineData("(mail={0})", TypedForm.Mail)]
    [InlineData("(sAMAccountName={0})", TypedForm.ShortName)]
    [InlineData("(|(mail={0})(userPrincipalName={0}))", TypedForm.Mail, TypedForm.Upn)]
    [InlineData("(|(sAMAccountName={0})(mail={0}))", TypedForm.LogonName, TypedForm.ShortName, TypedForm.Mail)]
    public void What_people_type_is_looked_up_where_it_stands(string part, params TypedForm[] forms)
    {
        var plan = SettingsScene.Plan(SettingsScene.Staff) with { PeopleType = forms };
        SettingsMaker.Make(plan)[SettingKeys.SignInFilter].ShouldNotBeNull().ShouldEndWith(part + ")");
        SettingsMaker.Make(plan)[SettingKeys.LogonName].ShouldBe(plan.TypedAttributes[0]);
    }

    [Fact]
    public void Further_parts_and_exclusions_are_in_every_filter()
    {
        var plan = SettingsScene.Plan(SettingsScene.Contractors) with
        {
            FurtherParts = [
                FilterParser.Parse("(&(departmentNumber=7)(mail=*))"),
                new Filter.Not(FilterParser.Parse("(employeeType=robot)"))],
        };
        var settings = SettingsMaker.Make(plan);
        settings[SettingKeys.PeopleFilter].ShouldBe(
            "(&(objectClass=inetOrgPerson)(memberOf=cn=app-staff,ou=Groups,dc=c,dc=x)(departmentNumber=7)(mail=*)"
            + "(!(employeeType=robot)))");
        settings[SettingKeys.SignInFilter].ShouldNotBeNull().ShouldContain("(!(employeeType=robot))(uid={0})");
    }

    [Theory]
    [InlineData(BindForm.Dn, TypedForm.LogonName, "uid={0},ou=People,dc=c,dc=x", false)]
    [InlineData(BindForm.Upn, TypedForm.LogonName, "{0}@fennmoor.example", true)]
    [InlineData(BindForm.Upn, TypedForm.Upn, "{0}", true)]
    [InlineData(BindForm.ShortName, TypedForm.LogonName, "FENNMOOR\\{0}", true)]
    public void Who_signs_in_binds_by_a_template(BindForm form, TypedForm typed, string template, bool adLike)
    {
        var wants = SettingsScene.Wants with { BindsAs = BindsAs.Person, BindForm = form, BindAccount = null };
        var directory = adLike ? SettingsScene.Staff : SettingsScene.Contractors;
        var plan = SettingsScene.Plan(directory, wants) with { PeopleType = [typed] };
        var settings = SettingsMaker.Make(plan);
        settings[SettingKeys.PersonTemplate].ShouldBe(template);
        settings[SettingKeys.BindName].ShouldBeNull();
        settings[SettingKeys.SignInFilter].ShouldBeNull();
        Codes(plan).Contains("template-depth").ShouldBe(form == BindForm.Dn);
    }

    [Fact]
    public void A_certificate_is_named_by_its_files()
    {
        var wants = SettingsScene.Wants with { BindsAs = BindsAs.Certificate };
        var here = new InstallSignIn("staff", Here) { ClientCertificate = "/etc/x/own.pem", ClientKey = "/etc/x/own.key" };
        var settings = SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Staff, wants, install: here));
        (settings[SettingKeys.ClientCertificate], settings[SettingKeys.ClientKey]).ShouldBe(("/etc/x/own.pem", "/etc/x/own.key"));
        settings[SettingKeys.BindPassword].ShouldBeNull();
        SettingsMaker.Make(SettingsScene.Plan(SettingsScene.Staff, wants))[SettingKeys.ClientKey].ShouldBeNull();
    }

    [Fact]
    public void Each_role_has_its_groups_in_the_products_own_fields()
    {
        var wants = SettingsScene.Wants with
        {
            Settings = [SettingsScene.Wants.Settings[0] with
            {
                Fields = [
                    SettingsScene.Field("keepers", "role-group") with { Role = "keeper", Separator = "|" },
                    SettingsScene.Field("keeper-name", "role-name") with { Role = "keeper" },
                    SettingsScene.Field("drivers", "role-group-name") with { Role = "driver", LowerCase = true }],
            }],
        };
        var plan = SettingsScene.Plan(SettingsScene.Staff, wants) with
        {
            Roles = [
                new PlannedRole("keeper", "Keeper", [new("a", "CN=a,DC=x"), new("b", "CN=b,DC=x")], "anna"),
                new PlannedRole("driver", "Driver", [new("Drivers", null), new("b", "CN=b,DC=x")], null)],
        };
        var fields = SettingsMaker.Make(plan).Fields.ToDictionary(f => f.Name, f => f.Value);
        fields["keepers"].ShouldBe("CN=a,DC=x|CN=b,DC=x");
        fields["keeper-name"].ShouldBe("Keeper");
        fields["drivers"].ShouldBe("drivers;b");
        SettingsMaker.Make(plan).Find(SettingKeys.RoleGroup, "driver")!.Values.ShouldBeEmpty();
        SettingsMaker.Make(plan.Located(n => $"CN={n},DC=y")).Find(SettingKeys.RoleGroup, "driver")!.Value
            .ShouldBe("CN=Drivers,DC=y\nCN=b,DC=x");
        Codes(plan).ShouldContain("shared-role-group");
        Codes(plan).Count(c => c == "role-not-tested").ShouldBe(1);
    }

    [Fact]
    public void Units_and_letters_are_the_products_own()
    {
        var wants = Several with
        {
            Settings = [SettingsScene.Wants.Settings[0] with
            {
                Fields = [
                    SettingsScene.Field("ms", "connect-timeout") with { Milliseconds = true },
                    SettingsScene.Field("lower", "logon-name") with { LowerCase = true },
                    SettingsScene.Field("all", "hosts") with { Separator = " " }],
            }],
        };
        SettingsMaker.Make(SettingsScene.Plan(Wide, wants)).Fields.Select(f => f.Value)
            .ShouldBe(["3000", "samaccountname", "fm-dc01 fm-dc02 fm-dc03"]);
    }

    [Theory]
    [InlineData(PeopleReading.AtSignIn, false)]
    [InlineData(PeopleReading.SyncDisables, false)]
    [InlineData(PeopleReading.SyncKeeps, true)]
    [InlineData(PeopleReading.SyncRemoves, true)]
    public void What_becomes_of_people_who_left_is_told_where_it_matters(PeopleReading reading, bool told) =>
        Codes(SettingsScene.Plan(SettingsScene.Staff, SettingsScene.Wants with { Reading = reading }))
            .Contains("who-left").ShouldBe(told);

    [Fact]
    public void Of_the_people_last_read_each_must_have_something_of_their_own_to_type()
    {
        PeopleObject[] people =
        [
            Person("CN=Anna,OU=People,DC=x", ("mail", "anna@fennmoor.example")),
            Person("CN=Ben,OU=People,DC=x", ("mail", "ben@fennmoor.example")),
            Person("CN=Benno,OU=People,DC=x", ("mail", "Ben@fennmoor.example")),
            Person("CN=Cleo,OU=People,DC=x"),
            Person("CN=Elsewhere,OU=Other,DC=x", ("mail", "anna@fennmoor.example")),
        ];
        var table = new ObjectTable(PeopleSchemas.AdLike, people);
        var plan = SettingsScene.Plan(SettingsScene.Staff) with { PeopleType = [TypedForm.Mail] };
        var found = SettingsChecks.Check(plan, SettingsMaker.Make(plan), table);
        found.Single(f => f.Code == "shared-name").Text.ShouldContain("CN=Ben,OU=People,DC=x and CN=Benno,OU=People,DC=x");
        found.Single(f => f.Code == "shared-name").Text.ShouldNotContain("anna@");
        found.Single(f => f.Code == "nothing-to-type").Text.ShouldContain("1 account of 4 found have no mail");
        found.Single(f => f.Code == "nothing-to-type").Weight.ShouldBe(FindingWeight.Wrong);
        var logon = SettingsScene.Plan(SettingsScene.Staff);
        SettingsChecks.Check(logon, SettingsMaker.Make(logon), table)
            .ShouldNotContain(f => f.Code == "shared-name" || f.Code == "nothing-to-type");
    }

    private static PeopleObject Person(string dn, params (string, string)[] values) => new(
        dn, values.Concat(
            [
                ("objectClass", "user"), ("objectCategory", "CN=Person,CN=Schema,CN=Configuration"),
                ("userAccountControl", "512"), ("sAMAccountName", dn[3..dn.IndexOf(',', StringComparison.Ordinal)]),
                ("memberOf", "CN=app-staff,OU=Groups,DC=x")])
            .ToDictionary(v => v.Item1, v => (IReadOnlyList<string>)[v.Item2], StringComparer.OrdinalIgnoreCase));

    private static List<string> Codes(PlannedSignIn plan) =>
        [.. SettingsChecks.Check(plan, SettingsMaker.Make(plan), null).Select(f => f.Code)];

    private static FindingWeight Weight(string code, PlannedSignIn plan) =>
        SettingsChecks.Check(plan, SettingsMaker.Make(plan), null).First(f => f.Code == code).Weight;
}
