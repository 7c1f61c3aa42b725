using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>exception</c>: accepts what is off, for a reason and until a day.</summary>
internal static class ExceptionCommands
{
    public static Command Make()
    {
        var listed = Names.Install();
        var list = CommandKit.Make(
            "list", "Lists the exceptions, newest first, including the expired ones",
            ["justright exception list thermograph-dataroom"], [listed],
            c => ListAsync(c, Names.Part(c.Parsed.GetValue(listed)!)))
            .Answers(j => j.IReadOnlyListExceptionView);

        var install = Names.Install();
        var account = new Argument<string>("account")
        {
            Description = "An account of the install: its key or its name; or a closed group with an unexpected member",
        };
        var right = new Argument<string[]>("right")
        {
            Description = "Text that matches exactly one deviation",
            Arity = ArgumentArity.OneOrMore,
        };
        var why = new Option<string>("--why")
        {
            Description = "The reason, shown in every report",
            Required = true,
            HelpName = "TEXT",
        };
        var until = new Option<string>("--until")
        {
            Description = "The last day, in the organization's time zone; at most one year ahead",
            Required = true,
            HelpName = "YYYY-MM-DD",
        };
        var by = new Option<string?>("--by") { Description = "Who allowed it, if it was not you", HelpName = "NAME" };
        var allow = CommandKit.Make(
            "allow",
            "Accepts one missing, excess or forbidden right until a date. The verdict stays; every report shows the exception beside it.\nOnly an owner accepts a forbidden right",
            [
                "justright exception allow quernstone-sql01 watcher sysadmin --why \"until the release in March\" --until 2027-03-31",
                "justright exception allow curdhouse-books web \"Event Log Readers\" --why \"fault 4711\" --until 2027-01-15 --by \"Maud Ferris\""],
            [install, account, right, why, until, by],
            c => AllowAsync(
                c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(account)!, c.Parsed.GetValue(right) ?? [],
                new ExceptionOrder(
                    "", c.Parsed.GetValue(why)!, Days.Read(c.Parsed.GetValue(until), "--until")!.Value, c.Parsed.GetValue(by))))
            .Answers(j => j.IReadOnlyListExceptionView);

        var of = Names.Install();
        var number = new Argument<int>("number") { Description = "The number of the exception" };
        var end = CommandKit.Make("end", "Ends an exception early", ["justright exception end quernstone-sql01 3"], [of, number],
            c => ShowAsync(
                c,
                c.Api.PostAsync(
                    $"installs/{Names.Part(c.Parsed.GetValue(of)!)}/exceptions/{c.Parsed.GetValue(number)}/end",
                    ContractsJson.Default.IReadOnlyListExceptionView, c.Cancel)))
            .Answers(j => j.IReadOnlyListExceptionView);
        return CommandKit.Group("exception", "Deviations that were accepted, by whom and until when", list, allow, end);
    }

    private static Task<int> ListAsync(Call call, string install) =>
        ShowAsync(
            call,
            call.Api.GetAsync($"installs/{install}/exceptions", ContractsJson.Default.IReadOnlyListExceptionView, call.Cancel));

    private static async Task<int> AllowAsync(Call call, string install, string account, string[] right, ExceptionOrder order)
    {
        var path = $"installs/{Names.Part(install)}";
        var fit = await call.Api.GetAsync($"{path}/fit", ContractsJson.Default.FitView, call.Cancel);
        var words = right.SelectMany(r => r.Split(' ', StringSplitOptions.RemoveEmptyEntries)).ToList();
        var off = Off(fit, install, account);
        var matching = off.Where(o => words.All(w => o.Words.Contains(w, StringComparison.OrdinalIgnoreCase))).ToList();
        if (matching.Count != 1)
        {
            throw new ClientException(
                ExitCode.BadInput, matching.Count == 0
                    ? $"No deviation of {account} matches '{string.Join(' ', words)}'."
                    : $"{matching.Count} match '{string.Join(' ', words)}': use more words.",
                off.Count == 0
                    ? $"{account} has no deviation in the latest fit."
                    : $"What is off: {string.Join("; ", off.Select(o => o.Words))}.");
        }

        var made = await call.Api.PostAsync(
            $"{path}/exceptions", order with { Target = matching[0].Target }, ContractsJson.Default.ExceptionOrder,
            ContractsJson.Default.ExceptionView, call.Cancel);
        return await ShowAsync(call, Task.FromResult<IReadOnlyList<ExceptionView>>([made]));
    }

    /// <summary>What is off at an account of an install, or at a place where a finding counts as excess.</summary>
    private static List<(string Target, string Words)> Off(FitView fit, string install, string where)
    {
        if (fit.Accounts.FirstOrDefault(a => Same(a.Key) || Same(a.Name)) is { } account)
            return [.. account.Rights.Where(r => r.Verdict is "missing" or "excess" or "forbidden").Select(r =>
                (r.Id, $"{r.Right} on {r.Place} ({r.Verdict})"))];
        var findings = fit.Findings.Where(f => f.IsExcess && Same(f.Place)).Select(f => (f.Id, f.Text)).ToList();
        return findings.Count > 0
            ? findings
            : throw new ClientException(
                ExitCode.BadInput, $"{install} has no account '{where}'.",
                $"There is: {string.Join(", ", fit.Accounts.Select(a => a.Key).Concat(fit.Findings.Where(f => f.IsExcess).Select(f => f.Place)).Distinct())}.");

        bool Same(string name) => string.Equals(name, where, StringComparison.OrdinalIgnoreCase);
    }

    private static async Task<int> ShowAsync(Call call, Task<IReadOnlyList<ExceptionView>> asked)
    {
        var exceptions = await asked;
        if (call.Screen.IsJson)
        {
            call.Screen.Json(exceptions, ContractsJson.Default.IReadOnlyListExceptionView);
            return ExitCode.Fine;
        }

        if (exceptions.Count == 0) call.Screen.Line("Nothing was accepted.");
        var table = Screen.List("", "what", "accepted by", "until", "because");
        foreach (var e in exceptions)
            table.AddRow(
                new Text($"{e.Number}"), new Text(e.Words), new Text(e.By),
                new Markup(e.Stands ? Markup.Escape(
                    Times.Until(e.LastDay, e.Until)) : $"[grey]{(e.EndedBy is null ? "ended" : $"ended by {Markup.Escape(e.EndedBy)}")} {Markup.Escape(Times.Until(e.LastDay, e.Until))}[/]"),
                new Text(e.Why));
        if (exceptions.Count > 0) call.Screen.Write(table);
        return ExitCode.Fine;
    }
}
