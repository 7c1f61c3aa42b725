using System.Globalization;
using JustRight.Contracts;
using JustRight.Core.Estates;
using Microsoft.Data.Sqlite;

namespace JustRight.Service.Tests;

/// <summary>The watch by itself: the scheduler fires when a look is due, a survey that waits counts for it, and surveys are let go as said.</summary>
public sealed class ScheduleTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task The_scheduler_looks_when_a_look_is_due_without_anybody_asking()
    {
        var states = Directory.CreateTempSubdirectory("justright-simulation-states-");
        try
        {
            await using var service = await TestedService.StartAsync("--JustRight:SimulationStates", states.FullName);
            // The time of a survey depends on the estate's name alone: one is chosen that is due in half a minute.
            var every = new ScheduleRules(TimeSpan.FromHours(1));
            var now = DateTimeOffset.UtcNow;
            var name = Enumerable.Range(0, 100_000).Select(i => $"fennmoor-{i.ToString(CultureInfo.InvariantCulture)}")
                .First(n => every.Next(n, now, TimeZoneInfo.Utc) - now is { TotalSeconds: > 25 and < 35 });
            var state = Path.Combine(Checkout.Top, "demo-data", "simulation", "fennmoor.json");
            File.Copy(state, Path.Combine(states.FullName, name + ".json"));
            var estate = (await File.ReadAllTextAsync(
                Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel))
                .Replace("name: fennmoor\n", $"name: {name}\n", StringComparison.Ordinal) + "  watch: { every-hours: 1 }\n";
            using var body = new StringContent(estate, System.Text.Encoding.UTF8, "application/yaml");
            (await service.Http.PostAsync("/api/estates?file=estate.yaml", body, Cancel)).EnsureSuccessStatusCode();
            var plan = await WatchAsync();
            plan.LastAt.ShouldBeNull();
            plan.Next!.Value.ShouldBe(every.Next(name, now, TimeZoneInfo.Utc), TimeSpan.FromSeconds(1));
            var looked = await Waiting.ForAsync(
                "the look was made",
                async () => await WatchAsync() is { LastWords: not (null or "queued" or "running") } watch ? watch : null);
            looked.LastWords.ShouldBe($"{name} was surveyed");
            looked.Next!.Value.ShouldBe(plan.Next.Value.AddHours(1), TimeSpan.FromSeconds(1));

            Task<ScheduleView> WatchAsync() => service.GetAsync($"estates/{name}/schedule", ContractsJson.Default.ScheduleView);
        }
        finally
        {
            states.Delete(true);
        }
    }

    [Fact]
    public async Task A_survey_that_waits_or_runs_counts_for_a_look()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        var asked = new HashSet<string>();
        for (var i = 0; i < 8; i++) asked.Add(await StartAsync("estates/fennmoor/survey"));
        asked.ShouldContain(await StartAsync("estates/fennmoor/schedule"));

        async Task<string> StartAsync(string path)
        {
            using var response = await service.Http.PostAsync("/api/" + path, null, Cancel);
            response.EnsureSuccessStatusCode();
            return System.Text.Json.JsonSerializer.Deserialize(
                await response.Content.ReadAsStringAsync(Cancel), ContractsJson.Default.JobView)!.Id;
        }
    }

    [Fact]
    public async Task Surveys_are_let_go_but_the_latest_ten_and_those_that_first_showed_a_kept_fit()
    {
        await using var service = await PreparedData.Demo.StartAsync();
        for (var i = 0; i < 16; i++) await service.RunAsync("estates/fennmoor/survey");
        await using var db = new SqliteConnection($"Data Source={Path.Combine(service.Data, "justright.db")};Mode=ReadOnly");
        await db.OpenAsync(Cancel);
        var kept = await NumbersAsync("select Id from Surveys order by Id");
        var shown = await NumbersAsync("select distinct SurveyId from Fits where SurveyId is not null");
        shown.ShouldNotBeEmpty();
        kept.TakeLast(10).ShouldBe(Enumerable.Range(7, 10)); // sixteen were taken
        kept.SkipLast(10).ShouldBe(shown.Where(s => s < 7).Order());
        kept.Count.ShouldBeLessThan(16);

        async Task<List<int>> NumbersAsync(string query)
        {
            await using var command = new SqliteCommand(query, db);
            await using var reader = await command.ExecuteReaderAsync(Cancel);
            var numbers = new List<int>();
            while (await reader.ReadAsync(Cancel)) numbers.Add(reader.GetInt32(0));
            return numbers;
        }
    }
}
