using System.Globalization;
using System.Text;
using JustRight.Core.Handovers;

namespace JustRight.Formats.Handovers;

/// <summary>A handover as comma-separated values [RFC 4180], for a list of work.</summary>
public static class HandoverCsv
{
    private static readonly string[] Head = [
        "step", "team", "place", "what", "why", "for", "least privilege", "note", "asked for at"];

    /// <summary>Writes one table of several handovers.</summary>
    public static string Write(IEnumerable<Handover> handovers)
    {
        var text = new StringBuilder();
        Row(Head);
        foreach (var handover in handovers)
            foreach (var step in handover.Steps)
                Row([
                    step.Number.ToString(CultureInfo.InvariantCulture), handover.TeamName, handover.Place, step.Change.Words,
                    step.Why, string.Join("; ", step.For), string.Join("; ", step.Least), step.Note ?? "", step.At.ToString()]);
        return text.ToString();

        void Row(IEnumerable<string> cells) => text.AppendJoin(',', cells.Select(Cell)).Append("\r\n");
    }

    /// <summary>A cell that begins like a formula would be one in a spreadsheet: an apostrophe keeps it a text.</summary>
    private static string Cell(string text)
    {
        if (text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t' or '\r') text = "'" + text;
        return text.AsSpan().ContainsAny(",\"\r\n") ? $"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : text;
    }
}
