using System.Text.Json;
using System.Text.Json.Serialization;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Surveys;

namespace JustRight.Formats.Surveys;

/// <summary>Surveys as JSON, for keeping.</summary>
public static class SurveyJson
{
    private static readonly JsonSerializerOptions ForWriting = Options(version =>
        throw new InvalidDataException($"The schema {version} was not kept."));

    /// <summary>Writes a survey. The schema of its directory is named by its version and must be kept beside it.</summary>
    public static string Write(Survey survey) => JsonSerializer.Serialize(survey, ForWriting);

    /// <summary>Reads a survey that <see cref="Write(Survey)"/> wrote.</summary>
    /// <param name="schemaOf">The kept schema of a version; the built-in one is known without asking.</param>
    public static Survey ReadSurvey(string json, Func<string, DirectorySchema> schemaOf) =>
        JsonSerializer.Deserialize<Survey>(
            json, Options(v => v == BuiltInSchema.Schema.Version ? BuiltInSchema.Schema : schemaOf(v)))
            ?? throw new InvalidDataException("The survey is empty.");

    private static JsonSerializerOptions Options(Func<string, DirectorySchema> schemaOf) =>
        new(JsonSerializerDefaults.Web)
        {
            Converters = { new SidConverter(), new AccessSnapshotConverter(schemaOf), new JsonStringEnumConverter() },
        };

    private sealed class SidConverter : JsonConverter<Sid>
    {
        public override Sid Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.GetString() is { Length: > 0 } text ? Sid.Parse(text) : default;

        public override void Write(Utf8JsonWriter writer, Sid value, JsonSerializerOptions options) =>
            writer.WriteStringValue(value.ToString());
    }
}
