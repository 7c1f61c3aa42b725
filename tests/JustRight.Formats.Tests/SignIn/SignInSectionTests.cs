namespace JustRight.Formats.Tests.SignIn;

/// <summary>What is refused in the sections on signing in, with the place and the remedy.</summary>
public sealed class SignInSectionTests
{
    [Theory]
    [InlineData(
        "bind: { account: reader, as: dn }", "bind: { account: raeder, as: dn }", "unknown-account", "sign-in.bind.account", 24)]
    [InlineData("works-as: bind", "works-as: service", "wrong-value", "sign-in.bind.account", 24)]
    [InlineData("enter: staff", "enter: staf", "unknown-group", "sign-in.enter", 27)]
    [InlineData("families: [ad-like]", "families: [ad]", "wrong-value", "sign-in.families[0]", 23)]
    [InlineData("is: people-base }", "is: people-bas }", "unknown-value", "sign-in.settings.fields[4].is", 41)]
    [InlineData("  typed-name: \"{0}\"\n", "", "missing-key", "sign-in.typed-name", 41)]
    [InlineData("typed-on: web-server", "typed-on: web-sever", "unknown-place", "sign-in.settings.typed-on", 33)]
    [InlineData("    form: properties\n", "", "missing-key", "sign-in.settings.form", 33)]
    [InlineData("name: people.post, is: mail", "name: people.key, is: mail", "wrong-value", "sign-in.settings.fields", 37)]
    [InlineData("form: properties", "form: env", "wrong-value", "sign-in.settings.fields", 37)]
    public void A_broken_sheet_gives_a_fault_with_its_place(string part, string instead, string code, string field, int line)
    {
        var (_, faults) = DemoFiles.Sheet(DemoFiles.With("sheets/rennet-roster.yaml", part, instead));
        var fault = faults.FirstOrDefault(f => f.Code == code && f.Field == field).ShouldNotBeNull(string.Join("\n", faults));
        fault.At.Line.ShouldBe(line);
    }

    [Theory]
    [InlineData(
        "family: ad-like\n", "family: ad-like\n    back-link: yes\n", "needless-key", "people-directories.staff.back-link")]
    [InlineData(
        "people-in: ou=People,dc=contractors", "people-in: ou=People,dc=others", "branch-outside",
        "people-directories.contractors.people-in")]
    [InlineData(
        "people-in: ou=People,dc=contractors,dc=fennmoor,dc=example", "people-in: People", "not-a-dn",
        "people-directories.contractors.people-in")]
    [InlineData(
        "back-link: yes", "back-link: yes\n    secret: contractors", "missing-key", "people-directories.contractors.sign-in-as")]
    [InlineData(
        "bind-accounts-in: sign-in-accounts", "bind-accounts-in: sign-in-acounts", "unknown-branch", "naming.bind-accounts-in")]
    [InlineData("offers: [tls, start-tls]", "offers: [tls, starttls]", "wrong-value", "people-directories.contractors.offers[1]")]
    public void A_broken_estate_gives_a_fault_with_its_field(string part, string instead, string code, string field)
    {
        var (_, faults) = DemoFiles.Estate(DemoFiles.With("estates/fennmoor.yaml", part, instead));
        faults.ShouldContain(f => f.Code == code && f.Field == field, string.Join("\n", faults));
    }

    [Theory]
    [InlineData(
        "rennet-roster", "rennet-roster-plants", "directory: staff", "directory: staf", "unknown-directory", "sign-in.directory")]
    [InlineData(
        "rennet-roster", "rennet-roster-plants", "directory: staff", "directory: contractors", "wrong-family",
        "sign-in.directory")]
    [InlineData(
        "brinebook", "brinebook-contractors", "  bind-as: uid=brinebook,ou=Services,dc=contractors,dc=fennmoor,dc=example\n", "",
        "missing-key", "sign-in.bind-as")]
    [InlineData(
        "brinebook", "brinebook-contractors", "bind-as: uid=brinebook,ou=Services", "bind-as: brinebook,ou=Services", "not-a-dn",
        "sign-in.bind-as")]
    [InlineData(
        "brinebook", "brinebook-contractors",
        "  enter-through: cn=brinebook-users,ou=Groups,dc=contractors,dc=fennmoor,dc=example\n", "", "missing-key",
        "sign-in.enter-through")]
    [InlineData(
        "millrace", "millrace-gateway", "  directory: staff", "  directory: staff\n  enter-members: [j.lind]", "needless-key",
        "sign-in.enter-members")]
    [InlineData(
        "millrace", "millrace-gateway", "directory: staff", "directory: contractors", "wrong-family", "sign-in.directory")]
    public void An_install_that_does_not_fit_gives_a_fault(
        string sheet, string install, string part, string instead, string code, string field)
    {
        var (plan, faults) = DemoFiles.Plan(sheet, install: DemoFiles.With($"installs/{install}.yaml", part, instead));
        plan.ShouldBeNull();
        faults.ShouldContain(f => f.Code == code && f.Field == field, string.Join("\n", faults));
    }

    [Fact]
    public void In_a_directory_of_another_domain_nothing_of_ours_is_planned()
    {
        var estate = DemoFiles.With(
            "estates/fennmoor.yaml", "family: ad-like\n    host: fm-dc01.fennmoor.example",
            "family: ad-like\n    root: DC=elsewhere,DC=example\n    host: dc01.elsewhere.example")
            .Replace(
                "people-in: OU=People,OU=Fennmoor,DC=fennmoor", "people-in: OU=People,DC=elsewhere", StringComparison.Ordinal)
                .Replace("groups-in: DC=fennmoor", "groups-in: DC=elsewhere", StringComparison.Ordinal);
        var (_, faults) = DemoFiles.Plan(
            "rennet-roster", estate: estate, install: DemoFiles.Text("installs/rennet-roster-plants.yaml"));
        faults.Select(f => f.Field)
            .ShouldBe(["sign-in.bind-as", "sign-in.enter-through", "sign-in.enter-members"], ignoreOrder: true);
    }

    [Fact]
    public void Where_no_way_is_known_to_both_sides_nothing_is_planned()
    {
        var estate = DemoFiles.With("estates/fennmoor.yaml", "offers: [tls, start-tls, plain]", "offers: [tls, start-tls]");
        var (_, faults) = DemoFiles.Plan("millrace", estate: estate, install: DemoFiles.Text("installs/millrace-gateway.yaml"));
        faults.ShouldHaveSingleItem().Code.ShouldBe("no-way");
    }

    [Fact]
    public void A_bind_account_belongs_in_the_branch_for_such_accounts_and_its_password_is_known_to_be_typed()
    {
        var (plan, faults) = DemoFiles.Plan("rennet-roster", install: DemoFiles.Text("installs/rennet-roster-plants.yaml"));
        faults.ShouldBeEmpty();
        plan!.Accounts.ShouldHaveSingleItem().Dn.ShouldBe(
            "CN=svc-roster-reader,OU=Sign-in,OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example");
        plan.Branches.Select(b => b.Dn).ShouldContain("OU=Sign-in,OU=Service Accounts,OU=Fennmoor,DC=fennmoor,DC=example");
        var place = Core.Passwords.PasswordPlaces.Of([plan], null, []).ShouldHaveSingleItem();
        (place.Account, place.Host, place.Setting).ShouldBe(("svc-roster-reader", "fm-roster01", "people.reader.password"));
    }

    [Theory]
    [InlineData("brinebook", "brinebook-contractors", "", "", false)] // another directory: its own group says who enters
    [InlineData("rennet-roster", "rennet-roster-plants", "", "", true)]
    [InlineData(
        "rennet-roster", "rennet-roster-plants", "enter-members: [rounds-highfield, rounds-saltmere]",
        "enter-through: CN=rounds-highfield,OU=Groups,OU=Fennmoor,DC=fennmoor,DC=example", false)]
    public void A_group_that_only_says_who_enters_is_planned_where_no_other_stands_for_it(
        string sheet, string install, string from, string to, bool planned)
    {
        var text = DemoFiles.Text($"installs/{install}.yaml");
        var (plan, faults) = DemoFiles.Plan(
            sheet, install: from.Length == 0 ? text : text.Replace(from, to, StringComparison.Ordinal));
        faults.ShouldBeEmpty();
        plan!.Groups.Count.ShouldBe(planned ? 1 : 0);
        plan.Branches.Any(b =>
            b.Dn.StartsWith("OU=Groups,", StringComparison.Ordinal)
                || b.Dn.StartsWith("OU=Application Groups,", StringComparison.Ordinal))
            .ShouldBe(planned);
    }

    [Fact]
    public void An_install_that_names_no_directory_is_planned_with_a_note()
    {
        var text = DemoFiles.Text("installs/rennet-roster-plants.yaml");
        var (plan, _) = DemoFiles.Plan("rennet-roster", install: text[..text.IndexOf("sign-in:", StringComparison.Ordinal)]);
        plan.ShouldNotBeNull().SignIn.ShouldBeNull();
        plan.Notes.ShouldContain(n => n.Contains("sign-in.directory", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("form: json", "form: json\n    ini: { quotes: yes }", "needless-key", "sign-in.settings.ini")]
    [InlineData("is: port, as: number", "is: host, as: number", "wrong-value", "sign-in.settings.fields[1].as")]
    [InlineData("is: port, as: number", "is: port, as: boolean", "wrong-value", "sign-in.settings.fields[1].as")]
    [InlineData("is: port, as: number", "is: port, unit: milliseconds", "needless-key", "sign-in.settings.fields[1].unit")]
    [InlineData("is: port, as: number", "is: port, role: writer", "needless-key", "sign-in.settings.fields[1].role")]
    [InlineData("is: role-name, role: writer", "is: role-name", "missing-key", "sign-in.settings.fields[14].role")]
    [InlineData("is: role-name, role: writer", "is: role-name, role: wrter", "unknown-role", "sign-in.settings.fields[14].role")]
    [InlineData("hats/1/", "hats/2/", "wrong-value", "sign-in.settings.fields")]
    [InlineData("group: writers", "group: wrters", "unknown-group", "sign-in.roles.writer.group")]
    [InlineData("  page-size: 200", "  only: (mail=*\n  page-size: 200", "not-a-filter", "sign-in.only")]
    [InlineData("bind: { as: dn }", "bind: { as: dn, who: person }", "missing-key", "sign-in.typed-name")]
    [InlineData("bases: separate", "bases: several\n  depth: [deep]", "wrong-value", "sign-in.depth[0]")]
    public void A_broken_sheet_with_roles_and_types_gives_a_fault(string part, string instead, string code, string field)
    {
        var (_, faults) = DemoFiles.Sheet(DemoFiles.With("sheets/brinebook.yaml", part, instead));
        faults.ShouldContain(f => f.Code == code && f.Field == field, string.Join("\n", faults));
    }

    [Theory]
    [InlineData("  may-enter: k.osei", "  catalog: yes\n  may-enter: k.osei", "no-catalog", "sign-in.catalog")]
    [InlineData("keeper: { groups", "keper: { groups", "unknown-role", "sign-in.roles.keper")]
    [InlineData(
        "groups: \"cn=brinebook-keepers,ou=Groups,dc=contractors,dc=fennmoor,dc=example\", ", "", "missing-key",
        "sign-in.roles.keeper.groups")]
    [InlineData("cn=brinebook-keepers,ou", "brinebook-keepers,ou", "not-a-dn", "sign-in.roles.keeper.groups")]
    [InlineData("  may-enter: k.osei", "  people-type: mail\n  may-enter: k.osei", "wrong-value", "sign-in.people-type")]
    [InlineData(
        "  may-enter: k.osei", "  client-key: /x\n  may-enter: k.osei", "needless-key", "sign-in.client-key")]
    [InlineData(
        "  may-enter: k.osei", "  people-in: ou=People,dc=elsewhere\n  may-enter: k.osei", "branch-outside", "sign-in.people-in")]
    [InlineData("  may-enter: k.osei", "  without: (uid=a)(uid=b)\n  may-enter: k.osei", "not-a-filter", "sign-in.without")]
    public void An_install_with_roles_and_branches_that_does_not_fit_gives_a_fault(
        string part, string instead, string code, string field)
    {
        var text = DemoFiles.With("installs/brinebook-contractors.yaml", part, instead);
        var (install, faults) = DemoFiles.Install(text);
        if (install is not null) faults = DemoFiles.Plan("brinebook", install: text).Faults;
        faults.ShouldContain(f => f.Code == code && f.Field == field, string.Join("\n", faults));
    }

    [Theory]
    [InlineData(
        "host: fm-ldap01.fennmoor.example", "host: fm-ldap01.fennmoor.example\n    catalog: yes", "needless-key", "catalog")]
    [InlineData(
        "host: fm-ldap01.fennmoor.example",
        "host: fm-ldap01.fennmoor.example\n    other-hosts: FM-LDAP01.fennmoor.example", "twice", "other-hosts")]
    [InlineData(
        "host: fm-ldap01.fennmoor.example", "host: fm-ldap01.fennmoor.example\n    attributes: { phon: ipPhone }", "unknown-key",
        "attributes.phon")]
    [InlineData(
        "people-in: ou=People,dc=contractors,dc=fennmoor,dc=example",
        "people-in: [\"ou=People,dc=contractors,dc=fennmoor,dc=example\", \"ou=a,dc=b\"]",
        "branch-outside", "people-in")]
    public void A_broken_directory_of_several_servers_gives_a_fault(string part, string instead, string code, string field)
    {
        var (_, faults) = DemoFiles.Estate(DemoFiles.With("estates/fennmoor.yaml", part, instead));
        faults.ShouldContain(
            f => f.Code == code && f.Field == $"people-directories.contractors.{field}", string.Join("\n", faults));
    }

    [Fact]
    public void A_role_with_a_group_of_the_sheet_is_planned_with_its_members_and_needs_the_person_in_it()
    {
        var sheet = DemoFiles.With(
            "sheets/rennet-roster.yaml", "  enter: staff",
            "  enter: staff\n  roles: { planner: { called: Planner, group: staff } }");
        var install = DemoFiles.With(
            "installs/rennet-roster-plants.yaml", "  may-enter: a.brandt",
            "  roles: { planner: { members: [rounds-highfield, j.lind], person: c.dunning } }\n  may-enter: a.brandt");
        var (plan, faults) = DemoFiles.Plan("rennet-roster", sheet, install: install);
        faults.ShouldBeEmpty();
        var signIn = plan.ShouldNotBeNull().SignIn.ShouldNotBeNull();
        signIn.Roles.ShouldHaveSingleItem().Groups.ShouldHaveSingleItem().Name.ShouldBe("app-roster-staff");
        signIn.Memberships.Where(m => m.Placed).Select(m => m.Member)
            .ShouldBe(["rounds-highfield", "rounds-saltmere", "j.lind"], ignoreOrder: true);
        signIn.Memberships.ShouldContain(m => m.Member == "c.dunning" && !m.Placed);
    }

    [Fact]
    public void The_names_of_branches_are_left_as_they_are_written()
    {
        const string written = "ou=People, OU=Fennmoor,dc=fennmoor,DC=example";
        var estate = DemoFiles.With(
            "estates/fennmoor.yaml", "people-in: OU=People,OU=Fennmoor,DC=fennmoor,DC=example", $"people-in: {written}");
        DemoFiles.Estate(estate).Estate.ShouldNotBeNull().PeopleDirectories.First(d => d.Key == "staff").PeopleIn.Written
            .ShouldBe(written);
    }
}
