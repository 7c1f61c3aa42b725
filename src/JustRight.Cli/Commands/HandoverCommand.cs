using System.CommandLine;
using System.IO.Compression;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>handover</c>: the worklist for the people who own the directory, the servers, the databases.</summary>
internal static class HandoverCommand
{
    private static readonly string[] Forms = ["folder", "zip", "page", "markdown", "csv"];

    public static Command Make()
    {
        var install = Names.Install();
        var to = new Option<string?>("--to")
        {
            Description = "The folder to write bundles into; without it they are listed",
            HelpName = "FOLDER",
        };
        var form = new Option<string>("--form")
        {
            Description = "folder or zip (the whole bundle, with --to), or page, markdown, csv (printed without --to)",
            DefaultValueFactory = _ => "folder",
        };
        form.AcceptOnlyFromAmong(Forms);
        var team = new Option<string?>("--team")
        {
            Description = "Only the bundles for this team: directory, host, database or product",
        };
        team.CompletionSources.Add("directory", "host", "database", "product");
        var place = new Option<string?>("--place")
        {
            Description = "Only the bundles for this place: a host, an instance, the domain",
        };
        var remove = new Option<bool>("--remove") { Description = "What is to be removed, instead of what is to be granted" };
        return CommandKit.Make(
            "handover",
            "Writes bundles for the teams that own the directory, the servers, the databases: what, why, scripts, how to check and how to undo.\nUses the latest survey: verify first. No bundle holds a password",
            [
                "justright handover wheyline-lines",
                "justright handover wheyline-lines --team host --place fm-rec01 --to bundles",
                "justright handover wheyline-lines --form zip --to bundles",
                "justright handover nightchurn-dataroom --team directory --form markdown"],
            [install, to, form, team, place, remove],
            c => RunAsync(
                c, Names.Part(c.Parsed.GetValue(install)!), c.Parsed.GetValue(to), c.Parsed.GetValue(form)!,
                h => Is(c.Parsed.GetValue(team), h.Team) && Is(c.Parsed.GetValue(place), h.Place), c.Parsed.GetValue(remove)))
            .Answers(j => j.IReadOnlyListHandoverView);
    }

    private static bool Is(string? wanted, string is_) =>
        wanted is null || string.Equals(wanted, is_, StringComparison.OrdinalIgnoreCase);

    private static async Task<int> RunAsync(
        Call call, string install, string? to, string form, Func<HandoverView, bool> chosen, bool remove)
    {
        var all = await call.Api.GetAsync(
            $"installs/{install}/handovers?remove={(remove ? "true" : "false")}", ContractsJson.Default.IReadOnlyListHandoverView,
            call.Cancel);
        var handovers = all.Where(chosen).ToList();
        if (handovers.Count == 0 && all.Count > 0)
            throw new ClientException(
                ExitCode.BadInput, "Nothing to hand over to that team at that place.",
                $"There is: {string.Join(", ", all.Select(h => $"{h.Team} {h.Place}"))}");
        if (to is not null)
        {
            foreach (var handover in handovers) await WriteAsync(call, install, handover, to, form);
        }
        else if (form is "page" or "markdown" or "csv")
        {
            foreach (var handover in handovers)
                Screen.Text(System.Text.Encoding.UTF8.GetString(
                    await call.Api.GetBytesAsync(Path(install, handover, form), call.Cancel)));
            return ExitCode.Fine;
        }

        if (call.Screen.IsJson)
            call.Screen.Json<IReadOnlyList<HandoverView>>(handovers, ContractsJson.Default.IReadOnlyListHandoverView);
        else if (handovers.Count == 0) call.Screen.Line(remove ? "Nothing to remove." : "Nothing to grant.");
        else if (to is null) List(call, handovers);
        return ExitCode.Fine;
    }

    private static void List(Call call, List<HandoverView> handovers)
    {
        if (handovers[0].Simulated) call.Screen.Line("simulated estate");
        var table = Screen.List("team", "place", "steps", "bundle", "first step");
        foreach (var h in handovers)
            table.AddRow(
                new Text(h.Team), new Text(h.Place), new Text($"{h.Steps.Count}"), new Text(h.Folder),
                new Text(h.Steps[0].Words));
        call.Screen.Write(table);
        call.Screen.Line("To write the bundles: --to FOLDER");
    }

    private static async Task WriteAsync(Call call, string install, HandoverView handover, string to, string form)
    {
        var bytes = await call.Api.GetBytesAsync(Path(install, handover, form == "folder" ? "zip" : form), call.Cancel);
        string path;
        if (form == "folder")
        {
            path = SafeFile.Folder(to, handover.Folder);
            foreach (var (name, content) in Unzipped(bytes, handover.Folder)) SafeFile.Write(path, name, content);
        }
        else
        {
            path = SafeFile.Write(
                to, handover.Folder + form switch { "zip" => ".zip", "page" => ".html", "markdown" => ".md", _ => ".csv" },
                bytes);
        }

        if (!call.Screen.IsJson)
            call.Screen.Line(Markup.Escape(
                $"{path}: {handover.Steps.Count} {(handover.Steps.Count == 1 ? "step" : "steps")} for the {handover.Team} team, {handover.Place}"));
    }

    /// <summary>The files of a bundle; all lie in its folder.</summary>
    private static List<(string Name, byte[] Content)> Unzipped(byte[] bytes, string folder)
    {
        try
        {
            using var zip = new ZipArchive(new MemoryStream(bytes));
            return [.. zip.Entries.Select(e =>
            {
                using var content = new MemoryStream();
                using var packed = e.Open();
                packed.CopyTo(content);
                var isInFolder = e.FullName.StartsWith(folder + "/", StringComparison.Ordinal);
                return (isInFolder ? e.FullName[(folder.Length + 1)..] : e.FullName, content.ToArray());
            })];
        }
        catch (InvalidDataException)
        {
            throw new ClientException(ExitCode.Unread, "The service answered what is no bundle.");
        }
    }

    private static string Path(string install, HandoverView handover, string form) =>
        $"installs/{install}/handovers/{Names.Part(handover.Folder)}?form={form}";
}
