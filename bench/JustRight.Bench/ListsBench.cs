using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using JustRight.Contracts;
using JustRight.Tests.ServiceUnderTest;
using Microsoft.Data.Sqlite;

namespace JustRight.Bench;

/// <summary>
/// Lists of an estate with a thousand installs, while nothing and while much goes on: pages, judging anew, two hundred readers
/// beside a survey and a run; and a log of a million entries.
/// </summary>
internal static class ListsBench
{
    private const int Installs = 1000, Readers = 200, Entries = 1_000_000, Times = 200, People = 20_000;
    private const string Estate = SyntheticYears.Estate;
    private static readonly TimeSpan Every = TimeSpan.FromSeconds(2);

    /// <summary>Measures all of it, or a part: <c>pages</c>, <c>readers</c>, <c>log</c> or <c>people</c>.</summary>
    public static async Task<int> RunAsync(string part)
    {
        var states = Directory.CreateTempSubdirectory("justright-lists-");
        try
        {
            if (part is "all" or "people") await PeopleAsync();
            if (part == "people") return 0;
            await using var service = await TestedService.StartProcessAsync("--JustRight:SimulationStates", states.FullName);
            var years = new SyntheticYears(service, Installs);
            years.Begin(states.FullName);
            await AddingAsync(years);
            await JudgingAsync(service);
            if (part is "all" or "pages") await PagesAsync(service);
            if (part is "all" or "readers") await ReadersAsync(service);
            if (part is "all" or "log") await LogAsync(service, states.FullName);
            return 0;
        }
        finally
        {
            states.Delete(true);
        }
    }

    private static async Task AddingAsync(SyntheticYears years)
    {
        var clock = Stopwatch.StartNew();
        await years.AddAsync();
        Say($"{Installs} installs added one by one in {clock.Elapsed.TotalSeconds:0.0} s");
    }

    /// <summary>How soon all lines are new: after a survey, and after a change of one install.</summary>
    private static async Task JudgingAsync(TestedService service)
    {
        for (var i = 0; i < 2; i++)
        {
            var clock = Stopwatch.StartNew();
            await service.RunAsync($"estates/{Estate}/survey");
            var taken = clock.Elapsed;
            await SettledAsync(service);
            var judged = await AllAsync(service);
            Say($"a survey of {Installs} installs: {taken.TotalSeconds:0.0} s, of which judging them all "
                + $"{(judged.Max(j => j.JudgedAt) - judged.Min(j => j.JudgedAt))!.Value.TotalSeconds:0.0} s (the mark is 10)");
        }

        var changed = Stopwatch.StartNew();
        using var staged = await service.Http.PostAsJsonAsync(
            $"/api/installs/{SyntheticYears.Install(1)}/stage", new StageOrder("planned"), ContractsJson.Default.StageOrder);
        staged.EnsureSuccessStatusCode();
        await SettledAsync(service);
        Say($"one install changed: all lines new after {changed.Elapsed.TotalSeconds:0.0} s");
    }

    private static async Task PagesAsync(TestedService service)
    {
        foreach (var query in new[] { "", "take=50&sort=-fit", "take=50&skip=900", "take=50&search=99", "take=50&fit=missing" })
            await TimedAsync(
                $"a page of 50 of {Installs} installs, {query}", () => service.Http.GetStringAsync($"/api/installs?{query}"));
        await TimedAsync("hosts of the estate", () => service.Http.GetStringAsync($"/api/estates/{Estate}/hosts?search=log9"));
        await TimedAsync("accounts of the estate",
            () => service.Http.GetStringAsync($"/api/estates/{Estate}/accounts?sort=-uses"));
        await TimedAsync("calendar of the estate", () => service.Http.GetStringAsync($"/api/estates/{Estate}/calendar"));
        await TimedAsync("passwords of the estate", () => service.Http.GetStringAsync($"/api/estates/{Estate}/passwords"));
        await TimedAsync("a search over everything", () => service.Http.GetStringAsync("/api/search?search=log99"));
        await TimedAsync("one install", () => service.Http.GetStringAsync($"/api/installs/{SyntheticYears.Install(5)}"));
        await TimedAsync("its fit", () => service.Http.GetStringAsync($"/api/installs/{SyntheticYears.Install(5)}/fit"));
    }

    /// <summary>Readers who each ask for a page every two seconds, with its tag, while a run and a survey go on.</summary>
    private static async Task ReadersAsync(TestedService service)
    {
        var alone = await BusyAsync(service, 0);
        using var stop = new CancellationTokenSource();
        var times = new ConcurrentBag<double>();
        var unchanged = 0;
        var readers = Enumerable.Range(0, Readers).Select(async number =>
        {
            using var http = new HttpClient { BaseAddress = new Uri(service.Address) };
            http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", service.Token);
            EntityTagHeaderValue? tag = null;
            await Task.Delay(Every * number / Readers);
            while (!stop.IsCancellationRequested)
            {
                using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/installs?skip={number % 20 * 50}");
                if (tag is not null) request.Headers.IfNoneMatch.Add(tag);
                var clock = Stopwatch.StartNew();
                using var answer = await http.SendAsync(request);
                times.Add(clock.Elapsed.TotalMilliseconds);
                if (answer.StatusCode == HttpStatusCode.NotModified) Interlocked.Increment(ref unchanged);
                else answer.EnsureSuccessStatusCode();
                tag = answer.Headers.ETag;
                await Task.Delay(Every);
            }
        }).ToList();
        await Task.Delay(TimeSpan.FromSeconds(4));
        var among = await BusyAsync(service, 1);
        await stop.CancelAsync();
        await Task.WhenAll(readers);
        var sorted = times.Order().ToList();
        Say($"{Readers} readers, {sorted.Count} pages, {unchanged} unchanged, while a survey and a run went on: median "
            + $"{sorted[sorted.Count / 2]:0} ms, p99 {sorted[sorted.Count * 99 / 100]:0} ms (the mark is 200), "
            + $"longest {sorted[^1]:0} ms");
        Say($"survey and run alone {alone:0.0} s, among readers {among:0.0} s: ratio {among / alone:0.00} (the mark is 1.2)");
    }

    /// <summary>A survey, and then a run that grants what one more install needs; how long both took.</summary>
    private static async Task<double> BusyAsync(TestedService service, int number)
    {
        var install = SyntheticYears.Install(number);
        var clock = Stopwatch.StartNew();
        await service.RunAsync($"estates/{Estate}/survey");
        var worklist = await service.GetAsync($"installs/{install}/worklist", ContractsJson.Default.WorklistView);
        var steps = worklist.Remove.Concat(worklist.Give).Where(s => s is { Blocked: null, Asks: null }).ToList();
        if (steps.Count > 0)
        {
            var remove = worklist.Remove.Any(s => s is { Blocked: null, Asks: null });
            var ids = (remove ? worklist.Remove : worklist.Give).Where(s => s is { Blocked: null, Asks: null }).Select(s => s.Id);
            await service.RunAsync($"installs/{install}/grant", new GrantOrder(remove, [.. ids]));
        }

        return clock.Elapsed.TotalSeconds;
    }

    /// <summary>Those found by a filter among many people, and those who can sign in to an instance.</summary>
    private static async Task PeopleAsync()
    {
        var states = Directory.CreateTempSubdirectory("justright-people-");
        await using var service = await TestedService.StartProcessAsync("--JustRight:SimulationStates", states.FullName);
        var years = new SyntheticYears(service, 10, People);
        years.Begin(states.FullName);
        await years.AddAsync();
        await service.RunAsync($"estates/{Estate}/survey");
        foreach (var query in new[] { "", "sort=-right", "skip=4000", "search=person0400", "sort=needed" })
            await TimedAsync(
                $"a page of {People / 4} holders of an instance, {query}",
                () => service.Http.GetStringAsync($"/api/estates/{Estate}/instances/{SyntheticYears.Instance}/holders?{query}"));
        foreach (var filter in new[] { "(objectClass=user)", "(&(objectCategory=person)(cn=*77*))" })
            foreach (var query in new[] { "", "sort=-name", "skip=15000", "search=person0400" })
                await TimedAsync(
                    $"a page of {People} people found by {filter}, {query}", () => FilteredAsync(service, filter, query));
        states.Delete(true);
    }

    private static async Task<string> FilteredAsync(TestedService service, string filter, string query)
    {
        using var answer = await service.Http.PostAsJsonAsync(
            $"/api/estates/{Estate}/people-directories/staff/filter?{query}", new FilterOrder(filter, null),
            ContractsJson.Default.FilterOrder);
        return await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync();
    }

    private static async Task LogAsync(TestedService service, string states)
    {
        await service.StopAsync();
        var clock = Stopwatch.StartNew();
        await FillLogAsync(Path.Combine(service.Data, "justright.db"));
        Say($"{Entries} entries of the log laid in {clock.Elapsed.TotalSeconds:0} s");
        await service.RestartAsync("--JustRight:SimulationStates", states);
        foreach (var query in new[]
        {
            "", "before=500000", "take=500&before=900000", "search=svc-log-4711", "search=granted", "search=granted+readers",
            "search=nothing-of-that-kind", "search=7",
        })
            await TimedAsync($"a page of {Entries} entries, {query}", () => service.Http.GetStringAsync($"/api/log?{query}"));
    }

    /// <summary>Lays entries as the service would, but for their hashes, which no page asks for.</summary>
    private static async Task FillLogAsync(string file)
    {
        await using var db = new SqliteConnection($"Data Source={file};Pooling=False");
        await db.OpenAsync();
        await using var command = db.CreateCommand();
        command.CommandText = $"""
            WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < {Entries})
            INSERT INTO "Log" ("Number", "At", "Who", "Action", "Subject", "Detail", "Hash")
            SELECT (SELECT MAX("Number") FROM "Log") + i, '2026-11-01 03:00:00+00:00', 'Maud Ferris', 'grant',
                'logger-' || (i % 1000), 'granted svc-log-' || i || ' what Event Log Readers may on fm-log' || (i % 1000), 'hash'
            FROM n;
            """;
        command.CommandTimeout = 0;
        await command.ExecuteNonQueryAsync();
    }

    private static async Task TimedAsync(string what, Func<Task<string>> ask)
    {
        var taken = new List<double>();
        for (var i = 0; i <= Times && taken.Sum() < 20_000; i++)
        {
            var clock = Stopwatch.StartNew();
            await ask();
            if (i > 0) taken.Add(clock.Elapsed.TotalMilliseconds);
        }

        taken.Sort();
        Say($"{what}: median {taken[taken.Count / 2]:0.0} ms, p99 {taken[taken.Count * 99 / 100]:0.0} ms");
    }

    private static async Task<List<InstallSummary>> AllAsync(TestedService service)
    {
        var all = new List<InstallSummary>();
        for (var skip = 0; skip < Installs; skip += 500)
            all.AddRange((await service.GetAsync($"installs?take=500&skip={skip}", ContractsJson.Default.InstallPage)).Items);
        return all;
    }

    private static async Task SettledAsync(TestedService service)
    {
        while ((await AllAsync(service)).Exists(i => i.IsBeingJudged)) await Task.Delay(20);
    }

    private static void Say(FormattableString words) => Console.WriteLine(words.ToString(CultureInfo.InvariantCulture));

    private static void Say(string words) => Console.WriteLine(words);
}
