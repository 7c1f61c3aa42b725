using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary><c>report</c> and <c>evidence</c>: the fit of an install as files for people who were not there.</summary>
internal static class ReportCommands
{
    private static readonly string[] Forms = ["markdown", "csv", "xlsx", "html"];

    public static Command MakeReport()
    {
        var install = Names.Install();
        var form = new Option<string>("--form")
        {
            Description = "markdown, csv, xlsx (a workbook with filters), or html (the review sheet, for paper)",
            DefaultValueFactory = _ => "markdown",
            HelpName = "FORM",
        };
        form.AcceptOnlyFromAmong(Forms);
        var to = new Option<string?>("--to") { Description = "The file to write; standard output by default", HelpName = "FILE" };
        return CommandKit.Make(
            "report",
            "Writes the account matrix of an install as a file, with exceptions and reviews.\nUses the latest survey: verify first",
            [
                "justright report thermograph-dataroom > thermograph.md",
                "justright report thermograph-dataroom --form xlsx --to thermograph.xlsx"], [install, form, to],
            c => WriteAsync(
                c, $"installs/{Names.Part(c.Parsed.GetValue(install)!)}/report?form={c.Parsed.GetValue(form)}",
                c.Parsed.GetValue(to)))
            .Answers(j => j.WrittenFileView);
    }

    public static Command MakeEvidence()
    {
        var install = Names.Install();
        var to = new Option<string?>("--to") { Description = "The file to write; standard output by default", HelpName = "FILE" };
        var write = CommandKit.Make(
            "write",
            "Writes all evidence of the latest fit as one signed file: sheet, estate, install, survey, verdicts, exceptions, reviews.\nA JSON Web Signature (RFC 7515) that others can check without Just Right: docs/reports.md",
            ["justright evidence write thermograph-dataroom --to thermograph-evidence.json"], [install, to], c =>
                WriteAsync(c, $"installs/{Names.Part(c.Parsed.GetValue(install)!)}/evidence", c.Parsed.GetValue(to)))
            .Answers(j => j.WrittenFileView);
        var key = CommandKit.Make(
            "key", "Prints the public key for checking evidence; keep it where you check, not beside the evidence",
            ["justright evidence key > justright.pem"], [], KeyAsync)
            .Answers(j => j.EvidenceKeyView);
        return CommandKit.Group("evidence", "The evidence of a fit, signed", write, key);
    }

    /// <summary>Fetches a file and writes it; with <c>--json</c>, says what was written.</summary>
    public static async Task<int> WriteAsync(Call call, string path, string? to)
    {
        var bytes = await call.Api.GetBytesAsync(path, call.Cancel);
        if (to is null)
        {
            if (!Console.IsOutputRedirected && path.Contains("form=xlsx", StringComparison.Ordinal))
                throw new ClientException(ExitCode.BadInput, "A workbook is no text for a terminal.", "Name a file: --to FILE");
            if (Console.IsOutputRedirected) await WriteRawAsync(bytes, call.Cancel);
            else Screen.Text(System.Text.Encoding.UTF8.GetString(bytes));
            return ExitCode.Fine;
        }

        try
        {
            await File.WriteAllBytesAsync(to, bytes, call.Cancel);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{to} cannot be written: {e.Message}");
        }

        if (call.Screen.IsJson) call.Screen.Json(new WrittenFileView(to, bytes.Length), ContractsJson.Default.WrittenFileView);
        else call.Screen.Line(Markup.Escape($"{to} is written, {bytes.Length:N0} bytes."));
        return ExitCode.Fine;
    }

    private static async Task WriteRawAsync(byte[] bytes, CancellationToken cancel)
    {
        await using var output = Console.OpenStandardOutput();
        await output.WriteAsync(bytes, cancel);
    }

    private static async Task<int> KeyAsync(Call call)
    {
        var key = await call.Api.GetAsync("evidence-key", ContractsJson.Default.EvidenceKeyView, call.Cancel);
        if (call.Screen.IsJson) call.Screen.Json(key, ContractsJson.Default.EvidenceKeyView);
        else await Console.Out.WriteLineAsync(key.Pem.AsMemory(), call.Cancel);
        return ExitCode.Fine;
    }
}
