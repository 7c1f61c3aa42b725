namespace JustRight.Core.Rights;

/// <summary>Whether what is held can be used.</summary>
public enum GateState
{
    /// <summary>It counts.</summary>
    Open,

    /// <summary>It is denied, or nothing lets its holder in to use it.</summary>
    Shut,

    /// <summary>Something that was not read could shut it.</summary>
    Unseen,
}

/// <summary>What stands between an account and a right that it holds.</summary>
/// <param name="Why">Why it is shut, or why that is not known; empty while it is open, and where denials say it.</param>
/// <param name="Denials">The denials that shut it, with the node each hangs on.</param>
public sealed record Gate(GateState State, string Why, IReadOnlyList<(int Node, RightTail Tail)> Denials)
{
    /// <summary>Nothing stands between.</summary>
    public static Gate Open { get; } = new(GateState.Open, "", []);

    /// <summary>It cannot be used.</summary>
    public static Gate Shut(string why) => new(GateState.Shut, why, []);

    /// <summary>What denies it, by the shortest path: a group that the account is in, or an entry of its own.</summary>
    /// <param name="through">The paths by which it is denied, the shortest first.</param>
    public static string DeniedBy(IReadOnlyList<RightPath> through, SurveyView view) =>
        $"denied by {(through[0].Nodes.Count > 1 ? view.Graph.NameOf(through[0].Nodes[^1]) : "a direct entry")}";

    /// <summary>It is denied.</summary>
    public static Gate Denied(IReadOnlyList<(int Node, RightTail Tail)> denials) => new(GateState.Shut, "", denials);

    /// <summary>Of several ways the best: one that is open is enough, and one that is not known may be. Null of none.</summary>
    public static Gate? BestOf(IEnumerable<Gate> gates)
    {
        Gate? best = null;
        foreach (var gate in gates)
        {
            if (gate.State == GateState.Open) return gate;
            if (best is null || (best.State == GateState.Shut && gate.State == GateState.Unseen)) best = gate;
        }

        return best;
    }

    /// <summary>Whether it can be used is not known.</summary>
    public static Gate Unseen(string why) => new(GateState.Unseen, why, []);
}
