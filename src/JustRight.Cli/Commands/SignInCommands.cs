using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>sign-in</c>: how people sign in to a product with their directory account.</summary>
internal static class SignInCommands
{
    public static Command Make()
    {
        var install = Names.Install();
        var estate = Names.Estate();
        var directory = new Argument<string>("directory") { Description = "A people-directory of the estate, by its key" };
        var page = new ListOptions("dn", "name", "logon-name", "kind");
        var filter = new Argument<string>("filter") { Description = "The filter, in quotes" };
        var below = new Option<string?>("--below")
        {
            Description = "Count only objects below this distinguished name",
            HelpName = "DN",
        };
        var ask = new Option<bool>("--ask") { Description = "Query the directory itself instead of the people last read" };
        var typeBind = new Option<bool>("--type-bind")
        {
            Description = "Type the bind account's password instead of using the stored one",
        };
        var typePerson = new Option<bool>("--type-person")
        {
            Description = "Let the person who must be able to sign in type their password",
        };
        var which = new Option<string?>("--which")
        {
            Description = "The file or the page, for a product that has several",
            HelpName = "FILE",
        };
        return CommandKit.Group(
            "sign-in", "How people sign in to a product with their directory account",
            CommandKit.Make("settings", "Shows a product's sign-in settings, with a reason for each.\nExit code: 0 nothing is wrong, 1 something is, 3 something is not known yet",
                [
                    "justright sign-in settings rennet-roster-plants",
                    "justright sign-in settings rennet-roster-plants --json"], [install], c => SettingsAsync(
                    c, c.Parsed.GetValue(install)!))
                .Answers(j => j.SignInView),
            CommandKit.Make("file", "Prints the product's own settings file, filled in, or the list to type; secrets appear as references",
                [
                    "justright sign-in file brinebook-contractors > doors.json",
                    "justright sign-in file brinebook-contractors --which /srv/brinebook/doors.json"], [install, which], c =>
                    FileAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(which)))
                .Answers(j => j.SignInView),
            CommandKit.Make(
                "ldif",
                "Prints what the sign-in rests on in a directory of the inetOrgPerson family and was not seen there: bind account, "
                + "groups, members, as LDIF for its keepers. It holds no password.\n"
                + "Exit code: 0 nothing is to be made, 1 something is",
                ["justright sign-in ldif brinebook-contractors > brinebook.ldif"], [install], c =>
                    LdifAsync(c, c.Parsed.GetValue(install)!))
                .Answers(j => j.SignInView),
            CommandKit.Make("try", "Tests a product's sign-in as the product will do it: connection, bind, searches, a person who may sign in and people who may not.\nChanges nothing. Passwords are read without showing them, or a line each from standard input, never from the command line, and kept nowhere.\nExit code: 0 everything passes, 1 a check fails, 3 something could not be seen",
                [
                    "justright sign-in try rennet-roster-plants", "justright sign-in try rennet-roster-plants --type-person",
                    "justright sign-in try brinebook-contractors --type-bind < password.txt"],
                [install, typeBind, typePerson], c =>
                    TryAsync(c, c.Parsed.GetValue(install)!, c.Parsed.GetValue(typeBind), c.Parsed.GetValue(typePerson)))
                .Answers(j => j.SignInTestView),
            CommandKit.Make("filter", "Explains a filter in words and shows whom it finds among the people last read.\nExit code: 0 it finds somebody, 1 nobody, 2 not a valid filter, 3 only the directory itself can judge a part",
                [
                    "justright sign-in filter fennmoor staff '(&(objectCategory=person)(mail=*))'",
                    "justright sign-in filter fennmoor contractors '(memberOf=cn=brinebook-users,ou=Groups,dc=contractors,dc=fennmoor,dc=example)'"],
                [estate, directory, filter, below, ask, .. page.All], c =>
                    FilterAsync(
                        c,
                        $"estates/{Names.Part(c.Parsed.GetValue(estate)!)}/people-directories/{Names.Part(c.Parsed.GetValue(directory)!)}/filter{(c.Parsed.GetValue(ask) ? "/ask" : "")}?{page.Query(c).Text}",
                        new FilterOrder(c.Parsed.GetValue(filter)!, c.Parsed.GetValue(below))))
                .Answers(j => j.FilterView));
    }

    private static Task<SignInView> ShowAsync(Call call, string install) =>
        call.Api.GetAsync($"installs/{Names.Part(install)}/sign-in", ContractsJson.Default.SignInView, call.Cancel);

    private static async Task<int> SettingsAsync(Call call, string install)
    {
        var view = await ShowAsync(call, install);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.SignInView);
        else SignInReport.Write(call.Screen, view);
        return view.Findings.Any(f => f.Weight == "wrong") ? ExitCode.Misfit
            : view.Findings.Any(f => f.Weight == "unseen") ? ExitCode.Unread
            : ExitCode.Fine;
    }

    private static async Task<int> FileAsync(Call call, string install, string? which)
    {
        var view = await ShowAsync(call, install);
        if (view.Files.Where(f => which is null || f.Where == which).ToList() is not [var file])
            throw new ClientException(
                ExitCode.BadInput,
                which is null
                    ? $"{view.Title} has several files and pages. Name one with --which: {string.Join(", ", view.Files.Select(f => f.Where))}"
                    : $"{view.Title} has no {which}. It has {string.Join(", ", view.Files.Select(f => f.Where))}");
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.SignInView);
        else Screen.Text(file.Text);
        if (file.Fields.Where(f => f.Value is null).Select(f => f.Name).ToList() is not { Count: > 0 } unknown)
            return ExitCode.Fine;
        if (!call.Screen.IsJson)
            call.Screen.Error.MarkupLine(
                Markup.Escape($"Not known yet: {string.Join(", ", unknown)}. See justright sign-in settings {install}"));
        return ExitCode.Unread;
    }

    private static async Task<int> LdifAsync(Call call, string install)
    {
        var view = await ShowAsync(call, install);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.SignInView);
        else if (view.Ldif is { } ldif) Screen.Text(ldif);
        else
            call.Screen.Error.MarkupLine(Markup.Escape(
                view.Family == "ad-like"
                    ? $"Nothing: what is missing in a domain is a step of the worklist: justright ldif {install}"
                    : "Nothing is to be made."));
        return view.Ldif is null ? ExitCode.Fine : ExitCode.Misfit;
    }

    private static async Task<int> TryAsync(Call call, string install, bool typeBind, bool typePerson)
    {
        var order = new SignInTestOrder(
            typeBind ? await PasswordPrompt.ReadAsync(call, "The bind account's password:") : null,
            typePerson ? await PasswordPrompt.ReadAsync(call, "The person's password:") : null);
        var job = await call.Api.PostAsync(
            $"installs/{Names.Part(install)}/sign-in/tests", order, ContractsJson.Default.SignInTestOrder,
            ContractsJson.Default.JobView, call.Cancel);
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, "trying", null, call.Cancel);
        if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the sign-in test did not end well");
        var test = await call.Api.GetAsync($"jobs/{job.Id}/sign-in-test", ContractsJson.Default.SignInTestView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(test, ContractsJson.Default.SignInTestView);
        else SignInReport.Write(call.Screen, test);
        return test.Checks.Any(c => c.Verdict == "fail") ? ExitCode.Misfit
            : test.Checks.Any(c => c.Verdict == "unseen") ? ExitCode.Unread
            : ExitCode.Fine;
    }

    private static async Task<int> FilterAsync(Call call, string path, FilterOrder order)
    {
        var view = await call.Api.PostAsync(
            path, order, ContractsJson.Default.FilterOrder, ContractsJson.Default.FilterView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(view, ContractsJson.Default.FilterView);
        else SignInReport.Write(call.Screen, order.Filter, view);
        return view.Fault is not null ? ExitCode.BadInput
            : view.NotJudged.Count > 0 ? ExitCode.Unread
            : view.Found == 0 ? ExitCode.Misfit
            : ExitCode.Fine;
    }
}
