namespace JustRight.Core.Changes;

/// <summary>Which changes of a list hang on earlier ones: what they need, those make.</summary>
public static class ChangeLinks
{
    /// <summary>For each change, the places in the list of those that it hangs on, all before it.</summary>
    public static IReadOnlyList<IReadOnlyList<int>> Of(IReadOnlyList<Change> changes)
    {
        var makers = new Dictionary<string, List<int>>(StringComparer.Ordinal);
        var links = new List<IReadOnlyList<int>>(changes.Count);
        for (var i = 0; i < changes.Count; i++)
        {
            links.Add([.. changes[i].RestsOn.SelectMany(t => makers.GetValueOrDefault(t) ?? []).Distinct().Order()]);
            foreach (var thing in changes[i].Makes.Distinct())
            {
                if (!makers.TryGetValue(thing, out var those)) makers[thing] = those = [];
                those.Add(i);
            }
        }

        return links;
    }
}
