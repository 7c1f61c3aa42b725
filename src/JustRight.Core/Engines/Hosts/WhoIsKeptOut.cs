using JustRight.Core.Rights;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Whom a denial reaches besides the account that it is meant for.</summary>
internal static class WhoIsKeptOut
{
    private const int MostNamed = 3;

    /// <summary>Why a holder is not put on a list of those denied; null when it can be.</summary>
    /// <param name="stops">Whether the denial stops a right that somebody needs.</param>
    public static string? WhyNot(Giving giving, string holder, Func<Right, SurveyView, bool> stops)
    {
        var node = giving.View.Graph.IndexOf(holder);
        if (node >= 0 && (giving.View.Graph.Baseline.Contains(node) || giving.View.Graph.Everybody.Contains(node)))
            return $"everybody in the domain is in {holder}: nobody could log on any more";
        foreach (var one in giving.WhoIsIn(holder))
        {
            if (one.IsPerson) return $"it would keep out {one.Name}, who is a person";
            if (one.Needs.FirstOrDefault(n => stops(n.Right, giving.View)) is { Right: { } right } needed)
                return $"it would keep {one.Name} from {right}, which {needed.Install} needs";
        }

        return null;
    }

    /// <summary>Those of whom nothing is known here and who are kept out with the account, in words; null for nobody.</summary>
    public static string? Others(Giving giving)
    {
        var others = giving.WhoIsIn(giving.Holder).Where(o => o.IsUnknown).Select(o => o.Name).ToList();
        if (others.Count == 0) return null;
        var more = others.Count > MostNamed ? $" and {others.Count - MostNamed} others" : "";
        return $"keeps out {string.Join(", ", others.Take(MostNamed))}{more} too, "
            + $"who {(others.Count == 1 ? "is" : "are")} in {giving.Holder} and in no install";
    }
}
