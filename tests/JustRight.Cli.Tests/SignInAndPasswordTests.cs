using System.Text.Json;

namespace JustRight.Cli.Tests;

/// <summary>People who sign in, and passwords, from the client.</summary>
public sealed class SignInAndPasswordTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom";

    [Fact]
    public async Task A_sign_in_is_shown_tried_and_its_filters_looked_at()
    {
        const string log = "brinebook-contractors", gateway = "millrace-gateway";
        (await RunAsync("sign-in", "settings", log))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("No people of 'contractors' were read yet"));
        await RunAsync("survey", "fennmoor");
        (await RunAsync("sign-in", "settings", log))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("door/callerSecret"),
                r => r.Out.ShouldContain("<secret: brinebook>"));
        JsonDocument.Parse((await RunAsync("sign-in", "file", log)).Out).RootElement.GetProperty("door").GetProperty("lock")
            .GetString().ShouldBe("sealed");
        (await RunAsync("sign-in", "settings", gateway))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("unencrypted"));
        (await RunAsync("sign-in", "settings", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("sign-in.directory"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=*sorel)"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("objects that have cn that ends with 'sorel'"),
                r => r.Out.ShouldContain("1 of 16"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=*sorel)", "--ask")).Out.ShouldContain(
            "1, as the directory says");
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=nobody)")).Code.ShouldBe(1);
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn~=sorel)"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("for the directory itself to judge"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=a)x"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Out.ShouldContain("      ^"));
    }

    [Fact]
    public async Task A_password_is_due_tried_and_renewed_until_a_person_is_needed()
    {
        const string account = "svc-curd-cards", typed = "typed-by-a-person-3";
        (await RunAsync("password", "due", "fennmoor")).Code.ShouldBe(3); // nothing was read yet
        await RunAsync("survey", "fennmoor");
        (await RunAsync("password", "due", "fennmoor"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("managed"), r => r.Out.ShouldContain("Maud Ferris"));
        (await RunAsync("password", "where-used", "fennmoor", account))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Account for the scanner"),
                r => r.Out.ShouldContain("does not support gMSAs"));
        (await RunAsync(
            "password", "where-used", "add", "fennmoor", account, "--in", "/srv/print.conf", "--setting", "store.password",
            "--breaks", "labels stop")).Out.ShouldContain("told 1");
        (await RunAsync("password", "where-used", "remove", "fennmoor", account, "1")).Out.ShouldNotContain("print.conf");
        (await RunAsync(["password", "try", "fennmoor", account, "--type"], typed + "\n", _ => { }))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("does not work"),
                r => (r.Out + r.Error + Service.Output).ShouldNotContain(typed));
        (await RunAsync("password", "renew", "fennmoor", account, "--list"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("cannot be undone"));
        (await RunAsync("password", "renew", "fennmoor", account))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("--yes"));
        (await RunAsync("password", "renew", "fennmoor", account, "--yes"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(4), r => r.Out.ShouldContain("it has the old one, the directory the new one"),
                r => r.Out.ShouldContain("hand-over"));
        (await RunAsync("password", "undo", "fennmoor", account, "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("cannot be undone"));
        (await RunAsync("password", "hand-over", "fennmoor", account)).Code.ShouldBe(2);
        var shown = (await RunAsync("password", "hand-over", "fennmoor", account, "--show")).Out.Trim();
        shown.Length.ShouldBe(32);
        (await RunAsync("password", "hand-over", "fennmoor", account, "--show")).Code.ShouldBe(2);
        (await RunAsync("password", "done", "fennmoor", account, "--step", "7")).Code.ShouldBe(2);
        (await RunAsync("password", "done", "fennmoor", account, "--note", "typed by J. Lind"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("renewed"));
        JsonDocument.Parse((
            await RunAsync("password", "progress", "fennmoor", account, "--json")).Out).RootElement.GetProperty("divided")
            .GetArrayLength().ShouldBe(0);
        (await RunAsync(["password", "try", "fennmoor", account, "--type"], shown + "\n", _ => { })).Code.ShouldBe(0);
        (await RunAsync("password", "renew", "fennmoor", "svc-curd-book"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("changes it, in the directory"));
    }

    [Fact]
    public async Task A_password_that_is_typed_for_a_sign_in_test_shows_nowhere()
    {
        const string bind = "simulated-brinebook", person = "typed-once-by-a-person";
        var seen = new List<string>();
        var result = await RunAsync([
            "sign-in", "try", "brinebook-contractors", "--type-bind", "--type-person"], $"{bind}\n{person}\n", process =>
        {
            foreach (var file in new[] { "cmdline", "environ" }) seen.Add(File.ReadAllText($"/proc/{process.Id}/{file}"));
        });
        result.ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("7 found, 8 expected"), r => r.Out.ShouldContain("o.sorel"));
        seen.Count.ShouldBe(2);
        foreach (var text in seen.Append(result.Out).Append(result.Error).Append(File.ReadAllText(Settings)).Append(Service.Output))
        {
            text.ShouldNotContain(bind);
            text.ShouldNotContain(person);
        }

        (await RunAsync("sign-in", "try", "brinebook-contractors", "--type-bind"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("No password was typed."));
        (await RunAsync("sign-in", "try", "--help")).Out.ShouldContain("never", Case.Insensitive);
    }
}
