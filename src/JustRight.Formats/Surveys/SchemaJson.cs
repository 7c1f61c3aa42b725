using System.Text.Json;
using System.Text.Json.Serialization;
using JustRight.Core.Directory.Schema;

namespace JustRight.Formats.Surveys;

/// <summary>Schemas of directories as JSON, for keeping.</summary>
public static class SchemaJson
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        DefaultIgnoreCondition = JsonIgnoreCondition.WhenWritingNull,
    };

    /// <summary>Writes a schema.</summary>
    public static string Write(DirectorySchema schema) =>
        JsonSerializer.Serialize(new Kept(schema.Version, schema.Attributes, schema.Classes, schema.Rights), Options);

    /// <summary>Reads a schema that <see cref="Write"/> wrote.</summary>
    public static DirectorySchema Read(string json)
    {
        var kept = JsonSerializer.Deserialize<Kept>(json, Options) ?? throw new InvalidDataException("The schema is empty.");
        return new DirectorySchema(kept.Version, kept.Attributes, kept.Classes, kept.Rights);
    }

    private sealed record Kept(
        string Version, IReadOnlyList<SchemaAttribute> Attributes, IReadOnlyList<SchemaClass> Classes,
        IReadOnlyList<ControlRight> Rights);
}
