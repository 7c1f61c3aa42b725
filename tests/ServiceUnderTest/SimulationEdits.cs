using System.Text.Json.Nodes;

namespace JustRight.Tests.ServiceUnderTest;

/// <summary>What somebody does to the simulated estate behind the service's back.</summary>
public static class SimulationEdits
{
    /// <summary>Changes the demo's simulation.</summary>
    public static async Task ChangeSimulationAsync(
        this TestedService service, Action<JsonObject> change, CancellationToken cancel)
    {
        var file = Path.Combine(service.Data, "simulation", "fennmoor.json");
        var state = JsonNode.Parse(await File.ReadAllTextAsync(file, cancel))!.AsObject();
        change(state);
        await File.WriteAllTextAsync(file, state.ToJsonString(), cancel);
    }

    /// <summary>One of a list, by its name.</summary>
    public static JsonObject Named(this JsonNode? list, string name) =>
        list!.AsArray().Single(n => (string?)n!["name"] == name)!.AsObject();
}
