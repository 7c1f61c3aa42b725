using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Core.Fit.Drift;

/// <summary>Which way a difference goes.</summary>
public enum DriftWay
{
    /// <summary>Something is missing, excess or forbidden that was not.</summary>
    Worse,

    /// <summary>It is other than before, and neither worse nor better.</summary>
    Other,

    /// <summary>Something that was missing or excess no longer is.</summary>
    Better,
}

/// <summary>One difference between two fits, in words.</summary>
/// <param name="Account">The account's logon name; empty where it is no account's.</param>
/// <param name="Right">The right and its place; empty where it is about an unread part.</param>
public sealed record DriftLine(DriftWay Way, string Account, string Right, string Words)
{
    private const string Arrow = " -> ";

    /// <summary>The id of what was judged; empty where it is no account's.</summary>
    public string Id { get; init; } = "";

    /// <summary>How much it weighs, where it is worse; null otherwise.</summary>
    public DriftSeverity? Severity { get; init; }

    /// <summary>For a password that was set: when; null otherwise.</summary>
    public DateTimeOffset? PasswordSetAt { get; init; }

    /// <summary>The paths by which it is held, and was.</summary>
    public IReadOnlyList<string> Paths { get; init; } = [];

    /// <summary>The same of a password that was set from here: who had it set knows where it is typed.</summary>
    public DriftLine SetHere(string by) => this with
    {
        Way = DriftWay.Other,
        Severity = null,
        Words = $"{Account}: its password was renewed here ({by})",
    };

    /// <summary>Whether one of the paths goes through an account or a group.</summary>
    /// <param name="name">Its logon name.</param>
    public bool Passes(string name) => Paths.SelectMany(p => p.Split(Arrow))
        .Any(step => string.Equals(LogonName.WithoutDomain(step), name, StringComparison.OrdinalIgnoreCase));
}

/// <summary>
/// The differences between two fits of one install: every right whose verdict or path is another, every one that came or went,
/// and the parts that can no longer be read, or can be read again. Nothing else: an age, or another wording of a reason, is no
/// difference.
/// </summary>
public static class FitDrift
{
    /// <summary>The differences, worst first, then in the order of the fits. None when nothing changed.</summary>
    public static IReadOnlyList<DriftLine> Between(KeptFit before, KeptFit after)
    {
        var was = before.Rights.ToDictionary(r => r.Id);
        var now = after.Rights.ToDictionary(r => r.Id);
        var lines = after.Rights.SelectMany(r => Lines(was.GetValueOrDefault(r.Id), r, after)).ToList();
        lines.AddRange(before.Rights.Where(r => !now.ContainsKey(r.Id)).Select(Gone));
        foreach (var account in after.Accounts ?? [])
            if (before.Accounts?.FirstOrDefault(a => a.Name == account.Name) is { } old) lines.AddRange(account.Since(old));
        var (there, here) = (before.UnexpectedMembers, after.UnexpectedMembers);
        lines.AddRange(here.Except(there).Select(s => Say(DriftWay.Worse, $"new: {s}")));
        lines.AddRange(there.Except(here).Select(s => Say(DriftWay.Better, $"no longer: {s}")));
        var (unread, wasUnread) = (after.OwnUnread(before), before.OwnUnread(after));
        lines.AddRange(unread.Except(wasUnread).Select(u => Say(DriftWay.Other, $"{u} can no longer be read")));
        lines.AddRange(wasUnread.Except(unread).Select(u => Say(DriftWay.Other, $"{u} can be read again")));
        return [.. lines.Select((l, i) => (l, i)).OrderBy(x => x.l.Way).ThenBy(x => x.i).Select(x => x.l)];
    }

    private static IEnumerable<DriftLine> Lines(KeptRight? was, KeptRight now, KeptFit after)
    {
        if (was is { LastSeen: not null } && now.Verdict != Verdict.Unseen)
        {
            // what it was before its place went out of sight is what it is compared with
            var since = Lines(was.Seen(), now, after).ToList();
            if (since.Count == 0) yield return Say(now, DriftWay.Other, "seen again, as before");
            foreach (var line in since) yield return line;
            yield break;
        }

        if (was is null)
            yield return now.Needed ? NewNeed(now) : NewHolding(now);
        else if (was.Verdict != now.Verdict)
            yield return Other(was, now, after) with { Paths = [.. was.Paths.Union(now.Paths)] };
        else if (OtherPaths(was, now) is { } paths)
            yield return paths with { Paths = [.. was.Paths.Union(now.Paths)] };
        if (CompareAccepted(was, now) is { } accepted) yield return accepted;
    }

    /// <summary>
    /// Another verdict. What was not seen before was neither well nor ill: to see it is never better; and what only stops being
    /// needed is better when it is no longer held, and not before.
    /// </summary>
    private static DriftLine Other(KeptRight was, KeptRight now, KeptFit after) => (was.Verdict, now.Verdict) switch
    {
        (_, Verdict.Unseen) => Say(now, DriftWay.Other, $"can no longer be seen: {now.Reason}"),
        (Verdict.Unseen, Verdict.Met or Verdict.Done or Verdict.Pending) => Say(now, DriftWay.Other, $"seen again: {now.Reason}"),
        (Verdict.Done, Verdict.Met) => Say(now, DriftWay.Other, $"needed again, and so{By(now)}"),
        (_, Verdict.Met) => Say(now, DriftWay.Better, $"as needed now{By(now)}"),
        (Verdict.Met, Verdict.Missing or Verdict.Pending) => Say(now, DriftWay.Worse, $"no longer so: {now.Reason}"),
        (_, Verdict.Missing) => Say(now, DriftWay.Worse, $"missing: {now.Reason}"),
        (_, Verdict.Pending) => Say(now, DriftWay.Other, now.Reason),
        (_, Verdict.Forbidden) => Say(now, DriftWay.Worse, $"forbidden now{By(now)}"),
        (Verdict.Forbidden, Verdict.Excess) =>
            Say(now, DriftWay.Other, $"no longer forbidden, and still not needed{By(now)}"),
        (_, Verdict.Excess) => Say(now, DriftWay.Worse, $"no longer needed{By(now)}"),
        (_, Verdict.Done) when IsHeld(now, after) || was.Paths.Count == 0 => Say(now, DriftWay.Other, now.Reason),
        (_, Verdict.Done) => Say(now, DriftWay.Better, $"gone: {now.Reason}"),
    };

    /// <summary>Whether a right is held: earlier fits say it of one that is not needed by what is excess alone.</summary>
    private static bool IsHeld(KeptRight right, KeptFit fit) =>
        right.Paths.Count > 0 || fit.Rights.Any(r => !r.Needed && r.Account == right.Account && r.Right == right.Right);

    private static DriftLine? OtherPaths(KeptRight was, KeptRight now)
    {
        if (was.Paths.SequenceEqual(now.Paths) || was.Paths.Count == 0 || now.Paths.Count == 0) return null;
        var fresh = now.Paths.Except(was.Paths).ToList();
        return Say(
            now, DriftWay.Other,
            fresh.Count > 0
                ? $"held by another path too: {string.Join("; ", fresh)}"
                : $"no longer held by {string.Join("; ", was.Paths.Except(now.Paths))}, and still held");
    }

    /// <summary>An exception that was made, or has ended while what it covered is still so.</summary>
    private static DriftLine? CompareAccepted(KeptRight? was, KeptRight now) =>
        was is null || was.Verdict != now.Verdict || was.Accepted == now.Accepted ? null
            : now.Accepted ? Say(now, DriftWay.Better, $"{Word(now)}, and accepted now")
            : Say(now, DriftWay.Worse, $"still {Word(now)}, and no longer accepted{By(now)}");

    private static string Word(KeptRight right) => right.Verdict.ToString().ToLowerInvariant();

    private static DriftLine NewHolding(KeptRight now)
    {
        var what = now.Verdict == Verdict.Forbidden ? "forbidden" : "nothing asks for it";
        return Say(now, DriftWay.Worse, $"new, and {what}{By(now)}");
    }

    private static DriftLine NewNeed(KeptRight now) => now.Verdict switch
    {
        Verdict.Missing => Say(now, DriftWay.Worse, $"needed now, and missing: {now.Reason}"),
        Verdict.Met => Say(now, DriftWay.Other, "needed now, and so"),
        Verdict.Pending or Verdict.Unseen or Verdict.Done => Say(now, DriftWay.Other, $"needed now: {now.Reason}"),
        Verdict.Excess or Verdict.Forbidden => throw new InvalidOperationException($"{now.Right} is {now.Verdict}, and no need."),
    };

    private static DriftLine Gone(KeptRight unseen)
    {
        var was = unseen.Seen();
        return was.Needed ? Say(was, DriftWay.Other, "no longer needed") : was.Verdict switch
        {
            Verdict.Unseen => Say(was, DriftWay.Other, "no longer in question"),
            Verdict.Forbidden => Say(was, DriftWay.Better, "gone; it was forbidden"),
            Verdict.Excess => Say(was, DriftWay.Better, "gone; nothing needed it"),
            Verdict.Met or Verdict.Missing or Verdict.Pending or Verdict.Done =>
                throw new InvalidOperationException($"{was.Right} is {was.Verdict}, and was no need."),
        };
    }

    private static DriftLine Say(KeptRight right, DriftWay way, string words) =>
        new(way, right.Account, right.Right, $"{right.Account}: {right.Right}: {words}")
        {
            Id = right.Id,
            Paths = right.Paths,
            Severity = way == DriftWay.Worse ? Weight(right.Verdict) : null,
        };

    private static DriftSeverity Weight(Verdict verdict) => verdict switch
    {
        Verdict.Forbidden => DriftSeverity.Forbidden,
        Verdict.Missing or Verdict.Pending or Verdict.Unseen => DriftSeverity.Missing,
        Verdict.Excess or Verdict.Met or Verdict.Done => DriftSeverity.Excess,
    };

    /// <summary>What is no account's.</summary>
    private static DriftLine Say(DriftWay way, string words) =>
        new(way, "", "", words) { Severity = way == DriftWay.Worse ? DriftSeverity.Excess : null };

    private static string By(KeptRight right) => right.Paths.Count == 0 ? "" : $": {right.Paths[0]}";
}
