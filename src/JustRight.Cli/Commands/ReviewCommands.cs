using System.CommandLine;
using System.Globalization;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>review</c>: who looked at an install, at which fit, and what of it was accepted.</summary>
internal static class ReviewCommands
{
    public static Command Make()
    {
        var listed = Names.Install();
        var list = CommandKit.Make(
            "list", "Lists the reviews of an install, the latest first", ["justright review list thermograph-dataroom"], [listed],
            c => ListAsync(c, Names.Part(c.Parsed.GetValue(listed)!)))
            .Answers(j => j.IReadOnlyListReviewView);

        var estate = Names.Estate();
        var order = new ListOptions("install", "due", "reviewed", "stage");
        var due = CommandKit.Make(
            "due", "Lists the installs of an estate: who reviewed each last, and when it is to be reviewed next",
            ["justright review due fennmoor", "justright review due fennmoor --sort due --search overdue"],
            [estate, .. order.All], c => DueAsync(c, Names.Part(c.Parsed.GetValue(estate)!), order))
            .Answers(j => j.ReviewStandPage);

        var install = Names.Install();
        var fit = new Option<int?>("--fit")
        {
            Description = "The number of the reviewed fit; it must still be the latest. Nothing is asked then",
            HelpName = "NUMBER",
        };
        var by = new Option<string?>("--by") { Description = "Who looked, if it was not you", HelpName = "NAME" };
        var next = new Option<string?>("--again-by")
        {
            Description = "The date of the next review; by default the organization's interval applies",
            HelpName = "YYYY-MM-DD",
        };
        var remark = new Option<string?>("--remark") { Description = "A remark", HelpName = "TEXT" };
        var add = CommandKit.Make(
            "add",
            "Records a review: who reviewed the latest fit, its deviations, and which of them are accepted until when.\nTakes no survey: verify first. Accept deviations first with justright exception allow; the rest is recorded as open",
            [
                "justright review add thermograph-dataroom",
                "justright review add thermograph-dataroom --fit 4 --by \"Maud Ferris\" --again-by 2027-06-01"], [install, fit,
                by, next, remark],
            c => AddAsync(
                c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(fit),
                new ReviewOrder(
                    0, c.Parsed.GetValue(by), Days.Read(c.Parsed.GetValue(next), "--again-by"), c.Parsed.GetValue(remark))))
            .Answers(j => j.ReviewView);

        var printed = Names.Install();
        var to = new Option<string?>("--to") { Description = "The file to write; standard output by default", HelpName = "FILE" };
        var sheet = CommandKit.Make(
            "sheet",
            "Writes the review sheet of an install, a page of HTML for paper: accounts, purpose, rights, paths, reasons, exceptions",
            ["justright review sheet thermograph-dataroom --to thermograph.html"], [printed, to], c =>
                ReportCommands.WriteAsync(
                    c, $"installs/{Names.Part(c.Parsed.GetValue(printed)!)}/report?form=html", c.Parsed.GetValue(to)))
            .Answers(j => j.WrittenFileView);
        return CommandKit.Group("review", "Reviews: who reviewed which fit, and what was accepted", list, due, add, sheet);
    }

    private static async Task<int> ListAsync(Call call, string install)
    {
        var reviews = await call.Api.GetAsync(
            $"installs/{install}/reviews", ContractsJson.Default.IReadOnlyListReviewView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(reviews, ContractsJson.Default.IReadOnlyListReviewView);
        else if (reviews.Count == 0) call.Screen.Line("Nobody has reviewed it yet.");
        else foreach (var review in reviews) Write(call.Screen, review);
        return ExitCode.Fine;
    }

    private static async Task<int> AddAsync(Call call, string install, int? fit, ReviewOrder order)
    {
        var path = $"installs/{Names.Part(install)}";
        if (fit is null)
        {
            var history = await call.Api.GetAsync($"{path}/history?take=1", ContractsJson.Default.IReadOnlyListKeptFitView,
                call.Cancel);
            if (history.Count == 0)
                throw new ClientException(
                    ExitCode.BadInput, "No survey of this estate was taken yet.",
                    $"Verify the install first: justright verify {install}");
            var latest = history[0];
            if (call.Screen.IsJson)
                throw new ClientException(
                    ExitCode.BadInput, "Which fit was reviewed is missing.",
                    $"Say it with --fit; the latest is {latest.Number}.");
            FitReport.Write(
                call.Screen, await call.Api.GetAsync($"{path}/fit", ContractsJson.Default.FitView, call.Cancel), true);
            if (!StepPrinter.Confirm(call.Screen, $"Record a review of fit {latest.Number}?")) return ExitCode.Waits;
            fit = latest.Number;
        }

        var review = await call.Api.PostAsync(
            $"{path}/reviews", order with { Fit = fit.Value }, ContractsJson.Default.ReviewOrder,
            ContractsJson.Default.ReviewView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(review, ContractsJson.Default.ReviewView);
        else Write(call.Screen, review);
        return ExitCode.Fine;
    }

    private static async Task<int> DueAsync(Call call, string estate, ListOptions order)
    {
        var page = await call.Api.GetAsync(
            $"estates/{estate}/reviews?{order.Query(call).Text}", ContractsJson.Default.ReviewStandPage, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(page, ContractsJson.Default.ReviewStandPage);
            return ExitCode.Fine;
        }

        var table = Screen.List("install", "stage", "last reviewed", "result", "next");
        foreach (var stand in page.Items)
            table.AddRow(
                new Text(stand.Install), new Text(stand.Stage),
                new Text(stand.Latest is { } last ? $"{Times.Exact(last.At)} by {last.By}" : "never"),
                new Text(stand.Latest is { } result ? Balance.Words(result.Counts) : ""),
                new Text(stand.DueAt is { } at ? $"{Times.Exact(at)} ({stand.Standing})" : "no date"));
        if (page.Items.Count > 0) call.Screen.Write(table);
        else if (page.Total == 0) call.Screen.Line("No installs.");
        ListOptions.Tell(call, page.Items.Count, page.Skipped, page.Total, "installs");
        return ExitCode.Fine;
    }

    private static void Write(Screen screen, ReviewView review)
    {
        screen.Line(Markup.Escape(
            $"{review.Number}. {Times.Exact(review.At)}: {review.By} reviewed fit {review.Fit} of {review.Install}{(review.WrittenBy == review.By ? "" : $" (entered by {review.WrittenBy})")}"));
        screen.Line($"   {Balance.Words(review.Counts)}");
        foreach (var off in review.Off)
            screen.Line(off.Accepted is { } a ? $"   {Markup.Escape(off.Words)}  [grey]{Markup.Escape($"accepted by {a.By} until {Times.Until(a.LastDay, a.Until)}: {a.Why}")}[/]" : $"   {Markup.Escape(off.Words)}  [bold]left open[/]");
        if (review.NextBy is { } next)
            screen.Line($"   [grey]next review by {next.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)}[/]");
        if (review.Remark is { } remark) screen.Line($"   {Markup.Escape(remark)}");
    }
}
