using System.Text.Json.Nodes;
using JustRight.Core.Sheets;
using JustRight.Formats.Sheets;

namespace JustRight.Formats.Tests;

/// <summary>The published schema says what the reader does.</summary>
public sealed class SchemaTests
{
    private static readonly JsonNode Schema = JsonNode.Parse(SheetReader.JsonSchema())!;

    [Fact]
    public void It_is_of_the_draft_it_names_and_refers_only_to_what_it_defines()
    {
        Schema["$schema"]!.GetValue<string>().ShouldBe("https://json-schema.org/draft/2020-12/schema");
        var text = Schema.ToJsonString();
        foreach (var reference in System.Text.RegularExpressions.Regex.Matches(
            text, "\"#/\\$defs/([^\"]+)\"").Select(m => m.Groups[1].Value).Distinct())
            Schema["$defs"]![reference].ShouldNotBeNull(reference);
    }

    [Fact]
    public void Every_kind_of_need_is_offered_and_exactly_one_is_asked_for()
    {
        var need = Schema["$defs"]!["need"]!;
        var keys = need["properties"]!.AsObject().Select(p => p.Key).ToList();
        foreach (var row in NeedKinds.All) keys.ShouldContain(row.Key);
        need["oneOf"]!.AsArray().Count.ShouldBe(NeedKinds.All.Count + 2); // and any-of, all-of
        need["additionalProperties"]!.GetValue<bool>().ShouldBeFalse();
    }

    [Fact]
    public void Required_keys_are_those_the_reader_misses()
    {
        foreach (var key in Schema["required"]!.AsArray().Select(k => k!.GetValue<string>()))
        {
            var lines = DemoFiles.Text("sheets/thermograph.yaml").Split('\n').ToList();
            var at = lines.FindIndex(l => l.StartsWith(key + ":", StringComparison.Ordinal));
            var end = lines.FindIndex(at + 1, l => l.Length > 0 && l[0] is not (' ' or '#'));
            lines.RemoveRange(at, end - at);
            DemoFiles.Sheet(string.Join('\n', lines)).Faults.ShouldContain(f => f.Code == "missing-key" && f.Field == key, key);
        }
    }
}
