using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using JustRight.Contracts;
using JustRight.Tests.ServiceUnderTest;

namespace JustRight.Bench;

/// <summary>
/// Three years of an estate: a survey each day, a tenth of the installs changed each day, a review every other day, an exception
/// each week; what people ask for measured at the end of the first year and at the end of the last, and the data folder weighed.
/// </summary>
internal static class YearsBench
{
    private const int Installs = 200;
    private const int Times = 15;

    /// <summary>Lives them.</summary>
    /// <param name="days">Three years are 1,096 days.</param>
    public static async Task<int> RunAsync(int days)
    {
        var states = Directory.CreateTempSubdirectory("justright-years-");
        try
        {
            return await RunAsync(days, states.FullName);
        }
        finally
        {
            states.Delete(true);
        }
    }

    private static async Task<int> RunAsync(int days, string states)
    {
        await using var service = await TestedService.StartAsync("--JustRight:SimulationStates", states);
        var years = new SyntheticYears(service, Installs);
        years.Begin(states);
        await years.AddAsync();
        var first = new Dictionary<string, double>();
        var (year, began) = (Math.Min(365, days / 3), Stopwatch.StartNew());
        for (var day = 1; day <= days; day++)
        {
            if (day > 1) years.Change(day); // the first survey takes the simulation over
            await SurveyAsync(service);
            if (day % 2 == 0) await ReviewAsync(service, SyntheticYears.Install(day / 2 % Installs));
            if (day % 60 == 0) await TokenAsync(service, day); // none lasts for years
            if (day == year) first = await MeasureAsync(service, years, day);
            if (day % 50 == 0)
                Console.WriteLine($"day {day,5}: {Weight(service),6:0.0} MB, {began.Elapsed.TotalSeconds:0} s so far");
            service.Clock.Pass(TimeSpan.FromDays(1));
        }

        var last = await MeasureAsync(service, years, days);
        Console.WriteLine($"{"what",-16}{"year 1, ms",12}{"year 3, ms",12}{"ratio",8}");
        foreach (var (what, before) in first)
            Console.WriteLine(string.Create(
                CultureInfo.InvariantCulture, $"{what,-16}{before,12:0.0}{last[what],12:0.0}{last[what] / before,8:0.00}"));
        var log = WeightOf(service, isLog: true) * 30 / days; // the service keeps thirty days of it; here all came on one
        Console.WriteLine($"data folder: {Weight(service) + log:0.0} MB (the mark is 60; the ratios' is 1.2)");
        return 0;
    }

    private static async Task SurveyAsync(TestedService service)
    {
        var job = await service.RunAsync($"estates/{SyntheticYears.Estate}/survey");
        if (job.State != "done") throw new InvalidOperationException($"A survey {job.State}: {job.Message}");
    }

    private static async Task TokenAsync(TestedService service, int day)
    {
        var order = new TokenOrder(string.Create(CultureInfo.InvariantCulture, $"day {day}"), "owner", 80);
        using var made = await service.Http.PostAsJsonAsync("/api/tokens", order, ContractsJson.Default.TokenOrder);
        made.EnsureSuccessStatusCode();
        var token = (await made.Content.ReadFromJsonAsync(ContractsJson.Default.NewTokenView))!.Token;
        service.Http.DefaultRequestHeaders.Authorization = new AuthenticationHeaderValue("Bearer", token);
    }

    private static async Task ReviewAsync(TestedService service, string install)
    {
        var history = await service.GetAsync($"installs/{install}/history", ContractsJson.Default.IReadOnlyListKeptFitView);
        using var answer = await service.Http.PostAsJsonAsync(
            $"/api/installs/{install}/reviews", new ReviewOrder(history[0].Number, Remark: "as it should be"),
            ContractsJson.Default.ReviewOrder);
        answer.EnsureSuccessStatusCode();
    }

    /// <summary>The median of each question, in milliseconds; each is asked once before.</summary>
    private static async Task<Dictionary<string, double>> MeasureAsync(TestedService service, SyntheticYears years, int day)
    {
        var changed = SyntheticYears.Install(years.ChangedOn(day).First());
        var asked = new Dictionary<string, Func<Task>>
        {
            ["survey"] = () => SurveyAsync(service),
            ["calendar"] = () => service.Http.GetStringAsync($"/api/estates/{SyntheticYears.Estate}/calendar"),
            ["password due"] = () => service.Http.GetStringAsync($"/api/estates/{SyntheticYears.Estate}/passwords"),
            ["history"] = () => service.Http.GetStringAsync($"/api/installs/{changed}/history"),
            ["drift"] = () => service.Http.GetStringAsync($"/api/installs/{changed}/drift"),
            ["install list"] = () => service.Http.GetStringAsync("/api/installs"),
            ["notifications"] = () => service.Http.GetStringAsync($"/api/estates/{SyntheticYears.Estate}/notifications"),
            ["log"] = () => service.Http.GetStringAsync("/api/log?take=100"),
        };
        var figures = new Dictionary<string, double>();
        foreach (var (what, ask) in asked)
        {
            var taken = new List<double>();
            for (var i = 0; i <= Times; i++)
            {
                var clock = Stopwatch.StartNew();
                await ask();
                if (i > 0) taken.Add(clock.Elapsed.TotalMilliseconds);
            }

            figures[what] = taken.Order().ElementAt(Times / 2);
        }

        return figures;
    }

    private static double Weight(TestedService service) => WeightOf(service, isLog: false);

    private static double WeightOf(TestedService service, bool isLog) =>
        service.DataFiles.Where(f => f.Contains("/logs/", StringComparison.Ordinal) == isLog).Sum(f => new FileInfo(f).Length)
            / 1_000_000.0;
}
