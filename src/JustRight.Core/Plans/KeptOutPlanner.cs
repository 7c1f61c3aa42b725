using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>
/// What accounts are kept from on every host of an install: as the sheet says, and as the organization's rules say. A need of the
/// same account goes before, and the plan says so.
/// </summary>
internal sealed class KeptOutPlanner(Sheet sheet, Estate estate, PlaceMap places)
{
    private readonly List<string> _notes = [];

    /// <summary>Where a rule does not hold, and why.</summary>
    public IReadOnlyList<string> Notes => _notes;

    /// <summary>What the sheet keeps an account from.</summary>
    /// <param name="needed">What the plan gives the account.</param>
    public IEnumerable<PlannedGrant> OfSheet(SheetAccount account, IReadOnlyList<PlannedGrant> needed)
    {
        foreach (var type in account.KeptOut)
            foreach (var grant in On(account, type, account.KeptOutThrough, Why(type), account.KeptOutAt))
                if (NeededOf(grant, type, needed) is not { } need) yield return grant;
                else
                    _notes.Add(
                        $"{account.Key} is not kept from '{type}' on {grant.Right.Place} ({account.KeptOutAt}): "
                        + $"it needs that there ({need.At}).");
    }

    /// <summary>The organization's rules that hold for an account: those that keep it from nothing it needs.</summary>
    /// <param name="needed">What the plan gives the account.</param>
    public IReadOnlyList<KeptOutRule> RulesOf(SheetAccount account, IReadOnlyList<PlannedGrant> needed)
    {
        var holding = new List<KeptOutRule>();
        foreach (var rule in estate.Rules.KeptOut.Where(r => r.WorksAs.Contains(account.WorksAs)))
        {
            var need = rule.From.SelectMany(t => On(account, t, null, rule.Why, rule.At).Select(g => NeededOf(g, t, needed)))
                .FirstOrDefault(n => n is not null);
            if (need is null) holding.Add(rule);
            else
                _notes.Add(
                    $"The rule that keeps accounts from {string.Join(", ", rule.From)} ({rule.At}) does not hold for "
                    + $"{account.Key}: it needs {need.Right} ({need.At}).");
        }

        return holding;
    }

    /// <summary>What a rule keeps an account from.</summary>
    /// <param name="through">The key of the plan's group, or null.</param>
    public IEnumerable<PlannedGrant> OfRule(KeptOutRule rule, SheetAccount account, string? through) =>
        rule.From.SelectMany(type => On(account, type, through, rule.Why, rule.At));

    /// <summary>The fault of a rule whose group gives more than is good.</summary>
    public static IEnumerable<Fault> TooStrong(Estate estate) =>
        from rule in estate.Rules.KeptOut
        where rule.Through is not null
        let reach = AllEngines.Membership(estate.Domain.ShortName, rule.Through!).Reach
        where reach.Points >= RightReach.Ruling
        select new Fault(
            "strong-group", rule.At, "rules.kept-out.through",
            $"Accounts would be put into {rule.Through} to be kept out: {reach.Reason}.")
        {
            Expected = "a group that gives nothing else",
        };

    private IEnumerable<PlannedGrant> On(SheetAccount account, string type, string? through, string why, Origin at) =>
        from place in sheet.Places
        where place.Kind == PlaceKind.Host
        from spot in places[place.Key]
        let right = AllEngines.RightOf(Asked(NeedKind.KeptOut, type, place.Key, at), Spot(spot))
        select new PlannedGrant(
            $"{account.Key}/{right.Key}", account.Key, right, place.Key, through, GivenBy.Us, Until.Always, Team.Host, why,
                null, at);

    /// <summary>The log-on of the same type at the same place that the account needs, or null.</summary>
    private PlannedGrant? NeededOf(PlannedGrant kept, string type, IReadOnlyList<PlannedGrant> needed)
    {
        var spot = new Spot(kept.Right.OnHost!, null, null);
        var logon = AllEngines.RightOf(Asked(NeedKind.Logon, type, kept.Place, kept.At), Spot(spot));
        return needed.FirstOrDefault(n => n.Right == logon);
    }

    private AskedAt Spot(Spot spot) => new(spot, estate.Domain.ShortName, sheet.Title);

    private static Need Asked(NeedKind kind, string type, string? place, Origin at) =>
        new(kind, type, place, null, null, GivenBy.Us, Until.Always, null, null, null, at);

    private static string Why(string type) => $"its work does not need it to {LogonRights.Words(type)}";
}
