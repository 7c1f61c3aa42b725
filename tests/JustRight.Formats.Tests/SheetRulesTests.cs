namespace JustRight.Formats.Tests;

/// <summary>The rules of a sheet beyond its shape, each as a slip in the demo's sheet.</summary>
public sealed class SheetRulesTests
{
    [Theory]
    [InlineData("accounts: [poller, archivist], why", "accounts: [poller, archiver], why", "unknown-account", "archiver")]
    [InlineData(
        "name: ThermoHub, on: console-server, as: poller", "name: ThermoHub, on: console-server, as: puller", "unknown-account",
        "puller")]
    [InlineData("name: ThermoHub, on: console-server", "name: ThermoHub, on: reporting-store", "wrong-place", null)]
    [InlineData("name: ThermoHub, on: console-server", "name: ThermoHub, on: console", "unknown-place", "console")]
    [InlineData("called: everything, instance-role", "called: agent-roles, instance-role", "duplicate-name", null)]
    [InlineData("in: reporting-store/msdb, why: starts", "in: console-server, why: starts", "wrong-place", null)]
    [InlineData("members: [archivist]", "members: [archivist, operators, log-readers]", "cyclic-group", null)]
    [InlineData("  operators:\n", "  poller:\n", "duplicate-name", null)]
    [InlineData(
        "store-is-remote: reporting-store.host not in console-server", "store-is-remote: reporting-store.port > 1",
        "undeclared-name", null)]
    [InlineData("nightly-jobs and reporting-store.release >= 13", "nightly-jobs > 13", "condition-type", null)]
    // facts are read in order
    [InlineData(
        "store-is-remote: reporting-store.host", "far: store-is-remote\n  store-is-remote: reporting-store.host",
        "undeclared-name", null)]
    [InlineData("count: 1 or more", "count: 3 to 1", "wrong-value", null)]
    [InlineData("count: 1 or more", "count: 0", "wrong-value", null)]
    public void A_slip_is_found(string part, string instead, string code, string? found)
    {
        var (sheet, faults) = DemoFiles.Sheet(DemoFiles.With("sheets/thermograph.yaml", part, instead));
        sheet.ShouldBeNull();
        var fault = faults.FirstOrDefault(f => f.Code == code).ShouldNotBeNull(string.Join("\n", faults));
        fault.At.Line.ShouldBeGreaterThan(0);
        fault.Field.ShouldNotBeEmpty();
        if (found is not null) fault.Message.ShouldContain(found);
    }

    [Fact]
    public void Alternatives_do_not_nest()
    {
        var nested = DemoFiles.With(
            "sheets/thermograph.yaml", "          - { called: everything, instance-role",
            "          - any-of: [ { instance-role: serveradmin, at: reporting-store } ]\n          - { called: everything, instance-role");
        DemoFiles.Sheet(nested).Faults.ShouldHaveSingleItem().Code.ShouldBe("nested-any-of");
    }

    [Theory]
    [InlineData("1", 1, 1)]
    [InlineData("2 or more", 2, int.MaxValue)]
    [InlineData("0 to 3", 0, 3)]
    public void Counts_are_read(string count, int least, int most)
    {
        var place = DemoFiles.Sheet(
            DemoFiles.With("sheets/thermograph.yaml", "count: 1 or more", $"count: {count}")).Sheet!.Places[0];
        (place.AtLeast, place.AtMost).ShouldBe((least, most));
    }
}
