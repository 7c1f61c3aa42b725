using System.Globalization;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace JustRight.Service.Tests;

/// <summary>
/// Every JSON body that the description of the API knows, sent in every way it should not be: without each field, with null, with
/// another type, huge, deep, in a broken encoding. The answer is 2xx or a problem of 4xx, and nothing else.
/// <c>JUSTRIGHT_BODIES</c> sets how many are sent; 10,000 unless it says so.
/// </summary>
public sealed class RequestBodyTests
{
    private static readonly int Bodies = int.Parse(
        Environment.GetEnvironmentVariable("JUSTRIGHT_BODIES") ?? "10000", CultureInfo.InvariantCulture);

    /// <summary>What of the demo stands in a path; anything else is not there.</summary>
    private static readonly (string Path, string Name, string Value)[] Known =
    [
        ("/api/estates/", "name", "fennmoor"), ("/api/installs/", "name", "thermograph-dataroom"), (
            "/api/sheets/", "name", "thermograph@4.2"),
        ("/api/", "account", "svc-curd-cards"), ("/api/", "host", "fm-temp01"), ("/api/", "instance", "fm-sql01"), (
            "/api/", "number", "1"),
    ];

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Whatever_is_sent_is_answered_with_2xx_or_a_problem_of_4xx()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        for (var i = 0; i < 2; i++) await service.RunAsync("installs/thermograph-dataroom/verify");
        using var description = JsonDocument.Parse(
            await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "docs", "api", "openapi.json"), Cancel));
        var calls = Calls(description.RootElement).ToList();
        calls.Count.ShouldBeGreaterThan(20);
        var (sent, random, wrong) = (0, new Random(20261129), new List<string>());
        while (sent < Bodies)
        {
            foreach (var (method, path, schema) in calls)
            {
                foreach (var (what, body) in Spoilt(Sample(description.RootElement, schema, random), random))
                {
                    using var request = new HttpRequestMessage(method, path) { Content = new ByteArrayContent(body) };
                    request.Content.Headers.ContentType = new MediaTypeHeaderValue("application/json");
                    using var answer = await service.Http.SendAsync(request, Cancel);
                    var (status, type) = ((int)answer.StatusCode, answer.Content.Headers.ContentType?.MediaType);
                    if (!(status is >= 200 and < 300 || status is >= 400 and < 500 && type == "application/problem+json"))
                        wrong.Add($"{method} {path}, {what}: {status} {type} {await answer.Content.ReadAsStringAsync(Cancel)}");
                    sent++;
                }
            }

            wrong.Distinct().Take(20).ShouldBeEmpty();
        }
    }

    [Fact]
    public async Task Who_may_not_call_learns_nothing_of_content_types()
    {
        await using var service = await TestedService.StartAsync();
        using var description = JsonDocument.Parse(
            await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "docs", "api", "openapi.json"), Cancel));
        using var anybody = new HttpClient { BaseAddress = new Uri(service.Address) };
        using var reader = await service.ClientAsync("reader", "reader");
        var refused = 0;
        foreach (var path in description.RootElement.GetProperty("paths").EnumerateObject())
        {
            foreach (var call in path.Value.EnumerateObject().Where(c => c.Value.TryGetProperty("requestBody", out _)))
            {
                var (method, role) =
                    (new HttpMethod(call.Name.ToUpperInvariant()), call.Value.GetProperty("x-justright-role").GetString());
                (await StatusAsync(service.Http, method, path.Name)).ShouldBe(415, $"{method} {path.Name}");
                if (role == "anybody") continue;
                (await StatusAsync(anybody, method, path.Name)).ShouldBe(401, $"{method} {path.Name}");
                if (role == "reader") continue;
                (await StatusAsync(reader, method, path.Name)).ShouldBe(403, $"{method} {path.Name}");
                refused++;
            }
        }

        refused.ShouldBeGreaterThan(20);

        static async Task<int> StatusAsync(HttpClient client, HttpMethod method, string path)
        {
            using var request = new HttpRequestMessage(method, Filled(path)) { Content = new StringContent("x") };
            request.Content.Headers.ContentType = new MediaTypeHeaderValue("text/strange");
            using var answer = await client.SendAsync(request, Cancel);
            return (int)answer.StatusCode;
        }
    }

    private static IEnumerable<(HttpMethod Method, string Path, JsonElement Schema)> Calls(JsonElement root)
    {
        foreach (var path in root.GetProperty("paths").EnumerateObject())
            foreach (var call in path.Value.EnumerateObject())
                if (call.Value.TryGetProperty("requestBody", out var body) && body.GetProperty("content").TryGetProperty(
                    "application/json", out var json))
                    yield return (new HttpMethod(call.Name.ToUpperInvariant()), Filled(path.Name), json.GetProperty("schema"));
    }

    private static string Filled(string path) => System.Text.RegularExpressions.Regex.Replace(path, @"\{(\w+)\}", m =>
        Uri.EscapeDataString(
            Known.FirstOrDefault(
            k => path.StartsWith(k.Path, StringComparison.Ordinal) && k.Name == m.Groups[1].Value).Value ?? "no-such"));

    /// <summary>A body as the schema has it.</summary>
    private static JsonNode? Sample(JsonElement root, JsonElement schema, Random random, int depth = 0)
    {
        if (depth > 8) return null;
        if (schema.TryGetProperty("$ref", out var reference))
            return Sample(
                root, root.GetProperty("components").GetProperty("schemas").GetProperty(reference.GetString()!.Split('/')[^1]),
                random, depth + 1);
        foreach (var choice in new[] { "oneOf", "anyOf" })
            if (schema.TryGetProperty(choice, out var choices)) return Sample(
                root, choices.EnumerateArray().Last(), random, depth + 1);
        if (schema.TryGetProperty("properties", out var properties))
            return new JsonObject(
                properties.EnumerateObject().Select(p => KeyValuePair.Create(p.Name, Sample(root, p.Value, random, depth + 1))));
        var type = schema.TryGetProperty("type", out var t) ? (
            t.ValueKind == JsonValueKind.Array ? t.EnumerateArray().First(e => e.GetString() != "null").GetString() : t
            .GetString()) : "string";
        var format = schema.TryGetProperty("format", out var f) ? f.GetString() : null;
        return type switch
        {
            "boolean" => random.Next(2) == 0,
            "integer" or "number" => random.Next(5),
            "array" => new JsonArray(Sample(root, schema.GetProperty("items"), random, depth + 1)),
            "object" => new JsonObject(),
            _ when format == "date" => "2027-01-31",
            _ when format == "date-time" => "2027-01-31T10:00:00Z",
            _ => new[] { "fennmoor", "x", "planned", "svc-curd-cards", "OU=People,OU=Fennmoor,DC=fennmoor,DC=example", "" }[random
                .Next(6)],
        };
    }

    /// <summary>The body as it is, and spoilt in every way.</summary>
    private static IEnumerable<(string What, byte[] Body)> Spoilt(JsonNode? sample, Random random)
    {
        yield return ("as it should be", Bytes(sample));
        yield return ("nothing", []);
        yield return ("null", "null"u8.ToArray());
        yield return ("a list", "[]"u8.ToArray());
        yield return ("an empty object", "{}"u8.ToArray());
        yield return ("half of it", Bytes(sample)[..(Bytes(sample).Length / 2)]);
        yield return ("deep", Encoding.UTF8.GetBytes(new string('[', 10_000)));
        yield return ("broken encoding", [.. Bytes(sample).Select(b => b == (byte)'e' ? (byte)0xFF : b)]);
        if (sample is not JsonObject fields) yield break;
        foreach (var name in fields.Select(p => p.Key).ToList())
        {
            yield return ($"without {name}", Bytes(With(fields, name, null, remove: true)));
            JsonNode?[] others =
                [null, 7, -1, 1e300, true, "text", "", new string('x', 100_000), "\u0000\u202e", new JsonArray(), new JsonArray(
                "a", null, 7), new JsonObject(), "9999-12-31", "2027-02-30"];
            foreach (var other in others) yield return (
                $"{name} = {other?.ToJsonString()[..Math.Min(20, other.ToJsonString().Length)] ?? "null"}", Bytes(
                With(fields, name, other)));
        }

        if (fields.Count > 1)
            yield return (
                "two at once", Bytes(
                With(With(fields, fields.First().Key, null), fields.ElementAt(random.Next(fields.Count)).Key,
                new JsonArray())));
    }

    private static JsonObject With(JsonObject fields, string name, JsonNode? value, bool remove = false)
    {
        var copy = (JsonObject)fields.DeepClone();
        copy.Remove(name);
        if (!remove) copy[name] = value?.DeepClone();
        return copy;
    }

    private static byte[] Bytes(JsonNode? node) => Encoding.UTF8.GetBytes(node?.ToJsonString() ?? "null");
}
