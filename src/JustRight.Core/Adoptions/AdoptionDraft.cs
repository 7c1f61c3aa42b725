using System.Globalization;
using JustRight.Core.Estates;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Adoptions;

/// <summary>A place of the draft: the spots at which the very same things are held are one place.</summary>
/// <param name="Spots">The hosts, instances, databases or branches of the install.</param>
public sealed record DraftPlace(string Key, PlaceKind Kind, string? Engine, IReadOnlyList<string> Spots);

/// <summary>A need of the draft.</summary>
/// <param name="Place">The key of its place, or null.</param>
public sealed record DraftClause(string Account, DraftNeed Need, string? Place, string Why);

/// <summary>A service of the draft.</summary>
public sealed record DraftService(string Name, string Place, string Account, ServiceStart Start);

/// <summary>The sheet and the install that an adoption comes to.</summary>
public sealed record AdoptionDraft(
    Adoption Adoption, string Source, IReadOnlyList<DraftPlace> Places, IReadOnlyList<DraftClause> Clauses,
    IReadOnlyList<DraftService> Services)
{
    /// <summary>What could not be read when it was found: more may be held there.</summary>
    public IReadOnlyList<string> Unseen { get; init; } = [];

    /// <summary>The draft of what was answered. What nobody answered yet is kept like what nobody is sure of.</summary>
    /// <param name="answers">The last answer to each item.</param>
    public static AdoptionDraft Make(
        Adoption adoption, AdoptionFindings findings, IReadOnlyDictionary<string, AdoptionAnswer> answers, Estate estate)
    {
        var kept = findings.Items
            .Where(i => answers.GetValueOrDefault(i.Id)?.Word != AdoptionWord.NotNeeded)
            .SelectMany(i => i.Needs.Select(n => (Item: i, Need: n, Why: WhyOf(i, answers.GetValueOrDefault(i.Id))))).ToList();
        var spots = kept.Where(k => k.Need.PlaceKind is not null)
            .Select(k => (Kind: k.Need.PlaceKind!.Value, Spot: k.Need.Place))
            .Concat(findings.Services.Select(s => (Kind: PlaceKind.Host, Spot: s.Host))).Distinct().ToList();
        var places = new List<DraftPlace>();
        foreach (var alike in spots.GroupBy(s => (s.Kind, EngineOf(s.Kind, s.Spot, estate), Signature(s))))
        {
            var word = Word(alike.Key.Kind);
            var number = places.Count(p => p.Kind == alike.Key.Kind) + 1;
            places.Add(new DraftPlace(
                number == 1 ? word : $"{word}-{number.ToString(CultureInfo.InvariantCulture)}", alike.Key.Kind, alike.Key.Item2,
                [.. alike.Select(s => s.Spot).Order(StringComparer.OrdinalIgnoreCase)]));
        }

        return new AdoptionDraft(
            adoption,
            $"what was found by the survey of {findings.SurveyedAt.UtcDateTime.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture)} UTC, and answered item by item",
            places,
            [.. kept.Select(k =>
                new DraftClause(
                    k.Item.Account.Key, k.Need, k.Need.PlaceKind is { } kind ? PlaceOf(kind, k.Need.Place) : null,
                    k.Why)).DistinctBy(c => (
                    c.Account, c.Need.Kind, c.Need.Value.ToUpperInvariant(), c.Place, string.Join(',', c.Need.Attributes),
                    c.Need.Of))],
            [.. findings.Services.Select(s =>
                new DraftService(s.Name, PlaceOf(PlaceKind.Host, s.Host), s.Account, s.Start)).Distinct()])
        {
            Unseen = findings.Unseen,
        };

        string PlaceOf(PlaceKind kind, string spot) => places.First(p => p.Kind == kind && p.Spots.Contains(spot)).Key;

        // Everything that the draft says of a spot, reasons too: what differs in any of it is a place of its own.
        string Signature((PlaceKind Kind, string Spot) spot) => string.Join('\n',
            kept.Where(k => k.Need.PlaceKind == spot.Kind && k.Need.Place == spot.Spot)
                .Select(k =>
                    $"{k.Item.Account.Key} {k.Need.Kind} {k.Need.Value.ToUpperInvariant()} {string.Join(',', k.Need.Attributes)} {k.Need.Of} {k.Why}")
                .Order(StringComparer.Ordinal)
                .Concat(spot.Kind == PlaceKind.Host ? findings.Services.Where(s => s.Host == spot.Spot).Select(s =>
                    $"service {s.Name} {s.Account} {s.Start}").Order(StringComparer.Ordinal) : []));
    }

    private static string WhyOf(AdoptionItem item, AdoptionAnswer? answer) => answer switch
    {
        null => $"not answered yet: found {item.HeldBy}",
        { Word: AdoptionWord.NotSure } =>
            $"not sure ({answer.By}, {Day(answer)}){(answer.Why is { } why ? $": {why}" : $": found {item.HeldBy}")}",
        _ => $"{answer.Why ?? "needed"} ({answer.By}, {Day(answer)})",
    };

    private static string Day(AdoptionAnswer answer) =>
        answer.At.UtcDateTime.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static string Word(PlaceKind kind) =>
        kind switch { PlaceKind.Host => "server", PlaceKind.Instance => "instance", PlaceKind.Database => "store", _ => "branch" };

    private static string? EngineOf(PlaceKind kind, string spot, Estate estate) =>
        kind is PlaceKind.Instance or PlaceKind.Database
            ? estate.Instance(kind == PlaceKind.Instance ? spot : spot[..spot.IndexOf('/', StringComparison.Ordinal)])?.Engine
            : null;
}
