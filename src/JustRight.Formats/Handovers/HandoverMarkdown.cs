using System.Text;
using JustRight.Core.Handovers;

namespace JustRight.Formats.Handovers;

/// <summary>A handover as Markdown, for a ticket.</summary>
public static class HandoverMarkdown
{
    /// <summary>Writes it.</summary>
    public static string Write(Handover handover)
    {
        var text = new StringBuilder();
        Line($"# {Escape(HandoverWords.Title(handover))}");
        Line();
        Line(Escape(HandoverWords.Lead(handover)));
        Line();
        Line("## What, and why");
        foreach (var step in handover.Steps)
        {
            Line();
            Line($"{step.Number}. **{Escape(step.Change.Words)}**");
            Line($"   - why: {Escape(step.Why)} ({Escape(step.At.ToString())})");
            foreach (var account in step.For) Line($"   - for {Escape(account)}");
            foreach (var least in step.Least) Line($"   - least privilege: {Escape(least)}");
            foreach (var detail in HandoverWords.Details(step.Change)) Line($"   - {Escape(detail)}");
            if (step.Note is { } note) Line($"   - note: {Escape(note)}");
        }

        Line();
        Line("## How");
        Line();
        foreach (var (how, i) in HandoverWords.HowTo(handover).Select((h, i) => (h, i))) Line($"{i + 1}. {Escape(how)}");
        Line();
        Line("## How to take it back");
        Line();
        Line(Escape(HandoverWords.HowToUndo(handover)));
        Line();
        foreach (var (undo, i) in handover.Undo.Select((u, i) => (u, i))) Line($"{i + 1}. {Escape(undo.Words)}");
        return text.ToString();

        void Line(string line = "") => text.Append(line).Append('\n');
    }

    /// <summary>Names may hold what Markdown reads as markup.</summary>
    private static string Escape(string text)
    {
        var escaped = new StringBuilder(text.Length);
        foreach (var c in text)
        {
            if (c is '\\' or '`' or '*' or '_' or '[' or ']' or '<' or '>' or '#' or '|') escaped.Append('\\');
            escaped.Append(c is '\r' or '\n' ? ' ' : c);
        }

        return escaped.ToString();
    }
}
