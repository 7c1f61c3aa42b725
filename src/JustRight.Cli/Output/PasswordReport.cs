using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>Passwords in text: due dates, places, the order of a renewal and how it stands. Never one itself.</summary>
internal static class PasswordReport
{
    /// <summary>When each is due.</summary>
    public static void Write(Screen screen, PasswordsView view)
    {
        if (view.Simulated) screen.Line("[bold]simulated estate[/]");
        if (view.ReadAt is { } read) screen.Line($"[grey]read {Times.Exact(read)}[/]");
        var table = Screen.List("", "account", "due", "changed by", "typed in", "why");
        foreach (var a in view.Accounts)
        {
            table.AddRow(
                new Markup(Sign(a.Standing)), new Text(a.Account), new Text(
                    a.Due is { } due ? $"{due.ToLocalTime():yyyy-MM-dd}"
                        : "–"), new Text(a.KeptBy), new Text(a.Places == 0 ? "–"
                        : $"{a.Places}"),
                new Text(a.Quarrel is null ? a.Words : $"{a.Words}; {a.Quarrel}"));
        }

        screen.Write(table);
        foreach (var a in view.Accounts.Where(a => a.Renewal is not null))
            screen.Line(Markup.Escape(
                $"A renewal of {a.Account} is under way: justright password progress {view.Estate} {a.Account}"));
    }

    /// <summary>Where one is typed.</summary>
    public static void Write(Screen screen, PasswordDetailView view)
    {
        var password = view.Password;
        screen.Line($"[bold]{Markup.Escape(password.Account)}[/]  {Sign(password.Standing)}{(password.Due is { } due ? $"  due {due.ToLocalTime():yyyy-MM-dd}" : "")}  {Markup.Escape(password.Words)}");
        screen.Line(Markup.Escape(
            $"Changed by {password.KeptBy}; used by {string.Join(", ", password.Uses)}{(password.SetAt is { } set ? $"; last set {Times.Exact(set)}" : "")}."));
        if (password.Quarrel is { } quarrel) screen.Line($"[bold]{Markup.Escape(quarrel)}[/]");
        if (view.Places.Count == 0)
            screen.Line(password.Keeper == "directory" ? "It is typed nowhere: the hosts fetch it."
                : "No place is known where it is typed.");
        if (view.Places.Count > 0)
        {
            var table = Screen.List("", "typed in", "product", "if it is changed elsewhere first", "last changed there");
            foreach (var p in view.Places)
            {
                table.AddRow(
                    new Text(p.Told is { } told ? $"told {told}" : p.AtOnce ? "at once" : "at start"), new Text(
                        p.Reference is { } reference ? $"{p.Words}, as a reference to {reference}"
                            : p.Words), new Text(p.Product.Length > 0 ? p.Product
                            : p.Kind == "own-secret" ? "Just Right"
                            : "–"),
                    new Text(p.Breaks), new Text(p.LastAt is { } at ? $"{Times.Exact(at)} by {p.LastBy}" : "–"));
            }

            screen.Write(table);
        }

        foreach (var p in view.Places.Where(p => p.NotSeen is not null))
            screen.Line($"[grey]not seen:[/] {Markup.Escape($"{p.Words}: {p.NotSeen}")}");
        foreach (var p in view.Places.Where(p => p.Note is not null)) screen.Line($"[bold]mind:[/] {Markup.Escape(p.Note!)}");
        if (view.ManagedObstacles is { } obstacles)
        {
            screen.Line(obstacles.Count == 0
                ? "A gMSA (group managed service account) could replace it: nothing known prevents it."
                : "What prevents a gMSA (group managed service account):");
            foreach (var one in obstacles) screen.Line($"  [grey]–[/] {Markup.Escape(one)}");
        }

        if (view.Waits) screen.Line("A password of it waits to be handed over: justright password hand-over");
    }

    /// <summary>What a renewal would do.</summary>
    public static void WriteOrder(Screen screen, PasswordDetailView view)
    {
        if (view.Order.Count > 0)
        {
            screen.Line($"Renewing [bold]{Markup.Escape(view.Password.Account)}[/], in the order in which the least stops:");
            var table = Screen.List("", "step", "by", "why here");
            foreach (var s in view.Order)
                table.AddRow(
                    new Text($"{s.Number}"), new Text(s.Words), new Text(s.Act == "type" ? "a person" : "us"),
                    new Markup($"[grey]{Markup.Escape(s.Why)}[/]"));
            screen.Write(table);
        }

        foreach (var remark in view.Remarks) screen.Line($"[bold]mind:[/] {Markup.Escape(remark)}");
    }

    /// <summary>How a renewal stands.</summary>
    public static void Write(Screen screen, RenewalView view)
    {
        screen.Line($"[bold]{Markup.Escape(view.Account)}[/]: {Markup.Escape(view.Words)}{(view.Simulated ? "  [grey]simulated estate[/]" : "")}");
        var table = Screen.List("", "", "step", "what came of it");
        foreach (var s in view.Steps)
        {
            var seen = s.State == "waiting" ? "" : $"{s.Note}{(s.At is { } at ? $"  ({s.By}, {Times.Exact(at)})" : "")}";
            table.AddRow(
                new Markup(StepSign(s.State, s.Number == view.Current)), new Text($"{s.Number}"), new Text(s.Words),
                new Markup($"[grey]{Markup.Escape(seen)}[/]"));
        }

        screen.Write(table);
        if (view.Divided.Count > 0)
            screen.Line(view.EndedAt is null ? "Still has another password than the directory:"
                : "[bold]Still has the old password:[/]");
        foreach (var place in view.Divided) screen.Line($"  [bold]≠[/] {Markup.Escape(place)}");
        var of = $"{view.Estate} {view.Account}";
        var next = view.Next switch
        {
            "person" => $"Next is step {view.Current}, for a person. The new password: justright password hand-over {of} --show. When it is typed: justright password done {of}",
            "decision" =>
                $"Retry it: justright password retry {of}. Skip it: justright password skip {of} --why TEXT.{(view.CanGoBack ? $" Go back: justright password undo {of}" : " There is no way back.")}",
            "window" => $"It continues {(view.OpensAt is { } opens ? Times.Exact(opens) : "then")}; at once with: justright password restart-now {of}",
            "go" => $"Steps are being made: justright password progress {of}",
            _ => null,
        };
        if (next is not null) screen.Line(Markup.Escape(next));
    }

    /// <summary>What came of a try.</summary>
    public static void Write(Screen screen, PasswordTryView view) =>
        screen.Line($"{view.Works switch { true => "[green]works[/]", false => "[bold]does not work[/]", _ => "[grey]not tried[/]" }}  {Markup.Escape(view.Account)}: {Markup.Escape(view.Words)}{(view.LockedAfter is { } most ? $"  [grey]({view.WrongCounted?.ToString(System.Globalization.CultureInfo.InvariantCulture) ?? "?"} wrong before; locked after {(most == 0 ? "none" : most)})[/]" : "")}");

    /// <summary>What waits to be handed over.</summary>
    public static void Write(Screen screen, IReadOnlyList<PasswordView> passwords)
    {
        var table = Screen.List("account", "made", "handed over");
        foreach (var p in passwords)
            table.AddRow(
                new Text(p.Account), new Text(Times.Exact(p.CreatedAt)),
                new Text(p.HandedOverAt is { } at ? $"{Times.Exact(at)} to {p.HandedOverBy}" : "waits"));
        screen.Write(table);
    }

    private static string Sign(string standing) => standing switch
    {
        "overdue" => "[bold]✗ overdue[/]",
        "unreasoned" => "[bold]? no reason[/]",
        "soon" => "[bold]! soon[/]",
        "unseen" => "[grey]· unseen[/]",
        "later" => "✓ later",
        "managed" => "✓ managed",
        "not-made" => "[grey]– not made[/]",
        _ => "[grey]– undated[/]",
    };

    private static string StepSign(string state, bool next) => state switch
    {
        "made" or "already-so" => "[green]✓ done[/]",
        "failed" or "refused" => "[bold]✗ failed[/]",
        "intended" => "… begun",
        "skipped" or "abandoned" => "[bold]– left out[/]",
        "dropped" => "[grey]– dropped[/]",
        _ => next ? "[bold]→ next[/]" : "[grey]· waits[/]",
    };
}
