using System.CommandLine;
using System.Text;
using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.RegularExpressions;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>A file that is written from answers: what its commands share.</summary>
internal static partial class NewFile
{
    /// <summary>The option that names the file.</summary>
    public static Option<string> To() => new("--to")
    {
        Description = "The file to write; one that is there is left alone",
        HelpName = "FILE",
        Required = true,
    };

    /// <summary>Refuses to begin where the file is there already: nobody answers questions for nothing.</summary>
    public static void MustBeNew(string file)
    {
        if (Path.Exists(file))
            throw new ClientException(
                ExitCode.BadInput, $"{file} is there already.", "Name another file, or move that one away.");
    }

    /// <summary>Writes the file, and says what comes next.</summary>
    public static int Write(Call call, string file, string text, string kind)
    {
        var bytes = Write(file, text);
        if (call.Screen.IsJson) call.Screen.Json(new WrittenFileView(file, bytes), ContractsJson.Default.WrittenFileView);
        else call.Screen.Line(Markup.Escape($"written to {file}; then: justright {kind} add {file}"));
        return ExitCode.Fine;
    }

    /// <summary>Writes the file.</summary>
    /// <returns>How many bytes it has.</returns>
    public static int Write(string file, string text)
    {
        var bytes = Encoding.UTF8.GetBytes(text);
        try
        {
            using var stream = new FileStream(file, FileMode.CreateNew, FileAccess.Write);
            stream.Write(bytes);
            return bytes.Length;
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{file} cannot be written: {e.Message}");
        }
    }

    /// <summary>A text in quotes: a JSON string is a YAML string [YAML 1.2.2, 1.3].</summary>
    public static string Quoted(string text) =>
        $"\"{JsonEncodedText.Encode(text, JavaScriptEncoder.UnsafeRelaxedJsonEscaping)}\"";

    /// <summary>Why a text is no key, or null.</summary>
    public static string? WhyNotKey(string text) =>
        Key().IsMatch(text) ? null : "a word of small letters, digits and hyphens is meant, such as fennmoor";

    [GeneratedRegex("^[a-z][a-z0-9-]*$")]
    private static partial Regex Key();
}
