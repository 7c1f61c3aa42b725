using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>
/// <c>calendar</c>, <c>notices</c> and <c>watch</c>: what is due, what was told, and the looks that nobody asks for.
/// </summary>
internal static class CalendarCommands
{
    public static Command MakeCalendar()
    {
        var estate = Names.Estate();
        var file = new Option<string?>("--to")
        {
            Description = "Write it as iCalendar (RFC 5545) to this file, for your own calendar",
            HelpName = "FILE",
        };
        var order = new ListOptions("at", "subject", "kind");
        return CommandKit.Make(
            "calendar",
            "Lists what expires or is due: passwords, reviews, exceptions, confirmations.\nExit code: 0 nothing is overdue, 1 something is",
            ["justright calendar fennmoor", "justright calendar fennmoor --search svc-thermo", "justright calendar fennmoor --to fennmoor.ics"],
            [estate, file, .. order.All],
            c => c.Parsed.GetValue(file) is { } to
                ? ReportCommands.WriteAsync(c, $"estates/{Names.Part(c.Parsed.GetValue(estate)!)}/calendar/file", to)
                : CalendarAsync(c, Names.Part(c.Parsed.GetValue(estate)!), order.Query(c)))
            .Answers(j => j.CalendarView, j => j.WrittenFileView);
    }

    public static Command MakeNotifications()
    {
        var estate = Names.Estate();
        var remind = new Option<bool>("--remind") { Description = "Send reminders now instead of at the next hour" };
        var order = new ListOptions("at", "subject", "kind");
        return CommandKit.Make(
            "notifications", "Lists the notifications sent and whether they were delivered", [
                "justright notifications fennmoor", "justright notifications fennmoor --search svc-thermo",
                "justright notifications fennmoor --remind"],
            [estate, remind, .. order.All],
            c => NotificationsAsync(c, Names.Part(c.Parsed.GetValue(estate)!), c.Parsed.GetValue(remind), order.Query(c)))
            .Answers(j => j.NotificationPage);
    }

    public static Command MakeSchedule()
    {
        var estate = Names.Estate();
        var now = new Option<bool>("--now") { Description = "Survey now instead of at the scheduled time" };
        return CommandKit.Make(
            "schedule", "Shows when an estate is surveyed without anybody asking: the interval, the next time, the last result, the recipients.\nThe interval is set in the estate, under rules", [
                "justright schedule fennmoor", "justright schedule fennmoor --now"], [estate, now],
            c => WatchAsync(c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(now))).Answers(j => j.ScheduleView);
    }

    private static async Task<int> CalendarAsync(Call call, string estate, ListQuery query)
    {
        var calendar = await call.Api.GetAsync($"estates/{estate}/calendar?{query.Text}", ContractsJson.Default.CalendarView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(calendar, ContractsJson.Default.CalendarView);
        else Write(call.Screen, calendar);
        if (!call.Screen.IsJson) ListOptions.Tell(call, calendar.Entries.Count, calendar.Skipped, calendar.Total, "entries");
        return calendar.Entries.Any(e => e.Standing == "overdue") ? ExitCode.Misfit : ExitCode.Fine;
    }

    private static void Write(Screen screen, CalendarView calendar)
    {
        if (calendar.Simulated) screen.Line("[bold]simulated estate[/]");
        if (calendar.Entries.Count == 0) screen.Line("Nothing is due.");
        var table = Screen.List("", "when", "what", "", "why", "next");
        foreach (var e in calendar.Entries)
        {
            var standing = e.Standing switch { "overdue" => "[bold]! overdue[/]", "soon" => "[bold]· soon[/]", _ => "[grey]later[/]" };
            table.AddRow(
                new Markup(standing), new Text(Times.Exact(e.At)), new Text(e.Kind), new Text(e.Subject), new Text(e.Words),
                new Text(e.Next));
        }

        if (calendar.Entries.Count > 0) screen.Write(table);
    }

    /// <summary>What was told now, as a page of its own.</summary>
    private static NotificationPage PageOf(IReadOnlyList<NotificationView> told) => new(told, 0, told.Count);

    private static async Task<int> NotificationsAsync(Call call, string estate, bool remind, ListQuery query)
    {
        var path = $"estates/{estate}";
        var page = remind
            ? PageOf(await call.Api.PostAsync($"{path}/reminders", ContractsJson.Default.IReadOnlyListNotificationView, call.Cancel))
            : await call.Api.GetAsync($"{path}/notifications?{query.Text}", ContractsJson.Default.NotificationPage, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(page, ContractsJson.Default.NotificationPage);
            return ExitCode.Fine;
        }

        if (page.Total == 0)
            call.Screen.Line(
                remind ? "There are no new reminders." : query.IsNarrowed ? "No notification matches." : "Nothing was told yet.");
        foreach (var notice in page.Items)
        {
            call.Screen.Line($"{Markup.Escape(Times.Exact(notice.At))}  [bold]{Markup.Escape(notice.Subject)}[/]");
            foreach (var line in notice.Text.TrimEnd().Split('\n')) call.Screen.Line($"    [grey]{Markup.Escape(line)}[/]");
            if (notice.Deliveries.Count == 0)
                call.Screen.Line("    [bold]no recipient:[/] the estate names none under rules, notices");
            foreach (var d in notice.Deliveries)
                call.Screen.Line(Markup.Escape($"    {d.Channel} to {d.To}: {d.State}{(d.Error is null ? "" : $": {d.Error}")}"));
        }

        ListOptions.Tell(call, page.Items.Count, page.Skipped, page.Total, "notifications");
        return ExitCode.Fine;
    }

    private static async Task<int> WatchAsync(Call call, string estate, bool now)
    {
        var path = $"estates/{Names.Part(estate)}/schedule";
        if (now)
        {
            var job = await call.Api.PostAsync(path, ContractsJson.Default.JobView, call.Cancel);
            job = await JobProgress.FollowAsync(call.Screen, call.Api, job, $"surveying {estate}", null, call.Cancel);
            if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the survey did not end well");
        }

        var watch = await call.Api.GetAsync(path, ContractsJson.Default.ScheduleView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(watch, ContractsJson.Default.ScheduleView);
            return ExitCode.Fine;
        }

        call.Screen.Line(Markup.Escape(
            watch.EveryHours is { } hours
                ? $"{watch.Estate} is surveyed every {(hours == 1 ? "hour" : $"{hours} hours")}; next {(watch.Next is { } next ? Times.Exact(next) : "not known")}"
                : $"{watch.Estate} has no scheduled surveys: set the interval in the estate, under rules: watch: {{ every-hours: 24 }}"));
        if (watch.LastAt is { } last)
            call.Screen.Line(Markup.Escape($"Last scheduled survey: {Times.Exact(last)}: {watch.LastWords}"));
        call.Screen.Line(Markup.Escape(
            watch.Recipients.Count == 0
                ? "No recipient: the estate names none under rules, notices."
                : $"Recipients: {string.Join(", ", watch.Recipients)}"));
        return ExitCode.Fine;
    }
}
