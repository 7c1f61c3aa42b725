using System.Text;
using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Surveys;
using JustRight.Formats.Hosts;

namespace JustRight.Formats.Tests.Hosts;

public sealed class HostFactsReaderTests
{
    private const string Text = """
        {
          "host-facts": 1,
          "read-at": "2026-11-25T09:30:00.123Z",
          "read-by": "FENNMOOR\\t.okoro",
          "host": { "name": "FM-REC01", "domain": "fennmoor.example", "role": "member", "system": "Windows Server 2022", "started-at": null },
          "local-groups": [ { "name": "Gr\u00fc\u00dfe", "sid": "S-1-5-21-7-7-7-1002", "members": [ { "sid": "S-1-5-21-1-2-3-1104", "name": "FENNMOOR\\FM-LINE01$" } ] } ],
          "rights": [ { "right": "SeBatchLogonRight", "entries": ["*S-1-5-32-544", "Backup Operators", "FENNMOOR\\svc-x"], "policy": "{7c2e5a10-5b0d-4c0b-8e52-1d2f6a9b3c01}" } ],
          "services": [ { "name": "Rec", "start": "automatic-delayed", "running": true, "waits-for": ["Store", "+Net"], "runs-now-as": "NT AUTHORITY\\SYSTEM", "runs-now-as-sid": "S-1-5-18", "runs-since": "2026-11-25T10:00:00+01:00" } ], "tasks": [], "pools": [],
          "policies": [ { "id": "{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}", "name": "Servers", "rights": [ { "right": "SeBatchLogonRight", "entries": [] } ] } ],
          "unread": [ { "part": "SeTcbPrivilege", "reason": "access denied" } ]
        }
        """;

    [Theory]
    [InlineData("utf-8")]
    [InlineData("utf-8 with a mark")]
    [InlineData("utf-16")]
    public void What_Windows_PowerShell_writes_is_read(string encoding)
    {
        var (facts, faults) = Read(Text, encoding switch { "utf-8" => new UTF8Encoding(false), "utf-16" => Encoding.Unicode, _ => Encoding.UTF8 });
        faults.ShouldBeEmpty();
        var host = facts!.Snapshot;
        (host.Name, facts.Domain, host.Role, host.ReadBy, host.ReadAt).ShouldBe(("FM-REC01", "fennmoor.example", HostRole.Member, @"FENNMOOR\t.okoro", new DateTimeOffset(2026, 11, 25, 9, 30, 0, 123, TimeSpan.Zero)));
        host.LocalGroups.ShouldHaveSingleItem().Name.ShouldBe("Grüße");
        var list = host.LogonLists.ShouldHaveSingleItem();
        (list.Holders.Count, list.Named.Single(), list.Policy).ShouldBe((2, @"FENNMOOR\svc-x", "{7C2E5A10-5B0D-4C0B-8E52-1D2F6A9B3C01}"));
        var service = host.Services.ShouldHaveSingleItem();
        (service.Account, service.Start, service.RunsNowAsSid, service.RunsSince).ShouldBe(("LocalSystem", ServiceStart.AutomaticDelayed, Sid.Parse("S-1-5-18"), new DateTimeOffset(2026, 11, 25, 9, 0, 0, TimeSpan.Zero)));
        host.Policies.ShouldNotBeNull().ShouldHaveSingleItem().Lists.ShouldNotBeNull().ShouldHaveSingleItem().Entries.ShouldBeEmpty();
        host.UnreadParts.ShouldHaveSingleItem().Part.ShouldBe("SeTcbPrivilege");
    }

    [Fact]
    public void A_part_that_is_not_told_is_unread()
    {
        var (facts, _) = Read("{\"host-facts\":1,\"read-at\":\"2026-11-25T09:30:00Z\",\"host\":{\"name\":\"x\",\"role\":\"member\"}}", new UTF8Encoding(false));
        facts!.Snapshot.UnreadParts.Select(u => u.Part).ShouldBe(
            ["services", "rights", "local groups", "scheduled tasks", "web application pools"]);
        facts.Snapshot.Policies.ShouldBeNull();
        Read("{\"host-facts\":1,\"read-at\":\"2026-11-25T09:30:00Z\",\"host\":{\"name\":\"x\",\"role\":\"controller\"},\"services\":[],\"rights\":[],\"tasks\":[],\"pools\":[]}", new UTF8Encoding(false)).Facts!.Snapshot.UnreadParts.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("\"role\": \"member\"", "\"role\": \"membre\"", "wrong-value", "host.role", 5)]
    [InlineData("\"host-facts\": 1", "\"host-facts\": 2", "wrong-value", "host-facts", 2)]
    [InlineData("\"sid\": \"S-1-5-21-7-7-7-1002\"", "\"sid\": \"1002\"", "wrong-value", "local-groups[0].sid", 6)]
    [InlineData("\"start\": \"automatic-delayed\", ", "", "missing-key", "services[0].start", 8)]
    [InlineData("\"running\": true", "\"runing\": true", "unknown-key", "services[0].runing", 8)]
    [InlineData("2026-11-25T09:30:00.123Z", "yesterday", "wrong-value", "read-at", 3)]
    [InlineData("\"unread\": [", "\"unread\": [,", "json", "", 10)]
    public void A_fault_is_named_with_its_place(string part, string instead, string code, string field, int line)
    {
        Text.ShouldContain(part);
        var (facts, faults) = Read(Text.Replace(part, instead, StringComparison.Ordinal), new UTF8Encoding(false));
        facts.ShouldBeNull();
        faults.ShouldContain(f => f.Code == code && f.Field == field && f.At.Line == line, string.Join("\n", faults));
    }

    [Theory]
    [InlineData("")]
    [InlineData("   ")]
    [InlineData("[]")]
    [InlineData("not json")]
    [InlineData("{\"host-facts\":1} trailing")]
    public void What_is_no_host_facts_is_refused(string text) => Read(text, new UTF8Encoding(false)).Faults.ShouldNotBeEmpty();

    [Fact]
    public void Any_slip_gives_facts_or_faults_and_never_an_exception() =>
        Gen.Select(Gen.Int[0, Text.Length - 1], Gen.Int[0, 12], Gen.String[Gen.Char["{}[]\",:\\ u1aü\0"], 0, 4]).Sample((at, length, instead) =>
        {
            var (facts, faults) = Read(Text.Remove(at, Math.Min(length, Text.Length - at)).Insert(at, instead), new UTF8Encoding(false));
            (facts is null).ShouldBe(faults.Count > 0);
        });

    private static (HostFacts? Facts, IReadOnlyList<Core.Faults.Fault> Faults) Read(string text, Encoding encoding) => HostFactsReader.Read([.. encoding.Preamble, .. encoding.GetBytes(text)], "facts.json");
}
