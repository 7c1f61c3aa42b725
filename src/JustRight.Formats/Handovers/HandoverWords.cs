using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Handovers;
using JustRight.Core.Hosts;
using JustRight.Core.Sheets;
using JustRight.Formats.PostgreSql;
using JustRight.Formats.SqlServer;

namespace JustRight.Formats.Handovers;

/// <summary>The sentences that every form of a handover shares.</summary>
public static class HandoverWords
{
    /// <summary>The head.</summary>
    public static string Title(Handover handover) =>
        $"{(handover.Remove ? "To take away" : "To give")} for {handover.Title}: {handover.Place}";

    /// <summary>What this is, in one paragraph.</summary>
    public static string Lead(Handover handover) =>
        $"The {handover.TeamName} team is asked for {handover.Steps.Count} {(handover.Steps.Count == 1 ? "step" : "steps")} at {handover.Place}. They come from the sheet {handover.Sheet} ({handover.Source}), the estate {handover.Estate}, the install {handover.Install}, and the survey of {Time(handover.SurveyedAt)}.{(handover.After.Count > 0 ? $" It comes after: {string.Join(", ", handover.After)}." : "")}{(handover.Simulated ? " The estate is SIMULATED." : "")}";

    /// <summary>How to carry it out, in steps.</summary>
    public static IReadOnlyList<string> HowTo(Handover handover) => handover.ByHand
        ?
        [
            "Do what each step says, in order: no script does it.",
            "See that it is done, as the step says, and tell us how you saw it, without any password: your name and the time are recorded.",
            $"We record it with justright confirm {handover.Install} ACCOUNT TASK --seen-by NAME --proof TEXT.",
        ]
        : ByTeam(handover);

    private static IReadOnlyList<string> ByTeam(Handover handover) => handover.Team switch
    {
        Team.Host =>
        [
            $"Copy this folder to {handover.Place} and open an elevated Windows PowerShell there.",
            @"If Windows will not run the scripts: files that came over the network are marked, and the execution policies RemoteSigned and AllSigned refuse marked files without a signature. Read the scripts, then take the mark away: Unblock-File .\*.ps1. Under AllSigned, have them signed by your own authority, or run them in a session of your own: powershell -ExecutionPolicy RemoteSigned. A policy that a group policy sets cannot be overridden that way.",
            @"Read what would be done: .\make-host-changes.ps1 -WhatIf",
            @"Do it: .\make-host-changes.ps1 (it checks before each change, skips what is already done, stops at the first failure, and can be run again)",
            @"Show that it is done: .\collect-host-facts.ps1 -To facts.json, and send facts.json and record.jsonl back",
        ],
        Team.Directory => handover.Steps.Any(s => s.Change is ChangePolicyList)
            ? [
                "Apply changes.ldif with an ordinary LDAP client; set the passwords of new accounts yourselves.",
                "Set each policy list as its step says: the complete new list, in the policy editor; the rights-of-policy files hold the same as a security template."]
            : ["Apply changes.ldif with an ordinary LDAP client; set the passwords of new accounts yourselves."],
        Team.Database when HasSql(handover) && handover.Engine == "postgresql" =>
        [
            "Read give.sql: each step says what it does and why.",
            "Run it as a superuser, or as the owner of the objects, with psql -f give.sql; it stops at the first error, and can be run again.",
            "Show that it is done: run check.sql, which changes nothing, and send its answer back.",
        ],
        Team.Database when HasSql(handover) =>
        [
            "Read give.sql: each step says what it does and why.",
            "Run it as a member of securityadmin or above on the instance, with your usual client, stopping at the first error (with sqlcmd: -E -b -x -i give.sql). It can be run again.",
            "Show that it is done: run check.sql, which changes nothing, and send its answer back.",
        ],
        Team.Database => ["Make the steps in order, as an administrator of the instance."],
        _ =>
        [
            "Make the steps in order, inside the product, as its administrator: exactly what each step lists.",
            "Look at the result there, and tell us what you saw: your name and the time are recorded, and the confirmation is valid for the days set in the sheet.",
            $"We record it with justright confirm {handover.Install} ACCOUNT IDENTITY --seen-by NAME.",
        ],
    };

    /// <summary>Whether scripts for the database server come with it.</summary>
    public static bool HasSql(Handover handover) =>
        handover is { Team: Team.Database, ByHand: false, Engine: "sqlserver" or "postgresql" }
            && handover.Steps.Select(s => s.Change).Concat(handover.Undo).OfType<InstanceChange>()
                .All(c => (handover.Engine == "postgresql" ? PostgreSqlStatements.WhyNot(c) : TransactSql.WhyNot(c)) is null);

    /// <summary>How to take it back.</summary>
    public static string HowToUndo(Handover handover) => handover.ByHand ? "Nothing takes these back." : handover.Team switch
    {
        Team.Host => @".\make-host-changes.ps1 -Changes undo.json undoes everything, in the right order.",
        Team.Directory => "undo.ldif undoes the directory changes, in the right order.",
        Team.Database when HasSql(handover) && handover.Engine == "postgresql" =>
            "undo.sql undoes everything, in the right order.",
        Team.Database when HasSql(handover) => "undo.sql takes back what give.sql made, in the right order.",
        _ => "These steps undo everything, in this order:",
    };

    /// <summary>The whole new list of a policy's right, for a person to compare.</summary>
    public static IReadOnlyList<string> Details(Change change) => change switch
    {
        DoTask task => [$"done when: {task.DoneWhen}"],
        ChangePolicyList c =>
            [
                $"policy {c.Name} {c.Policy}", $"the list of {c.Constant} was: {List(c.OldEntries)}",
                $"and becomes, whole: {List(c.Entries)}", $"it counts on: {string.Join(", ", c.Hosts)}"],
        SetServiceAccount c =>
            [
                $"it ran as {c.OldAccount}",
                c.NeedsPassword ? "the script asks for the password and stores it nowhere" : "no password is needed"],
        _ => [],
    };

    /// <summary>A time with its zone.</summary>
    public static string Time(DateTimeOffset time) => $"{time.UtcDateTime:yyyy-MM-dd HH:mm:ss} UTC";

    private static string List(IReadOnlyList<string> entries) =>
        entries.Count == 0 ? "nobody" : string.Join(", ", entries.Select(Named));

    /// <summary>An entry with the name that its SID has everywhere, where it has one.</summary>
    private static string Named(string entry) =>
        entry.StartsWith('*') && Sid.TryParse(entry[1..], out var sid)
            && (BuiltInGroups.NameOf(sid) ?? WellKnownSids.NameOf(sid)) is { } name
            ? $"{entry} ({name})"
            : entry;
}
