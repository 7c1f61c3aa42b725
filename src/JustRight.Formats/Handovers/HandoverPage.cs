using System.Net;
using System.Text;
using JustRight.Core.Handovers;

namespace JustRight.Formats.Handovers;

/// <summary>A handover as one page of HTML that needs nothing beside it: no script, no picture, no connection.</summary>
public static class HandoverPage
{
    private const string Style = """
        :root { color-scheme: light dark; --ink: #1d2125; --dim: #5b646d; --line: #d5dade; --ground: #fff; }
        @media (prefers-color-scheme: dark) { :root { --ink: #e4e7ea; --dim: #a2abb3; --line: #3a424a; --ground: #15191d; } }
        body { font: 14px/1.5 system-ui, sans-serif; color: var(--ink); background: var(--ground); max-width: 62rem; margin: 2rem auto; padding: 0 1.5rem; }
        h1 { font-size: 1.4rem; margin: 0 0 .5rem; } h2 { font-size: 1.05rem; margin: 2rem 0 .5rem; border-bottom: 1px solid var(--line); padding-bottom: .25rem; }
        code, .mono { font-family: ui-monospace, monospace; font-size: .93em; overflow-wrap: anywhere; }
        .tag { border: 1px solid var(--line); padding: 0 .4rem; font-size: .85em; } .dim { color: var(--dim); }
        table { border-collapse: collapse; width: 100%; } td { vertical-align: top; border-bottom: 1px solid var(--line); padding: .6rem .75rem .6rem 0; } td:first-child { width: 2rem; color: var(--dim); }
        dl { display: grid; grid-template-columns: 8rem 1fr; margin: .25rem 0 0; gap: .1rem .75rem; } dt { color: var(--dim); } dd { margin: 0; }
        @media print { body { margin: 0; max-width: none; } tr { break-inside: avoid; } }
        """;

    /// <summary>Writes it.</summary>
    public static string Write(Handover handover)
    {
        var page = new StringBuilder();
        page.Append("<!doctype html>\n<html lang=\"en\">\n<head>\n<meta charset=\"utf-8\">\n<meta name=\"viewport\" content=\"width=device-width\">\n");
        page.Append($"<title>{Text(HandoverWords.Title(handover))}</title>\n<style>\n{Style}\n</style>\n</head>\n<body>\n");
        page.Append($"<h1>{Text(HandoverWords.Title(handover))}{(handover.Simulated ? " <span class=\"tag\">simulated</span>" : "")}</h1>\n<p>{Text(HandoverWords.Lead(handover))}</p>\n");
        page.Append("<h2>What, and why</h2>\n<table>\n");
        foreach (var step in handover.Steps)
        {
            page.Append($"<tr><td>{step.Number}</td><td><span class=\"mono\">{Text(step.Change.Words)}</span><dl>\n<dt>why</dt><dd>{Text(step.Why)} <span class=\"dim\">{Text(step.At.ToString())}</span></dd>\n");
            foreach (var account in step.For) Fact("for", account);
            foreach (var least in step.Least) Fact("least privilege", least);
            foreach (var detail in HandoverWords.Details(step.Change)) Fact("", detail);
            if (step.Note is { } note) Fact("note", note);
            page.Append("</dl></td></tr>\n");
        }

        page.Append("</table>\n<h2>How</h2>\n<ol>\n");
        foreach (var how in HandoverWords.HowTo(handover)) page.Append($"<li>{Text(how)}</li>\n");
        page.Append($"</ol>\n<h2>How to take it back</h2>\n<p>{Text(HandoverWords.HowToUndo(handover))}</p>\n<ol>\n");
        foreach (var undo in handover.Undo) page.Append($"<li class=\"mono\">{Text(undo.Words)}</li>\n");
        page.Append("</ol>\n</body>\n</html>\n");
        return page.ToString();

        void Fact(string name, string value) => page.Append($"<dt>{Text(name)}</dt><dd>{Text(value)}</dd>\n");
    }

    private static string Text(string text) => WebUtility.HtmlEncode(text);
}
