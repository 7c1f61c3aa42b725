using JustRight.Connectors;
using JustRight.Core.Changes;

namespace JustRight.Simulation.Tests;

/// <summary>Each kind of change that is made in an estate is known to the simulation, to look and to make.</summary>
public sealed class EveryChangeTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    /// <summary>All but those that a person makes.</summary>
    public static TheoryData<Type> Changes =>
        [.. SampleChange.Kinds.Where(k => !k.IsAssignableTo(typeof(ProductChange)) && k != typeof(DoTask))];

    [Theory]
    [MemberData(nameof(Changes))]
    public async Task It_is_looked_for_and_made_or_refused_for_a_reason_of_the_estates(Type kind)
    {
        using var simulation = new DemoSimulation();
        var change = SampleChange.Of(kind, TextOf);
        try
        {
            (await simulation.Connectors.ObserveAsync(change, Cancel)).Seen.ShouldNotBeEmpty();
            await simulation.Connectors.MakeAsync(change, new NewPassword("Simulated-Only-1"), Cancel);
            (await simulation.Connectors.ObserveAsync(change, Cancel)).State.ShouldBe(ObservedState.Done, change.Words);
        }
        catch (ConnectorException refused)
        {
            refused.Message.ShouldNotBeEmpty();
        }
    }

    private static string TextOf(string parameter) => parameter switch
    {
        "Domain" => "FENNMOOR",
        "Host" => "fm-night01",
        "Instance" => "fm-sql01",
        "Database" => "ThermoReports",
        "Type" => "batch",
        "Constant" => "SeAuditPrivilege",
        "Dn" => "OU=People,OU=Fennmoor,DC=fennmoor,DC=example",
        "OwnList" => "D:",
        "Group" => "server-keepers",
        "Principal" => @"FENNMOOR\svc-archive",
        _ => "svc-archive",
    };
}
