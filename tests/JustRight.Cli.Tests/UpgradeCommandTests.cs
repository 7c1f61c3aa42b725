using System.Text.RegularExpressions;

namespace JustRight.Cli.Tests;

/// <summary>Moving an install on to another release, as a person and as a script.</summary>
public sealed class UpgradeCommandTests() : ClientScene(() => PreparedData.Demo.StartAsync())
{
    private const string Install = "thermograph-dataroom", Later = "thermograph@5.0", Say = "places.web-server=fm-temp02";

    [Fact]
    public async Task What_it_means_is_shown_and_asked_before_anything_moves()
    {
        await AddSheetAsync();
        (await RunAsync("install", "upgrade", Install, "--to", Later, "--list")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("asked anew: places.web-server"));
        (await RunAsync("install", "upgrade", Install, "--to", Later, "--say", Say, "--list")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(1), r => r.Out.ShouldContain("needed anew"), r => r.Out.ShouldContain("needed no more"),
            r => Regex.IsMatch(r.Out, @"svc-thermo-poller +Event Log Readers +fm-temp01, fm-temp02").ShouldBeTrue(r.Out),
            r => r.Out.ShouldContain("log on as a service (given by: was setup, is us)"));
        (await RunAsync("install", "upgrade", Install, "--to", Later, "--say", Say)).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(2), r => r.Error.ShouldContain("--yes")); // nobody is there to say yes
        (await RunAsync("install", "list")).Out.ShouldContain("thermograph@4.2");
        (await RunAsync(
            ["install", "upgrade", Install, "--to", Later, "--yes"], "fm-temp02\n", _ => { })).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(0), r => r.Out.ShouldContain($"{Install} follows {Later} now, planned"));
        (await RunAsync("install", "show", Install)).Out.ShouldContain("web-server: \"fm-temp02\"");
    }

    [Theory]
    [InlineData("places.web-sever=fm-temp02", "Did you mean 'places.web-server'?")]
    [InlineData("places.web-server", "says nothing")]
    [InlineData("places.web-server=", "says nothing")]
    [InlineData("places.web-server=fm-temp99", "fm-temp99")]
    public async Task What_is_said_wrongly_is_one_clear_error(string say, string error)
    {
        await AddSheetAsync();
        (await RunAsync("install", "upgrade", Install, "--to", Later, "--say", say, "--yes")).ShouldSatisfyAllConditions(
            r => r.Code.ShouldBe(2), r => r.Error.ShouldContain(error));
    }

    private async Task AddSheetAsync() => (await RunAsync(
        "sheet", "add", Path.Combine(Checkout.Top, "demo-data", "later", "thermograph-5.0.yaml"))).Code.ShouldBe(0);
}
