using System.Diagnostics;
using System.Text.Json;

namespace JustRight.Cli.Tests;

/// <summary>The built client against the built service: what it prints, and its exit codes.</summary>
public sealed class ClientTests : IAsyncLifetime
{
    private const string Install = "thermograph-dataroom";
    private ServiceProcess _service = null!;

    private string Settings => ClientRun.SettingsOf(_service);

    public async ValueTask InitializeAsync()
    {
        _service = await ServiceProcess.StartAsync();
        (await RunAsync("token", "claim", _service.Links[1])).Code.ShouldBe(0);
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task The_main_job_ends_with_the_right_codes()
    {
        await _service.AddDemoAsync();
        var first = await RunAsync("verify", Install);
        first.Code.ShouldBe(1);
        first.Out.ShouldContain("9 missing, 1 barred, 3 too much, 3 unseen, 4 later");
        first.Out.ShouldContain("pretend estate");
        first.Out.ShouldContain(@"FENNMOOR\svc-archive → FENNMOOR\plant-tools → FENNMOOR\server-keepers → FENNMOOR\Domain");
        (await RunAsync("grant", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Nobody is here to confirm")); // no terminal, no --yes
        (await RunAsync("grant", Install, "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("20 made; now 1 barred, 3 too much, 6 later"));
        (await RunAsync("verify", Install, "--brief")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldNotContain("● met"));
        (await RunAsync("grant", Install, "--remove", "--yes")).Code.ShouldBe(0);
        (await RunAsync("verify", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("just right, 7 later"));
        (await RunAsync("grant", Install, "--yes")).Out.ShouldContain("Nothing is left to give.");
        (await RunAsync("why", Install, "archivist", "SQLAgentOperatorRole")).Out.ShouldContain("starts the nightly jobs");
        (await RunAsync("log", "check")).Out.ShouldContain("The log is sound");
    }

    [Fact]
    public async Task Who_can_do_what_at_an_instance_is_listed_the_widest_first()
    {
        await _service.AddDemoAsync();
        (await RunAsync("instance", "fennmoor", "fm-sql01")).Error.ShouldContain("justright survey fennmoor");
        await RunAsync("survey", "fennmoor");
        var all = await RunAsync("instance", "fennmoor", "fm-sql01");
        all.Code.ShouldBe(0);
        var lines = all.Out.Split('\n').Where(l => l.Contains("FENNMOOR", StringComparison.Ordinal)).ToList();
        lines[0].ShouldContain("sysadmin");
        all.Out.ShouldContain("(a machine)");
        lines[^1].ShouldSatisfyAllConditions(l => l.ShouldContain("db_datareader"), l => l.ShouldContain("thermograph-dataroom")); // what it is needed by
        (await RunAsync("instance", "fennmoor", "fm-sql01", "svc-quern", "SYSADMIN")).Out.ShouldContain(@"FENNMOOR\svc-quern → fm-sql01 login FENNMOOR\svc-quern → sysadmin on fm-sql01");
        (await RunAsync("instance", "fennmoor", "fm-sql04")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("being patched"), r => r.Out.ShouldContain("taken over by: fm-sql03"));
        JsonDocument.Parse((await RunAsync("instance", "fennmoor", "fm-sql01", "sysadmin", "--json")).Out).RootElement.GetProperty("holders").GetArrayLength().ShouldBe(3);
    }

    [Fact]
    public async Task What_no_survey_reads_is_confirmed_by_a_person()
    {
        const string wheyline = "wheyline-lines";
        await _service.AddDemoAsync();
        (await RunAsync("confirm", wheyline)).ShouldSatisfyAllConditions(r => r.Code.ShouldNotBe(0), r => r.Error.ShouldContain("justright verify wheyline-lines"));
        await RunAsync("verify", wheyline);
        (await RunAsync("confirm", wheyline)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Line sender"), r => r.Out.ShouldContain("? unseen"));
        (await RunAsync("confirm", wheyline, "sender")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("The identity inside the product is missing."));
        (await RunAsync("confirm", wheyline, "sender", "line sendr")).ShouldSatisfyAllConditions(r => r.Code.ShouldNotBe(0), r => r.Error.ShouldContain("Line sender"));
        var there = await RunAsync("confirm", wheyline, "sender", "line sender", "--seen-by", "Nell Hathersage", "--json");
        there.Code.ShouldBe(0);
        JsonDocument.Parse(there.Out).RootElement[0].GetProperty("verdict").GetString().ShouldBe("met");
        (await RunAsync("why", wheyline, "sender", "line sender")).Out.ShouldContain("confirmed by a person until");
        (await RunAsync("confirm", wheyline, "svc-whey-sender", "Line sender", "--not-there")).Out.ShouldContain("unmet");
        (await RunAsync("log", "list")).ShouldSatisfyAllConditions(r => r.Out.ShouldContain("seen by Nell Hathersage"), r => r.Out.ShouldContain("is not mapped"));
    }

    [Fact]
    public async Task A_failing_service_is_traced_mended_and_the_mending_undone()
    {
        const string roundsman = "roundsman-dataroom";
        await _service.AddDemoAsync();
        await RunAsync("verify", roundsman);
        var ldif = (await RunAsync("ldif", roundsman)).Out;
        ldif.ShouldContain("PRETEND");
        ldif.Split('\n').Count(l => l.StartsWith("dn: ", StringComparison.Ordinal)).ShouldBe(4);
        (await RunAsync("grant", roundsman, "--yes")).Out.ShouldContain("4 made; now 1 missing, 1 barred");
        (await RunAsync("verify", roundsman, "--brief")).Out.ShouldContain("justright trace fennmoor svc-roundsman");
        var trace = await RunAsync("trace", "fennmoor", "--service", "RoundsmanCopier", "--attribute", "roomNumber", "--attribute", "wWWHomePage");
        trace.Code.ShouldBe(1);
        trace.Out.ShouldContain("26 objects: 9 refuse it, 17 grant it");
        trace.Out.ShouldContain("inheritance stops here");
        var command = trace.Out.Split('\n').Select(l => l.Trim()).First(l => l.StartsWith("justright mend", StringComparison.Ordinal) && l.EndsWith("1-spot", StringComparison.Ordinal)).Split(' ')[1..];
        (await RunAsync(command)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Nobody is here to confirm"));
        var mended = await RunAsync([.. command, "--yes"]);
        mended.Out.ShouldContain("2 made; now 26 objects: 26 grant it");
        var undo = mended.Out.Split('\n').First(l => l.StartsWith("to undo it: justright ", StringComparison.Ordinal))["to undo it: justright ".Length..].Trim().Split(' ');
        (await RunAsync([.. undo, "--yes"])).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("2 made; now 26 objects: 9 refuse it, 17 grant it"));

        var list = Path.Combine(_service.Data, "failing.txt");
        await File.WriteAllLinesAsync(list, ["m.northam", "", "CN=Ada Brandt,OU=Highfield,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"]);
        (await RunAsync("trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber", "--objects-from", list)).Out.ShouldContain("2 objects: 1 refuses it, 1 grants it");
        (await RunAsync("trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber", "--objects-from", list + ".no")).Code.ShouldBe(2);
        (await RunAsync("trace", "fennmoor", "svc-roundsman", "--act", "change membership")).Code.ShouldBe(0);
    }

    [Fact]
    public async Task A_directory_is_surveyed_from_a_file_that_is_refused_whole_when_it_is_not_sound()
    {
        await _service.AddDemoAsync();
        var file = Path.Combine(_service.Data, "dairy.ldif");
        await File.WriteAllTextAsync(file, "dn: DC=fennmoor,DC=example\n");
        (await RunAsync("survey", "fennmoor", "--from", file)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("reach: file")); // the demo is the lab
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"))).Replace("reach: lab", "reach: file", StringComparison.Ordinal);
        (await _service.AddAsync("estates", "fennmoor.yaml", System.Text.Encoding.UTF8.GetBytes(estate))).EnsureSuccessStatusCode();
        (await RunAsync("survey", "fennmoor")).Error.ShouldContain("--from FILE");

        await File.WriteAllTextAsync(file, "dn: DC=fennmoor,DC=example\nobjectClass: domainDNS\nobjectSid:: ?\n");
        (await RunAsync("survey", "fennmoor", "--from", file)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("dairy.ldif:3:1 The value of objectSid is not base 64."));
        (await RunAsync("survey", "fennmoor", "--from", file + ".no")).Code.ShouldBe(2);

        var sid = Convert.ToBase64String([1, 4, 0, 0, 0, 0, 0, 5, 21, 0, 0, 0, 1, 0, 0, 0, 2, 0, 0, 0, 3, 0, 0, 0]);
        await File.WriteAllTextAsync(file, $"dn: DC=fennmoor,DC=example\nobjectClass: domainDNS\nobjectSid:: {sid}\nunicodePwd: never-kept\n");
        var survey = await RunAsync("survey", "fennmoor", "--from", file, "--read-at", "2026-11-24T08:00Z");
        survey.Code.ShouldBe(3); // hosts are out of reach, and the file says little
        survey.Out.ShouldContain("dairy.ldif: 1 objects, read from the directory at 2026-11-24 08:00");
        survey.Out.ShouldContain("The directory was read from the file dairy.ldif");
        (await RunAsync("grant", "thermograph-dataroom", "--yes")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task A_guard_is_shown_set_and_lifted()
    {
        await _service.AddDemoAsync();
        (await RunAsync("guard", "fennmoor", "people")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("OU=People,OU=Fennmoor,DC=fennmoor,DC=example is not guarded"));
        (await RunAsync("guard", "fennmoor", "people", "--set", "--lift")).Code.ShouldBe(2);
        (await RunAsync("guard", "fennmoor", "people", "--set")).Code.ShouldBe(2); // nobody to confirm
        (await RunAsync("guard", "fennmoor", "people", "--set", "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("forbid Everyone to delete it"));
        (await RunAsync("guard", "fennmoor", "people")).Code.ShouldBe(0);
        (await RunAsync("guard", "fennmoor", "people", "--lift", "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("justright undo"));
        (await RunAsync("guard", "fennmoor", "people", "--lift", "--yes")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task Every_command_gives_json_that_parses()
    {
        await _service.AddDemoAsync();
        await RunAsync("verify", Install);
        string[][] commands =
        [
            ["sheet", "check", DemoFile("sheets/thermograph.yaml")], ["sheet", "add", DemoFile("sheets/thermograph.yaml")], ["sheet", "list"], ["sheet", "show", "thermograph@4.2"],
            ["estate", "check", DemoFile("estates/fennmoor.yaml")], ["estate", "list"], ["estate", "show", "fennmoor"], ["install", "list"], ["install", "show", Install],
            ["plan", Install], ["survey", "fennmoor"], ["verify", Install], ["why", Install, "poller"], ["grant", Install, "--list"], ["grant", Install, "--yes"],
            ["log", "list"], ["log", "check"], ["token", "list"], ["token", "make", "night", "--role", "reader"], ["token", "revoke", "night"], ["secret", "list"],
            ["password", "list", Install], ["trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber"], ["mend", "no-such", "1-spot", "--yes"], ["compare", "fennmoor", "OU=Fennmoor,DC=fennmoor,DC=example"], ["ldif", Install], ["ldif", Install, "--remove"], ["guard", "fennmoor", "people"], ["undo", "no-such", "--yes"],
            ["sheet", "show", "no-such@1"], // errors as well
        ];
        foreach (var command in commands)
        {
            var result = await RunAsync([.. command, "--json"]);
            Should.NotThrow(() => JsonDocument.Parse(result.Out), $"{string.Join(' ', command)}: {result.Out}{result.Error}");
            result.Error.ShouldBeEmpty(string.Join(' ', command));
        }
    }

    [Fact]
    public async Task Every_broken_sheet_ends_with_code_2_and_its_place()
    {
        var file = Path.Combine(_service.Data, "broken.yaml");
        foreach (var broken in BrokenSheets.All)
        {
            await File.WriteAllBytesAsync(file, broken.Bytes);
            var result = await RunAsync("sheet", "add", file);
            result.Code.ShouldBe(2, broken.Name);
            result.Error.ShouldContain($"broken.yaml:{broken.Line}:{broken.Column}", Case.Sensitive, broken.Name);
        }

        (await RunAsync("sheet", "list")).Out.ShouldContain("No sheets yet");
    }

    [Theory]
    [InlineData(2, "Required", "verify")]
    [InlineData(2, "Unrecognized", "verfy")]
    [InlineData(2, "There is no install called 'nothing'", "verify", "nothing")]
    [InlineData(2, "cannot be read", "sheet", "check", "no-such-file.yaml")]
    [InlineData(2, "not a sign-in link", "token", "claim", "nonsense")]
    [InlineData(2, "1 to 500", "log", "list", "--take", "0")]
    [InlineData(3, "does not answer", "install", "list", "--address", "http://127.0.0.1:1")]
    [InlineData(2, "is not an address", "install", "list", "--address", "here")]
    public async Task Errors_say_what_and_end_with_their_code(int code, string says, params string[] arguments)
    {
        var result = await RunAsync(arguments);
        result.Code.ShouldBe(code);
        result.Error.ShouldContain(says);
        result.Out.ShouldBeEmpty();
    }

    [Fact]
    public async Task Without_a_token_it_says_how_to_get_one()
    {
        File.Delete(Settings);
        var result = await RunAsync("install", "list");
        result.Code.ShouldBe(2);
        result.Error.ShouldContain("justright token claim");
    }

    [Fact]
    public async Task A_sign_in_is_shown_tried_and_its_filters_looked_at()
    {
        const string log = "brinebook-contractors", gateway = "millrace-gateway";
        await _service.AddDemoAsync();
        (await RunAsync("sign-in", "card", log)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("No people of 'contractors' were read yet"));
        await RunAsync("survey", "fennmoor");
        (await RunAsync("sign-in", "card", log)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("door/callerSecret"), r => r.Out.ShouldContain("<secret: brinebook>"));
        JsonDocument.Parse((await RunAsync("sign-in", "file", log)).Out).RootElement.GetProperty("door").GetProperty("lock").GetString().ShouldBe("sealed");
        (await RunAsync("sign-in", "card", gateway)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("in plain text"));
        (await RunAsync("sign-in", "card", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("sign-in.directory"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=*sorel)")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("objects that have cn that ends with 'sorel'"), r => r.Out.ShouldContain("1 of 16"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=*sorel)", "--ask")).Out.ShouldContain("1, as the directory says");
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=nobody)")).Code.ShouldBe(1);
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn~=sorel)")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("for the directory itself to judge"));
        (await RunAsync("sign-in", "filter", "fennmoor", "contractors", "(cn=a)x")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Out.ShouldContain("      ^"));
    }

    [Fact]
    public async Task What_differs_between_two_fits_is_said_with_an_exit_code()
    {
        await _service.AddDemoAsync();
        (await RunAsync("drift", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("justright verify"));
        await RunAsync("verify", Install);
        await RunAsync("verify", Install); // the host that was restarting is back
        (await RunAsync("history", Install)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("missing"));
        (await RunAsync("drift", Install)).Out.ShouldContain("fm-temp02 can be read again");
        (await RunAsync("drift", Install, "--from", "2", "--to", "2")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Nothing is different."));
        (await RunAsync("drift", Install, "--from", "2", "--to", "1")).Out.ShouldContain("fm-temp02 can no longer be read");
        JsonDocument.Parse((await RunAsync("history", Install, "--json")).Out).RootElement.GetArrayLength().ShouldBe(2);
    }

    [Fact]
    public async Task A_password_is_due_tried_and_renewed_until_a_person_is_needed()
    {
        const string account = "svc-curd-read", typed = "typed-by-a-person-3";
        await _service.AddDemoAsync();
        (await RunAsync("password", "due", "fennmoor")).Code.ShouldBe(3); // nothing was read yet
        await RunAsync("survey", "fennmoor");
        (await RunAsync("password", "due", "fennmoor")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("managed"), r => r.Out.ShouldContain("Maud Ferris"));
        (await RunAsync("password", "where", "fennmoor", account)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Default reading account"), r => r.Out.ShouldContain("cannot work with such an account"));
        (await RunAsync("password", "tell", "fennmoor", account, "--in", "/srv/print.conf", "--setting", "store.password", "--breaks", "labels stop")).Out.ShouldContain("told 1");
        (await RunAsync("password", "forget", "fennmoor", account, "1")).Out.ShouldNotContain("print.conf");
        (await RunAsync(["password", "try", "fennmoor", account, "--type"], typed + "\n", _ => { })).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("does not work"), r => (r.Out + r.Error + _service.Output).ShouldNotContain(typed));
        (await RunAsync("password", "renew", "fennmoor", account, "--list")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("there is no way back"));
        (await RunAsync("password", "renew", "fennmoor", account)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("--yes"));
        (await RunAsync("password", "renew", "fennmoor", account, "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("it has the old one, the directory the new one"), r => r.Out.ShouldContain("hand-over"));
        (await RunAsync("password", "take-back", "fennmoor", account, "--yes")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("there is no way back"));
        (await RunAsync("password", "hand-over", "fennmoor", account)).Code.ShouldBe(2);
        var shown = (await RunAsync("password", "hand-over", "fennmoor", account, "--show")).Out.Trim();
        shown.Length.ShouldBe(32);
        (await RunAsync("password", "hand-over", "fennmoor", account, "--show")).Code.ShouldBe(2);
        (await RunAsync("password", "done", "fennmoor", account, "--step", "7")).Code.ShouldBe(2);
        (await RunAsync("password", "done", "fennmoor", account, "--note", "typed by J. Lind")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("renewed"));
        JsonDocument.Parse((await RunAsync("password", "progress", "fennmoor", account, "--json")).Out).RootElement.GetProperty("divided").GetArrayLength().ShouldBe(0);
        (await RunAsync(["password", "try", "fennmoor", account, "--type"], shown + "\n", _ => { })).Code.ShouldBe(0);
        (await RunAsync("password", "renew", "fennmoor", "svc-curd-keep")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("changes it by itself"));
    }

    [Fact]
    public async Task A_password_that_is_typed_for_a_trial_shows_nowhere()
    {
        const string bind = "pretend-brinebook", person = "typed-once-by-a-person";
        await _service.AddDemoAsync();
        var seen = new List<string>();
        var result = await RunAsync(["sign-in", "try", "brinebook-contractors", "--type-bind", "--type-person"], $"{bind}\n{person}\n", process =>
        {
            foreach (var file in new[] { "cmdline", "environ" }) seen.Add(File.ReadAllText($"/proc/{process.Id}/{file}"));
        });
        result.ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("7 found, 8 expected"), r => r.Out.ShouldContain("o.sorel"));
        seen.Count.ShouldBe(2);
        foreach (var text in seen.Append(result.Out).Append(result.Error).Append(File.ReadAllText(Settings)).Append(_service.Output))
        {
            text.ShouldNotContain(bind);
            text.ShouldNotContain(person);
        }

        (await RunAsync("sign-in", "try", "brinebook-contractors", "--type-bind")).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("No password was typed."));
        (await RunAsync("sign-in", "try", "--help")).Out.ShouldContain("never", Case.Insensitive);
    }

    [Fact]
    public async Task The_token_lies_in_a_file_that_only_its_owner_can_read()
    {
        if (!OperatingSystem.IsWindows()) File.GetUnixFileMode(Settings).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        (await RunAsync("token", "list")).Out.ShouldNotContain("jr_");
    }

    [Fact]
    public async Task Tab_completes_commands_and_names()
    {
        await _service.AddDemoAsync();
        (await RunAsync("[suggest:12]", "justright ve")).Out.ShouldContain("verify");
        (await RunAsync("[suggest:17]", "justright verify ")).Out.ShouldContain(Install);
        (await RunAsync("completion", "bash")).Out.ShouldContain("complete -o default -F _justright justright");
    }

    [Fact]
    public async Task Help_shows_examples()
    {
        foreach (var command in new[] { "verify", "grant", "why", "plan", "survey" })
            (await RunAsync(command, "--help")).Out.ShouldContain($"justright {command} ");
    }

    private static string DemoFile(string path) => Path.Combine(Checkout.Top, "demo-data", path);

    private Task<(int Code, string Out, string Error)> RunAsync(params string[] arguments) => ClientRun.RunAsync(_service, arguments);

    private Task<(int Code, string Out, string Error)> RunAsync(string[] arguments, string input, Action<Process> running) => ClientRun.RunAsync(_service, arguments, input, running);
}
