using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using JustRight.Contracts;
using Spectre.Console;
using Spectre.Console.Rendering;

namespace JustRight.Cli.Output;

/// <summary>Writes results to standard output, and errors and progress to standard error.</summary>
internal sealed class Screen
{
    private const int WidthWithoutTerminal = 140;

    private static readonly JsonWriterOptions JsonWriting = new()
    {
        Indented = true,
        Encoder = System.Text.Encodings.Web.JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    private readonly Func<IReadOnlyList<JsonTypeInfo>> _shapes;
    private readonly Lazy<IAnsiConsole> _out = new(() => Create(Console.Out, Console.IsOutputRedirected));
    private readonly Lazy<IAnsiConsole> _error = new(() => Create(Console.Error, Console.IsErrorRedirected));

    /// <param name="json">Whether results are written as JSON.</param>
    /// <param name="shapes">What may be written as JSON.</param>
    public Screen(bool json, Func<IReadOnlyList<JsonTypeInfo>> shapes)
    {
        IsJson = json;
        _shapes = shapes;
    }

    public bool IsJson { get; }

    public IAnsiConsole Out => _out.Value;

    public IAnsiConsole Error => _error.Value;

    /// <summary>Whether a person watches, so that progress is worth drawing.</summary>
    public bool IsWatched => !IsJson && !Console.IsErrorRedirected;

    /// <summary>Writes a line of markup.</summary>
    public void Line(string markup = "") => Out.MarkupLine(markup);

    public void Write(IRenderable what) => Out.Write(what);

    /// <summary>Writes a result as indented JSON.</summary>
    /// <exception cref="InvalidOperationException">The command does not say that it answers this.</exception>
    public void Json<T>(T value, JsonTypeInfo<T> type)
    {
        if (!_shapes().Contains(type))
            throw new InvalidOperationException($"The command does not declare {ShapeWords.Of([type])}.");
        Write(value, type);
    }

    private static void Write<T>(T value, JsonTypeInfo<T> type)
    {
        using var stream = new MemoryStream();
        using (var writer = new Utf8JsonWriter(stream, JsonWriting)) JsonSerializer.Serialize(writer, value, type);
        Console.Out.WriteLine(PlainText.Of(Encoding.UTF8.GetString(stream.ToArray()), "\n")); // inside of its strings alone
    }

    /// <summary>Writes a text as it is into a file or a pipe; on a terminal, with what would act on it as escapes.</summary>
    public static void Text(string text) => Console.Out.Write(Console.IsOutputRedirected ? text : PlainText.Of(text, "\n\r\t"));

    /// <summary>Writes an error: what, where in the file, and how to fix it.</summary>
    public void Failure(string message, string? advice, IReadOnlyList<FaultView> faults)
    {
        if (IsJson)
        {
            Write(new ProblemView("urn:justright:client", message, 0, advice, faults), ContractsJson.Default.ProblemView);
            return;
        }

        Error.MarkupLine($"[bold]justright:[/] {Markup.Escape(message)}");
        foreach (var fault in faults)
        {
            var where = fault.Line == 0 ? fault.Field : $"{fault.File}:{fault.Line}:{fault.Column}";
            Error.MarkupLine($"  [bold]{Markup.Escape(where)}[/] {Markup.Escape(fault.Message)}");
            var more = new[]
            {
                fault.Line > 0 && fault.Field.Length > 0 ? $"at {fault.Field}" : null,
                fault.Found is null ? null : $"found {fault.Found}",
                fault.Expected is null ? null : $"expected {fault.Expected}",
                fault.Nearest is null ? null : $"did you mean '{fault.Nearest}'?",
            };
            var text = string.Join("; ", more.OfType<string>());
            if (text.Length > 0) Error.MarkupLine($"    {Markup.Escape(text)}");
        }

        if (advice is not null && faults.Count == 0) Error.MarkupLine($"  {Markup.Escape(advice)}");
    }

    /// <summary>A table without lines, for lists.</summary>
    public static Table List(params string[] heads)
    {
        var table = new Table().Border(TableBorder.None).Collapse();
        foreach (var head in heads)
            table.AddColumn(new TableColumn(new Markup($"[bold]{Markup.Escape(head)}[/]")) { Padding = new Padding(0, 0, 2, 0) });
        return table;
    }

    private static IAnsiConsole Create(TextWriter writer, bool redirected)
    {
        var console = AnsiConsole.Create(new AnsiConsoleSettings
        {
            Out = new AnsiConsoleOutput(writer),
            Ansi = redirected ? AnsiSupport.No : AnsiSupport.Detect,
            ColorSystem = redirected || Environment.GetEnvironmentVariable("NO_COLOR") is { Length: > 0 }
                ? ColorSystemSupport.NoColors
                : ColorSystemSupport.Detect,
        });
        if (redirected)
            console.Profile.Width = int.TryParse(Environment.GetEnvironmentVariable("COLUMNS"), out var columns) && columns >= 60
                ? columns
                : WidthWithoutTerminal;
        console.Profile.Capabilities.Unicode = true;
        console.Pipeline.Attach(new PlainRendering());
        return console;
    }
}
