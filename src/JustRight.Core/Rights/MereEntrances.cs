namespace JustRight.Core.Rights;

/// <summary>
/// What is held beyond the needs, without what only lets the account in to what else it holds or needs there, and without what
/// everybody has who gets in: neither is excess by itself.
/// </summary>
public static class MereEntrances
{
    /// <summary>The rest.</summary>
    /// <param name="leaving">Whether all that is held goes: then what lets in goes too, but for what is needed.</param>
    public static IEnumerable<Held> Without(IReadOnlyList<Held> held, IReadOnlyList<Right> needed, bool leaving = false)
    {
        var told = held.Where(h => !h.IsEverybodys).ToList();
        IEnumerable<Right> used = leaving ? needed : held.Select(h => h.Right).Where(r => !r.OnlyLetsIn).Concat(needed);
        var doors = used.SelectMany(r => r.Entrances).Select(r => r.Key).ToHashSet(StringComparer.Ordinal);
        if (!leaving)
        {
            // The user is what is excess; the login only lets it in.
            foreach (var inner in told.Select(h => h.Right).Where(r => r.OnlyLetsIn && !doors.Contains(r.Key)).ToList())
                doors.UnionWith(inner.Entrances.Where(e => e != inner).Select(e => e.Key));
        }

        return told.Where(h => !(h.Right.OnlyLetsIn && doors.Contains(h.Right.Key)) && !h.Right.IsShadow(h, needed));
    }
}
