using System.Text;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Handovers;
using JustRight.Core.Sheets;
using JustRight.Formats.Databases;
using JustRight.Formats.Hosts;
using JustRight.Formats.Policies;

namespace JustRight.Formats.Handovers;

/// <summary>A file of a bundle.</summary>
public sealed record HandoverFile(string Name, byte[] Content);

/// <summary>The files of one bundle: the page, the same as Markdown and as a table, and what is to be run.</summary>
public static class HandoverFiles
{
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
        if (handover.Team == Team.Host)
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

        if (handover.Team == Team.Directory)
        {
            files.Add(File("changes.ldif", ldif(HandoverWords.Title(handover), changes)));
            files.Add(File("undo.ldif", ldif($"taking back: {HandoverWords.Title(handover)}", handover.Undo)));
            foreach (var (policy, number) in changes.OfType<ChangePolicyList>().GroupBy(c => c.Policy).Select((p, i) =>
                (p, i + 1)))
                files.Add(new HandoverFile(
                    $"rights-of-policy-{number}.inf",
                    policy.Aggregate(SecurityTemplate.Empty, (t, c) => t.With(c.Constant, c.Entries)).ToBytes()));
        }

        if (HandoverWords.HasSql(handover))
        {
            string[] head = [HandoverWords.Title(handover), HandoverWords.Lead(handover)];
            var steps = handover.Steps.Where(s => s.Change is InstanceChange)
                .Select(s => (s.Number, Change: (InstanceChange)s.Change, s.Why)).ToList();
            var postgreSql = handover.Engine == "postgresql";
            Func<IEnumerable<string>, IEnumerable<(int, InstanceChange, string?)>, string> script = postgreSql
                ? PostgreSqlStatements.Script
                : TransactSql.Script;
            Func<IEnumerable<string>, IReadOnlyList<(int, InstanceChange)>, string> check = postgreSql
                ? PostgreSqlStatements.CheckScript
                : TransactSql.CheckScript;
            files.Add(File(
                "give.sql",
                script(
                    [.. head, "Each step looks first, and does nothing when it is true already."],
                    steps.Select(s => (s.Number, s.Change, (string?)s.Why)))));
            files.Add(File(
                "check.sql",
                check(
                    [.. head, "This changes nothing: it says of each step whether it is done."],
                    [.. steps.Select(s => (s.Number, s.Change))])));
            files.Add(File(
                "undo.sql",
                script(
                    [$"Taking back: {head[0]}", "Each step looks first, and does nothing when it is true already."],
                    handover.Undo.OfType<InstanceChange>().Select((c, i) => (i + 1, c, (string?)null)))));
        }

        return files;
    }

    /// <summary>The names of the files, without writing them.</summary>
    public static IReadOnlyList<string> Names(Handover handover) =>
        [.. Write(handover, _ => null, (_, _) => "").Select(f => f.Name)];

    /// <summary>The name of a bundle's folder: install, team and place, in characters that every file system takes.</summary>
    public static string FolderName(Handover handover) =>
        $"{handover.Install}-{handover.TeamName}-{string.Concat(handover.Place.Select(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '.' ? c : '-'))}{(handover.Remove ? "-remove" : "")}".ToLowerInvariant();

    private static HandoverFile File(string name, string text) => new(name, Encoding.UTF8.GetBytes(text));
}
