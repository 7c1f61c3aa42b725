using System.CommandLine;
using System.Globalization;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>adopt</c>: takes a product that was there before us into the books.</summary>
internal static class AdoptCommands
{
    private static readonly string[] Words = ["needed", "not-needed", "not-sure"];

    public static Command Make() => CommandKit.Group(
        "adopt",
        "Adopts an existing installation: lists what its accounts hold, asks about each right, and writes a sheet and an install",
        MakeBegin(), MakeList(), MakeShow(), MakeAnswer(), MakeDraft(), MakeFinish(),
        VersionCommands.MakeRemove(
            "adoptions", Adoption(), "Removes an adoption that no install came from, with what was said in it",
            "justright adopt remove tallystick-dataroom"));

    private static Argument<string> Adoption() => CommandKit.Named("adoption", "An adoption", async api =>
        (await api.GetAsync("adoptions", ContractsJson.Default.IReadOnlyListAdoptionSummary, default)).Select(a => a.Name));

    private static Command MakeBegin()
    {
        var name = new Argument<string>("name") { Description = "The name its install will have" };
        var estate = new Option<string>("--estate") { Description = "The estate", Required = true, HelpName = "ESTATE" };
        var product = new Option<string>("--product")
        {
            Description = "The product, as one word",
            Required = true,
            HelpName = "WORD",
        };
        var release = new Option<string>("--release")
        {
            Description = "Its release",
            DefaultValueFactory = _ => "1",
            HelpName = "RELEASE",
        };
        var title = new Option<string?>("--title") { Description = "Its name in full", HelpName = "TEXT" };
        var account = new Option<string[]>("--account")
        {
            Description = "One of its accounts, as NAME or NAME:KIND (service, job, pool, setup or bind); repeat for more",
            Required = true,
            HelpName = "NAME",
        };
        return CommandKit.Make(
            "begin",
            "Starts an adoption with the product's accounts, and surveys the estate to find what they hold; changes nothing there",
            ["justright adopt begin curdhouse-found --estate fennmoor --product curdhouse-found --title \"Curdhouse, as found\" --account svc-curd-book --account svc-curd-labeller:pool"],
            [name, estate, product, release, title, account],
            c => BeginAsync(c, new AdoptionOrder(
                c.Parsed.GetValue(name)!, c.Parsed.GetValue(product)!, c.Parsed.GetValue(estate)!, [.. (c.Parsed.GetValue(account)
                    ?? []).Select(Account)], c.Parsed.GetValue(release)!, c.Parsed.GetValue(title))))
            .Answers(j => j.AdoptionView);
    }

    private static Command MakeList() => CommandKit.Make("list", "Lists the adoptions", [], [], ListAsync)
        .Answers(j => j.IReadOnlyListAdoptionSummary);

    private static Command MakeShow()
    {
        var name = Adoption();
        return CommandKit.Make("show", "Shows everything that the accounts hold, how, and the answers so far", ["justright adopt show curdhouse-found"], [name],
            async c => Show(
                c,
                await c.Api.GetAsync(
                    $"adoptions/{Names.Part(c.Parsed.GetValue(name)!)}", ContractsJson.Default.AdoptionView, c.Cancel)))
            .Answers(j => j.AdoptionView);
    }

    private static Command MakeAnswer()
    {
        var name = Adoption();
        var word = new Argument<string>("word") { Description = "needed, not-needed or not-sure" };
        word.CompletionSources.Add(Words);
        var items = new Argument<string[]>("items")
        {
            Description = "Numbers of items, such as 3 or 5-9; or 'rest' for all without an answer",
            Arity = ArgumentArity.OneOrMore,
        };
        var why = new Option<string?>("--why") { Description = "The reason, repeated in the sheet", HelpName = "TEXT" };
        return CommandKit.Make(
            "answer",
            "Answers for items: needed, not needed, or not sure. What nobody is sure of becomes a need, and the sheet says so",
            [
                "justright adopt answer curdhouse-found needed 1-4 --why \"the guide, chapter 2\"",
                "justright adopt answer curdhouse-found not-sure rest"], [name, word, items, why],
            c => AnswerAsync(
                c, c.Parsed.GetValue(name)!, c.Parsed.GetValue(word)!, c.Parsed.GetValue(items) ?? [], c.Parsed.GetValue(why)))
            .Answers(j => j.AdoptionView);
    }

    private static Command MakeDraft()
    {
        var name = Adoption();
        return CommandKit.Make(
            "draft", "Prints the current sheet and install; stores nothing", ["justright adopt draft curdhouse-found"], [name],
            c => DraftAsync(c, c.Parsed.GetValue(name)!))
            .Answers(j => j.AdoptionDraftView);
    }

    private static Command MakeFinish()
    {
        var name = Adoption();
        return CommandKit.Make(
            "finish", "Adds the sheet and the install to Just Right, and verifies", ["justright adopt finish curdhouse-found"],
            [name], c => FinishAsync(c, c.Parsed.GetValue(name)!))
            .Answers(j => j.FitView);
    }

    private static AdoptedAccountOrder Account(string text) =>
        text.LastIndexOf(':') is > 0 and var at
            ? new AdoptedAccountOrder(text[..at], WorksAs: text[(at + 1)..])
            : new AdoptedAccountOrder(text);

    private static async Task<int> BeginAsync(Call call, AdoptionOrder order)
    {
        var begun = await call.Api.PostAsync(
            "adoptions", order, ContractsJson.Default.AdoptionOrder, ContractsJson.Default.AdoptionSummary, call.Cancel);
        var job = await call.Api.PostAsync(
            $"estates/{Names.Part(order.Estate)}/survey", ContractsJson.Default.JobView, call.Cancel);
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, $"reading {order.Estate}", null, call.Cancel);
        if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the survey did not end well");
        return Show(
            call,
            await call.Api.GetAsync($"adoptions/{Names.Part(begun.Name)}", ContractsJson.Default.AdoptionView, call.Cancel));
    }

    private static async Task<int> ListAsync(Call call)
    {
        var adoptions = await call.Api.GetAsync("adoptions", ContractsJson.Default.IReadOnlyListAdoptionSummary, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(adoptions, ContractsJson.Default.IReadOnlyListAdoptionSummary);
            return ExitCode.Fine;
        }

        if (adoptions.Count == 0) call.Screen.Line("No adoptions. Begin one: justright adopt begin --help");
        var table = Screen.List("adoption", "product", "estate", "accounts", "begun", "written into the books");
        foreach (var a in adoptions)
            table.AddRow(
                new Text(a.Name), new Text(a.Title), new Text(a.Estate), new Text(string.Join(", ", a.Accounts)),
                new Text($"{Times.Exact(a.At)} by {a.By}"), new Text(a.FinishedAt is { } at ? Times.Exact(at) : "not yet"));
        if (adoptions.Count > 0) call.Screen.Write(table);
        return ExitCode.Fine;
    }

    private static async Task<int> AnswerAsync(Call call, string name, string word, string[] which, string? why)
    {
        var path = $"adoptions/{Names.Part(name)}";
        var view = await call.Api.GetAsync(path, ContractsJson.Default.AdoptionView, call.Cancel);
        var items = which.SelectMany(w => Items(view, w)).Distinct().ToList();
        if (items.Count == 0)
            throw new ClientException(ExitCode.BadInput, "No item is left to answer.", $"See justright adopt show {name}");
        view = await call.Api.PostAsync(
            $"{path}/answers", new AdoptionAnswerOrder([.. items.Select(i => i.Id)], word, why),
            ContractsJson.Default.AdoptionAnswerOrder, ContractsJson.Default.AdoptionView, call.Cancel);
        if (call.Screen.IsJson)
        {
            call.Screen.Json(view, ContractsJson.Default.AdoptionView);
            return ExitCode.Fine;
        }

        foreach (var i in items) call.Screen.Line(Markup.Escape($"{word}: {i.Account}: {i.Right} on {i.Place}, {i.HeldBy}"));
        call.Screen.Line(Markup.Escape(
            view.Open == 0
                ? $"All {view.Items.Count} items are answered: justright adopt finish {name}"
                : $"{view.Open} of {view.Items.Count} items are not answered yet."));
        return ExitCode.Fine;
    }

    private static IEnumerable<AdoptionItemView> Items(AdoptionView view, string text)
    {
        if (text == "rest") return view.Items.Where(i => i.Word is null);
        if (NumberRange.Read(text, view.Items.Count) is var (first, last))
            return view.Items.Where(i => i.Number >= first && i.Number <= last);
        throw new ClientException(
            ExitCode.BadInput, $"'{text}' names no items.",
            $"A number from 1 to {view.Items.Count}, two with a hyphen between them, or rest.");
    }

    private static async Task<int> DraftAsync(Call call, string name)
    {
        var draft = await call.Api.GetAsync(
            $"adoptions/{Names.Part(name)}/draft", ContractsJson.Default.AdoptionDraftView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(draft, ContractsJson.Default.AdoptionDraftView);
        else Screen.Text($"{draft.Sheet}\n---\n{draft.Install}");
        return ExitCode.Fine;
    }

    private static async Task<int> FinishAsync(Call call, string name)
    {
        var install = await call.Api.PostAsync(
            $"adoptions/{Names.Part(name)}/finish", ContractsJson.Default.InstallView, call.Cancel);
        if (!call.Screen.IsJson)
            call.Screen.Line(Markup.Escape($"added the sheet {install.Summary.Sheet} and the install {install.Summary.Name}"));
        return await FitCommands.VerifyAsync(call, name, false);
    }

    private static int Show(Call call, AdoptionView view)
    {
        if (call.Screen.IsJson)
        {
            call.Screen.Json(view, ContractsJson.Default.AdoptionView);
            return ExitCode.Fine;
        }

        var screen = call.Screen;
        screen.Line($"[bold]{Markup.Escape(view.Summary.Title)}[/]  {Markup.Escape(view.Summary.Name)}{(view.Simulated ? "  [bold]simulated estate[/]" : "")}{(view.SurveyedAt is { } at ? $"  [grey]surveyed {Times.Exact(at)}[/]" : "")}");
        foreach (var group in view.Items.GroupBy(i => (i.Account, i.HeldBy)))
        {
            screen.Line();
            screen.Line($"[bold]{Markup.Escape(group.Key.Account)}[/]  {Markup.Escape(group.Key.HeldBy)}");
            var table = Screen.List("", "holds", "at", "answer", "");
            foreach (var i in group)
                table.AddRow(
                    new Text($"{i.Number}"), new Text(i.Right), new Text(i.Place),
                    new Markup(i.Word is null ? "[bold]?[/]" : Markup.Escape(i.Word)),
                    new Markup($"[grey]{Markup.Escape(Note(i))}[/]"));
            screen.Write(table);
        }

        if (view.Services.Count + view.Missing.Count + view.Unseen.Count > 0) screen.Line();
        foreach (var service in view.Services) screen.Line($"Service: {Markup.Escape(service)}");
        foreach (var missing in view.Missing) screen.Line($"[bold]Not found:[/] {Markup.Escape(missing)}");
        foreach (var unseen in view.Unseen) screen.Line($"[bold]Unseen:[/] {Markup.Escape(unseen)}: more may be held there");
        screen.Line();
        screen.Line(Markup.Escape(
            view.Items.Count == 0 ? "Nothing was found that these accounts hold beyond what everybody has."
                : view.Open == 0 ? "All items are answered."
                : $"{view.Open} of {view.Items.Count} items are not answered yet: justright adopt answer {view.Summary.Name} needed 1-3 --why \"…\""));
        return ExitCode.Fine;
    }

    private static string Note(AdoptionItemView item) => string.Join("; ", new[]
    {
        item.Why,
        item.NoEffect is null ? null : $"without effect: {item.NoEffect}",
        item.Forbidden is null ? null : $"through a forbidden group: {item.Forbidden}",
        item.NeededBy.Count == 0 ? null : $"{string.Join(", ", item.NeededBy)} needs it already",
        item.Brings.Count == 0 ? null : $"brings along {string.Join(", ", item.Brings)}",
        item.WhyNot is null ? null : $"the sheet cannot ask for it: {item.WhyNot}",
    }.OfType<string>());
}
