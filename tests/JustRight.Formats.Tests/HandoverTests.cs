using System.Text;
using System.Text.Json.Nodes;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Handovers;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Handovers;
using JustRight.Formats.Hosts;

namespace JustRight.Formats.Tests;

/// <summary>Bundles for teams: every form says what, why, the least privilege considered and how to take it back; names stay names in each.</summary>
public sealed class HandoverTests
{
    private const string Hostile = @"D\<script>alert(1)</script>|*_`[x](y)";

    [Fact]
    public void A_hosts_bundle_holds_the_page_the_scripts_the_changes_and_what_undoes_them()
    {
        var files = HandoverFiles.Write(OfHost(), _ => Sid.Parse("S-1-5-21-1-2-3-1001"), (_, _) => "")
            .ToDictionary(f => f.Name, f => f.Content);
        files.Keys.ShouldBe(
            [
                "handover.html", "handover.md", "steps.csv", "make-host-changes.ps1", "collect-host-facts.ps1", "changes.json",
                "undo.json"]);
        var changes = JsonNode.Parse(files["changes.json"])!;
        changes["host"]!.GetValue<string>().ShouldBe("fm-line01");
        changes["steps"]!.AsArray().Select(s => s!["change"]!.GetValue<string>())
            .ShouldBe(["add-local-group-member", "set-service-account", "restart-service"]);
        changes["steps"]![0]!["principal-sid"]!.GetValue<string>().ShouldBe("S-1-5-21-1-2-3-1001");
        JsonNode.Parse(files["undo.json"])!["steps"]!.AsArray().Select(s => s!["change"]!.GetValue<string>())
            .ShouldBe(["set-service-account", "restart-service", "remove-local-group-member"]);
        foreach (var (name, content) in files.Where(f =>
            f.Key.EndsWith(".json", StringComparison.Ordinal) || f.Key.EndsWith(".ps1", StringComparison.Ordinal)))
            content.ShouldAllBe(b => b < 127, name);
        HandoverFiles.Names(OfHost()).ShouldBe(files.Keys);
        HandoverFiles.FolderName(OfHost()).ShouldBe("wheyline-lines-host-fm-line01");
    }

    [Fact]
    public void The_directorys_bundle_holds_the_new_list_of_a_policy_whole()
    {
        var change = new ChangePolicyList(
            "FENNMOOR", "{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}", "Job servers", "SeBatchLogonRight",
            ["*S-1-5-32-544", "*S-1-5-21-1-2-3-1001"], ["*S-1-5-32-544"], @"FENNMOOR\svc-night", ["fm-night01", "fm-night02"]);
        var handover = OfHost() with
        {
            Team = Team.Directory,
            Place = "FENNMOOR",
            Steps = [Step(1, change)],
            Undo = [change.Inverse!],
        };
        var files = HandoverFiles.Write(handover, _ => null, (what, changes) => $"{what}: {changes.Count()}")
            .ToDictionary(f => f.Name, f => f.Content);
        SecurityTemplate.Read(files["rights-of-policy-1.inf"]).Rights().ShouldHaveSingleItem().Entries.ShouldBe(change.Entries);
        Encoding.UTF8.GetString(files["handover.md"])
            .ShouldContain(@"and becomes, whole: \*S-1-5-32-544 (Administrators), \*S-1-5-21-1-2-3-1001");
        Encoding.UTF8.GetString(files["handover.html"]).ShouldContain("it counts on: fm-night01, fm-night02");
        Encoding.UTF8.GetString(files["undo.ldif"]).ShouldStartWith("taking back");
    }

    [Fact]
    public void The_databases_bundle_holds_scripts_that_give_check_and_undo_and_only_for_the_engine_they_are_for()
    {
        Change[] changes = [
            new CreateLogin("fm-sql01", @"FENNMOOR\svc-quern"),
            new GrantInstancePermission("fm-sql01", "VIEW SERVER STATE", @"FENNMOOR\svc-quern")];
        var handover = OfHost() with
        {
            Team = Team.Database,
            Place = "fm-sql01",
            Engine = "sqlserver",
            Steps = [.. changes.Select((c, i) => Step(i + 1, c))],
            Undo = Undoing.Of(changes),
        };
        var files = HandoverFiles.Write(handover, _ => null, (_, _) => "")
            .ToDictionary(f => f.Name, f => Encoding.UTF8.GetString(f.Content));
        files.Keys.ShouldBe(["handover.html", "handover.md", "steps.csv", "give.sql", "check.sql", "undo.sql"]);
        files["give.sql"].ShouldContain("CREATE LOGIN [FENNMOOR\\svc-quern] FROM WINDOWS;");
        files["check.sql"].ShouldNotContain("GRANT VIEW", Case.Sensitive);
        files["undo.sql"].IndexOf("REVOKE VIEW SERVER STATE", StringComparison.Ordinal)
            .ShouldBeInRange(1, files["undo.sql"].IndexOf("DROP LOGIN", StringComparison.Ordinal));
        files["handover.md"].ShouldContain("run check.sql");
        HandoverFiles.Names(handover with { Engine = "postgresql" }).ShouldBe(["handover.html", "handover.md", "steps.csv"]);
        // no script can hold that name
        HandoverFiles.Names(handover with { Steps = [Step(1, new CreateLogin("fm-sql01", "a\nGO"))] })
            .ShouldNotContain("give.sql");
    }

    [Fact]
    public void Every_form_says_what_why_the_least_and_how_back()
    {
        foreach (var text in new[] { HandoverPage.Write(OfHost()), HandoverMarkdown.Write(OfHost()) })
        {
            foreach (var part in new[] { "Wheyline milk-line recorder: fm-line01", "the recorder takes readings", "wheyline.yaml:25:9", "stays within its host", "Sends readings", "SIMULATED", "-WhatIf", "undo.json", "waits for the directory team", "2026-11-25 09:30:00 UTC" })
                text.ShouldContain(part);
        }

        HandoverCsv.Write([OfHost()]).Split("\r\n").Length.ShouldBe(5);
    }

    [Fact]
    public void A_hostile_name_is_a_name_in_every_form()
    {
        var handover = OfHost() with { Steps = [Step(1, new AddLocalGroupMember("fm-line01", "=cmd|'/c x'!A1", Hostile))] };
        HandoverPage.Write(handover).ShouldNotContain("<script");
        HandoverMarkdown.Write(handover).ShouldContain(@"\<script\>alert(1)\</script\>\|\*\_\`\[x\](y)");
        var cells = HandoverCsv.Write(
            [handover with { Place = "=1+1", Steps = [handover.Steps[0] with { Why = "-2, \"quoted\"" }] }]);
        cells.ShouldContain(",'=1+1,");
        cells.ShouldContain("\"'-2, \"\"quoted\"\"\"");
    }

    private static Handover OfHost()
    {
        Change[] changes =
        [
            new AddLocalGroupMember("fm-line01", "Writers", @"FENNMOOR\app-senders"), new SetServiceAccount(
                "fm-line01", "Sender", @"FENNMOOR\svc-sender", @"NT AUTHORITY\NetworkService"),
            new RestartService("fm-line01", "Sender", @"FENNMOOR\svc-sender"),
        ];
        return new Handover(
            "wheyline-lines", "Wheyline milk-line recorder", "wheyline@3.2", "handbook, chapter 6", "fennmoor", Team.Host, "fm-line01", false, true, new DateTimeOffset(
                2026, 11, 25, 9, 30, 0, TimeSpan.Zero),
            [.. changes.Select((c, i) => Step(i + 1, c))], Undoing.Of(changes));
    }

    private static HandoverStep Step(int number, Change change) =>
        new(
            number, change, "the recorder takes readings from this group only", [@"FENNMOOR\svc-sender: Sends readings"],
            ["Writers stays within its host"], "it waits for the directory team", new Origin("wheyline.yaml", 25, 9));
}
