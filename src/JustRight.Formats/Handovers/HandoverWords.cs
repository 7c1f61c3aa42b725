using JustRight.Core.Changes;
using JustRight.Core.Handovers;
using JustRight.Core.Rights.Directory;
using JustRight.Core.Rights.Hosts;
using JustRight.Core.Sheets;
using JustRight.Formats.Databases;

namespace JustRight.Formats.Handovers;

/// <summary>The sentences that every form of a handover shares.</summary>
public static class HandoverWords
{
    /// <summary>The head.</summary>
    public static string Title(Handover handover) => $"{(handover.Remove ? "To take away" : "To give")} for {handover.Title}: {handover.Place}";

    /// <summary>What this is, in one paragraph.</summary>
    public static string Lead(Handover handover) =>
        $"The {handover.TeamName} team is asked for {handover.Steps.Count} {(handover.Steps.Count == 1 ? "step" : "steps")} at {handover.Place}. They come from the sheet {handover.Sheet} ({handover.Source}), laid over the estate {handover.Estate} for the install {handover.Install}, and from what was read at {Time(handover.SurveyedAt)}.{(handover.After.Count > 0 ? $" It comes after: {string.Join(", ", handover.After)}." : "")}{(handover.Simulated ? " The estate is PRETEND: this is a demonstration." : "")}";

    /// <summary>How to carry it out, in steps.</summary>
    public static IReadOnlyList<string> HowTo(Handover handover) => handover.Team switch
    {
        Team.Host =>
        [
            $"Copy this folder to {handover.Place} and open an elevated Windows PowerShell there.",
            @"Read what would be done: .\make-host-changes.ps1 -WhatIf",
            @"Do it: .\make-host-changes.ps1 (it looks before each change, skips what is true already, stops at the first failure, and can be run again)",
            @"Let us see that it is done: .\collect-host-facts.ps1 -To facts.json, and send facts.json and record.jsonl back",
        ],
        Team.Directory => handover.Steps.Any(s => s.Change is ChangePolicyList)
            ? ["Apply changes.ldif with an ordinary LDAP client; set the passwords of new accounts yourselves.", "Set each list of a policy as its step says: the whole new list, in the policy's own editor; rights-of-policy files hold the same as a security template."]
            : ["Apply changes.ldif with an ordinary LDAP client; set the passwords of new accounts yourselves."],
        Team.Database when HasSql(handover) && handover.Engine == "postgresql" =>
        [
            "Read give.sql: each step says what it does and why.",
            "Run it as a superuser, or as the owner of what it touches, with psql -f give.sql; it stops at the first error, and can be run again.",
            "Let us see that it is done: run check.sql, which changes nothing, and send its answer back.",
        ],
        Team.Database when HasSql(handover) =>
        [
            "Read give.sql: each step says what it does and why.",
            "Run it as a member of securityadmin or above on the instance, with your usual client, stopping at the first error (with sqlcmd: -E -b -x -i give.sql). It can be run again.",
            "Let us see that it is done: run check.sql, which changes nothing, and send its answer back.",
        ],
        Team.Database => ["Make the steps in order, as one who administers the instance."],
        _ =>
        [
            "Make the steps in order, inside the product, as one who administers it: exactly what each lists, and nothing more.",
            "Look at the result there, and tell us that you did and what you saw: your name and the time are kept, and your word counts until the sheet's term ends.",
            $"We write it down with justright confirm {handover.Install} ACCOUNT IDENTITY --seen-by NAME.",
        ],
    };

    /// <summary>Whether scripts for the database server come with it.</summary>
    public static bool HasSql(Handover handover) =>
        handover is { Team: Team.Database, Engine: "sqlserver" or "postgresql" } && handover.Steps.Select(s => s.Change).Concat(handover.Undo).OfType<InstanceChange>().All(c => (handover.Engine == "postgresql" ? PostgreSqlStatements.WhyNot(c) : TransactSql.WhyNot(c)) is null);

    /// <summary>How to take it back.</summary>
    public static string HowToUndo(Handover handover) => handover.Team switch
    {
        Team.Host => @".\make-host-changes.ps1 -Changes undo.json takes all of it back, in the right order.",
        Team.Directory => "undo.ldif takes the directory's part back, in the right order.",
        Team.Database when HasSql(handover) => "undo.sql takes all of it back, in the right order.",
        _ => "These steps take all of it back, in this order:",
    };

    /// <summary>The whole new list of a policy's right, for a person to compare.</summary>
    public static IReadOnlyList<string> Details(Change change) => change switch
    {
        ChangePolicyList c => [$"policy {c.Name} {c.Policy}", $"the list of {c.Constant} was: {List(c.OldEntries)}", $"and becomes, whole: {List(c.Entries)}", $"it counts on: {string.Join(", ", c.Hosts)}"],
        SetServiceAccount c => [$"it ran as {c.OldAccount}", c.NeedsPassword ? "the script asks for the password; it is written nowhere" : "no password is needed"],
        _ => [],
    };

    /// <summary>A time with its zone.</summary>
    public static string Time(DateTimeOffset time) => $"{time.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC";

    private static string List(IReadOnlyList<string> entries) => entries.Count == 0 ? "nobody" : string.Join(", ", entries.Select(Named));

    /// <summary>An entry with the name that its SID has everywhere, where it has one.</summary>
    private static string Named(string entry) =>
        entry.StartsWith('*') && Sid.TryParse(entry[1..], out var sid) && (BuiltInGroups.NameOf(sid) ?? WellKnownSids.NameOf(sid)) is { } name ? $"{entry} ({name})" : entry;
}
