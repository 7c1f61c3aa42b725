using JustRight.Contracts;

namespace JustRight.Cli.Commands;

/// <summary>
/// Steps chosen from a list: those that a chosen one hangs on come along, and those that hang on one that is left out are left
/// out.
/// </summary>
/// <param name="Steps">The chosen ones, in order.</param>
/// <param name="Remarks">What came along, or was left out, by what hangs on what.</param>
internal sealed record StepChoice(IReadOnlyList<StepView> Steps, IReadOnlyList<string> Remarks)
{
    /// <summary>Chooses.</summary>
    /// <param name="ready">The steps that can be made, in order; they are counted from 1.</param>
    /// <param name="only">The numbers to make, with what those hang on; null for all.</param>
    /// <param name="without">The numbers not to make, nor what hangs on them.</param>
    public static StepChoice Of(IReadOnlyList<StepView> ready, IReadOnlySet<int>? only, IReadOnlySet<int> without)
    {
        var number = ready.Select((s, i) => (s.Number, i + 1)).ToDictionary(n => n.Number, n => n.Item2);
        var (chosen, remarks) = (new HashSet<int>(), new List<string>());
        for (var at = ready.Count; at >= 1; at--) // what a step hangs on stands before it
        {
            if (only is null || only.Contains(at)) chosen.Add(at);
            else if (Users(at).FirstOrDefault(chosen.Contains) is > 0 and var user)
            {
                chosen.Add(at);
                remarks.Insert(0, $"step {at} comes along, for step {user} hangs on it");
            }
        }

        var left = new HashSet<int>();
        foreach (var at in chosen.Order())
        {
            if (without.Contains(at)) left.Add(at);
            else if (On(at).FirstOrDefault(left.Contains) is > 0 and var missing)
            {
                left.Add(at);
                remarks.Add($"step {at} is left out too, for it hangs on step {missing}");
            }
        }

        return new StepChoice([.. chosen.Except(left).Order().Select(n => ready[n - 1])], remarks);

        IEnumerable<int> On(int at) => ready[at - 1].HangsOn.Where(number.ContainsKey).Select(n => number[n]);

        IEnumerable<int> Users(int at) => Enumerable.Range(at + 1, ready.Count - at).Where(n => On(n).Contains(at));
    }
}
