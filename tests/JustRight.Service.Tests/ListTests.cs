using System.Net;
using System.Text.Json.Nodes;

namespace JustRight.Service.Tests;

/// <summary>
/// Every list that the API tells page by page: whatever it is of, it is searched, sorted and paged the same way. Which there are
/// is read from the API's own description.
/// </summary>
public sealed class ListTests : IAsyncLifetime
{
    private TestedService _service = null!;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public async ValueTask InitializeAsync()
    {
        _service = await PreparedData.Demo.StartAsync();
        await _service.RunAsync("estates/fennmoor/survey");
        await _service.GrantAllAsync("curdhouse-books", remove: true);
        await _service.GrantAllAsync("thermograph-dataroom");
        (await _service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel)).EnsureSuccessStatusCode();
        await _service.InstallsAsync();
    }

    public ValueTask DisposeAsync() => _service.DisposeAsync();

    [Fact]
    public async Task Every_list_is_sorted_by_each_column_told_page_by_page_and_searched()
    {
        var lists = Lists();
        lists.Count.ShouldBe(13, string.Join(", ", lists));
        foreach (var list in lists)
        {
            var all = await ReadAsync(list, "take=500");
            all.Items.Count.ShouldBeGreaterThan(1, list);
            all.Total.ShouldBe(all.Items.Count, list);
            foreach (var column in await ColumnsAsync(list))
            {
                var sorted = await ReadAsync(list, $"take=500&sort={column}");
                sorted.Items.ShouldBe(all.Items, ignoreOrder: true, list);
                (await ReadAsync(list, $"take=500&sort=-{column}")).Items.ShouldBe(all.Items, ignoreOrder: true, list);
                await PagedAsync(list, $"sort={column}", sorted.Items);
            }

            await PagedAsync(list, "", all.Items);
            (await ReadAsync(list, "search=no+such+thing+anywhere")).ShouldSatisfyAllConditions(
                p => p.Items.ShouldBeEmpty(list), p => p.Total.ShouldBe(0, list));
            await FoundAsync(list, all.Items);
        }
    }

    [Theory]
    [InlineData("sort=nothing", "sort")]
    [InlineData("take=0", "take")]
    [InlineData("skip=-1", "skip")]
    public async Task What_no_list_can_be_asked_is_refused(string query, string field)
    {
        foreach (var list in Lists())
        {
            using var answer = await _service.Http.GetAsync($"/api/{list}?{query}", Cancel);
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, list);
            (await answer.Content.ReadAsStringAsync(Cancel)).ShouldContain($"\"field\":\"{field}\"", Case.Sensitive, list);
        }
    }

    /// <summary>The calls of the description that can be asked for an order.</summary>
    private static IReadOnlyList<string> Lists() =>
        [.. JsonNode.Parse(File.ReadAllText(Path.Combine(Checkout.Top, "docs", "api", "openapi.json")))!["paths"]!.AsObject()
            .Where(p => p.Value!["get"]?["parameters"]?.AsArray().Any(o => (string?)o!["name"] == "sort") == true)
            .Select(p => p.Key["/api/".Length..].Replace("{name}", "fennmoor", StringComparison.Ordinal)
                .Replace("{instance}", "fm-sql03", StringComparison.Ordinal))];

    /// <summary>The columns, as the refusal of another tells them.</summary>
    private async Task<IReadOnlyList<string>> ColumnsAsync(string list)
    {
        using var refused = await _service.Http.GetAsync($"/api/{list}?sort=nothing", Cancel);
        var fault = JsonNode.Parse(await refused.Content.ReadAsStringAsync(Cancel))!["faults"]![0]!;
        return ((string)fault["expected"]!).Split(';')[0].Split(", ");
    }

    /// <summary>Page by page it is the same, and the pages say where they are.</summary>
    private async Task PagedAsync(string list, string query, IReadOnlyList<string> expected)
    {
        var told = new List<string>();
        var size = Math.Max(1, (expected.Count + 2) / 3);
        while (told.Count < expected.Count)
        {
            var page = await ReadAsync(list, $"{query}&take={size}&skip={told.Count}");
            (page.Skipped, page.Total).ShouldBe((told.Count, expected.Count), $"{list} {query}");
            page.Items.Count.ShouldBe(Math.Min(size, expected.Count - told.Count), $"{list} {query}");
            told.AddRange(page.Items);
        }

        told.ShouldBe(expected, $"{list} {query}");
        (await ReadAsync(list, $"{query}&skip={expected.Count}")).Items.ShouldBeEmpty($"{list} {query}");
    }

    /// <summary>
    /// What is looked for, in capital or small letters, is found, and nothing is told that does not contain it.
    /// </summary>
    private async Task FoundAsync(string list, IReadOnlyList<string> all)
    {
        var word = JsonNode.Parse(all[^1])!.AsObject()
            .Where(p => p.Key is "name" or "who" or "subject" or "account" or "dn" or "install")
            .Select(p => (string)p.Value!).First();
        var found = await ReadAsync(list, $"take=500&search={Uri.EscapeDataString(word.ToUpperInvariant())}");
        found.Items.ShouldContain(all[^1], list);
        found.Total.ShouldBe(found.Items.Count, list);
        foreach (var part in word.Split(' '))
            found.Items.ShouldAllBe(
                i => i.Contains(JsonValue.Create(part)!.ToJsonString().Trim('"'), StringComparison.OrdinalIgnoreCase), list);
    }

    private async Task<(IReadOnlyList<string> Items, int Skipped, int Total)> ReadAsync(string list, string query)
    {
        var page = JsonNode.Parse(await _service.Http.GetStringAsync($"/api/{list}?{query}", Cancel))!.AsObject();
        var items = page.First(p => p.Value is JsonArray).Value!.AsArray();
        return ([.. items.Select(i => i!.ToJsonString())], (int)page["skipped"]!, (int)page["total"]!);
    }
}
