using JustRight.Core.Directory;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

/// <summary>Entries of a policy's list mean whom the host takes them for [MS-LSAT 3.1.4.5].</summary>
public sealed class PolicyEntryTests
{
    private const string Poller = "svc-poller", Writers = "Line Writers";

    [Theory]
    [InlineData("svc-poller", Poller)]
    [InlineData(@"FENNMOOR\SVC-Poller", Poller)]
    [InlineData(@"fennmoor.example\svc-poller", Poller)]
    [InlineData("svc-poller@fennmoor.example", Poller)]
    [InlineData(" svc-poller ", Poller)]
    [InlineData("graders", Writers)] // a local group of the host comes before the domain's of the same name
    [InlineData(@"FENNMOOR\graders", "graders")]
    [InlineData(@".\graders", Writers)]
    [InlineData(@"FM-TEMP01\graders", Writers)]
    [InlineData(@"fm-temp02\graders", null)] // another host's
    [InlineData(@"OTHER\svc-poller", null)]
    [InlineData("svc-poller@other.example", null)]
    [InlineData("nobody", null)]
    [InlineData(@"FENNMOOR\Administrators", null)] // not the host's
    [InlineData("Administrators", "S-1-5-32-544")]
    [InlineData(@"BUILTIN\Administrators", "S-1-5-32-544")]
    [InlineData("*S-1-5-32-544", "S-1-5-32-544")]
    [InlineData(@"NT AUTHORITY\NETWORK SERVICE", "S-1-5-20")]
    [InlineData("*S-1-banana", null)]
    public void An_entry_is_resolved_as_the_host_would(string entry, string? meant)
    {
        var scene = new FitScene().Account().Group("graders");
        var host = new HostSnapshot(
            "fm-temp01", FitScene.Now, null, [new LocalGroup("graders", Sid.Parse("S-1-5-21-7-7-7-1000"), [])], [], []);
        PolicyEntries.SidOf(entry, scene.View().Graph, host)?.ToString().ShouldBe(meant switch
        {
            null or "S-1-5-32-544" or "S-1-5-20" => meant,
            Writers => "S-1-5-21-7-7-7-1000",
            _ => scene.SidOf(meant).ToString(),
        });
    }
}
