using System.Net;
using System.Net.Sockets;
using System.Text.Json.Nodes;
using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Hosts.Tests;

/// <summary>The scripts, run over real SSH by real PowerShell on simulated Windows hosts.</summary>
public sealed class SshHostsTests(HostScene scene) : IClassFixture<HostScene>
{
    private const string Line = @"FENNMOOR\svc-line";
    private static readonly CancellationToken Cancel = TestContext.Current.CancellationToken;

    [Fact]
    public async Task What_is_read_is_what_the_host_has()
    {
        var host = await scene.Fresh("fm-line01").ReadAsync("fm-line01", Cancel);
        host.UnreadParts.ShouldBeEmpty();
        (host.Role, host.System, host.ReadBy)
            .ShouldBe((HostRole.Member, "PRETEND Windows Server 2022 10.0.20348", @"FENNMOOR\host-reader"));
        host.LocalGroups.Select(g => g.Name).ShouldBe(["Administrators", "Line Writers", "Users"]);
        host.LocalGroups[0].Members.ShouldHaveSingleItem().ShouldBe(Sid.Parse(SimulatedHostState.Domain + "-512"));
        host.LogonLists.Single(l => l.Constant == "SeBatchLogonRight").Holders.Count.ShouldBe(3);
        host.Services.Select(s => (s.Name, s.Account, s.Start, s.Running)).ShouldBe([
            ("LineHub", @"NT AUTHORITY\NetworkService", ServiceStart.Automatic, true), (
                "LineSender", @"NT AUTHORITY\NetworkService", ServiceStart.AutomaticDelayed,
                true), ("Tcpip", "LocalSystem", ServiceStart.System, true),
        ]);
        host.Services[0].WaitsFor.ShouldBe(["Tcpip"]);
        (host.Services[0].RunsNowAsSid, host.Services[0].RunsSince)
            .ShouldBe((
                Sid.Parse("S-1-5-20"),
                DateTimeOffset.Parse("2026-11-20T04:00:30Z", System.Globalization.CultureInfo.InvariantCulture)));
    }

    [Fact]
    public async Task What_the_host_will_not_tell_is_unread_and_the_rest_is_read()
    {
        var hosts = scene.Fresh("fm-line01");
        scene.Hosts.Change("fm-line01", s =>
        {
            s["fails"] = new JsonArray("secedit.exe", "Win32_Process", "RSOP_GPO", "Get-ScheduledTask");
            // an account that is gone: the command gives up on the whole group
            s["groups"]!.AsArray()[0]!["members"]!.AsArray().Add(SimulatedHostState.Domain + "-9999");
        });
        var host = await hosts.ReadAsync("fm-line01", Cancel);
        host.UnreadParts.Select(u => u.Part).Order().ShouldBe(
            ["Administrators", "policies", "rights", "running identities", "scheduled tasks"]);
        host.LocalGroups.Select(g => g.Name).ShouldBe(["Line Writers", "Users"]);
        host.Policies.ShouldBeNull();
        host.Services.ShouldAllBe(s => s.RunsNowAs == null);
    }

    [Fact]
    public async Task Policies_come_with_their_lists_and_each_list_with_its_source()
    {
        var hosts = scene.Fresh("fm-line02");
        var policy = GivePolicy("fm-line02", "SeBatchLogonRight = *S-1-5-32-544");
        await HostScene.MakeAsync(
            hosts,
            new RefreshPolicy("fm-line02") { Expect = [new ExpectedHolder("SeBatchLogonRight", @"FENNMOOR\svc-line", true)] },
            null)
            .ShouldThrowAsync<ConnectorException>();
        var host = await hosts.ReadAsync("fm-line02", Cancel);
        host.Policies.ShouldNotBeNull().ShouldHaveSingleItem().ShouldSatisfyAllConditions(
            p => p.Id.ShouldBe(policy), p => p.Name.ShouldBe("Servers"), p => p.Lists.ShouldNotBeNull()
                .ShouldHaveSingleItem().Entries.ShouldBe(["*S-1-5-32-544"]));
        host.LogonLists.Single(l => l.Constant == "SeBatchLogonRight").Policy.ShouldBe(policy);
        host.LogonLists.Single(l => l.Constant == "SeServiceLogonRight").Policy.ShouldBeNull();
    }

    [Fact]
    public async Task A_grant_that_a_policy_governs_is_taken_back_by_the_next_refresh()
    {
        var hosts = scene.Fresh("fm-line03");
        GivePolicy("fm-line03", "SeBatchLogonRight = *S-1-5-32-544");
        await HostScene.MakeAsync(hosts, new GrantLogonRight("fm-line03", "batch", Line));
        var refresh = new RefreshPolicy("fm-line03") { Expect = [new ExpectedHolder("SeBatchLogonRight", Line, false)] };
        (await HostScene.MakeAsync(hosts, refresh)).After.State.ShouldBe(ObservedState.Done);
        (await hosts.ObserveAsync(new GrantLogonRight("fm-line03", "batch", Line), Cancel)).State.ShouldBe(ObservedState.NotDone);
    }

    [Fact]
    public async Task A_swap_of_accounts_counts_after_the_restart_and_dependents_run_again()
    {
        var hosts = scene.Fresh("fm-line05");
        await HostScene.MakeAsync(hosts, new GrantLogonRight("fm-line05", "service", Line));
        await HostScene.MakeAsync(
            hosts, new SetServiceAccount("fm-line05", "LineHub", Line, @"NT AUTHORITY\NetworkService"), "right password");
        (await hosts.ReadAsync("fm-line05", Cancel)).Services[0]
            .ShouldSatisfyAllConditions(s => s.Account.ShouldBe(Line), s => s.RunsNowAsSid.ShouldBe(Sid.Parse("S-1-5-20")));
        await HostScene.MakeAsync(hosts, new RestartService("fm-line05", "LineHub", Line) { Dependents = ["LineSender"] });
        scene.Hosts.MadeOn("fm-line05").TakeLast(4)
            .ShouldBe(["stop LineSender", "stop LineHub", "start LineHub", "start LineSender"]);
        (await hosts.ReadAsync("fm-line05", Cancel)).Services[0].RunsNowAsSid.ShouldBe(
            Sid.Parse(SimulatedHostState.Domain + "-2001"));
    }

    [Fact]
    public async Task A_renewed_password_is_given_while_the_service_runs_on_and_counts_after_a_start_anew()
    {
        const string host = "fm-line07";
        var hosts = scene.Fresh(host);
        await HostScene.MakeAsync(hosts, new GrantLogonRight(host, "service", Line));
        await HostScene.MakeAsync(
            hosts, new SetServiceAccount(host, "LineHub", Line, @"NT AUTHORITY\NetworkService"), "right password");
        await HostScene.MakeAsync(hosts, new RestartService(host, "LineHub", Line) { Dependents = ["LineSender"] });
        var before = (await hosts.ReadAsync(host, Cancel)).Services[0];
        scene.Hosts.Change(
            host,
            s => s["principals"]!.AsArray()
                .Single(p => p!["name"]!.GetValue<string>() == "svc-line")!["password"] = "the new one");
        var give = new GiveServicePassword(host, "LineHub", Line);
        (await hosts.ObserveAsync(give, Cancel))
            .ShouldSatisfyAllConditions(
                o => o.State.ShouldBe(ObservedState.NotDone), o => o.Seen.ShouldContain("cannot be read back"));
        await hosts.MakeAsync(give, new NewPassword("the new one"), Cancel);
        (await hosts.ReadAsync(host, Cancel)).Services[0].RunsSince.ShouldBe(before.RunsSince); // it runs on

        var anew = new RestartService(host, "LineHub", Line)
        {
            Anew = true,
            RanSince = before.RunsSince,
            Dependents = ["LineSender"],
        };
        (await hosts.ObserveAsync(anew, Cancel)).State.ShouldBe(ObservedState.NotDone);
        await hosts.MakeAsync(anew, null, Cancel);
        (await hosts.ObserveAsync(anew, Cancel)).State.ShouldBe(ObservedState.Done);
        scene.Hosts.MadeOn(host).TakeLast(4).ShouldBe(["stop LineSender", "stop LineHub", "start LineHub", "start LineSender"]);
        var made = scene.Hosts.MadeOn(host).Count;
        await hosts.MakeAsync(anew, null, Cancel); // asked for again after a crash: it has started since
        scene.Hosts.MadeOn(host).Count.ShouldBe(made);

        await hosts.MakeAsync(give, new NewPassword("a slip of the hand"), Cancel);
        (await hosts.MakeAsync(
            anew with { RanSince = (await hosts.ReadAsync(host, Cancel)).Services[0].RunsSince }, null,
            Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldContain(
            "the user name or password is incorrect");
        (await hosts.ObserveAsync(give with { Account = @"FENNMOOR\svc-other" }, Cancel)).State.ShouldBe(
            ObservedState.Impossible);
    }

    [Theory]
    [InlineData("right password", false, "the right to log on as a service was not granted")]
    [InlineData("wrong password", true, "the user name or password is incorrect")]
    public async Task What_the_host_refuses_is_said_and_the_password_is_not(string password, bool granted, string says)
    {
        var hosts = scene.Fresh("fm-line06");
        if (granted) await HostScene.MakeAsync(hosts, new GrantLogonRight("fm-line06", "service", Line));
        await HostScene.MakeAsync(
            hosts, new SetServiceAccount("fm-line06", "LineSender", Line, @"NT AUTHORITY\NetworkService"), password);
        var refused = await hosts.MakeAsync(new RestartService("fm-line06", "LineSender", Line), null, Cancel)
            .ShouldThrowAsync<ConnectorException>();
        refused.Message.ShouldContain(says);
        refused.Message.ShouldNotContain("password'");
        (await hosts.MakeAsync(
            new AddLocalGroupMember("fm-line06", "Line Writers", @"FENNMOOR\nobody"), null,
            Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldContain(
            @"FENNMOOR\nobody was not found");
        (await hosts.ObserveAsync(new SetServiceStart("fm-line06", "NoSuch", ServiceStart.Manual, ServiceStart.Manual), Cancel))
            .ShouldBe(new Observation(ObservedState.Impossible, "there is no service NoSuch"));
    }

    [Fact]
    public async Task A_host_that_echoes_its_input_is_quoted_without_the_password()
    {
        var hosts = scene.Fresh("fm-line06");
        var echoes = Path.ChangeExtension(scene.Hosts.StatePath("fm-line06"), "echoes");
        await File.WriteAllTextAsync(echoes, "", Cancel);
        var refused = await hosts.MakeAsync(
            new SetServiceAccount("fm-line06", "LineSender", Line, @"NT AUTHORITY\NetworkService"),
            new NewPassword("Kein+Käse\"7"), Cancel)
            .ShouldThrowAsync<ConnectorException>();
        File.Delete(echoes);
        refused.Message.ShouldContain("\"password\":\"(a password)\"");
        refused.Message.ShouldNotContain("Kein");
    }

    public static TheoryData<string, string> Cuts => new()
    {
        { "local group", "after Add-LocalGroupMember" }, { "right", "before secedit.exe" }, { "account", "after Change" },
        { "restart", "after Stop-Service LineSender" }, { "restart", "after Stop-Service LineHub" },
    };

    [Theory]
    [MemberData(nameof(Cuts))]
    public async Task A_session_cut_in_the_middle_of_a_change_is_resumed_with_nothing_doubled_or_lost(string which, string moment)
    {
        var hosts = scene.Fresh("fm-line08");
        HostChange change = which switch
        {
            "local group" => new AddLocalGroupMember("fm-line08", "Line Writers", Line),
            "right" => new GrantLogonRight("fm-line08", "service", Line),
            "account" => new SetServiceAccount("fm-line08", "LineSender", Line, @"NT AUTHORITY\NetworkService"),
            _ => new RestartService("fm-line08", "LineHub", Line) { Dependents = ["LineSender"] },
        };
        if (which == "restart")
        {
            scene.Hosts.Change(
                "fm-line08", s => s["rights"]!["SeServiceLogonRight"]!.AsArray().Add($"*{SimulatedHostState.Domain}-2001"));
            await hosts.MakeAsync(
                new SetServiceAccount("fm-line08", "LineHub", Line, @"NT AUTHORITY\NetworkService"),
                new NewPassword("right password"), Cancel);
        }

        var already = scene.Hosts.MadeOn("fm-line08").Count;
        scene.Hosts.Change("fm-line08", s => s["rehearse"] = moment);
        (await hosts.MakeAsync(
            change, new NewPassword("right password"), Cancel).ShouldThrowAsync<ConnectorException>()).Failure.ShouldBe(
            ConnectorFailure.Unreachable);

        // As a grant goes on: look first, and make only what is not true.
        if ((await hosts.ObserveAsync(change, Cancel)).State != ObservedState.Done)
            await hosts.MakeAsync(change, new NewPassword("right password"), Cancel);
        (await hosts.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done);
        var made = scene.Hosts.MadeOn("fm-line08").Skip(already).ToList();
        made.ShouldBe(made.Distinct());
        scene.Hosts.State("fm-line08")["services"]!.AsArray().ShouldAllBe(s => s!["pid"]!.GetValue<int>() > 0);
    }

    [Fact]
    public async Task A_host_with_another_key_is_sent_nothing()
    {
        var hosts = scene.Fresh("fm-line01", key: "SHA256:" + new string('A', 43));
        var refused = await hosts.MakeAsync(new AddLocalGroupMember("fm-line01", "Line Writers", Line), null, Cancel)
            .ShouldThrowAsync<ConnectorException>();
        refused.Failure.ShouldBe(ConnectorFailure.NotTrusted);
        refused.Message.ShouldContain(scene.Hosts.HostKey);
        scene.Hosts.MadeOn("fm-line01").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_sign_in_that_is_refused_names_the_secret_and_not_what_is_in_it()
    {
        var refused = await scene.Fresh("fm-line01", secret: "a password that nobody has").ReadAsync("fm-line01", Cancel)
            .ShouldThrowAsync<ConnectorException>();
        refused.Failure.ShouldBe(ConnectorFailure.SignIn);
        refused.Message.ShouldContain("'host-key'");
        refused.Message.ShouldNotContain("nobody has");
    }

    [Fact]
    public async Task A_password_lets_in_as_a_key_does_and_a_wrong_one_does_not()
    {
        scene.Fresh("fm-line02");
        var yaml = $"  fm-line02: {scene.Hosts.Yaml("fm-line02", user: SimulatedHosts.PasswordUser)}";
        (await HostScene.Reaching(yaml, 60, scene.Hosts.Password).ReadAsync("fm-line02", Cancel)).Services.ShouldNotBeEmpty();
        var refused = await HostScene.Reaching(yaml, 60, scene.Hosts.Password + "x").ReadAsync("fm-line02", Cancel)
            .ShouldThrowAsync<ConnectorException>();
        (refused.Failure, refused.Message.Contains(scene.Hosts.Password, StringComparison.Ordinal))
            .ShouldBe((ConnectorFailure.SignIn, false));
    }

    [Fact]
    public async Task Changes_for_another_host_are_refused()
    {
        scene.Fresh("fm-line02");
        var hosts = HostScene.Reaching($"  fm-other01: {scene.Hosts.Yaml("fm-line02")}", 60, scene.Hosts.PrivateKey);
        (await hosts.ReadAsync("fm-other01", Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldContain(
            "is named FM-LINE02");
        (await hosts.MakeAsync(
            new AddLocalGroupMember("fm-other01", "Line Writers", Line), null,
            Cancel).ShouldThrowAsync<ConnectorException>()).Message.ShouldContain(
            "these changes are for fm-other01");
        scene.Hosts.MadeOn("fm-line02").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_host_that_accepts_and_never_speaks_is_given_up_within_its_timeout()
    {
        using var silent = new TcpListener(IPAddress.Loopback, 0);
        silent.Start();
        var hosts = HostScene.Reaching(
            $"  fm-line01: {{ reach: ssh, address: 127.0.0.1, port: {((IPEndPoint)silent.LocalEndpoint).Port}, host-key: \"{scene.Hosts.HostKey}\", sign-in-as: x, secret: host-key }}",
            3, scene.Hosts.PrivateKey);
        var refused = await hosts.ReadAsync("fm-line01", Cancel).WaitAsync(TimeSpan.FromMinutes(2), Cancel)
            .ShouldThrowAsync<ConnectorException>();
        refused.Failure.ShouldBe(ConnectorFailure.Unreachable);
    }

    private string GivePolicy(string host, string line)
    {
        const string id = "{0B6E1C52-3C2D-4E0B-9A57-6E5D0C7F1A11}";
        var folder = Path.Combine(scene.Hosts.Folder, host, id, "Machine");
        Directory.CreateDirectory(Path.Combine(folder, "Microsoft", "Windows NT", "SecEdit"));
        File.WriteAllText(
            Path.Combine(folder, "Microsoft", "Windows NT", "SecEdit", "GptTmpl.inf"),
            $"[Unicode]\r\nUnicode=yes\r\n[Privilege Rights]\r\n{line}\r\n", System.Text.Encoding.Unicode);
        scene.Hosts.Change(
            host, s => s["policies"] = new JsonArray(new JsonObject { ["id"] = id, ["name"] = "Servers", ["path"] = folder }));
        return id;
    }
}
