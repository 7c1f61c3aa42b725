namespace JustRight.Cli.Tests;

/// <summary>Files of a sheet, an estate and an install from answers, and the first verdict that comes of them.</summary>
public sealed class NewFileTests() : ClientScene(() => TestedService.StartAsync())
{
    private string Folder => Directory.CreateDirectory(Path.Combine(Service.Data, "new")).FullName;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task From_answers_alone_to_just_right()
    {
        string[] sheet =
        [
            "thermograph", "4.2", "", "poller", "Log on as a service", "Console server", "", "setup", "runs the poller",
            "local administrator", "console server", "installation", "", "", "", "archivist", "db_datareader, db_datawriter",
            "Reporting store", "", "", "files the readings", "", "",
        ];
        string[] estate = ["highfield", "", "highfield.example", "", "", "", "", "", "hf-app01, hf-sql01", "hf-sql01"];
        string[] install = ["", "", "", "hf-app01", "hf-sql01/ThermoReports"];
        await MadeAsync("sheet", "thermograph.yaml", sheet);
        await MadeAsync("estate", "highfield.yaml", estate);
        await MadeAsync("install", "plant.yaml", install);
        (sheet.Length + estate.Length + install.Length).ShouldBeLessThan(40);

        (await RunAsync("estate", "rehearse", "highfield")).Code.ShouldBe(0);
        const string rehearsed = "thermograph-highfield-rehearsal";
        (await RunAsync("verify", rehearsed)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1),
            r => r.Out.ShouldContain("missing"));
        (await RunAsync("grant", rehearsed, "--yes")).Code.ShouldBe(0);
        (await RunAsync("estate", "rehearse", "highfield", "--setup", rehearsed)).Code.ShouldBe(0);
        (await RunAsync("grant", rehearsed, "--remove", "--yes")).Code.ShouldBe(0);
        (await RunAsync("verify", rehearsed)).ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0),
            r => r.Out.ShouldContain("just right"));
    }

    [Fact]
    public async Task An_answer_that_will_not_do_is_told_with_its_number_and_nothing_is_written()
    {
        await RefusedAsync("estate", ["Highfield"],
            "Answer 1 (A name for the estate, as one word) will not do: a word of small letters");
        await RefusedAsync("estate", ["highfield", "", "highfield"], "Answer 3 (The DNS name of the domain)");
        await RefusedAsync("estate", ["highfield", ""], "The input ended at question 3");
        await RefusedAsync(
            "estate", ["highfield", "", "highfield.example", "", "OU=Elsewhere,DC=other"],
                "that ends in DC=highfield,DC=example");
        await RefusedAsync(
            "estate", ["highfield", "", "highfield.example", "", "", "", "svc", "", "", ""], "it must contain {account}");
        await RefusedAsync(
            "estate", ["highfield", "", "highfield.example", "", "", "", "", "", "hf-app01", "hf-sql01"],
                "'hf-sql01' is none of hf-app01");
        await RefusedAsync("install", [], "There is no sheet yet");
        (await RunAsync("estate", "new", "--to", Path.Combine(Service.Data, "justright.db"))).Error
            .ShouldContain("is there already");
    }

    private async Task MadeAsync(string kind, string name, string[] answers)
    {
        var file = Path.Combine(Folder, name);
        var made = await RunAsync([kind, "new", "--to", file], string.Join('\n', answers) + "\n", _ => { });
        made.Code.ShouldBe(0, $"{made.Error}{made.Out}");
        made.Out.ShouldContain($"justright {kind} add {file}");
        (await RunAsync(kind, "add", file))
            .Code.ShouldBe(0, await File.ReadAllTextAsync(file, Cancel));
    }

    private async Task RefusedAsync(string kind, string[] answers, string says)
    {
        var file = Path.Combine(Folder, $"{kind}.yaml");
        var refused = await RunAsync([kind, "new", "--to", file], string.Concat(answers.Select(a => a + "\n")), _ => { });
        refused.ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain(says));
        File.Exists(file).ShouldBeFalse();
    }
}
