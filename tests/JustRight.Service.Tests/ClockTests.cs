using System.Globalization;
using System.Net;
using System.Net.Http.Json;
using System.Text;
using JustRight.Contracts;

namespace JustRight.Service.Tests;

/// <summary>
/// Time, where people meet it: looks, reminders, ends of exceptions, waiting periods, sessions and tokens, through both changes
/// of summer time, over a leap day, after a week in which the machine was off, and when somebody sets the clock back.
/// </summary>
public sealed class ClockTests
{
    private const string Install = "curdhouse-books";
    private static readonly TimeZoneInfo London = TimeZoneInfo.FindSystemTimeZoneById("Europe/London");

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Theory]
    [InlineData("2027-03-26", 1)] // summer begins on the 28th, at 01:00
    [InlineData("2027-10-29", -1)] // summer ends on the 31st, at 02:00
    [InlineData("2028-02-27", 0)] // the 29th is a leap day
    public async Task A_daily_look_comes_at_the_same_time_by_the_clock_on_the_wall(string first, int shift)
    {
        await using var service = await TestedService.StartDemoAtAsync(Noon(first));
        await WatchAsync(service);
        var looks = new List<DateTimeOffset>();
        for (var day = 0; day < 4; day++)
        {
            var next = (await ScheduleAsync(service)).Next!.Value;
            service.Clock.PassUntil(next);
            var look = await LookedAsync(service, next);
            look.LastWords.ShouldBe("fennmoor was surveyed");
            looks.Add(TimeZoneInfo.ConvertTime(next, London));
        }

        looks.Select(l => l.TimeOfDay).Distinct().Count().ShouldBe(1);
        looks.Zip(looks.Skip(1), (a, b) => (b.Date - a.Date).TotalDays).ShouldAllBe(days => days == 1);
        (looks[3].Offset - looks[0].Offset).ShouldBe(TimeSpan.FromHours(shift));
    }

    [Fact]
    public async Task A_machine_that_was_off_for_a_week_looks_once_and_reminds_of_what_came_due_meanwhile_once()
    {
        await using var service = await TestedService.StartDemoAtAsync(Noon("2027-03-22"));
        await WatchAsync(service);
        await service.RunAsync("estates/fennmoor/schedule");
        await AcceptAsync(service, new DateOnly(2027, 3, 25));
        await service.RunAsync("estates/fennmoor/schedule");
        await RemindAsync(service); // what is due already, and that the exception ends soon
        await service.StopAsync();
        service.Clock.Pass(TimeSpan.FromDays(7));

        await service.RestartAsync();
        var missed = (await ScheduleAsync(service)).Next!.Value;
        missed.ShouldBe(service.Clock.GetUtcNow().AddMinutes(1), TimeSpan.FromSeconds(50)); // made up for at once
        service.Clock.PassUntil(missed.AddSeconds(1));
        await LookedAsync(service, missed);
        var jobs = (await LogAsync(service)).Count(e => e.Action == "survey" && e.At > missed.AddMinutes(-5));
        jobs.ShouldBe(1, "one look, not seven");
        await Waiting.UntilAsync("it was reminded of", async () => (await EndedAsync()).Length > 0);
        service.Clock.Pass(TimeSpan.FromHours(3));
        await Waiting.UntilAsync("the reminders came round", async () => (await ScheduleAsync(service)).Next > missed);
        (await EndedAsync()).ShouldHaveSingleItem();
        await CountsAgainAsync(service);

        async Task<NotificationView[]> EndedAsync() =>
            [.. (await NotificationsAsync(service))
                .Where(n => n.Kind == "reminder" && n.Subject.Contains("since 2027-03-25", StringComparison.Ordinal))];
    }

    [Fact]
    public async Task A_clock_that_is_set_back_holds_up_neither_looks_nor_mail_and_what_was_read_ahead_of_it_proves_nothing()
    {
        await using var scene = new NotificationScene();
        string[] mail =
        [
            "--JustRight:Mail:Host", "127.0.0.1", "--JustRight:Mail:Port", $"{scene.MailPort}",
            "--JustRight:Mail:From", "just-right@fennmoor.example",
        ];
        await using var service = await TestedService.StartDemoAtAsync(Noon("2027-02-10"), mail);
        await WatchAsync(service);
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/schedule");
        var there = service.Clock.GetUtcNow();
        scene.RefuseNext();
        await RemindAsync(service);
        await Waiting.UntilAsync("a mail was refused", async () => (await NotificationsAsync(service))
            .Any(n => n.Deliveries.Any(d => d.Error is not null)));

        service.Clock.Set(there.AddDays(-5));
        await Waiting.UntilAsync("the refused mail went out", async () =>
        {
            service.Clock.Pass(TimeSpan.FromSeconds(10));
            return (await NotificationsAsync(service)).All(n => n.Deliveries.All(d => d.State == "sent"));
        });
        var fit = await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);
        fit.Counts.Met.ShouldBe(0);
        fit.Accounts.SelectMany(a => a.Rights).ShouldContain(r =>
            r.Reason.Contains("which this machine's clock has not reached; take a new survey", StringComparison.Ordinal));
        await Waiting.UntilAsync("the looks are planned anew", async () =>
        {
            service.Clock.Pass(TimeSpan.FromSeconds(20));
            return (await ScheduleAsync(service)).Next < service.Clock.GetUtcNow().AddDays(1);
        });
        var next = (await ScheduleAsync(service)).Next!.Value;
        service.Clock.PassUntil(next);
        await Waiting.UntilAsync("the look came", async () => (await ScheduleAsync(service)).Next > next);
        await Waiting.UntilAsync("it judges again", async () =>
            (await service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView)).Counts.Met > 0);
        (await service.GetAsync("log/check", ContractsJson.Default.LogCheckView)).Sound.ShouldBeTrue();
    }

    [Fact]
    public async Task An_exception_counts_to_the_end_of_its_last_day_where_the_organization_is_though_the_clocks_change_on_it()
    {
        await using var service = await TestedService.StartDemoAtAsync(Noon("2027-03-27"));
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/survey");
        await AcceptAsync(service, new DateOnly(2027, 3, 28)); // which has 23 hours
        var last = new DateTimeOffset(2027, 3, 28, 23, 59, 50, TimeSpan.FromHours(1));
        service.Clock.PassUntil(last.AddMinutes(-1));
        (await FitAsync(service)).Counts.Accepted.ShouldBe(1);
        var file = await service.Http.GetStringAsync($"/api/estates/fennmoor/calendar/file", Cancel);
        file.ShouldContain("20270328");
        file.ShouldNotContain("20270329");
        service.Clock.PassUntil(last.AddSeconds(11));
        (await FitAsync(service)).Counts.Accepted.ShouldBe(0);
        await service.RunAsync("estates/fennmoor/survey");
        await CountsAgainAsync(service);
    }

    [Fact]
    public async Task What_is_kept_back_until_the_morning_goes_out_when_the_wall_says_so_in_a_night_that_is_an_hour_short()
    {
        await using var scene = new NotificationScene();
        await using var service = await TestedService.StartDemoAtAsync(
            Noon("2027-03-27"), "--JustRight:Mail:Host", "127.0.0.1", "--JustRight:Mail:Port", $"{scene.MailPort}",
            "--JustRight:Mail:From", "just-right@fennmoor.example");
        await EstateAsync(service, e => e.Replace(
            "notices: { mail: service-accounts@fennmoor.example }",
            "notices: { mail: service-accounts@fennmoor.example, rest: \"22:00-07:00\" }", StringComparison.Ordinal));
        await service.RunAsync("estates/fennmoor/survey");
        service.Clock.PassUntil(Noon("2027-03-27").AddHours(11));
        await RemindAsync(service);
        service.Clock.PassUntil(Noon("2027-03-28").AddHours(-6).AddMinutes(-1)); // 06:59 in summer
        await Task.Delay(500, Cancel);
        scene.Mails.ShouldBeEmpty();
        service.Clock.Pass(TimeSpan.FromMinutes(2));
        await Waiting.UntilAsync("the mails went out", () => !scene.Mails.IsEmpty);
    }

    [Fact]
    public async Task A_digest_goes_out_once_a_day_as_one_mail_with_what_got_worse_first()
    {
        await using var scene = new NotificationScene();
        await using var service = await TestedService.StartDemoAtAsync(
            Noon("2027-10-30"), "--JustRight:Mail:Host", "127.0.0.1", "--JustRight:Mail:Port", $"{scene.MailPort}",
            "--JustRight:Mail:From", "just-right@fennmoor.example");
        await EstateAsync(service, e => e.Replace(
            "notices: { mail: service-accounts@fennmoor.example }",
            "notices: { mail: service-accounts@fennmoor.example, digest: \"07:00\" }", StringComparison.Ordinal));
        for (var i = 0; i < 3; i++) await service.RunAsync("estates/fennmoor/survey");
        await RemindAsync(service);
        await AcceptAsync(service, new DateOnly(2027, 12, 1)); // what is accepted got worse before
        var told = (await NotificationsAsync(service)).Count;
        told.ShouldBeGreaterThan(2);
        service.Clock.PassUntil(Noon("2027-10-31").AddHours(-5).AddMinutes(-2)); // 06:58, in winter by now
        await Task.Delay(500, Cancel);
        scene.Mails.ShouldBeEmpty();
        service.Clock.Pass(TimeSpan.FromMinutes(3));
        await Waiting.UntilAsync("all went out", async () =>
            (await NotificationsAsync(service)).Take(told)
                .All(n => n.Deliveries.All(d => d.State == "sent") || n.At > Noon("2027-10-31").AddHours(-6)));
        var mail = scene.Mails.ShouldHaveSingleItem();
        mail.ShouldContain("more");
        mail.IndexOf("Since the last survey", StringComparison.Ordinal)
            .ShouldBeInRange(0, mail.IndexOf("Due since", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_restart_waits_for_the_next_night_where_the_clock_jumps_over_its_time()
    {
        await using var service = await TestedService.StartDemoAtAsync(Noon("2027-03-27"));
        await EstateAsync(service, e =>
            e.Replace("fm-book02: {}", "fm-book02: { restarts: \"01:15-01:45\" }", StringComparison.Ordinal));
        await PasswordTests.KnowCardsAsync(service);
        using var begun = await service.Http.PostAsync($"/api/{PasswordTests.Path}/renewals", null, Cancel);
        var renewal = (await begun.Content.ReadFromJsonAsync(ContractsJson.Default.RenewalView, Cancel))!;
        await service.EndOfAsync(renewal.Id);
        using var typed = await service.Http.PostAsync($"/api/runs/{renewal.Id}/steps/5", PasswordTests.Word("done"), Cancel);
        await service.EndOfAsync(renewal.Id);
        (await NextAsync()).ShouldBe("window");
        service.Clock.PassUntil(Noon("2027-03-28").AddHours(-10.5)); // the wall shows 02:30, and never showed 01:30
        await Task.Delay(500, Cancel);
        (await NextAsync()).ShouldBe("window");
        service.Clock.PassUntil(Noon("2027-03-29").AddHours(-11.7)); // 01:18
        await Waiting.UntilAsync("it was restarted", async () =>
        {
            service.Clock.Pass(TimeSpan.FromSeconds(10));
            return await NextAsync() == "over";
        });

        async Task<string> NextAsync() =>
            (await service.GetAsync($"renewals/{renewal.Id}", ContractsJson.Default.RenewalView)).Next;
    }

    [Fact]
    public async Task What_waits_to_be_removed_may_go_when_its_days_are_over_and_is_reminded_of_then()
    {
        const string going = "tallystick-dataroom";
        await using var service = await TestedService.StartDemoAtAsync(Noon("2028-02-14"));
        (await service.GrantAllAsync(going)).State.ShouldBe("done");
        (await service.Http.PostAsJsonAsync(
            $"/api/installs/{going}/stage", new StageOrder("retiring"), ContractsJson.Default.StageOrder, Cancel))
                .EnsureSuccessStatusCode();
        (await service.GrantAllAsync(going, remove: true)).State.ShouldBe("done");
        var begun = service.Clock.GetUtcNow();
        service.Clock.PassUntil(begun.AddDays(29));
        await service.RunAsync($"installs/{going}/verify");
        // that February has 29 days
        (await RemovalsAsync()).ShouldAllBe(s => s.Blocked!.StartsWith("not before 2028-03-15", StringComparison.Ordinal));
        service.Clock.PassUntil(begun.AddDays(30).AddMinutes(5));
        await service.RunAsync($"installs/{going}/verify");
        (await RemovalsAsync()).ShouldAllBe(s => s.Blocked == null);
        await RemindAsync(service); // it may have been reminded of already
        (await NotificationsAsync(service)).Select(n => n.Subject)
            .Where(n => n.Contains(going, StringComparison.Ordinal) && n.Contains("since", StringComparison.Ordinal))
            .ShouldHaveSingleItem().ShouldContain(" since 2028-03-15 12:");
        (await service.GrantAllAsync(going, remove: true)).State.ShouldBe("done");
        (await File.ReadAllTextAsync(Path.Combine(service.Data, "simulation", "fennmoor.json"), Cancel))
            .ShouldNotContain("\"svc-tally-installer\"");

        async Task<IReadOnlyList<StepView>> RemovalsAsync()
        {
            var remove = (await service.GetAsync($"installs/{going}/worklist", ContractsJson.Default.WorklistView)).Remove;
            remove.ShouldNotBeEmpty();
            return remove;
        }
    }

    [Fact]
    public async Task A_session_ends_after_twelve_hours_a_link_after_its_time_and_a_token_on_its_day_however_the_clock_changed()
    {
        await using var service = await TestedService.StartDemoAtAsync(Noon("2027-03-27").AddHours(6));
        using var token = await service.ClientAsync("for a day", "reader");
        using var session = new HttpClient(
            new HttpClientHandler { CookieContainer = new CookieContainer() })
        { BaseAddress = new Uri(service.Address) };
        (await session.PostAsJsonAsync(
            "/api/sign-in", new SignInCode(TestedService.CodeOf(service.Links[1])), ContractsJson.Default.SignInCode, Cancel))
                .EnsureSuccessStatusCode();
        service.Clock.Pass(TimeSpan.FromHours(11.9)); // past the change, which took an hour off the night
        (await session.GetAsync("/api/estates", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        service.Clock.Pass(TimeSpan.FromHours(0.2));
        (await session.GetAsync("/api/estates", Cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await token.GetAsync("/api/estates", Cancel)).StatusCode.ShouldBe(HttpStatusCode.OK);
        service.Clock.Pass(TimeSpan.FromHours(12));
        (await token.GetAsync("/api/estates", Cancel)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
    }

    private static DateTimeOffset Noon(string day) => DateTimeOffset.Parse(day + "T12:00:00Z", CultureInfo.InvariantCulture);

    private static Task WatchAsync(TestedService service) => EstateAsync(service, e => e + "  watch: { every-hours: 24 }\n");

    private static async Task EstateAsync(TestedService service, Func<string, string> changed)
    {
        var estate = await File.ReadAllTextAsync(Path.Combine(Checkout.Top, "demo-data", "estates", "fennmoor.yaml"), Cancel);
        var bytes = Encoding.UTF8.GetBytes(changed(estate));
        (await service.AddAsync("estates", "fennmoor.yaml", bytes)).EnsureSuccessStatusCode();
    }

    private static Task<ScheduleView> ScheduleAsync(TestedService service) =>
        service.GetAsync("estates/fennmoor/schedule", ContractsJson.Default.ScheduleView);

    private static Task<ScheduleView> LookedAsync(TestedService service, DateTimeOffset at) =>
        Waiting.ForAsync(
            $"the look of {at:u} ended",
            async () => await ScheduleAsync(service) is { LastAt: { } last, LastWords: not ("queued" or "running") } look
                && last >= at
                ? look
                : null);

    private static Task<FitView> FitAsync(TestedService service) =>
        service.GetAsync($"installs/{Install}/fit", ContractsJson.Default.FitView);

    /// <summary>Accepts what somebody gave an account behind our back.</summary>
    private static async Task AcceptAsync(TestedService service, DateOnly until)
    {
        await service.ChangeSimulationAsync(
            s => s["hosts"].Named("fm-book01")["localGroups"].Named("Event Log Readers")["members"]!.AsArray()
                .Add("svc-curd-labeller"),
            Cancel);
        await service.RunAsync("estates/fennmoor/survey");
        var excess = (await FitAsync(service)).Accounts.SelectMany(a => a.Rights).Single(r =>
            r.Verdict == "excess" && r.Right.StartsWith("Event Log Readers", StringComparison.Ordinal));
        (await service.Http.PostAsJsonAsync(
            $"/api/installs/{Install}/exceptions", new ExceptionOrder(excess.Id, "until the release", until),
            ContractsJson.Default.ExceptionOrder, Cancel)).EnsureSuccessStatusCode();
    }

    private static async Task<IReadOnlyList<NotificationView>> RemindAsync(TestedService service)
    {
        using var asked = await service.Http.PostAsync("/api/estates/fennmoor/reminders", null, Cancel);
        return (await asked.Content.ReadFromJsonAsync(ContractsJson.Default.IReadOnlyListNotificationView, Cancel))!;
    }

    private static Task<IReadOnlyList<NotificationView>> NotificationsAsync(TestedService service) =>
        service.NotificationsAsync("fennmoor");

    private static Task<IReadOnlyList<LogEntryView>> LogAsync(TestedService service) =>
        service.LogAsync();

    private static async Task CountsAgainAsync(TestedService service) =>
        (await service.GetAsync($"installs/{Install}/drift", ContractsJson.Default.DriftView)).Lines
            .ShouldContain(l => l.Way == "worse"
                && l.Words.Contains("still excess, and no longer accepted", StringComparison.Ordinal));
}
