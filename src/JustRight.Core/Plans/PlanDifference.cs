using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>How a need of one release stands to the other's.</summary>
public enum NeedChange
{
    /// <summary>Only the later release needs it.</summary>
    Anew,

    /// <summary>Only the former release needs it.</summary>
    NoMore,

    /// <summary>Both need it, but in another way.</summary>
    Differently,
}

/// <summary>Something that two plans of one install do not need alike.</summary>
/// <param name="Subject">The account or group by name.</param>
/// <param name="What">The account, the group or the right, in words.</param>
/// <param name="Place">Where it is a right; empty for accounts and groups.</param>
/// <param name="How">For what is needed differently: what was, and what is; empty otherwise.</param>
/// <param name="At">The line of the sheet that asks for it, or that did.</param>
public sealed record NeedDifference(
    NeedChange Change, string Subject, string What, string Place, string How, Faults.Origin At);

/// <summary>
/// What another release of a product needs anew, no more and differently. Accounts and groups are the same where their names
/// are; rights where account and right are.
/// </summary>
public static class PlanDifference
{
    /// <summary>
    /// The differences: accounts and groups first, then their rights; each in the order of the later plan, then of the former
    /// one.
    /// </summary>
    public static IReadOnlyList<NeedDifference> Of(Plan before, Plan after) =>
    [
        .. Of(before.Accounts, after.Accounts, a => a.Name, a => new Told(a.Name, "account", "", a.At), AccountWays),
        .. Of(before.Groups, after.Groups, g => g.Name, g => new Told(g.Name, "group", "", g.At), GroupWays),
        .. Of(
            Held(before), Held(after), h => $"{h.Name}\n{h.Grant.Right.Key}",
            h => new Told(h.Name, h.Grant.Right.Words, h.Grant.Right.Place, h.Grant.At), GrantWays),
    ];

    private sealed record Told(string Subject, string What, string Place, Faults.Origin At)
    {
        public NeedDifference As(NeedChange change, string how = "") => new(change, Subject, What, Place, how, At);
    }

    private sealed record HeldBy(string Name, PlannedGrant Grant, string? Through);

    private static IReadOnlyList<HeldBy> Held(Plan plan)
    {
        var names = plan.Accounts.ToDictionary(a => a.Key, a => a.Name);
        var groups = plan.Groups.ToDictionary(g => g.Key, g => g.Name);
        return [.. plan.Grants.Select(g => new HeldBy(
            names[g.Account], g, g.Through is { } through ? groups.GetValueOrDefault(through) ?? through : null))];
    }

    private static IEnumerable<NeedDifference> Of<T>(
        IReadOnlyList<T> before, IReadOnlyList<T> after, Func<T, string> identity, Func<T, Told> told,
        Func<T, IEnumerable<(string Is, string Words)>> ways)
    {
        var old = ByIdentity(before, identity);
        var now = ByIdentity(after, identity);
        foreach (var (id, one) in now)
        {
            if (!old.TryGetValue(id, out var was))
            {
                yield return told(one).As(NeedChange.Anew);
                continue;
            }

            var how = ways(was).Zip(ways(one)).Where(w => w.First.Words != w.Second.Words)
                .Select(w => $"{w.First.Is}: was {w.First.Words}, is {w.Second.Words}").ToList();
            if (how.Count > 0) yield return told(one).As(NeedChange.Differently, string.Join("; ", how));
        }

        foreach (var (id, one) in old)
            if (!now.ContainsKey(id))
                yield return told(one).As(NeedChange.NoMore);
    }

    /// <summary>One account may stand for several of the sheet: it is told once.</summary>
    private static Dictionary<string, T> ByIdentity<T>(IReadOnlyList<T> all, Func<T, string> identity)
    {
        var found = new Dictionary<string, T>(StringComparer.OrdinalIgnoreCase);
        foreach (var one in all) found.TryAdd(identity(one), one);
        return found;
    }

    private static IEnumerable<(string Is, string Words)> AccountWays(PlannedAccount account) =>
    [
        ("works as", WorksAsWords.Of(account.WorksAs)),
        ("password never expires", YesNo(account.PasswordNeverExpires)),
        ("password cannot be changed by itself", YesNo(account.PasswordCannotChange)),
    ];

    private static IEnumerable<(string Is, string Words)> GroupWays(PlannedGroup group) =>
    [
        ("scope", group.Scope.ToString().ToLowerInvariant()),
        ("closed", YesNo(group.Closed)),
    ];

    private static IEnumerable<(string Is, string Words)> GrantWays(HeldBy held) =>
    [
        ("given by", held.Grant.GivenBy == GivenBy.Setup ? "setup" : "us"),
        ("until", held.Grant.Until == Until.Installed ? "installed" : "always"),
        ("through", held.Through ?? "nothing"),
        ("made by setup", YesNo(held.Grant.MadeBySetup)),
    ];

    private static string YesNo(bool yes) => yes ? "yes" : "no";
}
