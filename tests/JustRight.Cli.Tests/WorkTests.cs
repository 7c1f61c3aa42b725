using System.Text.Json;

namespace JustRight.Cli.Tests;

/// <summary>The work from the client: the main job with its exit codes, and what stands beside it.</summary>
public sealed class WorkTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom";

    [Fact]
    public async Task The_main_job_ends_with_the_right_codes()
    {
        var first = await RunAsync("verify", Install);
        first.Code.ShouldBe(1);
        first.Out.ShouldContain("10 missing, 1 forbidden, 3 excess, 3 unseen, 4 pending");
        first.Out.ShouldContain("simulated estate");
        first.Out.ShouldContain(@"FENNMOOR\svc-archive → FENNMOOR\plant-tools → FENNMOOR\server-keepers → FENNMOOR\Domain");
        // no terminal, no --yes
        (await RunAsync("grant", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Cannot ask for confirmation"));
        (await RunAsync("grant", Install, "--yes"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("22 made; now 1 forbidden, 3 excess, 6 pending"));
        (await RunAsync("verify", Install, "--brief"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldNotContain("● met"));
        (await RunAsync("grant", Install, "--remove", "--yes")).Code.ShouldBe(0);
        (await RunAsync("verify", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("just right, 7 pending"));
        (await RunAsync("grant", Install, "--yes")).Out.ShouldContain("Nothing left to grant.");
        (await RunAsync("why", Install, "archivist", "SQLAgentOperatorRole")).Out.ShouldContain("starts the nightly jobs");
        (await RunAsync("log", "check")).Out.ShouldContain("The log is sound");
    }

    [Fact]
    public async Task Who_can_do_what_at_an_instance_is_listed_the_widest_first()
    {
        (await RunAsync("instance", "fennmoor", "fm-sql01")).Error.ShouldContain("justright survey fennmoor");
        await RunAsync("survey", "fennmoor");
        var all = await RunAsync("instance", "fennmoor", "fm-sql01");
        all.Code.ShouldBe(0);
        var lines = all.Out.Split('\n').Where(l => l.Contains("FENNMOOR", StringComparison.Ordinal)).ToList();
        lines[0].ShouldContain("sysadmin");
        all.Out.ShouldContain("(a machine)");
        // what it is needed by
        lines[^1].ShouldSatisfyAllConditions(l => l.ShouldContain("db_datareader"), l => l.ShouldContain("thermograph-dataroom"));
        (await RunAsync("instance", "fennmoor", "fm-sql01", "svc-quern", "SYSADMIN")).Out.ShouldContain(
            @"FENNMOOR\svc-quern → fm-sql01 login FENNMOOR\svc-quern → sysadmin on fm-sql01");
        all.Out.ShouldNotContain("Ways to more", Case.Sensitive, "whoever could come to more rules it already");
        var ways = await RunAsync("instance", "fennmoor", "fm-sql03");
        ways.Out.ShouldContain("Ways to more than was granted");
        ways.Out.ShouldContain("securityadmin can grant itself CONTROL SERVER");
        (await RunAsync("instance", "fennmoor", "fm-sql03", "labeller")).Out.ShouldNotContain("Ways to more");
        (await RunAsync("instance", "fennmoor", "fm-sql04"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(3), r => r.Out.ShouldContain("being patched"),
                r => r.Out.ShouldContain("Failover partners: fm-sql03"));
        JsonDocument.Parse((
            await RunAsync("instance", "fennmoor", "fm-sql01", "sysadmin", "--json")).Out).RootElement.GetProperty("holders")
            .GetProperty("items").GetArrayLength().ShouldBe(3);
    }

    [Fact]
    public async Task What_no_survey_reads_is_confirmed_by_a_person()
    {
        const string wheyline = "wheyline-lines";
        (await RunAsync("confirm", wheyline))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldNotBe(0), r => r.Error.ShouldContain("justright verify wheyline-lines"));
        await RunAsync("verify", wheyline);
        (await RunAsync("confirm", wheyline))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Tanker clerk"), r => r.Out.ShouldContain("? unseen"));
        (await RunAsync("confirm", wheyline, "sender"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("What was looked at is missing."));
        (await RunAsync("confirm", wheyline, "sender", "line sendr"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldNotBe(0), r => r.Error.ShouldContain("Tanker clerk"));
        var there = await RunAsync("confirm", wheyline, "sender", "tanker clerk", "--seen-by", "Nell Hathersage", "--json");
        there.Code.ShouldBe(0);
        JsonDocument.Parse(there.Out).RootElement[0].GetProperty("verdict").GetString().ShouldBe("met");
        (await RunAsync("why", wheyline, "sender", "tanker clerk")).Out.ShouldContain("confirmed by a person until");
        (await RunAsync("confirm", wheyline, "svc-whey-sender", "Tanker clerk", "--not-there")).Out.ShouldContain("missing");
        (await RunAsync("log", "list"))
            .ShouldSatisfyAllConditions(
                r => r.Out.ShouldContain("seen by Nell Hathersage"), r => r.Out.ShouldContain("is not mapped"));
    }

    [Fact]
    public async Task A_failingService_is_traced_fixed_and_the_mending_undone()
    {
        const string roundsman = "roundsman-dataroom";
        await RunAsync("verify", roundsman);
        var ldif = (await RunAsync("ldif", roundsman)).Out;
        ldif.ShouldContain("SIMULATED");
        ldif.Split('\n').Count(l => l.StartsWith("dn: ", StringComparison.Ordinal)).ShouldBe(4);
        (await RunAsync("grant", roundsman, "--yes")).Out.ShouldContain("4 made; now 1 missing, 1 forbidden");
        (await RunAsync("verify", roundsman, "--brief")).Out.ShouldContain("justright trace fennmoor svc-roundsman");
        var trace = await RunAsync(
            "trace", "fennmoor", "--service", "RoundsmanCopier", "--attribute", "roomNumber", "--attribute", "wWWHomePage");
        trace.Code.ShouldBe(1);
        trace.Out.ShouldContain("26 objects: 9 refuse it, 17 grant it");
        trace.Out.ShouldContain("inheritance stops here");
        var command = trace.Out.Split('\n').Select(l => l.Trim())
            .First(l => l.StartsWith("justright fix", StringComparison.Ordinal) && l.EndsWith("1-spot", StringComparison.Ordinal))
            .Split(' ')[1..];
        (await RunAsync(command))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Cannot ask for confirmation"));
        var after = await RunAsync([.. command, "--yes"]);
        after.Out.ShouldContain("2 made; now 26 objects: 26 grant it");
        var undo = after.Out.Split('\n')
            .First(l => l.StartsWith("to undo it: justright ", StringComparison.Ordinal))["to undo it: justright ".Length..]
            .Trim().Split(' ');
        (await RunAsync([.. undo, "--yes"]))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("2 made; now 26 objects: 9 refuse it, 17 grant it"));

        var list = Path.Combine(Service.Data, "failing.txt");
        await File.WriteAllLinesAsync(
            list, ["m.northam", "", "CN=Ada Brandt,OU=Highfield,OU=People,OU=Fennmoor,DC=fennmoor,DC=example"]);
        (await RunAsync(
            "trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber", "--objects-from", list)).Out.ShouldContain(
            "2 objects: 1 refuses it, 1 grants it");
        (await RunAsync(
            "trace", "fennmoor", "svc-roundsman", "--attribute", "roomNumber", "--objects-from", list + ".no")).Code.ShouldBe(2);
        (await RunAsync("trace", "fennmoor", "svc-roundsman", "--act", "change membership")).Code.ShouldBe(0);
        var whole = await RunAsync("trace", "fennmoor", "svc-roundsman", "--object", "m.northam", "--everything");
        whole.Code.ShouldBe(0);
        whole.Out.ShouldContain("Extended rights  1 of 5");
        whole.Out.ShouldContain("ACE ");
        (await RunAsync("trace", "fennmoor", "svc-roundsman", "--everything")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task A_directory_is_surveyed_from_a_file_that_is_refused_whole_when_it_is_not_sound()
    {
        var file = Path.Combine(Service.Data, "dairy.ldif");
        await File.WriteAllTextAsync(file, "dn: DC=fennmoor,DC=example\n");
        // the demo is the simulation
        (await RunAsync("survey", "fennmoor", "--from", file))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("reach: file"));
        var estate = (await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml")))
            .Replace("reach: simulation", "reach: file", StringComparison.Ordinal);
        (await Service.AddAsync("estates", "fennmoor.yaml", System.Text.Encoding.UTF8.GetBytes(estate)))
            .EnsureSuccessStatusCode();
        (await RunAsync("survey", "fennmoor")).Error.ShouldContain("--from FILE");

        await File.WriteAllTextAsync(file, "dn: DC=fennmoor,DC=example\nobjectClass: domainDNS\nobjectSid:: ?\n");
        (await RunAsync("survey", "fennmoor", "--from", file))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("dairy.ldif:3:1 The value of objectSid is not base 64."));
        (await RunAsync("survey", "fennmoor", "--from", file + ".no")).Code.ShouldBe(2);

        var sid = Convert.ToBase64String([1, 4, 0, 0, 0, 0, 0, 5, 21, 0, 0, 0, 1, 0, 0, 0, 2, 0, 0, 0, 3, 0, 0, 0]);
        await File.WriteAllTextAsync(
            file, $"dn: DC=fennmoor,DC=example\nobjectClass: domainDNS\nobjectSid:: {sid}\nunicodePwd: never-kept\n");
        var survey = await RunAsync("survey", "fennmoor", "--from", file, "--read-at", "2026-11-24T08:00Z");
        survey.Code.ShouldBe(3); // hosts are out of reach, and the file says little
        survey.Out.ShouldContain("dairy.ldif: 1 objects, read from the directory at 2026-11-24 08:00");
        survey.Out.ShouldContain("The directory was read from the file dairy.ldif");
        (await RunAsync("grant", "thermograph-dataroom", "--yes")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task A_protection_is_shown_set_and_lifted()
    {
        (await RunAsync("protect", "fennmoor", "people"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(1),
                r => r.Out.ShouldContain("OU=People,OU=Fennmoor,DC=fennmoor,DC=example is not protected"));
        (await RunAsync("protect", "fennmoor", "people", "--set", "--lift")).Code.ShouldBe(2);
        (await RunAsync("protect", "fennmoor", "people", "--set")).Code.ShouldBe(2); // nobody to confirm
        (await RunAsync("protect", "fennmoor", "people", "--set", "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("forbid Everyone to delete it"));
        (await RunAsync("protect", "fennmoor", "people")).Code.ShouldBe(0);
        (await RunAsync("protect", "fennmoor", "people", "--lift", "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("justright undo"));
        (await RunAsync("protect", "fennmoor", "people", "--lift", "--yes")).Code.ShouldBe(2);
    }

    [Fact]
    public async Task What_differs_between_two_fits_is_said_with_an_exit_code()
    {
        (await RunAsync("drift", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("justright verify"));
        await RunAsync("verify", Install);
        await RunAsync("verify", Install); // the host that was restarting is back
        (await RunAsync("history", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("missing"));
        (await RunAsync("drift", Install)).Out.ShouldContain("fm-temp02 can be read again");
        (await RunAsync("drift", Install, "--from", "2", "--to", "2"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Nothing is different."));
        (await RunAsync("drift", Install, "--from", "2", "--to", "1")).Out.ShouldContain("fm-temp02 can no longer be read");
        JsonDocument.Parse((await RunAsync("history", Install, "--json")).Out).RootElement.GetArrayLength().ShouldBe(2);
    }
}
