namespace JustRight.Formats.Tests;

/// <summary>
/// Service principal names of a sheet: patterns, what they become in a plan, and one clear error for each that cannot be.
/// </summary>
public sealed class ServiceNameTests
{
    [Theory]
    [InlineData("wrong-value", "{ spn: HTTP }")]
    [InlineData("wrong-value", "{ spn: \"HTTP//x\" }")]
    [InlineData("wrong-value", "{ spn: \"HTTP/a b\" }")]
    [InlineData("wrong-value", "{ spn: \"HTTP/a:1:2\" }")]
    [InlineData("wrong-value", "{ spn: \"HTTP/a/b/c\" }")]
    [InlineData("wrong-value", "{ spn: \"HTTP/*\" }")]
    [InlineData("unknown-placeholder", "{ spn: \"HTTP/{host}\" }")]
    [InlineData("unknown-placeholder", "{ spn: \"HTTP/{hots}\", on: web }")]
    [InlineData("unknown-placeholder", "{ spn: \"HTTP/{host}:{port}\", on: web }")]
    [InlineData("unknown-placeholder", "{ spn: \"HTTP/{}\", on: web }")]
    [InlineData("wrong-place", "{ spn: \"HTTP/x\", on: store }")]
    [InlineData("wrong-qualifier", "{ spn: HTTP/x, below: web }")]
    [InlineData("needless-key", "{ spn: HTTP/x, through: crew }")]
    [InlineData("any-service", "{ delegates-to: any }")]
    [InlineData("wrong-value", "{ delegates-to: \"HTTP\" }")]
    [InlineData("unknown-placeholder", "{ delegates-to: \"MSSQLSvc/{host}:{port}\", on: web }")]
    public void What_no_name_can_be_is_one_error_with_its_line(string code, string need)
    {
        var (sheet, faults) = DemoFiles.Sheet(Sheet(need));
        sheet.ShouldBeNull();
        var fault = faults.ShouldHaveSingleItem();
        (fault.Code, fault.At.Line).ShouldBe((code, 18));
    }

    [Fact]
    public void What_fits_nearest_is_said()
    {
        DemoFiles.Sheet(Sheet("{ spn: \"HTTP/{hots}\", on: web }")).Faults[0].ShouldSatisfyAllConditions(
            f => f.Nearest.ShouldBe("host"), f => f.Expected.ShouldBe("{host}, {short}, {alias}"));
        DemoFiles.Sheet(Sheet("{ spn: \"HTTP/{host}:{port}\", on: web }")).Faults[0].Message
            .ShouldBe("'{port}' is said of an instance, and this need has none.");
    }

    [Fact]
    public void A_pattern_becomes_a_name_for_each_host_and_instance_and_answer()
    {
        var (plan, faults) = Plan(
            "{ spn: \"HTTP/{host}\", on: web }", "{ spn: \"HTTP/{short}:8443\", on: web }", "{ spn: \"HTTP/{alias}\" }",
            "{ spn: \"MSSQLSvc/{host}:{port}\", on: db }", "{ spn: \"MSSQLSvc/{host}:{instance}\", on: db }");
        faults.ShouldBeEmpty();
        plan!.Grants.Where(g => g.Right.ServiceName is not null).Select(g => (g.Id, g.Right.ServiceName)).ShouldBe(
        [
            ("a/spn:http/fm-temp01.fennmoor.example@fennmoor", "HTTP/fm-temp01.fennmoor.example"),
            ("a/spn:http/fm-temp02.fennmoor.example@fennmoor", "HTTP/fm-temp02.fennmoor.example"),
            ("a/spn:http/fm-temp01:8443@fennmoor", "HTTP/fm-temp01:8443"),
            ("a/spn:http/fm-temp02:8443@fennmoor", "HTTP/fm-temp02:8443"),
            ("a/spn:http/book.fennmoor.example@fennmoor", "HTTP/book.fennmoor.example"),
            ("a/spn:mssqlsvc/fm-sql01.fennmoor.example:1433@fennmoor", "MSSQLSvc/fm-sql01.fennmoor.example:1433"),
            ("a/spn:mssqlsvc/fm-sql01.fennmoor.example:fm-sql01@fennmoor", "MSSQLSvc/fm-sql01.fennmoor.example:fm-sql01"),
        ]);
    }

    [Fact]
    public void Two_accounts_may_act_at_one_service() =>
        Plan("{ delegates-to: HTTP/x.example }\n  b:\n    purpose: y\n    needs:\n      - { delegates-to: HTTP/x.example }")
            .Faults.ShouldBeEmpty();

    [Fact]
    public void Two_accounts_with_one_name_are_a_fault_of_the_plan()
    {
        var (plan, faults) = Plan("{ spn: HTTP/x.example }\n  b:\n    purpose: y\n    needs:\n      - { spn: http/X.example }");
        plan.ShouldBeNull();
        faults.ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            f => (f.Code, f.At.Line).ShouldBe(("spn-twice", 22)),
            f => f.Message.ShouldBe(
                "a and b would both have HTTP/x.example, and Kerberos sign-in would fail for both (sheet.yaml:18:9)."));
    }

    private static (Core.Plans.Plan? Plan, IReadOnlyList<Core.Faults.Fault> Faults) Plan(params string[] needs) => DemoFiles.Plan(
        "p", Sheet(string.Join("\n      - ", needs)), null,
        "install: 1\nname: p\nproduct: p\nrelease: \"1\"\nestate: fennmoor\nstage: planned\n"
        + "places: { web: [fm-temp01, fm-temp02], db: fm-sql01, store: fm-sql01/S }\n"
        + "answers: { alias: book.fennmoor.example }\n");

    private static string Sheet(string need) =>
        "sheet: 1\nproduct: p\nrelease: \"1\"\ntitle: P\nsource: s\nplaces:\n  web: { kind: host, count: 1 or more }\n"
        + "  db: { kind: instance, engine: sqlserver }\n  store: { kind: database, engine: sqlserver, name: S }\n"
        + "questions:\n  alias: { ask: Under which name?, answer: text }\ngroups:\n  crew: { purpose: c, members: [a] }\n"
        + "accounts:\n  a:\n    purpose: x\n    needs:\n      - " + need + "\n";
}
