using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace JustRight.Cli.Tests;

/// <summary>Living with an install, from the client: exceptions, reviews, the calendar, files, the watch, two-person approval; what it prints, and its exit codes.</summary>
public sealed class LivingTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "quernstone-sql01";

    private static string Day(int days) => DateTime.UtcNow.AddDays(days).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    [Fact]
    public async Task What_is_accepted_and_reviewed_ends_up_in_files()
    {
        (await RunAsync("review", "add", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain($"justright verify {Install}"));
        await RunAsync("verify", Install);
        (await RunAsync("verify", Install)).Code.ShouldBe(1);
        (await RunAsync("exception", "allow", Install, "watcher", "no such right", "--why", "x", "--until", Day(9)))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("sysadmin on fm-sql01 (excess)"));
        (await RunAsync("exception", "allow", Install, "watcher", "sysadmin", "--why", "x", "--until", "soon"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("'soon' is not a day"));
        (await RunAsync(
            "exception", "allow", Install, "watcher", "sysadmin", "--why", "until the next release", "--until", Day(90), "--by",
            "Maud Ferris"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Maud Ferris"));
        (await RunAsync("verify", Install))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0, "all that is off is accepted"), r => r.Out.ShouldContain("1 excess, accepted"),
                r => r.Out.ShouldContain("accepted by Maud Ferris until"));
        var fit = JsonDocument.Parse((await RunAsync("history", Install, "--json")).Out).RootElement[0].GetProperty("number")
            .GetInt32();
        (await RunAsync("review", "add", Install, "--fit", $"{fit}", "--by", "Jory Lind", "--again-by", Day(100)))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("Jory Lind reviewed fit"));
        (await RunAsync("review", "list", Install)).Out.ShouldContain("accepted by Maud Ferris until");
        (await RunAsync("calendar", "fennmoor"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("exception"), r => r.Out.ShouldContain("review"));

        foreach (var (line, name, begins) in new[]
        {
            ("report {0} --form xlsx --to {1}", "q.xlsx", "PK"), (
                "report {0} --form csv --to {1}", "q.csv",
                "\ufeffinstall,fit,surveyed,simulated,account,"), ("review sheet {0} --to {1}", "q.html", "<!DOCTYPE html>"), ("evidence write {0} --to {1}",
                "q.json", "{\"payload\""), ("calendar fennmoor --to {1}", "q.ics", "BEGIN:VCALENDAR"),
        })
        {
            var file = Path.Combine(Service.Data, name);
            (await RunAsync(string.Format(CultureInfo.InvariantCulture, line, Install, file).Split(' ')))
                .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("is written"));
            System.Text.Encoding.UTF8.GetString(await File.ReadAllBytesAsync(file, TestContext.Current.CancellationToken))
                .ShouldStartWith(begins);
        }

        (await RunAsync("report", Install)).Out.ShouldStartWith("# Quernstone database watch");
        (await RunAsync("evidence", "key")).Out.ShouldStartWith("-----BEGIN PUBLIC KEY-----");
        (await RunAsync("report", Install, "--form", "xlsx", "--to", "/no/such/folder/q.xlsx"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("cannot be written"));
        (await RunAsync("exception", "end", Install, "1")).Out.ShouldContain("ended by");
        (await RunAsync("drift", Install))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("no longer accepted"));
    }

    [Fact]
    public async Task The_watch_and_two_person_approval_say_what_they_wait_for()
    {
        (await RunAsync("schedule", "fennmoor"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("fennmoor has no scheduled surveys"),
                r => r.Out.ShouldContain("service-accounts@fennmoor.example"));
        (await RunAsync("schedule", "fennmoor", "--now")).Out.ShouldContain("fennmoor was surveyed");
        (await RunAsync("notifications", "fennmoor", "--remind")).Code.ShouldBe(0);
        var estate = Path.Combine(Service.Data, "fennmoor.yaml");
        await File.WriteAllTextAsync(
            estate,
            await File.ReadAllTextAsync(
                Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"),
                TestContext.Current.CancellationToken) + "  two-person-approval: yes\n",
            TestContext.Current.CancellationToken);
        (await RunAsync("estate", "add", estate, "--list")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("two-person-approval"),
            r => r.Out.ShouldContain("for brinebook-contractors, curdhouse-books"));
        (await RunAsync("estate", "add", estate)) // no terminal, no --yes
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Cannot ask for confirmation"));
        (await RunAsync("estate", "add", estate, "--yes")).Code.ShouldBe(0);
        (await RunAsync("estate", "add", estate)).Code.ShouldBe(0); // it says the same: nothing to ask
        var proposed = await RunAsync("grant", "tallystick-dataroom", "--yes");
        proposed.ShouldSatisfyAllConditions(r => r.Code.ShouldBe(4), r => r.Out.ShouldContain("another granter must approve it"));
        var id = JsonDocument.Parse((await RunAsync("proposal", "list", "--json")).Out).RootElement[0].GetProperty("id")
            .GetString()!;
        (await RunAsync("proposal", "list")).Out.ShouldContain("waits for another's approval");
        (await RunAsync("proposal", "approve", id, "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(4), r => r.Error.ShouldContain("another person must approve it"));
        (await RunAsync("proposal", "carry-out", id))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("Nobody has approved it yet"));
        (await RunAsync("proposal", "withdraw", id)).Out.ShouldContain("withdrawn by");
        (await RunAsync("proposal", "list")).Out.ShouldContain("No proposal is open.");
    }

    [Fact]
    public async Task An_unexpected_member_in_a_closed_group_can_be_accepted_too()
    {
        await RunAsync("verify", "wheyline-lines"); // settles the group's name
        var plan = JsonDocument.Parse(
            (await RunAsync("plan", "wheyline-lines", "--json")).Out).RootElement.GetProperty("groups")[0];
        var group = plan.GetProperty("name").GetString()!;
        var simulation = Path.Combine(Service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(simulation, TestContext.Current.CancellationToken))!;
        state["principals"]!.AsArray()
            .Add(new JsonObject { ["name"] = group, ["kind"] = "Group", ["rid"] = 9001, ["dn"] = plan.GetProperty("dn").GetString(), ["description"] = "", ["scope"] = "Global", ["members"] = new JsonArray("t.okoro") });
        await File.WriteAllTextAsync(simulation, state.ToJsonString(), TestContext.Current.CancellationToken);
        (await RunAsync("verify", "wheyline-lines")).Out.ShouldContain("t.okoro is excess here");
        (await RunAsync("exception", "allow", "wheyline-lines", "nowhere", "t.okoro", "--why", "x", "--until", Day(9)))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain(group));
        (await RunAsync(
            "exception", "allow", "wheyline-lines", group, "t.okoro", "--why", "covers for a colleague", "--until", Day(9)))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("covers for a colleague"));
    }

    [Fact]
    public async Task A_product_is_retired_and_one_that_was_there_is_adopted()
    {
        await RunAsync("verify", "tallystick-dataroom");
        (await RunAsync("grant", "tallystick-dataroom", "--yes")).Code.ShouldBe(0);
        (await RunAsync(
            "install", "add", Path.Combine(Checkout.Top, "demo-data", "later", "thermograph-depot.yaml"))).Code.ShouldBe(0);
        (await RunAsync("install", "stage", "tallystick-dataroom", "gone"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("planned, installed, retiring"));
        (await RunAsync("install", "stage", "tallystick-dataroom", "retiring")).Out.ShouldContain("See what goes and what stays");
        (await RunAsync("grant", "tallystick-dataroom", "--remove", "--list"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("once it has been disabled for 30 days"),
                r => r.Out.ShouldContain("kept: thermograph-depot uses it"));
        (await RunAsync("grant", "tallystick-dataroom", "--remove", "--yes"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("now nothing left"),
                r => r.Out.ShouldContain("to undo it: justright undo"));
        (await RunAsync("grant", "tallystick-dataroom", "--remove", "--yes"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(4), r => r.Out.ShouldContain("not before"));
        (await RunAsync("verify", "tallystick-dataroom"))
            .ShouldSatisfyAllConditions(
                r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("no longer needed here; kept for thermograph-depot"));

        (await RunAsync("adopt", "list")).Out.ShouldContain("No adoptions.");
        (await RunAsync(
            "adopt", "begin", "found", "--estate", "fennmoor", "--product", "found", "--account", "svc-archive:service",
            "--account", "svc-reports:job"))
            .ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(0), r => r.Out.ShouldContain("svc-reports  directly"), r => r.Out.ShouldContain(
                "through a forbidden group"), r => r.Out.ShouldContain(
                "thermograph-dataroom needs it already"));
        (await RunAsync("adopt", "answer", "found", "needed", "0-4"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("'0-4' names no items"));
        (await RunAsync("adopt", "answer", "found", "needed", "1-2", "--why", "the guide, chapter 2")).Out.ShouldContain(
            "needed: svc-archive: ");
        (await RunAsync("adopt", "finish", "found"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("are not answered yet"));
        (await RunAsync("adopt", "answer", "found", "not-sure", "rest")).Out.ShouldContain(
            "items are answered: justright adopt finish found");
        (await RunAsync("adopt", "answer", "found", "not-sure", "rest"))
            .ShouldSatisfyAllConditions(r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("No item is left to answer"));
        (await RunAsync("adopt", "draft", "found")).Out.ShouldContain("the guide, chapter 2 (");
        (await RunAsync("adopt", "finish", "found")).Out.ShouldContain("added the sheet found@1 and the install found");
        (await RunAsync("adopt", "show", "found", "--json")).Out.ShouldContain("\"finishedAt\"");
    }

}
