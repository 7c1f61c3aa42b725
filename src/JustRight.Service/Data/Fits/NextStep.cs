using JustRight.Core.Changes;
using JustRight.Core.Installs;
using JustRight.Core.Sheets;
using JustRight.Core.Worklists;

namespace JustRight.Service.Data.Fits;

/// <summary>What comes next for an install, and whose turn it is, in a few words.</summary>
internal static class NextStep
{
    /// <summary>The words for a list.</summary>
    public static string Words(JudgedInstall? judged)
    {
        if (judged is null) return "verify";
        if (Ready(judged.Worklist.Give) is { Count: > 0 } give) return $"grant {give.Count} ({Teams(give)})";
        if (judged.Worklist.Give.Where(s => s.Change is not (ProductChange or DoTask)).ToList() is { Count: > 0 } blocked)
            return $"{blocked.Count} blocked: {blocked[0].Blocked}";
        if (Ready(judged.Worklist.Remove) is { Count: > 0 } remove) return $"remove {remove.Count} ({Teams(remove)})";
        if (judged.Worklist.Give.Concat(judged.Worklist.Remove).Count(s => s.Change is ProductChange) is > 0 and var inside)
            return $"confirm {inside} inside the product";
        if (judged.Worklist.Give.Count(s => s.Change is DoTask) is > 0 and var tasks)
            return $"do {tasks} {(tasks == 1 ? "task" : "tasks")}";
        if (judged.Fit.Plan.Stage == Stage.Retiring && judged.Worklist.Remove is [var wait, ..])
            return $"{judged.Worklist.Remove.Count} wait: {wait.Blocked}";
        if (judged.Fit.Counts.AnyMissing) return "find out why: no step would fix it";
        if (judged.Fit.Counts.AnyExcess) return "decide on the excess rights";
        if (judged.Fit.Counts.Pending > 0) return "run the product's setup";
        return judged.Fit.Counts.Unseen > 0 ? "read what is unseen" : "nothing";
    }

    private static List<Step> Ready(IReadOnlyList<Step> steps) => [.. steps.Where(s => s.Blocked is null)];

    private static string Teams(List<Step> steps) =>
        string.Join(", ", steps.Select(s => s.Change.Team).Distinct().Order().Select(TeamName));

    /// <summary>A team's name.</summary>
    public static string TeamName(Team team) => team.ToString().ToLowerInvariant();
}
