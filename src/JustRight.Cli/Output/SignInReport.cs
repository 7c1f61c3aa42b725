using System.Globalization;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>sign-in settings, sign-in tests and filters as text.</summary>
internal static class SignInReport
{
    public static void Write(Screen screen, SignInView view)
    {
        screen.Line($"[bold]{Markup.Escape(view.Title)}[/]  {Markup.Escape($"people of '{view.Directory}' ({view.Family}) at {view.Host}")}{(view.Simulated ? "  [bold]simulated[/]" : "")}");
        foreach (var file in view.Files)
        {
            screen.Line(Markup.Escape($"To be told in {file.Where} on {string.Join(", ", file.TypedOn)}:"));
            var fields = Screen.List("setting", "value", "because");
            foreach (var field in file.Fields)
                fields.AddRow(
                    new Text(field.Name), new Text(field.Value ?? "not known yet"),
                    new Text(field.Because ?? "the same everywhere"));
            screen.Write(fields);
            screen.Line();
        }

        if (view.Roles.Count > 0)
        {
            var roles = Screen.List("role", "members of", "somebody who must have it");
            foreach (var role in view.Roles)
                roles.AddRow(
                    new Text(role.Called), new Text(string.Join('\n', role.Groups)), new Text(role.Person ?? "nobody is named"));
            screen.Write(roles);
            screen.Line();
        }

        screen.Line(Markup.Escape($"Finds {view.PeopleWords}."));
        if (view.GroupsWords is { } groups) screen.Line(Markup.Escape($"Shows {groups}."));
        if (view.Findings.Count > 0)
        {
            screen.Line();
            var findings = Screen.List("", "found");
            foreach (var finding in view.Findings)
                findings.AddRow(new Markup(Sign(finding.Weight)), new Text($"{finding.Text}\n→ {finding.Fix}"));
            screen.Write(findings);
        }

        if (view.PasswordPlaces.Count == 0) return;
        screen.Line();
        screen.Line($"The password of {Markup.Escape(view.PasswordPlaces[0].Account)} is typed in:");
        var places = Screen.List("product", "host", "where", "setting", "changed in the directory first");
        foreach (var p in view.PasswordPlaces)
            places.AddRow(new Text(p.Product), new Text(p.Host), new Text(p.Where), new Text(p.Setting), new Text(p.Breaks));
        screen.Write(places);
    }

    public static void Write(Screen screen, SignInTestView test)
    {
        screen.Line($"[bold]Sign-in test of {Markup.Escape(test.Install)}[/]  {Markup.Escape($"against '{test.Directory}'")}{(test.Simulated ? "  [bold]simulated[/]" : "")}   [grey]{Times.Exact(test.StartedAt)}[/]");
        var checks = Screen.List("", "check", "found", "seconds");
        foreach (var check in test.Checks)
            checks.AddRow(
                new Markup(Sign(check.Verdict)), new Text(check.Asks),
                new Text(check.Fix is { } fix ? $"{check.Fact}\n→ {fix}" : check.Fact),
                new Text(check.Seconds?.ToString("0.00", CultureInfo.InvariantCulture) ?? "").RightJustified());
        screen.Write(checks);
        Differences(screen, "people", test.People);
        Differences(screen, "groups", test.Groups);
        screen.Line($"[bold]{Markup.Escape(test.Words)}.[/]");
    }

    public static void Write(Screen screen, string asked, FilterView view)
    {
        if (view.Fault is { } fault)
        {
            screen.Line(Markup.Escape(asked));
            screen.Line(new string(' ', Math.Min(fault.Position, asked.Length)) + "^");
            screen.Line(Markup.Escape(
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Character {fault.Position + 1}: {fault.Message} Expected: {fault.Expected}.")));
            return;
        }

        screen.Line(Markup.Escape(view.Text!));
        screen.Line(Markup.Escape(view.Words! + "."));
        screen.Line(view.Of == 0 ? $"[bold]{view.Found}[/], as the directory says {Times.Exact(view.ReadAt)}" : $"[bold]{view.Found}[/] of {view.Of}, as read {Times.Exact(view.ReadAt)}");
        foreach (var unknown in view.UnknownAttributes)
            screen.Line($"{Sign("wrong")} {Markup.Escape($"This directory knows no attribute {unknown}.")}");
        foreach (var part in view.NotJudged)
            screen.Line($"{Sign("unseen")} {Markup.Escape($"{part} is for the directory itself to judge: it may find others than we say.")}");
        if (view.Objects.Count == 0) return;
        var table = Screen.List("name", "logon name", "kind", "distinguished name");
        foreach (var o in view.Objects)
            table.AddRow(new Text(o.Name), new Text(o.LogonName ?? ""), new Text(o.Kind), new Text(o.Dn));
        screen.Write(table);
        if (view.Objects.Count < view.Total)
            screen.Line($"[grey]{view.Skipped + 1} to {view.Skipped + view.Objects.Count} of {view.Total}[/]");
    }

    private static void Differences(Screen screen, string what, ComparisonView? compared)
    {
        if (compared is null || compared.Missing.Count + compared.Extra.Count == 0) return;
        var table = Screen.List(what, "", "why");
        foreach (var missing in compared.Missing)
            table.AddRow(new Text(missing.Name), new Text("expected, not found"), new Text(missing.Why ?? ""));
        foreach (var extra in compared.Extra) table.AddRow(new Text(extra.Name), new Text("found, not expected"), new Text(""));
        screen.Write(table);
    }

    /// <summary>A word of the same width for each outcome: never color alone.</summary>
    private static string Sign(string outcome) => outcome switch
    {
        "pass" => "[green]✓ pass  [/]",
        "fail" => "[blue]✗ fail  [/]",
        "wrong" => "[blue]✗ wrong [/]",
        "caution" => "[yellow]! mind  [/]",
        _ => "[grey]· unseen[/]",
    };
}
