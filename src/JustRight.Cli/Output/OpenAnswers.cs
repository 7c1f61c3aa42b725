using JustRight.Cli.Api;
using JustRight.Contracts;

namespace JustRight.Cli.Output;

/// <summary>Asks what a sheet leaves open, with what would do.</summary>
internal static class OpenAnswers
{
    /// <summary>The answers to one question.</summary>
    public static IReadOnlyList<string> Ask(Answers answers, AskedView question)
    {
        var ask = char.ToUpperInvariant(question.Asks[0]) + question.Asks[1..];
        if (question.Known.Count > 0) ask += $" ({string.Join(", ", question.Known)})";
        if (question.AtMost == 1) return [answers.Ask(ask, question.Default, a => WhyNot(a, question))];
        var many = answers.AskSeveral(ask, question.Default, a => WhyNot(a, question));
        return many.Count >= question.AtLeast && many.Count <= question.AtMost ? many
            : throw new ClientException(
                ExitCode.BadInput,
                $"{question.Field} takes {question.AtLeast} to {question.AtMost}, and {many.Count} were said.");
    }

    private static string? WhyNot(string answer, AskedView question) =>
        question.Known.Count == 0 || question.Known.Contains(answer, StringComparer.OrdinalIgnoreCase) ? null
            : Answers.NotOneOf(answer, question.Known);
}
