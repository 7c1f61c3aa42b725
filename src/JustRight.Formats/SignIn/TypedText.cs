using System.Globalization;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Nodes;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Settings;
using YamlDotNet.Core;
using YamlDotNet.Core.Events;

namespace JustRight.Formats.SignIn;

/// <summary>
/// Settings in a form that knows types: JSON [RFC 8259] and YAML 1.2. A slash in a name leads into an object; a number there is
/// a place in a list, counted from 0. What is not known yet is null.
/// </summary>
internal static class TypedText
{
    private static readonly JsonSerializerOptions Pretty = new()
    {
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    /// <summary>The settings as JSON.</summary>
    public static string Json(IReadOnlyList<FilledField> fields) => Tree(fields).ToJsonString(Pretty) + "\n";

    /// <summary>The settings as YAML; every text in quotes, so that no reader takes one for something else.</summary>
    public static string Yaml(IReadOnlyList<FilledField> fields)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture) { NewLine = "\n" };
        var emitter = new Emitter(text, new EmitterSettings(2, int.MaxValue, false, 1024, skipAnchorName: true));
        emitter.Emit(new StreamStart());
        emitter.Emit(new DocumentStart(null, null, isImplicit: true));
        Emit(emitter, Tree(fields));
        emitter.Emit(new DocumentEnd(isImplicit: true));
        emitter.Emit(new StreamEnd());
        return text.ToString();
    }

    /// <summary>What is wrong with names that lead into lists; null when nothing is.</summary>
    public static string? WhatIsWrong(IReadOnlyList<string> names)
    {
        var inside = names.SelectMany(Steps).Distinct().GroupBy(s => s.Container).ToList();
        foreach (var container in inside)
        {
            var places = container.Where(s => IsPlace(s.Part)).Select(s => s.Part).ToList();
            if (places.Count == 0) continue;
            if (container.Key.Length == 0) return $"'{places[0]}' is a place in a list, and the file itself is none";
            if (places.Count != container.Count()) return $"'{container.Key}' is both a list and an object";
            if (Enumerable.Range(0, places.Count).Any(i => !places.Contains(i.ToString(CultureInfo.InvariantCulture))))
                return $"the places in the list '{container.Key}' are not 0, 1, 2 and so on";
        }

        return null;
    }

    private static IEnumerable<(string Container, string Part)> Steps(string name)
    {
        var parts = name.Split('/');
        for (var i = 0; i < parts.Length; i++) yield return (string.Join('/', parts[..i]), parts[i]);
    }

    private static bool IsPlace(string part) => part.Length is > 0 and < 4 && part.All(char.IsAsciiDigit);

    private static JsonObject Tree(IReadOnlyList<FilledField> fields)
    {
        var root = new JsonObject();
        foreach (var field in fields) Put(root, field.Name.Split('/'), Value(field));
        return root;
    }

    private static void Put(JsonNode at, ReadOnlySpan<string> path, JsonNode? value)
    {
        if (path.Length == 1)
        {
            Set(at, path[0], value);
            return;
        }

        if (Get(at, path[0]) is not { } next) Set(at, path[0], next = IsPlace(path[1]) ? new JsonArray() : new JsonObject());
        Put(next, path[1..], value);
    }

    private static JsonNode? Get(JsonNode at, string part) => at is JsonArray list
        ? list.ElementAtOrDefault(int.Parse(part, CultureInfo.InvariantCulture))
        : at[part];

    private static void Set(JsonNode at, string part, JsonNode? value)
    {
        if (at is not JsonArray list)
        {
            at[part] = value;
            return;
        }

        var place = int.Parse(part, CultureInfo.InvariantCulture);
        while (list.Count <= place) list.Add((JsonNode?)null);
        list[place] = value;
    }

    private static JsonNode? Value(FilledField field)
    {
        if (field.Value is not { } value) return null;
        return field.As switch
        {
            ValueKind.Text => value,
            ValueKind.Number => long.Parse(value, CultureInfo.InvariantCulture),
            ValueKind.YesNo => value == "yes",
            ValueKind.List => new JsonArray([.. field.Values.Select(v => (JsonNode?)v)]),
        };
    }

    private static void Emit(Emitter emitter, JsonNode? node)
    {
        switch (node)
        {
            case JsonObject map:
                emitter.Emit(new MappingStart());
                foreach (var (key, value) in map)
                {
                    Emit(emitter, key);
                    Emit(emitter, value);
                }

                emitter.Emit(new MappingEnd());
                break;
            case JsonArray list:
                emitter.Emit(new SequenceStart(null, null, true, SequenceStyle.Block));
                foreach (var item in list) Emit(emitter, item);
                emitter.Emit(new SequenceEnd());
                break;
            default:
                var text = node?.GetValueKind() == JsonValueKind.String ? node.GetValue<string>() : null;
                emitter.Emit(new Scalar(
                    null, null, text ?? node?.ToJsonString() ?? "null",
                    text is null ? ScalarStyle.Plain : ScalarStyle.DoubleQuoted, text is null, text is not null));
                break;
        }
    }
}
