using System.CommandLine;
using JustRight.Cli.Api;
using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Commands;

/// <summary>
/// Adding a document that is there already: what it would change is shown, and for which installs, and whether to replace it is
/// asked. One that says the same is added without a question.
/// </summary>
internal sealed class Replacing
{
    private const int MostNamed = 10;

    private readonly Option<bool> _yes = new("--yes") { Description = "Do not ask before one is replaced; for scripts" };
    private readonly Option<bool> _list = new("--list") { Description = "Only say what would change, and for which installs" };

    /// <summary>The options of a command that adds a document.</summary>
    public Option[] Options => [_list, _yes];

    /// <summary>Whether to add it; otherwise the code to end with.</summary>
    /// <param name="kind"><c>sheet</c>, <c>estate</c> or <c>install</c>.</param>
    public async Task<int?> WhyNotAsync(Call call, string kind, string file)
    {
        var (yes, list) = (call.Parsed.GetValue(_yes), call.Parsed.GetValue(_list));
        if (yes && !list) return null;
        var would = await call.Api.PostFileAsync(
            $"documents/{kind}/replacing", file, ContractsJson.Default.ReplacingView, call.Cancel);
        if (list && call.Screen.IsJson) call.Screen.Json(would, ContractsJson.Default.ReplacingView);
        else if (list || would.Changes.Count > 0) Show(call.Screen, would);
        if (list) return would.Changes.Count > 0 ? ExitCode.Misfit : ExitCode.Fine;
        return would.Changes.Count == 0 || StepPrinter.Confirm(call.Screen, $"Replace {would.Name}?") ? null : ExitCode.Waits;
    }

    private static void Show(Screen screen, ReplacingView would)
    {
        if (screen.IsJson) return;
        if (!would.IsThere)
        {
            screen.Line(Markup.Escape($"{would.Name} is new."));
            return;
        }

        screen.Line(Markup.Escape(
            would.Changes.Count == 0
                ? $"{would.Name} is there and says the same."
                : $"{would.Name} is there. What would change:"));
        foreach (var change in would.Changes) screen.Line(Markup.Escape($"  {change}"));
        if (would.Changes.Count == 0 || would.Installs.Count == 0) return;
        var more = would.Installs.Count > MostNamed ? $" and {would.Installs.Count - MostNamed} more" : "";
        screen.Line(Markup.Escape($"for {string.Join(", ", would.Installs.Take(MostNamed))}{more}"));
    }
}
