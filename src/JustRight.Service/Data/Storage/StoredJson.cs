using System.Text.Json;
using System.Text.Json.Serialization;

namespace JustRight.Service.Data.Storage;

/// <summary>
/// How values are kept as JSON: choices by their names, never by their numbers, which another choice beside them would shift.
/// </summary>
internal static class StoredJson
{
    /// <summary>What is read may have been written by an earlier release: numbers for choices, names with a capital.</summary>
    public static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter() },
    };

    /// <summary>Writes a value.</summary>
    public static string Write<T>(T value) => JsonSerializer.Serialize(value, Options);

    /// <summary>Reads a value that <see cref="Write"/> wrote.</summary>
    public static T Read<T>(string json) =>
        JsonSerializer.Deserialize<T>(json, Options) ?? throw new InvalidDataException("The stored value is empty.");
}
