using System.Text.Json;
using System.Text.Json.Serialization;
using JustRight.Core.Rights.Directory;
using JustRight.Core.Surveys;

namespace JustRight.Formats.Surveys;

/// <summary>Surveys as JSON, for keeping.</summary>
public static class SurveyJson
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web) { Converters = { new SidConverter(), new JsonStringEnumConverter() } };

    /// <summary>Writes a survey.</summary>
    public static string Write(Survey survey) => JsonSerializer.Serialize(survey, Options);

    /// <summary>Reads a survey that <see cref="Write(Survey)"/> wrote.</summary>
    public static Survey ReadSurvey(string json) => JsonSerializer.Deserialize<Survey>(json, Options) ?? throw new InvalidDataException("The survey is empty.");

    private sealed class SidConverter : JsonConverter<Sid>
    {
        public override Sid Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
            reader.GetString() is { Length: > 0 } text ? Sid.Parse(text) : default;

        public override void Write(Utf8JsonWriter writer, Sid value, JsonSerializerOptions options) => writer.WriteStringValue(value.ToString());
    }
}
