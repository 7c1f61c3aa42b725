namespace JustRight.Core.Rights;

/// <summary>
/// What else an account could do with a right: the measure by which the plan prefers one alternative to another. Points say
/// only which is more; the reason says why.
/// </summary>
public readonly record struct RightReach(int Points, string Reason)
{
    /// <summary>From so many points on a right lets its holder become whatever there is in its database, or wider.</summary>
    public const int Ruling = 75;

    private const int Unknown = 100;

    /// <summary>The reach of a right of which nothing is known here.</summary>
    /// <param name="words">The right.</param>
    public static RightReach NotKnown(string words) => new(Unknown, $"the reach of {words} is not known here");

    /// <summary>The reach of several rights together: the widest counts first, the others only among equals.</summary>
    public static RightReach Together(IReadOnlyList<Right> rights)
    {
        if (rights.Count == 0) return new RightReach(0, "nothing is needed");
        var each = rights.Select(r => r.Reach).OrderByDescending(r => r.Points).ToList();
        return new RightReach((each[0].Points * 100) + Math.Min(99, each.Skip(1).Sum(r => r.Points) / 10), each[0].Reason);
    }
}
