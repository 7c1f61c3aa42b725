using CsCheck;
using JustRight.Core.Sheets;
using JustRight.Formats.Estates;
using JustRight.Formats.Hosts;
using JustRight.Formats.Installs;
using JustRight.Formats.Sheets;
using JustRight.Formats.Simulations;

namespace JustRight.Formats.Tests;

public sealed class SheetReaderTests
{
    public static TheoryData<string> Broken => [.. BrokenSheets.All.Select(b => b.Name)];

    [Theory]
    [MemberData(nameof(Broken))]
    public void A_broken_sheet_gives_a_fault_with_its_place(string name)
    {
        var broken = BrokenSheets.All.Single(b => b.Name == name);
        var (sheet, faults) = SheetReader.Read(broken.Bytes, "broken.yaml");
        sheet.ShouldBeNull();
        faults.ShouldContain(
            f => f.Code == broken.Code && f.At.Line == broken.Line && f.At.Column == broken.Column, string.Join("\n", faults));
        faults.ShouldAllBe(f => f.At.File == "broken.yaml" && f.Message.Length > 0);
    }

    [Fact]
    public void The_sheet_they_are_broken_from_is_sound() =>
        SheetReader.Read(BrokenSheets.SoundSheet, "sound.yaml").Faults.ShouldBeEmpty();

    [Fact]
    public void All_faults_of_a_file_come_at_once_in_file_order()
    {
        var text = DemoFiles.Text("sheets/thermograph.yaml")
            .Replace("on: console-server, through: operators", "on: console-sever, through: operatos", StringComparison.Ordinal)
            .Replace("accounts: [poller, archivist]", "accounts: [poller, archivst]", StringComparison.Ordinal);
        var faults = DemoFiles.Sheet(text).Faults;
        faults.Select(f => (f.Code, f.Nearest))
            .ShouldBe([("unknown-group", "operators"), ("unknown-place", "console-server"), ("unknown-account", "archivist")]);
        faults.Select(f => f.At.Line).ShouldBeInOrder();
    }

    [Fact]
    public void Needs_keep_what_was_written_and_where()
    {
        var sheet = DemoFiles.Sheet(DemoFiles.Text("sheets/thermograph.yaml")).Sheet!;
        var poller = sheet.Accounts[0];
        var need = poller.Needs[0].ShouldBeOfType<Need>();
        (need.Kind, need.Value, need.Place, need.Through, need.GivenBy, need.At.Line)
            .ShouldBe((NeedKind.LocalGroup, "Administrators", "console-server", "operators", GivenBy.Us, 35));
        poller.Needs[1].ShouldBeOfType<Need>().GivenBy.ShouldBe(GivenBy.Setup);
        var any = sheet.Accounts[2].Needs[2].ShouldBeOfType<AnyOf>();
        any.Decision.ShouldBe("nightly-jobs");
        any.Alternatives.Select(a => a.Called).ShouldBe(["agent-roles", "everything"]);
        any.Alternatives[0].ShouldBeOfType<AllOf>().Parts[0].ShouldBeOfType<Need>().Database.ShouldBe("msdb");
        sheet.Services[1].After.ShouldBe(["ThermoHub"]);
        sheet.Separate.ShouldHaveSingleItem().Accounts.ShouldBe(["poller", "archivist"]);
    }

    [Fact]
    public void Every_kind_of_need_can_be_written()
    {
        foreach (var row in NeedKinds.All)
        {
            var place = row.Qualifier is null
                ? ""
                : $", {row.Qualifier}: {(row.Places[0] == PlaceKind.Host ? "web" : row.Places[0] == PlaceKind.Branch ? "branch" : "store")}";
            var text = $"sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: {{ kind: host }}\n  store: {{ kind: database, name: S }}\n  branch: {{ kind: branch }}\naccounts:\n  a:\n    purpose: x\n    works-as: bind\n    needs:\n      - {{ {row.Key}: {row.Values?[0] ?? Asked(row.Kind)}{place}{(row.Kind == NeedKind.Directory ? ", of: user, attributes: [mail]" : row.Kind == NeedKind.Task ? ", do: this, done-when: seen" : "")} }}\n";
            var (sheet, faults) = DemoFiles.Sheet(text);
            faults.ShouldBeEmpty(row.Key);
            sheet!.Accounts[0].Needs[0].ShouldBeOfType<Need>().Kind.ShouldBe(row.Kind);
        }
    }

    [Theory]
    [InlineData("{ directory: write atributes, below: people, of: user, attributes: [mail] }", "wrong-value")]
    [InlineData("{ directory: write attributes, below: people, of: user }", "missing-key")]
    [InlineData("{ directory: create, below: people }", "missing-key")]
    [InlineData("{ directory: unlock, below: people, attributes: [mail] }", "needless-key")]
    [InlineData("{ directory: unlock }", "missing-key")]
    [InlineData("{ logon: service, on: web, of: user }", "needless-key")]
    [InlineData("{ directory: unlock, on: web }", "wrong-qualifier")]
    public void A_directory_need_without_what_its_act_wants_is_refused(string need, string code)
    {
        var text = $"sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: {{ kind: host }}\n  people: {{ kind: branch }}\naccounts:\n  a:\n    purpose: x\n    needs:\n      - {need}\n";
        var (sheet, faults) = DemoFiles.Sheet(text);
        sheet.ShouldBeNull();
        faults.Select(f => f.Code).ShouldContain(code);
        faults.ShouldAllBe(f => f.At.Line == 13);
    }

    /// <summary>What can be nowhere, a row each, with what is meant.</summary>
    [Theory]
    [InlineData("{ domain-group: 'OTHER\\group' }", "'group'")]
    [InlineData("{ domain-group: ' app-staff' }", "'app-staff'")]
    [InlineData("{ domain-group: 'app,staff' }", "a group's logon name")]
    [InlineData("{ local-group: 'BUILTIN\\Users', on: web }", "'Users'")]
    [InlineData("{ local-group: 'Users ', on: web }", "'Users'")]
    [InlineData("{ instance-permission: VIEW SERVER STAET, at: store }", "'VIEW SERVER STATE'")]
    [InlineData("{ database-permission: SELCT on SCHEMA::x, in: store }", "'SELECT'")]
    [InlineData("{ any-of: [ { domain-group: g }, { domain-group: ' h' } ] }", "'h'")]
    [InlineData("{ database-permission: IMPERSONAT on USER::mail, in: store }", "'IMPERSONATE'")]
    [InlineData("{ instance-permission: SELECT on SCHEMA::s, at: store }", "words, such as VIEW SERVER STATE")]
    [InlineData("{ instance-permission: FLY OVER FENS, at: store }", "words, such as VIEW SERVER STATE")]
    [InlineData("{ database-permission: FLY on COLUMN::s.t.c, in: store }",
        "one of CONNECT, CREATE, DELETE, EXECUTE, INSERT, MAINTAIN, OWNER, REFERENCES, SELECT, TEMP, TEMPORARY, TRIGGER, "
        + "TRUNCATE, UNMASK, UPDATE, USAGE")]
    public void A_name_that_can_be_nowhere_is_a_fault_of_a_new_sheet_and_unseen_in_a_stored_one(string need, string expected)
    {
        var text = Named(need);
        var (sheet, faults) = DemoFiles.Sheet(text);
        sheet.ShouldBeNull();
        var fault = faults.ShouldHaveSingleItem();
        (fault.Code, fault.At.Line, fault.Expected).ShouldBe(("unknown-value", 13, expected));
        SheetReader.Read(System.Text.Encoding.UTF8.GetBytes(text), "stored.yaml", stored: true).Sheet.ShouldNotBeNull();
    }

    [Theory]
    [InlineData("{ database-permission: SELECT, in: store }")]
    [InlineData("{ database-permission: ALTER ANY ASSEMBLY, in: store }")]
    [InlineData("{ database-permission: ALTER ANY ROUTE, in: store }")] // nearly ALTER ANY ROLE, and another
    [InlineData("{ database-permission: CREATE RULE, in: store }")]
    [InlineData("{ domain-group: Group with spaces }")]
    [InlineData("{ database-permission: 'SELECT on COLUMN::s.t.c', in: store }")] // of either family
    [InlineData("{ database-permission: 'EXECUTE on ROUTINE::s.f(integer, text)', in: store }")] // of PostgreSQL alone
    [InlineData("{ database-permission: 'OWNER on SCHEMA::s', in: store }")]
    [InlineData("{ instance-permission: 'SET on PARAMETER::log_statement', at: store }")]
    [InlineData("{ instance-permission: 'IMPERSONATE on LOGIN::FENNMOOR\\svc-mill', at: store }")] // of the other alone
    [InlineData("{ database-permission: 'CONTROL on CERTIFICATE::backup copy', in: store }")]
    public void A_name_that_may_be_somewhere_is_none(string need) => DemoFiles.Sheet(Named(need)).Faults.ShouldBeEmpty();

    [Theory]
    [InlineData("sqlserver", "{ database-permission: 'USAGE on LANGUAGE::l', in: store }")]
    [InlineData("sqlserver", "{ database-permission: 'SEND on OBJECT::s.t', in: store }")]
    [InlineData("sqlserver", "{ instance-permission: 'SET on PARAMETER::log_statement', at: store }")]
    [InlineData("postgresql", "{ database-permission: 'CONTROL on CERTIFICATE::backup', in: store }")]
    [InlineData("postgresql", "{ instance-permission: 'IMPERSONATE on LOGIN::boss', at: store }")]
    public void What_only_the_other_family_has_is_a_fault_where_the_family_is_said(string engine, string need) =>
        DemoFiles.Sheet(Named(need).Replace("name: S", $"name: S, engine: {engine}")).Faults.ShouldHaveSingleItem().Code
            .ShouldBe("unknown-value");

    [Fact]
    public void Services_that_wait_for_one_another_are_a_fault_of_a_new_sheet()
    {
        var text = Named("{ logon: service, on: web }")
            + "services:\n  - { name: A, on: web, as: a, after: [B] }\n  - { name: B, on: web, as: a, after: [C] }\n"
            + "  - { name: C, on: web, as: a, after: [Spooler, a] }\n";
        var fault = DemoFiles.Sheet(text).Faults.ShouldHaveSingleItem();
        (fault.Code, fault.Found).ShouldBe(("cyclic-services", "A -> B -> C -> a"));
        SheetReader.Read(System.Text.Encoding.UTF8.GetBytes(text), "stored.yaml", stored: true).Sheet.ShouldNotBeNull();
    }

    [Theory]
    [InlineData("{ logon: service, on: web, made-by: setup }", 13)]
    [InlineData("{ database-role: r, in: store, made-by: setup }", 13)]
    public void Setup_makes_groups_and_databases(string need, int line)
    {
        var fault = DemoFiles.Sheet(Named(need)).Faults.ShouldHaveSingleItem();
        (fault.Code, fault.At.Line).ShouldBe(("needless-key", line));
        DemoFiles.Sheet(Named("{ local-group: L, on: web, made-by: setup }")).Sheet!.Accounts[0].Needs[0]
            .ShouldBeOfType<Need>().MadeBySetup.ShouldBeTrue();
        DemoFiles.Sheet(Named("{ local-group: L, on: web }").Replace("name: S", "name: S, made-by: setup")).Sheet!.Places[1]
            .MadeBySetup.ShouldBeTrue();
        DemoFiles.Sheet(Named("{ local-group: L, on: web }").Replace("kind: host", "kind: host, made-by: setup")).Faults
            .ShouldHaveSingleItem().Code.ShouldBe("needless-key");
    }

    private static string Asked(NeedKind kind) => kind switch
    {
        NeedKind.InstancePermission => "VIEW SERVER STATE",
        NeedKind.DatabasePermission => "SELECT",
        NeedKind.Logon or NeedKind.KeptOut or NeedKind.Privilege or NeedKind.LocalGroup => "Something",
        NeedKind.Service or NeedKind.DomainGroup => "Something",
        NeedKind.Spn or NeedKind.Delegation => "HTTP/something",
        NeedKind.InstanceRole or NeedKind.DatabaseRole or NeedKind.DatabaseOwner or NeedKind.ProductRole => "Something",
        NeedKind.Directory => "Something",
        NeedKind.Task => "something",
    };

    private static string Named(string need) =>
        "sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: { kind: host }\n"
        + "  store: { kind: database, name: S }\naccounts:\n  a:\n    purpose: x\n    needs:\n      - " + need + "\n";

    [Fact]
    public void A_forbidden_entry_is_a_group_or_an_act_and_not_both()
    {
        Sheet("{ domain-group: Domain Admins }").Faults.ShouldBeEmpty();
        Sheet("{ directory: reset password, why: not its business }").Sheet!.Accounts[0].Forbidden[0].Act!.Act.ShouldBe(
            DirectoryAct.ResetPassword);
        Sheet("{ directory: reset password, domain-group: g }").Faults.ShouldNotBeEmpty();
        Sheet("{ why: nothing }").Faults.ShouldNotBeEmpty();
        Sheet("{ domain-group: g, of: user }").Faults.Single().Code.ShouldBe("needless-key");
        Sheet("{ directory: write attributes, of: user }").Faults.Single().Code.ShouldBe("missing-key");

        static (Sheet? Sheet, IReadOnlyList<Core.Faults.Fault> Faults) Sheet(string forbidden) =>
            DemoFiles.Sheet($"sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: {{ kind: host }}\naccounts:\n  a:\n    purpose: x\n    forbidden:\n      - {forbidden}\n");
    }

    [Fact]
    public void Any_bytes_give_a_sheet_or_faults_and_never_an_exception() => Gen.Byte.Array[0, 300].Sample(bytes =>
    {
        var (sheet, faults) = SheetReader.Read(bytes, "any.yaml");
        (sheet is null).ShouldBe(faults.Count > 0);
    });

    [Fact]
    public void Any_slip_of_the_pen_gives_a_sheet_or_faults_and_never_an_exception()
    {
        var text = DemoFiles.Text("sheets/thermograph.yaml");
        Gen.Select(Gen.Int[0, text.Length - 1], Gen.Int[0, 12], Gen.String[Gen.Char[" \n:,{}[]'\"&*!|>-#abc1\t"], 0, 4])
            .Sample((at, length, instead) =>
        {
            var (sheet, faults) = DemoFiles.Sheet(text.Remove(at, Math.Min(length, text.Length - at)).Insert(at, instead));
            (sheet is null).ShouldBe(faults.Count > 0);
        });
    }

    [Theory]
    [InlineData("sheet")]
    [InlineData("estate")]
    [InlineData("install")]
    [InlineData("host-facts")]
    [InlineData("simulation")]
    public void The_published_schemas_are_the_ones_the_readers_check_by(string kind)
    {
        var schema = kind switch
        {
            "sheet" => SheetReader.JsonSchema(),
            "estate" => EstateReader.JsonSchema(),
            "host-facts" => HostFactsReader.JsonSchema(),
            "simulation" => SimulationCheck.JsonSchema(),
            _ => InstallReader.JsonSchema(),
        };
        var file = Path.Combine(Checkout.Top, "schemas", $"{kind}.schema.json");
        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_SCHEMAS") == "yes") File.WriteAllText(file, schema);
        File.ReadAllText(file).ShouldBe(schema, "Run the tests once with JUSTRIGHT_WRITE_SCHEMAS=yes and commit what changes.");
    }
}
