using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Handovers;
using JustRight.Core.Sheets;
using JustRight.Formats.Hosts;
using JustRight.Formats.PostgreSql;
using JustRight.Formats.SqlServer;

namespace JustRight.Formats.Handovers;

/// <summary>A file of a bundle.</summary>
public sealed record HandoverFile(string Name, byte[] Content);

/// <summary>The files of one bundle: the page, the same as Markdown and as a table, and what is to be run.</summary>
public static class HandoverFiles
{
    private const string OnlyWhatWasMade =
        "for after changes.ldif was applied whole: if that stopped at an error, first remove from this file the records of what it "
        + "did not make, since what was there before must stay";

    private const string Give = "give.sql";
    private const string Check = "check.sql";
    private const string Undo = "undo.sql";
    private const string LooksFirst = "Each step looks first, and does nothing when it is true already.";
    private const string ChangesNothing = "This changes nothing: it says of each step whether it is done.";
    private const string KeepsRecord =
        "What it makes it keeps on record, in extended properties named Just Right; undo.sql takes back that and no more.";
    private const string OnlyRecorded = "It takes back what give.sql made and has on record; what was there before stays.";

    /// <summary>Writes the files. The same handover always gives the same files.</summary>
    /// <param name="sidOf">The SID of a principal where it is known.</param>
    /// <param name="ldif">Writes changes of the directory as LDIF: what they are for, and the changes.</param>
    public static IReadOnlyList<HandoverFile> Write(
        Handover handover, Func<string, Sid?> sidOf, Func<string, IEnumerable<Change>, string> ldif)
    {
        var files = new List<HandoverFile>
        {
            File("handover.html", HandoverPage.Write(handover)), File(
                "handover.md", HandoverMarkdown.Write(handover)), File("steps.csv", HandoverCsv.Write([handover])),
        };
        var changes = handover.Steps.Select(s => s.Change).ToList();
        if (handover is { Team: Team.Host, ByHand: false })
        {
            files.Add(File(HostScripts.ChangeName, HostScripts.Change));
            files.Add(File(HostScripts.CollectName, HostScripts.Collect));
            files.Add(File(
                "changes.json",
                HostChangesJson.Write(handover.Place, HandoverWords.Title(handover), changes.OfType<HostChange>(), sidOf)));
            files.Add(File(
                "undo.json",
                HostChangesJson.Write(
                    handover.Place, $"Taking back: {HandoverWords.Title(handover)}", handover.Undo.OfType<HostChange>(), sidOf)));
        }

        if (handover is { Team: Team.Directory, ByHand: false })
        {
            files.Add(File("changes.ldif", ldif(HandoverWords.Title(handover), changes)));
            files.Add(File("undo.ldif", ldif($"taking back: {HandoverWords.Title(handover)}; {OnlyWhatWasMade}", handover.Undo)));
            foreach (var (policy, number) in changes.OfType<ChangePolicyList>().GroupBy(c => c.Policy).Select((p, i) =>
                (p, i + 1)))
                files.Add(new HandoverFile(
                    $"rights-of-policy-{number}.inf",
                    policy.Aggregate(SecurityTemplate.Empty, (t, c) => t.With(c.Constant, c.Entries)).ToBytes()));
        }

        if (HandoverWords.HasSql(handover))
        {
            var steps = handover.Steps.Where(s => s.Change is InstanceChange)
                .Select(s => (s.Number, Change: (InstanceChange)s.Change, Why: (string?)s.Why)).ToList();
            files.AddRange(handover.Engine == "postgresql" ? PostgreSql(handover, steps) : SqlServer(handover, steps, sidOf));
        }

        return files;
    }

    private static IEnumerable<HandoverFile> PostgreSql(
        Handover handover, List<(int Number, InstanceChange Change, string? Why)> steps)
    {
        var head = Head(handover);
        yield return File(Give, PostgreSqlStatements.Script([.. head, LooksFirst], steps));
        yield return File(
            Check, PostgreSqlStatements.CheckScript([.. head, ChangesNothing], [.. steps.Select(s => (s.Number, s.Change))]));
        yield return File(Undo, PostgreSqlStatements.Script(
            [TakingBack(handover), LooksFirst],
            handover.Undo.OfType<InstanceChange>().Select((c, i) => (i + 1, c, (string?)null))));
    }

    private static IEnumerable<HandoverFile> SqlServer(
        Handover handover, List<(int Number, InstanceChange Change, string? Why)> steps, Func<string, Sid?> sidOf)
    {
        var head = Head(handover);
        yield return File(Give, TransactSqlScripts.Give([.. head, LooksFirst, KeepsRecord], handover.Install, steps, sidOf));
        yield return File(
            Check, TransactSqlScripts.Check([.. head, ChangesNothing], [.. steps.Select(s => (s.Number, s.Change))]));
        var made = steps.Select(s => s.Change).Where(c => c.Inverse is not null).ToDictionary(c => c.Inverse!.Key, c => c);
        yield return File(Undo, TransactSqlScripts.Undo(
            [TakingBack(handover), OnlyRecorded], handover.Install,
            [.. handover.Undo.OfType<InstanceChange>().Select((c, i) => (i + 1, made[c.Key], c))], sidOf));
    }

    private static string[] Head(Handover handover) => [HandoverWords.Title(handover), HandoverWords.Lead(handover)];

    private static string TakingBack(Handover handover) => $"Taking back: {HandoverWords.Title(handover)}";

    /// <summary>The names of the files, without writing them.</summary>
    public static IReadOnlyList<string> Names(Handover handover) =>
        [.. Write(handover, _ => null, (_, _) => "").Select(f => f.Name)];

    /// <summary>The name of a bundle's folder: install, team and place, and whether it is of tasks, in characters that every file system takes.</summary>
    public static string FolderName(Handover handover) =>
        $"{handover.Install}-{handover.TeamName}-{string.Concat(handover.Place.Select(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.' ? c : '-'))}{(handover.ByHand ? "-tasks" : "")}{(handover.Remove ? "-remove" : "")}".ToLowerInvariant();

    private static HandoverFile File(string name, string text) => new(name, Encoding.UTF8.GetBytes(text));
}
