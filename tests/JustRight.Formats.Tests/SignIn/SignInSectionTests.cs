namespace JustRight.Formats.Tests.SignIn;

/// <summary>What is refused in the sections on signing in, with the place and the remedy.</summary>
public sealed class SignInSectionTests
{
    [Theory]
    [InlineData(
        "bind: { account: reader, as: dn }", "bind: { account: raeder, as: dn }", "unknown-account", "sign-in.bind.account", 22)]
    [InlineData("works-as: bind", "works-as: service", "wrong-value", "sign-in.bind.account", 22)]
    [InlineData("enter: staff", "enter: staf", "unknown-group", "sign-in.enter", 25)]
    [InlineData("families: [ad-like]", "families: [ad]", "wrong-value", "sign-in.families[0]", 21)]
    [InlineData("is: people-base }", "is: people-bas }", "unknown-value", "sign-in.settings.fields[4].is", 39)]
    [InlineData("  typed-name: \"{0}\"\n", "", "missing-key", "sign-in.typed-name", 39)]
    [InlineData("typed-on: web-server", "typed-on: web-sever", "unknown-place", "sign-in.settings.typed-on", 31)]
    [InlineData("    form: properties\n", "", "missing-key", "sign-in.settings.form", 31)]
    [InlineData("name: people.post, is: mail", "name: people.key, is: mail", "wrong-value", "sign-in.settings.fields", 35)]
    [InlineData("form: properties", "form: env", "wrong-value", "sign-in.settings.fields", 35)]
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
        "brinebook", "brinebook-contractors", "  bind-secret: brinebook\n",
        "  bind-secret: brinebook\n  enter-members: [j.lind]\n", "needless-key", "sign-in.enter-members")]
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
}
