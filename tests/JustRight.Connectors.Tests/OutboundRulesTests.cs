using System.Net;
using System.Net.Sockets;
using JustRight.Connectors.Outbound;

namespace JustRight.Connectors.Tests;

/// <summary>Where the service may connect to: names and networks, and what no name can stand for.</summary>
public sealed class OutboundRulesTests
{
    private static readonly Dictionary<string, string[]> Names = new(StringComparer.OrdinalIgnoreCase)
    {
        ["fm-sql01.fennmoor.example"] = ["10.20.30.42"],
        ["fm-sql01.fennmoor.example.attacker.example"] = ["10.20.30.42"],
        ["hooks.fennmoor.example"] = ["198.51.100.7", "2001:db8::7"],
        ["turned.fennmoor.example"] = ["127.0.0.1"],
        ["cloud.fennmoor.example"] = ["169.254.169.254"],
        ["half.fennmoor.example"] = ["127.0.0.1", "198.51.100.8"],
    };

    [Theory]
    [InlineData("fm-sql01.fennmoor.example", "fm-sql01.fennmoor.example", "10.20.30.42")]
    [InlineData("FM-SQL01.fennmoor.example", "fm-sql01.fennmoor.example", "10.20.30.42")]
    [InlineData("*.fennmoor.example", "fm-sql01.fennmoor.example", "10.20.30.42")]
    [InlineData("*.fennmoor.example", "fm-sql01.fennmoor.example.attacker.example", null)]
    [InlineData("fm-sql01.fennmoor.example", "hooks.fennmoor.example", null)]
    [InlineData("10.20.0.0/16", "fm-sql01.fennmoor.example", "10.20.30.42")]
    [InlineData("10.20.0.0/16", "10.20.30.42", "10.20.30.42")]
    [InlineData("10.20.30.42", "10.20.30.42", "10.20.30.42")]
    [InlineData("10.21.0.0/16", "10.20.30.42", null)]
    [InlineData("2001:db8::/32", "hooks.fennmoor.example", "2001:db8::7")]
    [InlineData("*.fennmoor.example", "hooks.fennmoor.example", "198.51.100.7 2001:db8::7")]
    // A name that somebody points at this machine, at its link or at a cloud's metadata stands for nothing.
    [InlineData("*.fennmoor.example", "turned.fennmoor.example", null)]
    [InlineData("*.fennmoor.example", "cloud.fennmoor.example", null)]
    [InlineData("*.fennmoor.example", "half.fennmoor.example", "198.51.100.8")]
    [InlineData("127.0.0.0/8", "turned.fennmoor.example", "127.0.0.1")]
    [InlineData("127.0.0.0/8", "::ffff:127.0.0.1", "127.0.0.1")]
    [InlineData("10.0.0.0/8", "::ffff:127.0.0.1", null)]
    [InlineData("10.0.0.0/8", "0.0.0.0", null)]
    [InlineData("10.0.0.0/8", "[::1]", null)]
    [InlineData("", "10.20.30.42", null)]
    public async Task A_place_is_allowed_by_name_or_network(string rule, string host, string? expected)
    {
        var rules = new OutboundRules(rule.Length == 0 ? [] : [rule], ResolveAsync);
        if (expected is not null)
        {
            string.Join(' ', await rules.AddressesAsync(host, CancellationToken.None)).ShouldBe(expected);
            return;
        }

        var refused = await Should.ThrowAsync<ConnectorException>(() => rules.AddressesAsync(host, CancellationToken.None));
        refused.Failure.ShouldBe(ConnectorFailure.Withheld);
        refused.Message.ShouldContain("JustRight:Outbound:Allow");
    }

    [Fact]
    public async Task A_name_without_an_address_is_told_as_that()
    {
        var rules = new OutboundRules(["*.fennmoor.example"], ResolveAsync);
        (await Should.ThrowAsync<ConnectorException>(() => rules.AddressesAsync("gone.fennmoor.example", CancellationToken.None)))
            .Failure.ShouldBe(ConnectorFailure.Unreachable);
    }

    [Theory]
    [InlineData("not a name")]
    [InlineData("10.20.30.0/40")]
    [InlineData("*")]
    public void A_rule_that_is_none_is_refused(string rule) =>
        Should.Throw<FormatException>(() => new OutboundRules([rule], ResolveAsync)).Message.ShouldContain(rule);

    private static Task<IPAddress[]> ResolveAsync(string name, CancellationToken cancel) => Names.TryGetValue(name, out var found)
        ? Task.FromResult(found.Select(IPAddress.Parse).ToArray())
        : throw new SocketException((int)SocketError.HostNotFound);
}
