using JustRight.Cli.Api;
using Spectre.Console;

namespace JustRight.Cli.Output;

/// <summary>
/// Asks a person for one thing after another: the question and what stands when nothing is said go to standard error, the answers
/// come from standard input, a line each. A person who slips is asked again; a script is told which answer was wrong.
/// </summary>
internal sealed class Answers(Screen screen)
{
    private int _number;

    /// <summary>One answer.</summary>
    /// <param name="otherwise">What stands when nothing is said; null where something must be.</param>
    /// <param name="whyNot">Why an answer will not do, or null when it will.</param>
    public string Ask(string question, string? otherwise, Func<string, string?> whyNot)
    {
        while (true)
        {
            _number++;
            screen.Error.Markup(Markup.Escape(
                otherwise is null ? $"{question}: " : $"{question} [{(otherwise.Length == 0 ? "none" : otherwise)}]: "));
            var line = Console.ReadLine()
                ?? throw new ClientException(ExitCode.BadInput, $"The input ended at question {_number}: {question}.");
            var answer = line.Trim().Length > 0 ? line.Trim() : otherwise;
            var wrong = answer is null ? "something must be said here" : answer.Length == 0 ? null : whyNot(answer);
            if (wrong is null) return answer!;
            if (Console.IsInputRedirected)
                throw new ClientException(ExitCode.BadInput, $"Answer {_number} ({question}) will not do: {wrong}.");
            screen.Error.MarkupLine(Markup.Escape($"  {wrong}"));
        }
    }

    /// <summary>One of some words.</summary>
    public string AskOneOf(string question, string? otherwise, IReadOnlyList<string> words) =>
        Ask($"{question} ({string.Join(", ", words)})", otherwise, a => words.Contains(a) ? null : NotOneOf(a, words));

    /// <summary>Several, parted by commas.</summary>
    public IReadOnlyList<string> AskSeveral(string question, string? otherwise, Func<string, string?> whyNot) =>
        Parted(Ask($"{question}, parted by commas", otherwise, a =>
            Parted(a).Select(whyNot).FirstOrDefault(w => w is not null)));

    /// <summary>Why an answer is none of those that would do.</summary>
    public static string NotOneOf(string answer, IReadOnlyList<string> words) =>
        $"'{answer}' is none of {string.Join(", ", words)}";

    /// <summary>The parts of a text that commas part.</summary>
    public static IReadOnlyList<string> Parted(string text) =>
        text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);
}
