namespace JustRight.Core.Fit.Drift;

/// <summary>A fit as it is kept: what it said of each right, in words, so that it can be compared years later.</summary>
/// <param name="Rights">Each right that was judged, by id.</param>
/// <param name="UnexpectedMembers">What was excess at a place and is no account's right.</param>
/// <param name="Unread">The parts that could not be read.</param>
public sealed record KeptFit(
    string Install, DateTimeOffset SurveyedAt, FitCounts Counts, string Words, IReadOnlyList<KeptRight> Rights,
    IReadOnlyList<string> UnexpectedMembers, IReadOnlyList<string> Unread)
{
    /// <summary>The unread parts with the places that they are of; null in fits that were kept by earlier releases.</summary>
    public IReadOnlyList<KeptPart>? Parts { get; init; }

    /// <summary>The accounts themselves; null in fits that were kept by earlier releases.</summary>
    public IReadOnlyList<KeptAccount>? Accounts { get; init; }

    /// <summary>What is kept of a fit.</summary>
    public static KeptFit Of(InstallFit fit) => new(
        fit.Plan.Install, fit.SurveyedAt, fit.Counts, fit.Words,
        [.. fit.Accounts.SelectMany(a => a.Judgements.Select(j => KeptRight.Of(a.Account.Name, j)))],
        [.. fit.Findings.Where(f => f.IsExcess).Select(f => $"{f.Place}: {f.Text}")],
        [.. fit.UnreadParts.Select(c => c.Place).Distinct()])
    {
        Accounts = [.. fit.Accounts.Select(KeptAccount.Of)],
        Parts = [.. fit.UnreadParts.Select(c => new KeptPart(c.Place, c.Of)).Distinct()],
    };

    /// <summary>
    /// The fit with what the one before it saw where this one could not look: a place that does not answer is no change.
    /// </summary>
    public KeptFit After(KeptFit before)
    {
        var was = before.Rights.ToDictionary(r => r.Id);
        var now = Rights.Select(r => r.Id).ToHashSet();
        var dark = NewlyUnread(before);
        var hidden = before.Rights.Where(r => !now.Contains(r.Id) && !r.Needed && IsHidden(r, dark));
        return this with
        {
            Rights =
            [
                .. Rights.Select(r => was.TryGetValue(r.Id, out var old) ? r.After(old) : r), .. hidden.Select(r => r.Hidden()),
            ],
            Accounts = Accounts is null ? null
                : [.. Accounts.Select(a => a.After(before.Accounts?.FirstOrDefault(b => b.Name == a.Name)))],
            UnexpectedMembers = dark.Contains("") || (before.WasDark && Has(""))
                ? [.. UnexpectedMembers.Union(before.UnexpectedMembers)]
                : UnexpectedMembers,
            WasDark = dark.Contains("") || (before.WasDark && Has("")),
        };
    }

    /// <summary>Whether who is in the groups of the plan is told from before, since the directory could not be read.</summary>
    public bool WasDark { get; init; }

    /// <summary>The places of which something can no longer be read that could be read before.</summary>
    private HashSet<string> NewlyUnread(KeptFit before) => Parts is null ? [] :
        [.. Parts.Where(p => !before.Unread.Contains(p.Place)).Select(p => p.Of.ToUpperInvariant())];

    private bool IsHidden(KeptRight right, HashSet<string> dark) => right.At is { } at
        && (dark.Contains(at.ToUpperInvariant()) || (right is { Verdict: Verdict.Unseen, LastSeen: not null } && Has(at)));

    private bool Has(string at) => Parts?.Any(p => string.Equals(p.Of, at, StringComparison.OrdinalIgnoreCase)) == true;

    /// <summary>The unread parts of places that one of its rights is at, and of the directory.</summary>
    internal IReadOnlyList<string> OwnUnread(KeptFit other)
    {
        if (Parts is null || other.Parts is null) return Unread;
        var places = Rights.Concat(other.Rights).Select(r => r.At).OfType<string>().Append("")
            .ToHashSet(StringComparer.OrdinalIgnoreCase);
        return [.. Parts.Where(p => places.Contains(p.Of)).Select(p => p.Place)];
    }
}

/// <summary>A part that could not be read.</summary>
/// <param name="Of">The host or the instance that it is a part of; empty for parts of the directory.</param>
public sealed record KeptPart(string Place, string Of);

/// <summary>What a fit said of one right.</summary>
/// <param name="Account">The account's logon name.</param>
/// <param name="Right">The right and its place, in words.</param>
/// <param name="Needed">Whether a need asks for it, an account's own needs among them.</param>
/// <param name="Paths">How it is held, in a fixed order.</param>
public sealed record KeptRight(
    string Id, string Account, string Right, bool Needed, Verdict Verdict, string Reason, IReadOnlyList<string> Paths)
{
    /// <summary>Whether an exception covered it.</summary>
    public bool Accepted { get; init; }

    /// <summary>The host or the instance it is at; empty for the directory, null in fits of earlier releases.</summary>
    public string? At { get; init; }

    /// <summary>For one that is not seen now: what it was when it was last seen; null when it never was.</summary>
    public Verdict? LastSeen { get; init; }

    /// <summary>And the paths by which it was held then.</summary>
    public IReadOnlyList<string> LastPaths { get; init; } = [];

    /// <summary>What is kept of a judgement.</summary>
    internal static KeptRight Of(string account, Judgement judgement) => new(
        judgement.Id, account, judgement.Right.ToString() ?? "", judgement.Verdict is not (Verdict.Excess or Verdict.Forbidden),
        judgement.Verdict, judgement.Reason, [.. judgement.Paths.Select(p => p.ToString()).Order(StringComparer.Ordinal)])
    {
        Accepted = judgement.Accepted is not null,
        At = judgement.Right.OnHost ?? judgement.Right.AtInstance ?? "",
    };

    /// <summary>With what it was when it was last seen, where it is not seen now.</summary>
    internal KeptRight After(KeptRight old)
    {
        if (Verdict != Verdict.Unseen) return this;
        var last = old.Verdict == Verdict.Unseen ? (old.LastSeen, old.LastPaths) : (old.Verdict, old.Paths);
        return this with { LastSeen = last.Item1, LastPaths = last.Item2, Needed = Needed && old.Needed };
    }

    /// <summary>One that is held, or was, at a place that could not be read.</summary>
    internal KeptRight Hidden() => Verdict == Verdict.Unseen ? this : this with
    {
        Verdict = Verdict.Unseen,
        Reason = "its place could not be read",
        Paths = [],
        LastSeen = Verdict,
        LastPaths = Paths,
    };

    /// <summary>As it was when it was last seen; itself where it is seen, or never was.</summary>
    internal KeptRight Seen() =>
        this is { Verdict: Verdict.Unseen, LastSeen: { } last }
            ? this with { Verdict = last, Paths = LastPaths, LastSeen = null }
            : this;
}
