using JustRight.Core.Changes;

namespace JustRight.Core.Worklists.Undo;

/// <summary>Turns what was made into what undoes it.</summary>
public static class Undoing
{
    /// <summary>The first change that nothing undoes, or null.</summary>
    public static Change? FirstFinal(IEnumerable<Change> made) => made.FirstOrDefault(c => c.Inverse is null && !c.OnlySettles);

    /// <summary>
    /// What undoes the changes, last first. A restart or a refresh undoes nothing by itself: it is made again, after what it
    /// once made count has been set back.
    /// </summary>
    /// <param name="made">The changes in the order in which they were made; none of them final.</param>
    public static IReadOnlyList<Change> Of(IReadOnlyList<Change> made)
    {
        var undo = new List<Change>();
        var settle = made.Where(c => c.OnlySettles).ToList();
        foreach (var change in made.Where(c => !c.OnlySettles).Reverse())
        {
            undo.Add(change.Inverse!);
            if (change is SetServiceAccount set && settle.OfType<RestartService>().FirstOrDefault(
                r => r.Host == set.Host && r.Service == set.Service) is { } restart)
            {
                undo.Add(restart with { Account = set.OldAccount });
                settle.Remove(restart);
            }
        }

        return [.. undo, .. settle.Where(c => c is RestartService || made.Any(m => m is ChangePolicyList)).Select(
            c => c is RefreshPolicy refresh
            ? refresh with { Expect = [.. refresh.Expect.Select(e => e with { Holds = !e.Holds })] } : c)];
    }
}
