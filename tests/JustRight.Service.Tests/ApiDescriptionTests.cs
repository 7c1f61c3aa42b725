using System.Net;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace JustRight.Service.Tests;

/// <summary>What the description of the API promises to others: words for everything, closed sets, examples that hold.</summary>
public sealed partial class ApiDescriptionTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    private static JsonElement Root => JsonDocument.Parse(
        File.ReadAllText(Path.Combine(Checkout.Top, "docs", "api", "openapi.json"))).RootElement;

    [Fact]
    public void Everything_is_described()
    {
        var dumb = new List<string>();
        foreach (var schema in Root.GetProperty("components").GetProperty("schemas").EnumerateObject())
        {
            if (!IsDescribed(schema.Value)) dumb.Add(schema.Name);
            if (!schema.Value.TryGetProperty("properties", out var properties)) continue;
            dumb.AddRange(properties.EnumerateObject().Where(p => !IsDescribed(p.Value)).Select(p => $"{schema.Name}.{p.Name}"));
        }

        foreach (var (name, call) in Calls())
        {
            if (!call.TryGetProperty("summary", out _)) dumb.Add(name);
            if (call.TryGetProperty("parameters", out var parameters))
                dumb.AddRange(parameters.EnumerateArray().Where(p => !IsDescribed(p))
                    .Select(p => $"{name} {p.GetProperty("name")}"));
        }

        dumb.ShouldBeEmpty();
    }

    [Fact]
    public void What_is_described_as_one_of_some_words_is_an_enumeration()
    {
        var (open, closed) = (new List<string>(), 0);
        foreach (var schema in Root.GetProperty("components").GetProperty("schemas").EnumerateObject())
        {
            if (!schema.Value.TryGetProperty("properties", out var properties)) continue;
            foreach (var property in properties.EnumerateObject())
            {
                if (!Words().IsMatch(property.Value.GetProperty("description").GetString()!)) continue;
                if (property.Value.TryGetProperty("enum", out _)) closed++;
                else open.Add($"{schema.Name}.{property.Name}");
            }
        }

        open.ShouldBeEmpty();
        closed.ShouldBeGreaterThanOrEqualTo(40);
    }

    [Fact]
    public async Task Every_body_has_an_example_and_those_of_documents_are_taken()
    {
        await using var service = await TestedService.StartAsync();
        foreach (var (name, call) in Calls())
        {
            if (!call.TryGetProperty("requestBody", out var body)) continue;
            if (name.EndsWith("host-facts", StringComparison.Ordinal)) continue; // the script makes them: nobody writes them
            foreach (var content in body.GetProperty("content").EnumerateObject().Where(c => c.Name == "application/json"))
                content.Value.TryGetProperty("example", out _).ShouldBeTrue(name);
        }

        // In this order: an install is checked against its sheet and its estate.
        foreach (var path in new[] { "/sheets/check", "/estates/check", "/sheets", "/estates", "/installs" })
        {
            var content = Root.GetProperty("paths").GetProperty($"/api{path}").GetProperty("post").GetProperty("requestBody")
                .GetProperty("content");
            foreach (var type in new[] { "application/yaml", "application/json" })
            {
                var example = content.GetProperty(type).GetProperty("example");
                var text = example.ValueKind == JsonValueKind.String ? example.GetString()! : example.GetRawText();
                using var answer = await SendAsync(service, path, type, text);
                answer.StatusCode.ShouldBe(HttpStatusCode.OK, $"{path} {type}: {await answer.Content.ReadAsStringAsync(Cancel)}");
            }
        }
    }

    [Fact]
    public async Task A_document_as_json_is_the_same_document()
    {
        await using var service = await TestedService.StartAsync();
        var text = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "sheets", "thermograph.yaml"), Cancel);
        using var whole = await SendAsync(service, "/sheets/check?file=thermograph.yaml", "application/yaml", text);
        using var inside = await SendAsync(service, "/sheets/check", "application/json", Order("thermograph.yaml", text));
        (await inside.Content.ReadAsStringAsync(Cancel)).ShouldBe(await whole.Content.ReadAsStringAsync(Cancel));

        using var wrong = await SendAsync(
            service, "/sheets/check", "application/json", Order("of-mine.yaml", text.Replace("works-as: job", "works-as: jog")));
        var fault = JsonNode.Parse(await wrong.Content.ReadAsStringAsync(Cancel))!["faults"]![0]!;
        ((int)wrong.StatusCode, (string?)fault["file"], (string?)fault["nearest"]).ShouldBe((400, "of-mine.yaml", "job"));
        ((int)fault["line"]!).ShouldBe(text.Split('\n').ToList().FindIndex(l => l.Contains("works-as: job")) + 1);

        string[] spoilt =
            ["", "null", "[]", "{}", """{"text":null}""", """{"text":7}""", """{"text":"\ud800"}""", """{"text":"""];
        foreach (var body in spoilt)
        {
            using var refused = await SendAsync(service, "/sheets/check", "application/json", body);
            var type = refused.Content.Headers.ContentType?.MediaType;
            ((int)refused.StatusCode, type).ShouldBe((400, "application/problem+json"), body);
        }
    }

    private static string Order(string file, string text) => new JsonObject { ["file"] = file, ["text"] = text }.ToJsonString();

    private static async Task<HttpResponseMessage> SendAsync(TestedService service, string path, string type, string text)
    {
        using var body = new StringContent(text, Encoding.UTF8, type);
        return await service.Http.PostAsync($"/api{path}", body, Cancel);
    }

    private static IEnumerable<(string Name, JsonElement Call)> Calls() =>
        from path in Root.GetProperty("paths").EnumerateObject()
        from call in path.Value.EnumerateObject()
        select ($"{call.Name.ToUpperInvariant()} {path.Name}", call.Value);

    private static bool IsDescribed(JsonElement part) =>
        part.TryGetProperty("description", out var text) && text.GetString()!.Length > 3;

    [GeneratedRegex("^`[a-z][^`]*`(, `[^`]+`)* or `[^`]+`")]
    private static partial Regex Words();
}
