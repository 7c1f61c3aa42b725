using System.Text.Json;
using System.Text.Json.Nodes;

namespace JustRight.Formats.Shapes;

/// <summary>Writes a shape as a JSON Schema (draft 2020-12), so that editors complete and check our files.</summary>
internal static class JsonSchemaWriter
{
    private static readonly JsonSerializerOptions Pretty = new()
    {
        WriteIndented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The schema as indented JSON with a final line end.</summary>
    public static string Write(Shape.Map shape, string title)
    {
        var definitions = new JsonObject();
        var root = Of(shape, definitions);
        var schema = new JsonObject { ["$schema"] = "https://json-schema.org/draft/2020-12/schema", ["title"] = title };
        foreach (var (key, value) in root.ToList())
        {
            root.Remove(key);
            schema[key] = value;
        }

        if (definitions.Count > 0) schema["$defs"] = definitions;
        return schema.ToJsonString(Pretty) + "\n";
    }

    private static JsonObject Of(Shape shape, JsonObject definitions)
    {
        var result = shape switch
        {
            Shape.Ref reference => OfRef(reference, definitions),
            Shape.Map map => OfMap(map, definitions),
            Shape.Named named => new JsonObject
            {
                ["type"] = "object",
                ["propertyNames"] = new JsonObject { ["pattern"] = $"^(?:{named.KeyPattern})$" },
                ["additionalProperties"] = Of(named.Value, definitions),
            },
            Shape.List list => list.OneWillDo
                ? new JsonObject
                {
                    ["anyOf"] = new JsonArray(
                    Of(list.Item, definitions), new JsonObject { ["type"] = "array", ["items"] = Of(list.Item, definitions) })
                }
                : new JsonObject { ["type"] = "array", ["items"] = Of(list.Item, definitions) },
            Shape.YesNo => new JsonObject { ["enum"] = new JsonArray(true, false, "yes", "no") },
            Shape.Number number => new JsonObject { ["type"] = "integer", ["minimum"] = number.Least, ["maximum"] = number.Most },
            Shape.Text { OneOf: { } values } =>
                new JsonObject { ["enum"] = new JsonArray([.. values.Select(v => (JsonNode?)v)]) },
            Shape.Text { Pattern: { } pattern } =>
                new JsonObject { ["type"] = new JsonArray("string", "number", "boolean"), ["pattern"] = $"^(?:{pattern})$" },
            _ => new JsonObject { ["type"] = new JsonArray("string", "number", "boolean") },
        };
        if (shape.Summary.Length > 0) result["description"] = shape.Summary;
        return result;
    }

    private static JsonObject OfRef(Shape.Ref reference, JsonObject definitions)
    {
        if (!definitions.ContainsKey(reference.Name))
        {
            definitions[reference.Name] = new JsonObject(); // holds the place while the shape refers to itself
            definitions[reference.Name] = Of(reference.Target(), definitions);
        }

        return new JsonObject { ["$ref"] = $"#/$defs/{reference.Name}" };
    }

    private static JsonObject OfMap(Shape.Map map, JsonObject definitions)
    {
        var properties = new JsonObject();
        foreach (var key in map.Keys) properties[key.Name] = Of(key.Shape, definitions);
        var result = new JsonObject { ["type"] = "object", ["properties"] = properties, ["additionalProperties"] = false };
        var required = map.Keys.Where(k => k.Required).Select(k => (JsonNode?)k.Name).ToArray();
        if (required.Length > 0) result["required"] = new JsonArray(required);
        if (map.ExactlyOneOf.Count > 0)
            result["oneOf"] = new JsonArray(
                [.. map.ExactlyOneOf.Select(k => (JsonNode?)new JsonObject { ["required"] = new JsonArray(k) })]);
        return result;
    }
}
