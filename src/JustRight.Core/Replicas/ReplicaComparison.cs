namespace JustRight.Core.Replicas;

/// <summary>Whether controllers agree on an object, and if not, which is behind and by what.</summary>
/// <param name="Agree">Whether every controller that was asked has the same.</param>
/// <param name="Newest">The controller that has the newest of every attribute, or null when none has, or none was read.</param>
/// <param name="Others">The others that were read, with what they lack.</param>
/// <param name="Unread">Controllers that could not be asked, with the reason.</param>
public sealed record ReplicaComparison(
    bool Agree, string? Newest, IReadOnlyList<ReplicaLag> Others, IReadOnlyList<(string Controller, string Reason)> Unread)
{
    /// <summary>Compares.</summary>
    public static ReplicaComparison Of(IReadOnlyList<ReplicaObject> replicas)
    {
        var read = replicas.Where(r => r.Unread is null).ToList();
        var unread = replicas.Where(r => r.Unread is not null).Select(r => (r.Controller, r.Unread!)).ToList();
        if (read.Count == 0) return new ReplicaComparison(false, null, [], unread);
        var newest = read.FirstOrDefault(r => read.All(o => Behind(r, o) == 0)) ?? read[0];
        var isNewest = read.All(o => Behind(newest, o) == 0);
        var lags = read.Where(r => r != newest)
            .Select(r => new ReplicaLag(r.Controller, r.Found, Different(newest, r), Behind(r, newest), Delay(r, newest)))
            .ToList();
        return new ReplicaComparison(
            lags.All(l => l.Attributes.Count == 0 && l.Found == newest.Found && l.ChangesBehind == 0),
            isNewest ? newest.Controller : null, lags, unread);
    }

    /// <summary>
    /// How many attributes one controller has in an older version than another. The time decides only where all versions are the
    /// same and values differ: each controller stamps the naming attribute itself when it gets the object.
    /// </summary>
    private static int Behind(ReplicaObject one, ReplicaObject other)
    {
        var older = Older(one, other);
        if (older > 0 || Older(other, one) > 0 || one.Stamps.Count == 0 || Different(one, other).Count == 0) return older;
        return one.Stamps.Max(s => s.ChangedAt) < other.Stamps.Max(s => s.ChangedAt) ? 1 : 0;
    }

    private static int Older(ReplicaObject one, ReplicaObject other)
    {
        var own = one.Stamps.ToDictionary(s => s.Attribute);
        return other.Stamps.Count(s => !own.TryGetValue(s.Attribute, out var mine) || mine.Version < s.Version);
    }

    /// <summary>How much later the newest change is on the other.</summary>
    private static TimeSpan Delay(ReplicaObject one, ReplicaObject newest)
    {
        if (newest.Stamps.Count == 0 || one.Stamps.Count == 0) return TimeSpan.Zero;
        var delay = newest.Stamps.Max(s => s.ChangedAt) - one.Stamps.Max(s => s.ChangedAt);
        return delay < TimeSpan.Zero ? TimeSpan.Zero : delay;
    }

    private static List<string> Different(ReplicaObject one, ReplicaObject other) =>
    [
        .. one.Attributes.Keys.Union(other.Attributes.Keys, StringComparer.OrdinalIgnoreCase)
            .Where(a => !one.Attributes.GetValueOrDefault(a, []).SequenceEqual(other.Attributes.GetValueOrDefault(a, [])))
            .Order(StringComparer.OrdinalIgnoreCase),
    ];
}

/// <summary>What a controller lacks against the newest one.</summary>
/// <param name="Found">Whether the object is there at all.</param>
/// <param name="Attributes">The attributes whose values differ.</param>
/// <param name="ChangesBehind">How many attributes it has in an older version.</param>
/// <param name="Delay">How much later the newest change is on the newest controller.</param>
public sealed record ReplicaLag(
    string Controller, bool Found, IReadOnlyList<string> Attributes, int ChangesBehind, TimeSpan Delay);
