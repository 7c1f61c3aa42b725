using System.Text;
using System.Text.Json.Nodes;
using JustRight.Formats.Estates;

namespace JustRight.Formats.Tests;

/// <summary>
/// The reference of an estate's keys is made from its schema, which is what the reader checks against.
/// <c>JUSTRIGHT_WRITE_SCHEMAS=yes</c> writes it anew.
/// </summary>
public sealed class EstateReferenceTests
{
    private const string Head = """
        # An estate, key by key

        Made from the [schema](../schemas/estate.schema.json) that files are checked against; with it, an editor
        completes and checks while you type. What the keys are for is told in
        [the sheet language](sheet-language.md#estate); the demo's estate is [fennmoor.yaml](../demo-data/estates/fennmoor.yaml).
        `KEY` is a word of your own, and `[]` a list.

        """;

    private static readonly JsonNode Schema = JsonNode.Parse(EstateReader.JsonSchema())!;
    private static readonly string Page = Path.Combine(Checkout.Top, "docs", "estate-reference.md");

    [Fact]
    public async Task The_page_says_what_the_schema_says()
    {
        var made = Make();
        if (Environment.GetEnvironmentVariable("JUSTRIGHT_WRITE_SCHEMAS") == "yes")
            await File.WriteAllTextAsync(Page, made, TestContext.Current.CancellationToken);
        (await File.ReadAllTextAsync(Page, TestContext.Current.CancellationToken)).ShouldBe(made);
    }

    [Fact]
    public void Every_key_of_the_demos_estate_is_in_it()
    {
        var made = Make();
        foreach (var key in DemoFiles.Text("estates/fennmoor.yaml").Split('\n')
            .Where(l => l.Length > 0 && char.IsAsciiLetter(l[0])).Select(l => l.Split(':')[0]))
            made.ShouldContain($"\n## `{key}`");
    }

    private static string Make()
    {
        var page = new StringBuilder(Head);
        foreach (var (key, value) in Schema["properties"]!.AsObject())
        {
            page.Append($"\n## `{key}`{Must(Schema, key)}\n\n{Sentence(value!)}\n");
            var rows = Rows(Resolved(value!), key).ToList();
            if (rows.Count == 0)
            {
                if (Form(Resolved(value!)) is { Length: > 0 } form) page.Append($"\nIt is {form}.\n");
                continue;
            }

            page.Append("\n| key | says | is |\n| --- | --- | --- |\n");
            foreach (var row in rows) page.Append(row).Append('\n');
        }

        return page.ToString();
    }

    private static IEnumerable<string> Rows(JsonNode node, string path)
    {
        if (node["properties"] is JsonObject properties)
            foreach (var (key, value) in properties)
                foreach (var row in Row(Resolved(value!), $"{path}.{key}", Text(value!), Must(node, key)))
                    yield return row;
        else if (node["additionalProperties"] is JsonObject named)
            foreach (var row in Rows(Resolved(named), $"{path}.KEY") is var inner && inner.Any() ? inner
                : Row(Resolved(named), $"{path}.KEY", Text(named), ""))
                yield return row;
        else if (Items(node) is { } items)
            foreach (var row in Rows(Resolved(items), $"{path}[]"))
                yield return row;
    }

    private static IEnumerable<string> Row(JsonNode node, string path, string says, string must)
    {
        yield return $"| `{path}`{must} | {Cell(says)} | {Cell(Form(node))} |";
        foreach (var row in Rows(node, path)) yield return row;
    }

    private static JsonNode? Items(JsonNode node) =>
        node["items"] ?? node["anyOf"]?.AsArray().Select(o => o!["items"]).FirstOrDefault(i => i is not null);

    private static JsonNode Resolved(JsonNode node) =>
        node["$ref"]?.GetValue<string>() is { } reference ? Schema["$defs"]![reference["#/$defs/".Length..]]! : node;

    private static string Must(JsonNode node, string key) =>
        node["required"]?.AsArray().Any(r => r!.GetValue<string>() == key) == true ? " (required)" : "";

    private static string Form(JsonNode node)
    {
        if (node["properties"] is not null || node["additionalProperties"] is JsonObject) return "";
        if (Items(node) is { } items) return $"a list of: {Form(Resolved(items))}".TrimEnd(' ', ':');
        if (node["enum"] is JsonArray values)
            return values.Any(v => v!.GetValueKind() is System.Text.Json.JsonValueKind.True) ? "`yes` or `no`"
                : string.Join(", ", values.Select(v => $"`{v}`"));
        if (node["minimum"] is { } least) return $"a whole number, {least} to {node["maximum"]}";
        return node["pattern"] is { } pattern ? $"`{Bare(pattern.GetValue<string>())}`" : "text";
    }

    /// <summary>A pattern as the reader has it, without what makes it match the whole.</summary>
    private static string Bare(string pattern) => pattern["^(?:".Length..^")$".Length];

    private static string Text(JsonNode node) => node["description"]?.GetValue<string>() ?? "";

    private static string Sentence(JsonNode node) =>
        Text(node) is { Length: > 0 } text ? $"{char.ToUpperInvariant(text[0])}{text[1..]}." : "";

    private static string Cell(string text) => text.Replace("|", "\\|", StringComparison.Ordinal);
}
