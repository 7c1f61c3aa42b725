namespace JustRight.Core.Rights;

/// <summary>Denials of a right, for the engines whose places have them.</summary>
public static class Denials
{
    /// <summary>Those that reach an account, with the node each hangs on.</summary>
    public static IReadOnlyList<(int Node, RightTail Tail)> Of(SurveyView view, Right right, Holdings holdings) =>
    [
        .. view.Index.DeniedFor(right).Where(t => holdings.Reaches(t.Holder))
            .Select(t => (Node: view.Graph.IndexOf(t.Holder), Tail: t)),
    ];

    /// <summary>Why it cannot be known whether a right is denied to an account, or null.</summary>
    /// <param name="account">The account's node.</param>
    public static string? WhyUnseen(SurveyView view, Right right, int account)
    {
        var denied = view.Index.DeniedFor(right).Select(t => view.Graph.IndexOf(t.Holder)).ToList();
        foreach (var node in denied)
            if (view.Graph.UnreadReach.TryGetValue(node, out var group))
                return $"the members of {group} could not be read, and a deny may come through them";
        if (!denied.Any(n => n < 0 || view.Graph.IsNameless(n))) return null;
        return view.Graph.HiddenGroupOf(account) is { } hidden
            ? $"it is in {hidden}, which may not be read, and a deny may come through that group"
            : right.WhyEntrantsUnread(view) is { } why ? $"{why}, and a deny may come that way" : null;
    }
}
