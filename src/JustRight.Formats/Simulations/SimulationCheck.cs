using JustRight.Core.Faults;
using JustRight.Formats.Shapes;
using JustRight.Formats.Yaml;

namespace JustRight.Formats.Simulations;

/// <summary>Checks the state of a simulation before it is read: a person may have changed the file.</summary>
public static class SimulationCheck
{
    private const int MostBytes = 500_000_000;

    /// <summary>The published JSON Schema.</summary>
    public static string JsonSchema() => JsonSchemaWriter.Write(SimulationShape.Root,
        "Just Right state of a simulation, version 1");

    /// <summary>Every fault of a file, in its order.</summary>
    public static IReadOnlyList<Fault> Faults(ReadOnlySpan<byte> bytes, string file)
    {
        var faults = new List<Fault>();
        if (JsonDocumentReader.Read(bytes, file, MostBytes, faults) is { } node && faults.Count == 0)
            ShapeChecker.Check(node, SimulationShape.Root, "", faults);
        return faults;
    }
}
