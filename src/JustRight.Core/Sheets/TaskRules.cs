using JustRight.Core.Faults;

namespace JustRight.Core.Sheets;

/// <summary>What must be so of the tasks of a sheet: each is there once, and what one waits for can come to be.</summary>
public static class TaskRules
{
    private static readonly string[] Reserved = [TaskNeed.Installed, TaskNeed.Account];

    /// <summary>The faults.</summary>
    public static IEnumerable<Fault> Check(Sheet sheet)
    {
        var tasks = sheet.Accounts
            .SelectMany(a => a.Needs.SelectMany((n, i) => n.Needs($"accounts.{a.Key}.needs[{i}]")))
            .Where(n => n.Need.Task is not null).ToList();
        var byKey = tasks.GroupBy(t => t.Need.Value).ToDictionary(g => g.Key, g => g.First().Need, StringComparer.Ordinal);
        foreach (var twice in tasks.GroupBy(t => t.Need.Value).Where(g => g.Count() > 1))
            yield return new Fault(
                "duplicate-name", twice.Last().Need.At, $"{twice.Last().Field}.task", $"Two tasks are called '{twice.Key}'.");
        foreach (var (need, field) in tasks)
        {
            if (Reserved.Contains(need.Value))
                yield return new Fault(
                    "reserved-name", need.At, $"{field}.task",
                    $"'{need.Value}' cannot be the name of a task: tasks wait for it.");
            foreach (var name in need.Task!.WaitsFor.Where(n => !byKey.ContainsKey(n) && !Reserved.Contains(n)))
                yield return new Fault(
                    "unknown-task", need.At, $"{field}.waits-for", $"No task of this sheet is called '{name}'.")
                {
                    Found = name,
                    Expected = "a task of this sheet, installed or account",
                    Nearest = Spelling.Nearest(name, [.. byKey.Keys, .. Reserved]),
                };
            if (Ring(need, byKey) is { } ring)
                yield return new Fault(
                    "cyclic-tasks", need.At, $"{field}.waits-for", $"'{need.Value}' waits for itself, and could never be done.")
                {
                    Found = string.Join(" -> ", ring),
                    Expected = "tasks that wait for others without a ring",
                };
        }
    }

    /// <summary>The way from a task back to itself, or null.</summary>
    private static List<string>? Ring(Need start, Dictionary<string, Need> byKey)
    {
        var path = new List<string> { start.Value };
        return Walk(start, []) ? path : null;

        bool Walk(Need task, HashSet<string> seen)
        {
            foreach (var name in task.Task!.WaitsFor)
            {
                path.Add(name);
                if (name == start.Value) return true;
                if (byKey.TryGetValue(name, out var next) && seen.Add(name) && Walk(next, seen)) return true;
                path.RemoveAt(path.Count - 1);
            }

            return false;
        }
    }
}
