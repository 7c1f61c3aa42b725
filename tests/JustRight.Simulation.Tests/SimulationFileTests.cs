using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;
using JustRight.Formats.Simulations;
using JustRight.Simulation.Laying;

namespace JustRight.Simulation.Tests;

/// <summary>The simulation's file: begun from what ships, kept whole, changed by one at a time.</summary>
public sealed class SimulationFileTests : IDisposable
{
    private readonly string _folder = Directory.CreateTempSubdirectory("justright-simulation-file-").FullName;

    private string Kept => Path.Combine(_folder, "data", "simulation.json");

    private static string Shipped => Path.Combine(DemoSimulation.DemoData, "simulation", "fennmoor.json");

    public void Dispose() => Directory.Delete(_folder, true);

    [Fact]
    public void It_begins_with_what_ships_and_keeps_what_was_changed()
    {
        SimulationFile.Open(Kept, Shipped).Change(s => s.Branches.Add("OU=New,DC=fennmoor,DC=example"));
        SimulationFile.Open(Kept, Shipped).Read(s => s.Branches).ShouldContain("OU=New,DC=fennmoor,DC=example");
        File.ReadAllText(Shipped).ShouldNotContain("OU=New");
    }

    [Fact]
    public void A_change_that_throws_keeps_nothing()
    {
        var simulation = SimulationFile.Open(Kept, Shipped);
        var before = File.ReadAllText(Kept);
        Should.Throw<InvalidOperationException>(() => simulation.Change(s =>
        {
            s.Branches.Clear();
            throw new InvalidOperationException("in the middle");
        }));
        File.ReadAllText(Kept).ShouldBe(before);
    }

    [Fact]
    public void Many_changes_at_once_are_all_kept()
    {
        var simulation = SimulationFile.Open(Kept, Shipped);
        Parallel.For(0, 20, i => simulation.Change(s => s.Branches.Add($"OU=B{i},DC=fennmoor,DC=example")));
        simulation.Read(s => s.Branches.Count(b => b.StartsWith("OU=B", StringComparison.Ordinal))).ShouldBe(20);
    }

    [Fact]
    public void Without_a_first_state_it_says_which_file_is_missing() =>
        Should.Throw<FileNotFoundException>(() =>
            SimulationFile.Open(Kept, Path.Combine(_folder, "none.json"))).FileName.ShouldEndWith("none.json");

    [Fact]
    public void The_simulated_estate_knows_every_name_it_uses()
    {
        var simulation = SimulationFile.Open(Kept, Shipped);
        simulation.Read(s =>
        {
            var names = s.Principals.SelectMany(p => p.Members)
                .Concat(s.Hosts.SelectMany(h =>
                    h.LocalGroups.SelectMany(g => g.Members).Concat(h.LogonRights.Values.SelectMany(v => v))))
                .Concat(s.Instances.SelectMany(i => i.Logins.Concat(i.Databases.SelectMany(d => d.Users))));
            return names.Where(n => !n.StartsWith("S-1-", StringComparison.Ordinal) && s.Principals.All(p => p.Name != n))
                .ToList();
        }).ShouldBeEmpty();
    }

    [Fact]
    public void The_schema_has_every_key_of_the_state_and_no_other()
    {
        var schema = JsonNode.Parse(SimulationCheck.JsonSchema())!;
        Same(JsonSerializerOptions.Web.GetTypeInfo(typeof(SimulationState)), schema, "");

        static void Same(JsonTypeInfo type, JsonNode schema, string at)
        {
            switch (type.Kind)
            {
                case JsonTypeInfoKind.Object:
                    type.Properties.Select(p => p.Name).Order()
                        .ShouldBe(schema["properties"]!.AsObject().Select(p => p.Key).Order(), at);
                    foreach (var property in type.Properties)
                        Same(
                            JsonSerializerOptions.Web.GetTypeInfo(property.PropertyType), schema["properties"]![property.Name]!,
                            $"{at}.{property.Name}");
                    break;
                case JsonTypeInfoKind.Enumerable:
                    Same(JsonSerializerOptions.Web.GetTypeInfo(type.ElementType!), schema["items"]!, $"{at}[]");
                    break;
                case JsonTypeInfoKind.Dictionary:
                    Same(JsonSerializerOptions.Web.GetTypeInfo(type.ElementType!), schema["additionalProperties"]!, $"{at}.*");
                    break;
            }
        }
    }

    [Fact]
    public void What_ships_and_what_is_laid_keep_to_the_schema()
    {
        SimulationCheck.Faults(File.ReadAllBytes(Shipped), "fennmoor.json").ShouldBeEmpty();
        using var demo = new DemoSimulation();
        SimulationFile.Lay(Kept, EstateState.Lay(demo.Estate, [], null, []).State);
        SimulationCheck.Faults(File.ReadAllBytes(Kept), "laid.json").ShouldBeEmpty();
        SimulationCheck.Faults("""
            { "domain": "D", "domainSid": "S-1-5-21-1-2-3", "root": "DC=d", "nextRid": 1, "branches": [], "principals": [],
              "hosts": [ { "name": "h", "localGroups": [], "srvices": [] } ], "instances": [] }
            """u8, "mine.json").Single().ToString().ShouldBe(
            "mine.json:2:48: 'srvices' is not a known key here. Expected: one of name, unreachable, unreachableReadings, "
            + "localGroups, logonRights, services, tasks, pools. Did you mean 'services'?");
    }
}
