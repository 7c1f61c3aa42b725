using System.Net;
using System.Net.Sockets;
using JustRight.Connectors;
using JustRight.Core.Estates;

namespace JustRight.Hosts.Tests;

/// <summary>One host that never answers holds up nobody else.</summary>
public sealed class ManyHostsTests
{
    [Fact]
    public async Task Of_fifty_hosts_one_never_answers_and_the_other_forty_nine_are_read()
    {
        var names = Enumerable.Range(1, 49).Select(i => $"fm-line{i:00}").ToArray();
        await using var hosts = await SimulatedHosts.StartAsync(names);
        using var silent = new TcpListener(IPAddress.Loopback, 0);
        silent.Start();
        var lines = names.Select(n => $"  {n}: {hosts.Yaml(n)}")
            .Prepend($"  fm-silent: {{ reach: ssh, address: 127.0.0.1, port: {((IPEndPoint)silent.LocalEndpoint).Port}, host-key: \"{hosts.HostKey}\", sign-in-as: x, secret: host-key }}");
        var estate = HostScene.Estate(string.Join('\n', lines), timeoutSeconds: 60, sideBySide: 4);
        var connector = HostScene.Reaching(string.Join('\n', lines), 60, hosts.PrivateKey);
        var survey = await EstateSurveyor.TakeAsync(
            estate, new EstateConnectors(
                new NoDirectory(), new HostRouter(estate, new Dictionary<Reach, IHostConnector> { [Reach.Ssh] = connector }),
                new InstanceRouter(
                    estate, null, new Dictionary<string,
                    IInstanceConnector>())), new SurveyAims([], []), TimeProvider.System, _ => { }, TestContext.Current.CancellationToken);
        survey.Hosts.Select(h => h.Name).ShouldBe(estate.Hosts.Select(h => h.Name));
        survey.Hosts.Where(h => h.Unread is not null).Select(h => h.Name).ShouldBe(["fm-silent"]);
        survey.Hosts[0].Unread.ShouldNotBeNull().ShouldContain("within 60 s");
        survey.Hosts.Skip(1).ShouldAllBe(h => h.Services.Count == 3 && h.UnreadParts.Count == 0);
    }
}
