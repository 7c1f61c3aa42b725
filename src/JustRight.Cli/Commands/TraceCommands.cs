using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary><c>trace</c>, <c>fix</c> and <c>undo</c>.</summary>
internal static class TraceCommands
{
    private static readonly string[] Acts = [
        "write attributes", "read attributes", "change membership", "create", "delete", "move", "reset password", "unlock",
        "join computers", "full control"];

    public static Command MakeTrace()
    {
        var estate = Names.Estate();
        var account = new Argument<string?>("account")
        {
            Description = "The account; or use --service instead",
            Arity = ArgumentArity.ZeroOrOne,
        };
        var act = new Option<string>("--act")
        {
            Description = $"What it should be able to do: {string.Join(", ", Acts)}",
            HelpName = "act",
            DefaultValueFactory = _ => Acts[0],
        };
        act.CompletionSources.Add(Acts);
        var attribute = new Option<string[]>("--attribute")
        {
            Description = "An attribute; repeat for more",
            AllowMultipleArgumentsPerToken = true,
        };
        var of = new Option<string?>("--of")
        {
            Description = "The class of object: user, group, computer, …; given objects have their own",
        };
        var below = new Option<string?>("--below")
        {
            Description = "A branch of the estate, a distinguished name, or everywhere",
        };
        var objects = new Option<string[]>("--object")
        {
            Description = "An object that fails, by distinguished name or logon name; repeat for more",
        };
        var file = new Option<FileInfo?>("--objects-from") { Description = "A file with one failing object per line" };
        var service = new Option<string?>("--service") { Description = "The service that fails, instead of its account" };
        var host = new Option<string?>("--host") { Description = "The host it runs on" };
        var member = new Option<string[]>("--if-member-of") { Description = "Answer as if the account were in this group" };
        var inheriting = new Option<string[]>("--if-inheriting")
        {
            Description = "Answer as if inheritance were enabled at this OU",
        };
        var everything = new Option<bool>("--everything")
        {
            Description = "Tell all that the account can do to one object (--object), with the ACE that gives or refuses each",
        };
        var all = new Option<bool>("--all") { Description = "Name every object and every right" };
        return CommandKit.Make(
            "trace",
            "Shows why an account can or cannot do something in the directory: where it fails, why, and what would fix it.\nReads the directory now and changes nothing. Exit code: 0 it can everywhere, 1 it cannot, 3 something could not be read",
            [
                "justright trace fennmoor svc-roundsman --attribute roomNumber --below people",
                "justright trace fennmoor --service RoundsmanCopier --host fm-round01 --attribute roomNumber --object m.northam",
                "justright trace fennmoor svc-roundsman --act \"change membership\" --below teams",
                "justright trace fennmoor svc-roundsman --attribute roomNumber --below people --if-member-of saltmere-office",
                "justright trace fennmoor svc-roundsman --object m.northam --everything",
            ],
            [estate, account, act, attribute, of, below, objects, file, service, host, member, inheriting, everything, all],
            async c =>
            {
                var given = (c.Parsed.GetValue(objects) ?? []).Concat(Lines(c.Parsed.GetValue(file))).ToList();
                if (c.Parsed.GetValue(everything))
                    return await EverythingAsync(
                        c, c.Parsed.GetValue(estate)!, c.Parsed.GetValue(account), given, c.Parsed.GetValue(all));
                var order = new TraceOrder(
                    c.Parsed.GetValue(account), c.Parsed.GetValue(service), c.Parsed.GetValue(host), c.Parsed.GetValue(act)!,
                    c.Parsed.GetValue(attribute), c.Parsed.GetValue(of), c.Parsed.GetValue(below),
                    given, c.Parsed.GetValue(member), c.Parsed.GetValue(inheriting));
                return await TraceAsync(c, c.Parsed.GetValue(estate)!, order, c.Parsed.GetValue(all));
            }).Answers(j => j.TraceView, j => j.WholeAccessView);
    }

    public static Command MakeFix()
    {
        var trace = new Argument<string>("trace") { Description = "The id of a trace" };
        var remedy = new Argument<string>("remedy") { Description = "One of its fixes, such as 1-spot" };
        var yes = new Option<bool>("--yes") { Description = "Do not ask; for scripts" };
        var ldif = new Option<bool>("--ldif")
        {
            Description = "Change nothing: print the fix as LDIF, for use where no connection is allowed",
        };
        return CommandKit.Make(
            "fix",
            "Carries out a fix of a trace: shows what would change for everybody, asks, makes the changes, and traces again",
            [
                "justright fix 019ab2c3d4e5f60718293a4b5c6d7e8f 1-spot",
                "justright fix 019ab2c3d4e5f60718293a4b5c6d7e8f 1-inherit --yes",
                "justright fix 019ab2c3d4e5f60718293a4b5c6d7e8f 1-spot --ldif > spot.ldif"],
            [trace, remedy, yes, ldif], c =>
                c.Parsed.GetValue(ldif)
                    ? LdifCommand.PrintAsync(
                        c, $"jobs/{Names.Part(c.Parsed.GetValue(trace)!)}/remedies/{Names.Part(c.Parsed.GetValue(remedy)!)}/ldif")
                    : FixAsync(c, c.Parsed.GetValue(trace)!, c.Parsed.GetValue(remedy)!, c.Parsed.GetValue(yes)))
            .Answers(j => j.JobView, j => j.LdifView);
    }

    private static IEnumerable<string> Lines(FileInfo? file)
    {
        if (file is null) return [];
        try
        {
            return File.ReadAllLines(file.FullName).Select(l => l.Trim()).Where(l => l.Length > 0);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{file.Name} cannot be read: {e.Message}");
        }
    }

    private static async Task<int> TraceAsync(Call call, string estate, TraceOrder order, bool all)
    {
        var job = await call.Api.PostAsync(
            $"estates/{Names.Part(estate)}/trace", order, ContractsJson.Default.TraceOrder, ContractsJson.Default.JobView,
            call.Cancel);
        job = await JobProgress.FollowAsync(call.Screen, call.Api, job, "tracing", null, call.Cancel);
        if (job.State != "done") throw new ClientException(ExitCode.Unread, job.Message ?? "the trace did not end well");
        var trace = await call.Api.GetAsync($"jobs/{job.Id}/trace", ContractsJson.Default.TraceView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(trace, ContractsJson.Default.TraceView);
        else TraceReport.Write(call.Screen, trace, all);
        return trace.Cannot + trace.NotFound.Count > 0 ? ExitCode.Misfit
            : trace.Unseen + trace.Unread.Count > 0 ? ExitCode.Unread
            : ExitCode.Fine;
    }

    private static async Task<int> EverythingAsync(Call call, string estate, string? account, List<string> given, bool all)
    {
        if (account is null || given.Count != 1)
            throw new ClientException(
                ExitCode.BadInput, "--everything is about one account and one object.",
                "justright trace ESTATE ACCOUNT --object NAME --everything");
        var told = await call.Api.PostAsync(
            $"estates/{Names.Part(estate)}/access/everything", new WholeAccessOrder(account, given[0]),
            ContractsJson.Default.WholeAccessOrder, ContractsJson.Default.WholeAccessView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(told, ContractsJson.Default.WholeAccessView);
        else WholeAccessReport.Write(call.Screen, told, all);
        return told.Acts.Any(a => a.Answer == "unseen") ? ExitCode.Unread : ExitCode.Fine;
    }

    private static async Task<int> FixAsync(Call call, string id, string name, bool yes)
    {
        var trace = await call.Api.GetAsync($"jobs/{Names.Part(id)}/trace", ContractsJson.Default.TraceView, call.Cancel);
        if (!call.Screen.IsJson && trace.Failures.SelectMany(f => f.Remedies).FirstOrDefault(r => r.Id == name) is { } remedy)
        {
            if (trace.Simulated) call.Screen.Line("[bold]simulated estate[/]");
            call.Screen.Line($"[bold]{Spectre.Console.Markup.Escape(remedy.Title)}[/]");
            TraceReport.Write(call.Screen, remedy, all: true);
            foreach (var step in remedy.Steps) call.Screen.Line($"     {Spectre.Console.Markup.Escape(step)}");
            if (!yes
                && !StepPrinter.Confirm(
                    call.Screen, $"Make {(remedy.Steps.Count == 1 ? "this change" : $"these {remedy.Steps.Count} changes")}?"))
                return ExitCode.Waits;
        }
        else if (!yes)
        {
            StepPrinter.Confirm(call.Screen, "Make the changes?"); // as JSON nobody can be asked: this says so
        }

        var job = await call.Api.PostAsync(
            $"jobs/{Names.Part(id)}/fix", new FixOrder(name), ContractsJson.Default.FixOrder, ContractsJson.Default.JobView,
            call.Cancel);
        return await StepPrinter.FollowAsync(call, job, "fixing");
    }
}
