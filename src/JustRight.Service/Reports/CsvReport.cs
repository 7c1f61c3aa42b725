using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace JustRight.Service.Reports;

/// <summary>The account matrix as CSV [RFC 4180], a line for each right.</summary>
internal static class CsvReport
{
    /// <summary>
    /// Writes it, in UTF-8 with the mark that spreadsheets look for. A text that a spreadsheet would run as a formula is made
    /// harmless.
    /// </summary>
    public static byte[] Write(InstallReport report)
    {
        using var stream = new MemoryStream();
        using (var writer = new StreamWriter(stream, new UTF8Encoding(true)))
        using (var csv = new CsvWriter(
            writer,
            new CsvConfiguration(CultureInfo.InvariantCulture) { NewLine = "\r\n", InjectionOptions = InjectionOptions.Escape }))
        {
            foreach (var line in report.Lines.Select(l => l.Values).Prepend(ReportLine.Heads))
            {
                foreach (var value in line) csv.WriteField(value);
                csv.NextRecord();
            }
        }

        return stream.ToArray();
    }
}
