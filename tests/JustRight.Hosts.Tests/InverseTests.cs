using System.Text.Json.Nodes;
using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Hosts.Tests;

/// <summary>What undoing leaves behind on a host: nothing, whatever was there before.</summary>
public sealed class InverseTests(HostScene scene) : IClassFixture<HostScene>
{
    private const int Kinds = 11;
    private const string Host = "fm-line08", Service = "LineSender";
    private static readonly string[] Principals = [@"FENNMOOR\svc-line", @"FENNMOOR\app-line-senders"];
    private static readonly int Rounds = RandomUndoing.Rounds(1);
    private readonly Random _random = new(20261130);
    private int _turn;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_was_there_before_undoing_restores_it_and_no_more()
    {
        var hosts = scene.Fresh(Host);
        var undoing = new RandomUndoing(
            c => hosts.ObserveAsync((HostChange)c, Cancel), c => hosts.MakeAsync((HostChange)c, PasswordFor(c), Cancel),
            () => Task.FromResult<IReadOnlySet<string>>(State()));
        for (var round = 0; round < Rounds; round++)
            await undoing.RoundAsync(() => Task.FromResult(Any()), Kinds, 4 * Kinds, round);

        undoing.Skipped.ShouldBeGreaterThan(Rounds, "what was true already is to be met, and left alone");
        undoing.Made.Keys.Order().ShouldBe([
            nameof(AddLocalGroupMember), nameof(DenyLogon), nameof(GrantLogonRight), nameof(GrantPrivilege),
            nameof(LiftLogonDenial), nameof(RemoveLocalGroupMember),
            nameof(RevokeLogonRight), nameof(RevokePrivilege), nameof(SetServiceAccount), nameof(SetServiceOrder),
            nameof(SetServiceStart),
        ]);
    }

    private static NewPassword? PasswordFor(Change change) =>
        change is SetServiceAccount { NeedsPassword: true } ? new NewPassword("right password") : null;

    private Change Any()
    {
        var principal = One(Principals);
        var service = scene.Hosts.State(Host)["services"]!.AsArray().Single(s => (string)s!["name"]! == Service)!;
        return (_turn++ * 5 % Kinds) switch // each in turn, in no order that means anything
        {
            0 => new AddLocalGroupMember(Host, One(["Line Writers", "Administrators"]), principal),
            1 => new RemoveLocalGroupMember(Host, One(["Line Writers", "Administrators"]), principal),
            2 => new GrantLogonRight(Host, One(["batch", "service"]), principal),
            3 => new RevokeLogonRight(Host, One(["batch", "service"]), principal),
            9 => new DenyLogon(Host, "remote", principal),
            10 => new LiftLogonDenial(Host, "remote", principal),
            4 => new GrantPrivilege(Host, "SeAssignPrimaryTokenPrivilege", principal),
            5 => new RevokePrivilege(Host, "SeAssignPrimaryTokenPrivilege", principal),
            6 => new SetServiceAccount(Host, Service, One([Principals[0], @"NT AUTHORITY\NetworkService"]),
                (string)service["account"]!),
            7 => new SetServiceStart(
                Host, Service, One([ServiceStart.Automatic, ServiceStart.Manual]),
                ServiceWords.StartOf((string)service["start"]!)!.Value),
            _ => new SetServiceOrder(
                Host, Service, One<string[]>([[], ["LineHub"]]), [.. service["waits"]!.AsArray().Select(w => (string)w!)]),
        };

        T One<T>(IReadOnlyList<T> all) => all[_random.Next(all.Count)];
    }

    /// <summary>
    /// The whole state, a line each, but for the diary of what was made. A list of rights or members has no order; the password
    /// that was typed for a built-in identity counts for nothing.
    /// </summary>
    private HashSet<string> State()
    {
        var state = scene.Hosts.State(Host);
        state.Remove("made");
        var lines = new HashSet<string>(StringComparer.Ordinal);
        foreach (var service in state["services"]!.AsArray())
            if (!((string)service!["account"]!).StartsWith("FENNMOOR", StringComparison.Ordinal)) service["typed"] = "";
        JsonLines.Add(state, "", "name", lines);
        return lines;
    }
}
