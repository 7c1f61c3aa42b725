using System.Globalization;
using JustRight.Core.Conditions;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Core.Installs;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;

namespace JustRight.Core.Plans;

/// <summary>Turns the needs of a sheet's account into grants at concrete spots, choosing among alternatives.</summary>
internal sealed class NeedExpander(
    Sheet sheet, Estate estate, Install install, PlaceMap places, NameIndex nameIndex, List<Fault> faults)
{
    private readonly List<Decision> _decisions = [];
    private readonly HashSet<string> _known = [];
    private readonly Dictionary<string, Fault> _noSuchAlternative = new(StringComparer.Ordinal);
    private readonly HashSet<string> _chosen = new(StringComparer.Ordinal);
    private PlaceMap? _narrowed;
    private string? _spot;

    /// <summary>The places as far as they matter where needs are being laid out.</summary>
    private PlaceMap Here => _narrowed ?? places;

    /// <summary>The decisions taken so far, in the order of the sheet.</summary>
    public IReadOnlyList<Decision> Decisions => _decisions;

    /// <summary>Every decision an install may choose in, as <c>account.name</c>.</summary>
    public IReadOnlyCollection<string> KnownDecisions => _known;

    /// <summary>Choices of the install that name no alternative at any spot.</summary>
    public IEnumerable<Fault> NoSuchAlternatives => _noSuchAlternative.Where(f => !_chosen.Contains(f.Key)).Select(f => f.Value);

    /// <summary>The grants of one account.</summary>
    public IReadOnlyList<PlannedGrant> Expand(SheetAccount account)
    {
        var grants = new List<PlannedGrant>();
        foreach (var clause in account.Needs) grants.AddRange(EachSpot(account, clause));
        return grants;
    }

    /// <summary>
    /// Where needs that hang on a condition or on a choice apply at one place with several spots, each spot has its own answer:
    /// two
    /// instances may have different releases.
    /// </summary>
    private IReadOnlyList<PlannedGrant> EachSpot(SheetAccount account, NeedClause clause)
    {
        var several = clause.Needs().Select(n => n.Need.Place).OfType<string>().Distinct().Where(p => places[p].Count > 1).ToList();
        if (several is not [var place] || !HasChoice(clause)) return Expand(account, clause, null);
        var grants = new List<PlannedGrant>();
        foreach (var spot in places[place])
        {
            (_narrowed, _spot) = (places.At(place, spot), spot.Name);
            grants.AddRange(Expand(account, clause, null));
        }

        (_narrowed, _spot) = (null, null);
        return grants;
    }

    private static bool HasChoice(NeedClause clause) => clause.When is not null || clause switch
    {
        Need => false,
        AllOf all => all.Parts.Any(HasChoice),
        AnyOf => true,
        _ => throw new InvalidOperationException($"Unknown clause {clause.GetType().Name}."),
    };

    private IReadOnlyList<PlannedGrant> Expand(SheetAccount account, NeedClause clause, string? decision)
    {
        if (clause.When is { } when && Applies(when) != true) return [];
        return clause switch
        {
            Need need => Expand(account, need, decision),
            AllOf all => [.. all.Parts.SelectMany(p => Expand(account, p, decision))],
            AnyOf any => Choose(account, any),
            _ => throw new InvalidOperationException($"Unknown clause {clause.GetType().Name}."),
        };
    }

    private bool? Applies(Condition when)
    {
        var applies = ConditionEvaluator.Evaluate(when, Here.Value);
        if (applies is not null) return applies;
        var missing = Names(when).FirstOrDefault(n => Here.Value(n) is null) ?? "a value";
        var fault = new Fault(
            "condition-unknown", when.At, "when",
            $"This condition depends on '{missing}', which neither the estate nor the install states.")
        {
            Expected = missing.EndsWith(".release", StringComparison.Ordinal)
                ? "a release on the instance in the estate" : "the facts it rests on",
        };
        if (!faults.Contains(fault)) faults.Add(fault); // at each spot the same
        return null;
    }

    private List<PlannedGrant> Expand(SheetAccount account, Need need, string? decision)
    {
        var row = NeedKinds.ByKind[need.Kind];
        var grants = new List<PlannedGrant>();
        foreach (var right in Rights(need))
        {
            var grant = new PlannedGrant(
                $"{account.Key}/{right.Key}", account.Key, right, need.Place, need.Through, need.GivenBy, need.Until, need.Task?.Team ?? row.Team,
                need.Why, decision, need.At)
            {
                MadeBySetup = need.MadeBySetup || IsMadeWith(need),
            };
            grants.Add(grant);
            if (right.AtInstance is not { } name || estate.Instance(name) is not { } instance) continue;

            // Setup gives what it gives where it runs; on the other side it is ours.
            foreach (var (there, partner) in FailoverPartners.Of(right, instance, estate))
                grants.Add(grant with { Id = $"{account.Key}/{there.Key}", Right = there, GivenBy = GivenBy.Us, MadeBySetup = false, Why = $"{(need.Why is null ? "" : need.Why + "; ")}{partner.Name} is the failover partner of {name}, and rights at the instance do not move with a failover" });
        }

        return grants;
    }

    /// <summary>Whether setup makes the database of a place that a need is a right in.</summary>
    private bool IsMadeWith(Need need) =>
        need.Database is null && sheet.Places.FirstOrDefault(p => p.Key == need.Place) is { MadeBySetup: true };

    private IEnumerable<Right> Rights(Need need)
    {
        if (need.Kind == NeedKind.Directory && nameIndex.Schema is { } schema)
            faults.AddRange(DirectoryNeedRules.Check(need, schema));
        IEnumerable<AskedAt> spots = need.Place is null
            ? [new AskedAt(null, estate.Domain.ShortName, sheet.Title)]
            : Here[need.Place].Select(s => new AskedAt(s, estate.Domain.ShortName, sheet.Title));

        // What a stored sheet asks for by a name that can be nowhere, nobody can see.
        var isNowhere = NeedNames.Check(need, null) is not null;
        return spots.Select(at => isNowhere ? AllEngines.Unjudged(need, at) : AllEngines.RightOf(
            need.Kind is NeedKind.Spn or NeedKind.Delegation ? need with { Value = ServiceNameRules.Fill(need.Value, p => OfName(p, at.Spot)) } : need, at));
    }

    /// <summary>What stands for a placeholder in the pattern of a service principal name.</summary>
    private string OfName(string placeholder, Spot? spot) => placeholder switch
    {
        ServiceNameRules.Host => $"{spot!.Host}.{estate.Domain.DnsName}",
        ServiceNameRules.ShortName => spot!.Host,
        ServiceNameRules.Port => estate.Instance(spot!.Instance!)!.Port.ToString(CultureInfo.InvariantCulture),
        ServiceNameRules.Instance => spot!.Instance![(spot.Instance!.IndexOf('\\', StringComparison.Ordinal) + 1)..],
        _ => Here.Value(placeholder) switch
        {
            { Type: Conditions.ValueType.Number } number => number.Number.ToString(),
            { Type: Conditions.ValueType.Text } text => text.Text,
            { Type: Conditions.ValueType.YesNo } yes => yes.YesNo ? "yes" : "no",
            _ => placeholder,
        },
    };

    private IReadOnlyList<PlannedGrant> Choose(SheetAccount account, AnyOf any)
    {
        var name = any.Decision ?? "line-" + any.At.Line.ToString(System.Globalization.CultureInfo.InvariantCulture);
        var asked = $"{account.Key}.{name}";
        var id = _spot is null ? asked : $"{asked}@{_spot}";
        _known.Add(asked);
        var options = any.Alternatives
            .Where(a => a.When is not { } when || Applies(when) == true)
            .Select((clause, i) => (Label: clause.Called ?? $"alternative {i + 1}", Grants: Expand(account, clause, id)))
            .Select(o => (o.Label, o.Grants, Reach: RightReach.Together([.. o.Grants.Select(g => g.Right)])))
            .ToList();
        if (options.Count == 0) return [];

        var byReach = options.OrderBy(o => o.Reach.Points).ToList();
        var taken = byReach[0];
        var chosen = install.Choices.GetValueOrDefault(asked);
        if (chosen is not null && options.Find(o => o.Label == chosen.Take) is { Label: not null } wanted)
        {
            taken = wanted;
            _chosen.Add(asked);
        }
        else if (chosen is not null)
        {
            _noSuchAlternative[asked] = new Fault(
                "unknown-alternative", chosen.At, $"choices.{asked}.take", $"'{chosen.Take}' is not an alternative of {asked}.")
            {
                Expected = string.Join(", ", options.Select(o => o.Label)),
                Nearest = Spelling.Nearest(chosen.Take, options.Select(o => o.Label)),
            };
            chosen = null; // at another spot it may be one
        }

        var reason = chosen is not null ? $"chosen by {chosen.By}: {chosen.Why}"
            : options.Count == 1 ? "the only alternative that applies here"
            : $"least reach: {taken.Reach.Reason}; not '{byReach[^1].Label}': {byReach[^1].Reach.Reason}";
        _decisions.Add(new Decision(
            id, account.Key, name, taken.Label, reason, chosen is not null,
            [.. options.Select(o =>
                new Alternative(o.Label, [.. o.Grants.Select(g => g.Right)], o.Reach.Points, o.Reach.Reason))], any.At));
        return taken.Grants;
    }

    private static IEnumerable<string> Names(Condition condition) => condition switch
    {
        Condition.Name name => [name.Text],
        Condition.Not not => Names(not.Inner),
        Condition.And and => [.. Names(and.Left), .. Names(and.Right)],
        Condition.Or or => [.. Names(or.Left), .. Names(or.Right)],
        Condition.Compare compare => [.. Names(compare.Left), .. Names(compare.Right)],
        Condition.Literal => [],
        _ => throw new InvalidOperationException($"Unknown condition {condition.GetType().Name}."),
    };
}
