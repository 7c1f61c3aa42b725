using System.Text;

namespace JustRight.Service.Features.Reports;

/// <summary>The account matrix as Markdown, to be kept beside other notes.</summary>
internal static class MarkdownReport
{
    /// <summary>Writes it.</summary>
    public static byte[] Write(InstallReport report)
    {
        var fit = report.Fit;
        var text = new StringBuilder();
        Line($"# {Plain(fit.Title)}: {Plain(fit.Install)}");
        Line();
        Line($"{Plain(fit.Counts.Words)}. Fit {report.FitNumber}, surveyed {report.Time(fit.SurveyedAt)}; {fit.Stage}; estate {Plain(fit.Estate)}{(fit.Simulated ? " (**simulated**)" : "")}.");
        foreach (var account in fit.Accounts)
        {
            Line();
            Line($"## {Plain(account.Name)}");
            Line();
            Line($"{Plain(account.Purpose)}. {Plain(account.Counts.Words)}.");
            Line();
            Line("| verdict | right | place | because | held by | accepted by |");
            Line("|---|---|---|---|---|---|");
            foreach (var r in account.Rights)
                Line($"| {InstallReport.Sign(r.Verdict)} {r.Verdict} | {Plain(r.Right)} | {Plain(r.Place)} | {Plain(r.Reason)} | {Plain(string.Join("; ", r.Paths.Select(InstallReport.PathWords)))} | {Plain(report.Accepted(r.Accepted))} |");
        }

        Section(
            "Exceptions",
            report.Standing.Select(e => $"{e.Words}: {e.By} accepted it until {report.Until(e.LastDay, e.Until)}: {e.Why}"));
        Section("Seen at the places", fit.Findings.Select(f => $"{f.Place}: {f.Text}"));
        Section("Could not be read", fit.Unseen.Select(u => $"{u.Place}: {u.Reason} ({report.Time(u.At)})"));
        Section("Choices", fit.Decisions.Select(d => $"{d.Id}: {d.Taken} ({d.Reason})"));
        Section("Notes", fit.Notes);
        Section(
            "Reviews",
            report.Reviews.Select(r =>
                $"{report.Time(r.At)}: {r.By} reviewed fit {r.Fit} ({r.Counts.Words}){(r.Remark is null ? "" : $": {r.Remark}")}"));
        return Encoding.UTF8.GetBytes(text.ToString());

        void Line(string line = "") => text.Append(line).Append('\n');

        void Section(string title, IEnumerable<string> lines)
        {
            var all = lines.ToList();
            if (all.Count == 0) return;
            Line();
            Line($"## {title}");
            Line();
            foreach (var line in all) Line($"- {Plain(line)}");
        }
    }

    /// <summary>Text that Markdown takes as text.</summary>
    private static string Plain(string text)
    {
        var plain = new StringBuilder();
        foreach (var letter in text)
        {
            if ("\\`*_{}[]<>#|$~".Contains(letter, StringComparison.Ordinal)) plain.Append('\\');
            plain.Append(letter is '\r' or '\n' ? ' ' : letter);
        }

        return plain.ToString();
    }
}
