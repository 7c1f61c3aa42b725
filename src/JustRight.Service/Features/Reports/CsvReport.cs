using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace JustRight.Service.Features.Reports;

/// <summary>The account matrix as CSV [RFC 4180], a line for each right.</summary>
internal static class CsvReport
{
    /// <summary>What each line says of the whole: it must still say so where it is taken out of the table.</summary>
    private static readonly string[] Of = ["install", "fit", "surveyed", "simulated"];

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
            string[] of =
            [
                report.Fit.Install, report.FitNumber.ToString(CultureInfo.InvariantCulture), report.Time(report.Fit.SurveyedAt),
                report.Fit.Simulated ? "simulated" : "",
            ];
            foreach (var line in report.Lines.Select(l => of.Concat(l.Values)).Prepend(Of.Concat(ReportLine.Heads)))
            {
                foreach (var value in line) csv.WriteField(value);
                csv.NextRecord();
            }
        }

        return stream.ToArray();
    }
}
