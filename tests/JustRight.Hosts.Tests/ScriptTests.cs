using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Core.Changes;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists.Undo;
using JustRight.Formats.Hosts;

namespace JustRight.Hosts.Tests;

/// <summary>The two scripts as a server's owner runs them, by real PowerShell on a simulated Windows host.</summary>
public sealed class ScriptTests : IDisposable
{
    private const string Host = "fm-line01";
    private const string Line = @"FENNMOOR\svc-line";
    private readonly string _folder = Directory.CreateTempSubdirectory("scripts").FullName;

    public ScriptTests()
    {
        File.WriteAllText(In(HostScripts.CollectName), HostScripts.Collect);
        File.WriteAllText(In(HostScripts.ChangeName), HostScripts.Change);
        Save(SimulatedHostState.New(Host));
    }

    public void Dispose() => Directory.Delete(_folder, recursive: true);

    [Theory]
    [InlineData(HostScripts.CollectName)]
    [InlineData(HostScripts.ChangeName)]
    public async Task Nothing_in_a_script_is_newer_than_Windows_PowerShell(string script) =>
        (await CheckAsync(script)).Output.ShouldBe("");

    [Fact]
    public async Task The_check_itself_finds_what_is_newer()
    {
        await File.WriteAllTextAsync(
            In("new.ps1"),
            "$a = $b ?? 1\n$c = $a ? 1 : 2\nGet-Date && Get-Date\n$a?.Length\nConvertFrom-Json -InputObject $a -AsHashtable\nRemove-Service x\n'ü'\n",
            TestContext.Current.CancellationToken);
        var found = (await CheckAsync("new.ps1")).Output;
        foreach (var part in new[] { "line 1", "line 2", "line 3", "AsHashtable", "Remove-Service", "beyond ASCII" })
            found.ShouldContain(part);
    }

    [Fact]
    public async Task Every_change_is_made_once_reported_and_undone_and_WhatIf_changes_nothing()
    {
        var untouched = State().ToJsonString();
        HostChange[] changes =
        [
            new AddLocalGroupMember(Host, "Line Writers", Line), new AddLocalGroupMember(
                Host, "Administrators", @"FENNMOOR\app-line-senders"), new GrantLogonRight(Host, "service", Line),
            new GrantLogonRight(Host, "network", Line), new GrantPrivilege(
                Host, "SeAssignPrimaryTokenPrivilege", Line), new SetServiceStart(
                Host, "LineHub", ServiceStart.AutomaticDelayed, ServiceStart.Automatic),
            new SetServiceOrder(Host, "LineSender", ["LineHub", "+NetworkProvider"], ["LineHub"]), new SetServiceAccount(
                Host, "LineSender", @"NT AUTHORITY\LocalService", @"NT AUTHORITY\NetworkService"),
            new RestartService(Host, "LineSender", @"NT AUTHORITY\LocalService"),
        ];
        (await MakeAsync(changes, "-WhatIf")).ShouldAllBe(r => r == "would");
        State().ToJsonString().ShouldBe(untouched);
        LeftBehind().ShouldBeEmpty();

        (await MakeAsync(changes)).ShouldAllBe(r => r == "made");
        LeftBehind().ShouldBeEmpty();
        var made = State()["made"]!.AsArray().Count;
        (await MakeAsync(changes)).ShouldAllBe(r => r == "already");
        State()["made"]!.AsArray().Count.ShouldBe(made);

        (await MakeAsync([.. Undoing.Of(changes).Cast<HostChange>()])).ShouldAllBe(r => r == "made");
        foreach (var part in new[] { "groups", "services" })
            Without(State()[part]!).ShouldBe(Without(JsonNode.Parse(untouched)![part]!));
        State()["rights"]!["SeNetworkLogonRight"]!.AsArray().ShouldBeEmpty();
    }

    [Fact]
    public async Task Hostile_names_change_nothing_but_their_targets()
    {
        var canary = In("canary");
        await File.WriteAllTextAsync(canary, "", TestContext.Current.CancellationToken);
        string[] names =
        [
            "O'Brien", $"'; Remove-Item -Recurse {canary}; '", $"\"; Remove-Item -Recurse {canary}; \"",
            $"$(Remove-Item -Recurse {canary})", "`$env:PATH", "Grüße, Jürgen & Söhne", "‘curly’ quotes",
            "svc-exactly-20-chars", "FM-LINE09$", "a*b?[c]", "back\\slash and 'quote'", "line\nend", "-WhatIf",
        ];
        var state = State();
        for (var i = 0; i < names.Length; i++)
        {
            state["principals"]!.AsArray()
                .Add(new JsonObject { ["name"] = names[i], ["sid"] = $"{SimulatedHostState.Domain}-{3000 + i}", ["groups"] = new JsonArray() });
            state["groups"]!.AsArray()
                .Add(new JsonObject { ["name"] = names[i], ["sid"] = $"S-1-5-21-7-7-7-{2000 + i}", ["members"] = new JsonArray() });
        }

        Save(state);
        (await MakeAsync([.. names.SelectMany(n =>
            new HostChange[] { new AddLocalGroupMember(Host, n, $@"FENNMOOR\{n}"), new GrantPrivilege(
                Host, "SeAssignPrimaryTokenPrivilege", $@"FENNMOOR\{n}") })]))
            .ShouldAllBe(r => r == "made");
        for (var i = 0; i < names.Length; i++)
            state["groups"]![3 + i]!["members"]!.AsArray().Add($"{SimulatedHostState.Domain}-{3000 + i}");
        for (var i = 0; i < names.Length; i++)
            state["rights"]!["SeAssignPrimaryTokenPrivilege"]!.AsArray().Add($"*{SimulatedHostState.Domain}-{3000 + i}");
        foreach (var part in new[] { "groups", "rights", "services" })
            State()[part]!.ToJsonString().ShouldBe(state[part]!.ToJsonString());
        File.Exists(canary).ShouldBeTrue();
    }

    [Fact]
    public async Task The_first_failure_stops_the_list_and_the_record_says_where()
    {
        HostChange[] changes = [
            new AddLocalGroupMember(Host, "Line Writers", Line), new AddLocalGroupMember(Host, "No Such Group", Line),
            new GrantLogonRight(Host, "batch", Line)];
        await File.WriteAllTextAsync(
            In("changes.json"), HostChangesJson.Write(Host, "a test", changes, _ => null), TestContext.Current.CancellationToken);
        var run = await RunAsync(HostScripts.ChangeName, "");
        run.ExitCode.ShouldBe(1);
        run.Output.ShouldContain("Stopped at change 2 of 3");
        var record = HostRecord.Read(await File.ReadAllTextAsync(In("record.jsonl"), TestContext.Current.CancellationToken));
        record.Select(r => (r.Number, r.Result)).ShouldBe([(1, "made"), (2, "failed")]);
        record[1].After.ShouldBe("there is no local group No Such Group");
        State()["rights"]!["SeBatchLogonRight"]!.AsArray().Count.ShouldBe(3);
    }

    [Fact]
    public async Task The_facts_are_what_the_published_format_says()
    {
        (await RunAsync(HostScripts.CollectName, "-To facts.json")).Output.ShouldContain("were written to facts.json");
        var bytes = await File.ReadAllBytesAsync(In("facts.json"), TestContext.Current.CancellationToken);
        bytes.ShouldAllBe(b => b < 127);
        var (facts, faults) = HostFactsReader.Read(bytes, "facts.json");
        faults.ShouldBeEmpty();
        (facts!.Snapshot.Name, facts.Domain, facts.Snapshot.Services.Count).ShouldBe((Host, "fennmoor.example", 3));
        facts.Snapshot.UnreadParts.ShouldBeEmpty();
        facts.Snapshot.Runners.ShouldBeEmpty();
    }

    [Fact]
    public async Task Tasks_and_pools_are_read_with_what_they_run_as_and_no_password()
    {
        var state = State();
        state["windows"] = _folder;
        state["tasks"] = JsonNode.Parse("""
            [
              { "path": "\\Dairy\\", "name": "Nightly", "state": "Ready", "user": "FENNMOOR\\svc-line", "logon": "Password" },
              { "path": "\\", "name": "Old", "state": "Disabled", "user": "S-1-5-21-1-2-3-2001", "logon": "Password" },
              { "path": "\\", "name": "Managed", "state": "Ready", "user": "gm-line$", "logon": "ServiceAccount" },
              { "path": "\\Microsoft\\", "name": "Own", "state": "Ready", "user": "SYSTEM", "logon": "ServiceAccount" },
              { "path": "\\Microsoft\\", "name": "Signed in", "state": "Ready", "user": "", "logon": "Group" }
            ]
            """);
        Save(state);
        Directory.CreateDirectory(In("System32/inetsrv/config"));
        await File.WriteAllTextAsync(
            In("System32/inetsrv/config/applicationHost.config"),
            """
            <configuration><system.applicationHost><applicationPools>
              <add name="Default" />
              <add name="Line"><processModel identityType="SpecificUser" userName="FENNMOOR\svc-line" password="[enc:secret:enc]" /></add>
              <add name="Managed"><processModel identityType="SpecificUser" userName="FENNMOOR\gm-line$" /></add>
              <add name="Own"><processModel identityType="NetworkService" /></add>
              <applicationPoolDefaults><processModel identityType="ApplicationPoolIdentity" /></applicationPoolDefaults>
            </applicationPools></system.applicationHost></configuration>
            """, TestContext.Current.CancellationToken);
        (await RunAsync(HostScripts.CollectName, "-To facts.json")).Output.ShouldContain("were written to facts.json");
        var text = await File.ReadAllTextAsync(In("facts.json"), TestContext.Current.CancellationToken);
        text.ShouldNotContain("secret");
        var (facts, faults) = HostFactsReader.Read(System.Text.Encoding.UTF8.GetBytes(text), "facts.json");
        faults.ShouldBeEmpty();
        facts!.Snapshot.UnreadParts.ShouldBeEmpty();
        facts.Snapshot.Runners.Select(r => (r.Kind, r.Name, r.Account, r.KeepsPassword, r.IsDisabled)).ShouldBe(
        [
            (RunnerKind.Task, @"\Dairy\Nightly", Line, true, false), (RunnerKind.Task, @"\Old", "S-1-5-21-1-2-3-2001", true, true),
            (RunnerKind.Task, @"\Managed", "gm-line$", false, false), (RunnerKind.Pool, "Default", @"IIS APPPOOL\Default", false, false),
            (RunnerKind.Pool, "Line", Line, true, false), (RunnerKind.Pool, "Managed", @"FENNMOOR\gm-line$", false, false),
        ]);
        facts.Snapshot.Runners[1].AccountSid.ShouldBe(Core.Directory.Sid.Parse("S-1-5-21-1-2-3-2001"));
    }

    [Fact]
    public async Task A_host_whose_name_is_cut_for_the_old_protocols_tells_its_whole_name_and_takes_its_changes()
    {
        const string host = "fm-curing-hall01"; // sixteen characters
        Save(SimulatedHostState.New(host));
        (await RunAsync(HostScripts.CollectName, "-To facts.json")).Output.ShouldContain("were written to facts.json");
        var (facts, _) = HostFactsReader.Read(
            await File.ReadAllBytesAsync(In("facts.json"), TestContext.Current.CancellationToken), "facts.json");
        facts!.Snapshot.Name.ShouldBe(host);
        (await MakeAsync([new GrantLogonRight(host, "batch", Line)], on: host)).ShouldBe(["made"]);
    }

    /// <summary>Temporary files of the scripts, which are to be gone.</summary>
    private IEnumerable<string> LeftBehind() => Directory.EnumerateFiles(_folder, "just-right-*");

    private static string Without(JsonNode part) => string.Join('\n', part.AsArray().Select(p =>
    {
        var copy = p!.DeepClone().AsObject();
        foreach (var moving in new[] { "pid", "since", "typed" }) copy.Remove(moving);
        return copy.ToJsonString();
    }));

    private async Task<IReadOnlyList<string>> MakeAsync(HostChange[] changes, string arguments = "", string on = Host)
    {
        await File.WriteAllTextAsync(
            In("input"), Line1(HostChangesJson.Write(on, "a test", changes, _ => null)) + "\n",
            TestContext.Current.CancellationToken);
        var run = await RunAsync(HostScripts.ChangeName, $"-FromInput {arguments}", In("input"));
        var records = HostRecord.Read(run.Output);
        records.Count.ShouldBe(changes.Length, $"{run.Output}{run.Errors}");
        return [.. records.Select(r => $"{r.Result}{(r.Result == "failed" ? ": " + r.After : "")}")];
    }

    private static string Line1(string json) => JsonSerializer.Serialize(JsonNode.Parse(json));

    private Task<(string Output, string Errors, int ExitCode)> CheckAsync(string script) =>
        StartAsync(
            ["-File", Path.Combine(Checkout.Top, "tests", "SimulatedHost", "check-for-windows-powershell.ps1"), In(script)],
            null);

    private Task<(string Output, string Errors, int ExitCode)> RunAsync(string script, string arguments, string? input = null) =>
        StartAsync(
            [
                "-Command",
                $"Import-Module '{SimulatedHosts.Module}' -DisableNameChecking; & './{script}' {arguments}; exit $LASTEXITCODE"],
            input);

    private async Task<(string Output, string Errors, int ExitCode)> StartAsync(string[] arguments, string? input)
    {
        var end = await Programs.RunAsync(
            SimulatedHosts.PowerShell, ["-NoProfile", "-NonInteractive", .. arguments], input is null
                ? ""
                : await File.ReadAllTextAsync(input),
            [
                ("PRETEND_HOST_STATE", In("state.json")), ("TMPDIR", _folder), ("POWERSHELL_TELEMETRY_OPTOUT", "1"),
                ("NO_COLOR", "1")], _folder);
        return (end.Output.Trim(), end.Error, end.Code);
    }

    private string In(string name) => Path.Combine(_folder, name);

    private JsonObject State() => JsonNode.Parse(File.ReadAllText(In("state.json")))!.AsObject();

    private void Save(JsonObject state) => File.WriteAllText(In("state.json"), state.ToJsonString());
}
