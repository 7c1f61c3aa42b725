using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>password</c>: when they are due, where they are typed, renewing them in order.</summary>
internal static class PasswordCommands
{
    private const string RenewalCodes =
        "\nExit code: 0 it is over and every place has the password, 1 it stopped or a place was skipped, 4 it waits for a person or a restart window";

    public static Command Make()
    {
        var estate = Names.Estate();
        var account = Account();
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        var list = new Option<bool>("--list") { Description = "Only list the steps" };
        var note = new Option<string?>("--note") { Description = "A note", HelpName = "TEXT" };
        var why = new Option<string>("--why")
        {
            Description = "The reason, shown in every report",
            HelpName = "TEXT",
            Required = true,
        };
        var step = new Option<int?>("--step")
        {
            Description = "The number of the step; by default the next one",
            HelpName = "NUMBER",
        };
        var type = new Option<bool>("--type") { Description = "Type the password instead of using the stored one" };
        var certificate = new Option<string?>("--certificate")
        {
            Description = "A PEM certificate with an RSA key; the password is encrypted to it",
            HelpName = "FILE",
        };
        var show = new Option<bool>("--show") { Description = "Print the password in clear, once" };
        var order = new ListOptions("urgency", "account", "due", "set", "keeper");
        return CommandKit.Group(
            "password", "Passwords: when they are due, where they are used, renewing them",
            CommandKit.Make("due",
                "Lists when each password of an estate is due, and who changes it.\nExit code: 0 nothing is due, 1 something is, 3 something was not read", [
                "justright password due fennmoor", "justright password due fennmoor --search curd --json"],
                [estate, .. order.All], c => DueAsync(c, c.Parsed.GetValue(estate)!, order.Query(c))).Answers(j => j.PasswordsView),
            MakeWhereUsed(),
            CommandKit.Make("try",
                "Tests a password with one sign-in; not done if a failure would lock the account.\nThe password is read from a prompt or standard input, never from the command line, and stored nowhere.\nExit code: 0 it works, 1 it does not, 3 it was not tried",
                ["justright password try fennmoor svc-curd-cards --type", "justright password try fennmoor svc-curd-cards"], [
                    estate, account, type], c => TryAsync(
                    c, Of(c, estate, account), c.Parsed.GetValue(type)))
                .Answers(j => j.PasswordTryView),
            CommandKit.Make("renew",
                "Renews a password: lists the steps, asks, then runs the automatic ones until a manual step is due"
                + RenewalCodes,
                ["justright password renew fennmoor svc-curd-cards --list", "justright password renew fennmoor svc-curd-cards"], [
                    estate, account, yes, list], c => RenewAsync(
                    c, Of(c, estate, account), c.Parsed.GetValue(yes), c.Parsed.GetValue(list)))
                .Answers(j => j.RenewalView, j => j.PasswordDetailView),
            CommandKit.Make("progress", "Shows the state of a renewal, and which password is where" + RenewalCodes,
                ["justright password progress fennmoor svc-curd-cards"],
                [estate, account], async c => Report(c, await LatestAsync(c, Of(c, estate, account))))
                .Answers(j => j.RenewalView),
            CommandKit.Make("done", "Confirms that a manual step is done, and continues" + RenewalCodes, [
                "justright password done fennmoor svc-curd-cards",
                "justright password done fennmoor svc-curd-cards --note \"typed by J. Lind\""],
                [estate, account, step, note], c =>
                    SayAsync(c, Of(c, estate, account), "done", c.Parsed.GetValue(step), c.Parsed.GetValue(note)))
                .Answers(j => j.RenewalView),
            CommandKit.Make("retry", "Retries the step that failed, and continues" + RenewalCodes,
                ["justright password retry fennmoor svc-curd-cards"],
                [estate, account, step], c => SayAsync(c, Of(c, estate, account), "retry", c.Parsed.GetValue(step), null))
                .Answers(j => j.RenewalView),
            CommandKit.Make("restart-now", "Restarts now what waits for its host's restart window, and continues" + RenewalCodes,
                ["justright password restart-now fennmoor svc-curd-cards"],
                [estate, account, step], c => SayAsync(c, Of(c, estate, account), "restart-now", c.Parsed.GetValue(step), null))
                .Answers(j => j.RenewalView),
            CommandKit.Make("skip",
                "Skips a step; the renewal keeps listing the place as \"still has the old password\"" + RenewalCodes,
                ["justright password skip fennmoor svc-curd-cards --why \"the page is retired on Friday\""],
                [estate, account, step, why], c =>
                    SayAsync(c, Of(c, estate, account), "skip", c.Parsed.GetValue(step), c.Parsed.GetValue(why)))
                .Answers(j => j.RenewalView),
            CommandKit.Make("undo", "Restores the old password in every place that has or may have the new one" + RenewalCodes,
                ["justright password undo fennmoor svc-curd-cards"],
                [estate, account, yes], c => BackAsync(c, Of(c, estate, account), c.Parsed.GetValue(yes)))
                .Answers(j => j.RenewalView),
            CommandKit.Make("hand-over",
                "Hands over a generated password once: encrypted to a certificate (CMS; openssl cms -decrypt decrypts it), or shown",
                [
                    "justright password hand-over fennmoor svc-thermo-poller --certificate keeper.pem > poller.cms",
                    "justright password hand-over fennmoor svc-curd-cards --show"], [estate, account, certificate, show],
                c => HandOverAsync(c, Of(c, estate, account), c.Parsed.GetValue(certificate), c.Parsed.GetValue(show)))
                .Answers(j => j.ShownPassword, j => j.SealedPassword),
            CommandKit.Make(
                "list", "Lists the accounts of an install whose password was not handed over yet",
                ["justright password list thermograph-dataroom"], [Install], ListAsync)
                .Answers(j => j.IReadOnlyListPasswordView));
    }

    private static Argument<string> Account() => new("account") { Description = "The account's logon name" };

    private static Command MakeWhereUsed()
    {
        var (estate, account) = (Names.Estate(), Account());
        var (ofAdded, added) = (Names.Estate(), Account());
        var (ofRemoved, removed) = (Names.Estate(), Account());
        var list = CommandKit.Make("where-used",
            "Lists every place where an account's password is kept, what stops if it is changed elsewhere first, and whether a gMSA could replace it",
                ["justright password where-used fennmoor svc-curd-cards"], [estate, account], c =>
                    WhereAsync(c, Of(c, estate, account)))
            .Answers(j => j.PasswordDetailView);
        list.Add(CommandKit.Make("add", "Adds a place where an account's password is kept, unknown to sheets and surveys",
            ["justright password where-used add fennmoor svc-curd-cards --in /srv/label/print.conf --setting store.password --on fm-book01 --breaks \"labels are no longer printed\""],
                [ofAdded, added, In, Setting, On, Breaks, Reference], c => AddPlaceAsync(c, Of(c, ofAdded, added)))
            .Answers(j => j.PasswordDetailView));
        list.Add(CommandKit.Make(
            "remove", "Removes a place that somebody added", ["justright password where-used remove fennmoor svc-curd-cards 3"],
            [ofRemoved, removed, Place], c => RemovePlaceAsync(c, Of(c, ofRemoved, removed)))
            .Answers(j => j.PasswordDetailView));
        return list;
    }

    private static readonly Argument<string> Install = Names.Install();
    private static readonly Argument<int> Place = new("place")
    {
        Description = "The number of the place, as password where-used lists it",
    };
    private static readonly Option<string> In = new("--in")
    {
        Description = "The file or the page",
        HelpName = "TEXT",
        Required = true,
    };
    private static readonly Option<string> Setting = new("--setting")
    {
        Description = "The setting's name",
        HelpName = "TEXT",
        Required = true,
    };
    private static readonly Option<string?> On = new("--on") { Description = "The host", HelpName = "HOST" };
    private static readonly Option<string> Breaks = new("--breaks")
    {
        Description = "What stops while the place has another password",
        HelpName = "TEXT",
        Required = true,
    };
    private static readonly Option<string?> Reference = new("--reference")
    {
        Description = "The secret to which it refers, if it holds no password itself",
        HelpName = "NAME",
    };

    private static (string Estate, string Account) Of(Call call, Argument<string> estate, Argument<string> account) =>
        (call.Parsed.GetValue(estate)!, call.Parsed.GetValue(account)!);

    private static string Path((string Estate, string Account) of) =>
        $"estates/{Names.Part(of.Estate)}/passwords/{Names.Part(of.Account)}";

    private static Task<PasswordDetailView> ShowAsync(Call call, (string Estate, string Account) of) =>
        call.Api.GetAsync(Path(of), ContractsJson.Default.PasswordDetailView, call.Cancel);

    private static async Task<int> DueAsync(Call call, string estate, ListQuery query)
    {
        var view = await call.Api.GetAsync(
            $"estates/{Names.Part(estate)}/passwords?{query.Text}", ContractsJson.Default.PasswordsView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.PasswordsView);
        else PasswordReport.Write(call.Screen, view);
        if (!call.Screen.IsJson) ListOptions.Tell(call, view.Accounts.Count, view.Skipped, view.Total, "accounts");
        return view.Accounts.Any(a => a.Standing is "overdue" or "unreasoned" or "soon") ? ExitCode.Misfit
            : view.Accounts.Any(a => a.Standing == "unseen") ? ExitCode.Unread
            : ExitCode.Fine;
    }

    private static async Task<int> WhereAsync(Call call, (string Estate, string Account) of)
    {
        var view = await ShowAsync(call, of);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.PasswordDetailView);
        else PasswordReport.Write(call.Screen, view);
        return view.Places.Any(p => p.NotSeen is not null) ? ExitCode.Unread : ExitCode.Fine;
    }

    private static async Task<int> AddPlaceAsync(Call call, (string Estate, string Account) of)
    {
        var parsed = call.Parsed;
        await call.Api.SendAsync(
            HttpMethod.Post, $"{Path(of)}/places",
            new PlaceOrder(
                parsed.GetValue(On) ?? "", parsed.GetValue(In)!, parsed.GetValue(Setting)!, parsed.GetValue(Breaks)!,
                parsed.GetValue(Reference)),
            ContractsJson.Default.PlaceOrder, call.Cancel);
        return await WhereAsync(call, of);
    }

    private static async Task<int> RemovePlaceAsync(Call call, (string Estate, string Account) of)
    {
        await call.Api.DeleteAsync($"{Path(of)}/places/{call.Parsed.GetValue(Place)}", call.Cancel);
        return await WhereAsync(call, of);
    }

    private static async Task<int> TryAsync(Call call, (string Estate, string Account) of, bool type)
    {
        var order = new PasswordTryOrder(type ? await PasswordPrompt.ReadAsync(call, $"Password of {of.Account}:") : null);
        var view = await call.Api.PostAsync(
            $"{Path(of)}/try", order, ContractsJson.Default.PasswordTryOrder, ContractsJson.Default.PasswordTryView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.PasswordTryView);
        else PasswordReport.Write(call.Screen, view);
        return view.Works switch { true => ExitCode.Fine, false => ExitCode.Misfit, _ => ExitCode.Unread };
    }

    private static async Task<int> RenewAsync(Call call, (string Estate, string Account) of, bool yes, bool listOnly)
    {
        // An order is only as good as its survey: read first, so that what is confirmed is what is there.
        var reading = await call.Api.PostAsync(
            $"estates/{Names.Part(of.Estate)}/survey", ContractsJson.Default.JobView, call.Cancel);
        reading = await JobProgress.FollowAsync(call.Screen, call.Api, reading, $"reading {of.Estate}", null, call.Cancel);
        if (reading.State != "done") throw new ClientException(ExitCode.Unread, reading.Message ?? "the survey did not end well");
        var view = await ShowAsync(call, of);
        if (listOnly && call.Screen.IsJson)
        {
            call.Screen.Json(view, ContractsJson.Default.PasswordDetailView);
            return ExitCode.Fine;
        }

        if (!call.Screen.IsJson) PasswordReport.WriteOrder(call.Screen, view);
        if (listOnly) return ExitCode.Fine;
        if (view.WhyNot is { } why)
            throw new ClientException(ExitCode.BadInput, $"The password of {of.Account} is not renewed from here: {why}.");
        if (!yes && !StepPrinter.Confirm(call.Screen, $"Begin these {view.Order.Count} steps?")) return ExitCode.Waits;
        return await FollowAsync(
            call, await call.Api.PostAsync($"{Path(of)}/renewals", ContractsJson.Default.RenewalView, call.Cancel));
    }

    private static async Task<int> SayAsync(Call call, (string Estate, string Account) of, string word, int? step, string? note)
    {
        var latest = await LatestAsync(call, of);
        if ((step ?? latest.Current) is not { } number)
            throw new ClientException(ExitCode.BadInput, $"The renewal of {of.Account} is over.");
        await call.Api.PostAsync(
            $"runs/{latest.Id}/steps/{number}", new StepWord(word, note), ContractsJson.Default.StepWord,
            ContractsJson.Default.JobView, call.Cancel);
        return await FollowAsync(call, latest);
    }

    private static async Task<int> BackAsync(Call call, (string Estate, string Account) of, bool yes)
    {
        var latest = await LatestAsync(call, of);
        if (!yes && !StepPrinter.Confirm(call.Screen, $"Restore the old password of {of.Account}?")) return ExitCode.Waits;
        await call.Api.PostAsync($"runs/{latest.Id}/undo", ContractsJson.Default.JobView, call.Cancel);
        return await FollowAsync(call, latest);
    }

    private static async Task<RenewalView> LatestAsync(Call call, (string Estate, string Account) of) =>
        (await ShowAsync(call, of)).Renewals is [var latest, ..]
            ? latest
            : throw new ClientException(
                ExitCode.BadInput, $"The password of {of.Account} was never renewed from here.",
                $"Begin with: justright password renew {of.Estate} {of.Account}");

    /// <summary>Waits until it needs somebody, or is over.</summary>
    private static async Task<int> FollowAsync(Call call, RenewalView renewal)
    {
        var run = await call.Api.GetAsync($"runs/{renewal.Id}", ContractsJson.Default.JobView, call.Cancel);
        if (await StepPrinter.WatchAsync(call, run, $"renewing {renewal.Account}", null) is null) return ExitCode.GoesOn;
        return Report(call, await call.Api.GetAsync($"renewals/{renewal.Id}", ContractsJson.Default.RenewalView, call.Cancel));
    }

    private static int Report(Call call, RenewalView renewal)
    {
        if (call.Screen.IsJson) call.Screen.Json(renewal, ContractsJson.Default.RenewalView);
        else PasswordReport.Write(call.Screen, renewal);
        return renewal.Next switch
        {
            "over" => renewal.Divided.Count == 0 ? ExitCode.Fine : ExitCode.Misfit,
            "decision" => ExitCode.Misfit,
            _ => ExitCode.Waits,
        };
    }

    private static async Task<int> HandOverAsync(Call call, (string Estate, string Account) of, string? certificate, bool show)
    {
        if (show == certificate is not null)
            throw new ClientException(
                ExitCode.BadInput, "Choose how to hand it over.",
                "--certificate FILE to encrypt it, or --show to print it once.");
        if (show)
        {
            var shown = await call.Api.PostAsync($"{Path(of)}/show", ContractsJson.Default.ShownPassword, call.Cancel);
            if (call.Screen.IsJson) call.Screen.Json(shown, ContractsJson.Default.ShownPassword);
            else Console.Out.WriteLine(shown.Password);
            return ExitCode.Fine;
        }

        var pem = await InputFile.TextAsync(certificate!, call.Cancel);
        var seal = await call.Api.PostAsync(
            $"{Path(of)}/seal", new SealOrder(pem), ContractsJson.Default.SealOrder, ContractsJson.Default.SealedPassword,
            call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(seal, ContractsJson.Default.SealedPassword);
        else Console.Out.WriteLine(seal.Cms);
        return ExitCode.Fine;
    }

    private static async Task<int> ListAsync(Call call)
    {
        var passwords = await call.Api.GetAsync(
            $"installs/{Names.Part(call.Parsed.GetValue(Install)!)}/passwords", ContractsJson.Default.IReadOnlyListPasswordView,
            call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(passwords, ContractsJson.Default.IReadOnlyListPasswordView);
        else PasswordReport.Write(call.Screen, passwords);
        return ExitCode.Fine;
    }
}
