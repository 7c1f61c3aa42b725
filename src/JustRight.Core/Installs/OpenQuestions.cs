using JustRight.Core.Estates;
using JustRight.Core.Sheets;

namespace JustRight.Core.Installs;

/// <summary>Something that a sheet leaves open, and that an install in an estate must say.</summary>
/// <param name="Field">Where it stands in the install: <c>places.console-server</c>, <c>answers.topology</c>.</param>
/// <param name="Asks">What is asked, in words.</param>
/// <param name="Known">What would do: what the estate has, yes or no; empty where it is for a person to say.</param>
/// <param name="AtLeast">How many there must be.</param>
/// <param name="AtMost">How many there may be.</param>
/// <param name="Default">What is said unless somebody says otherwise; null where there is no such thing.</param>
public sealed record OpenQuestion(
    string Field, string Asks, IReadOnlyList<string> Known, int AtLeast, int AtMost, string? Default);

/// <summary>
/// What an install of a sheet in an estate has to say, and no more: which systems are which place, the sheet's questions, and
/// with which directory people sign in.
/// </summary>
public static class OpenQuestions
{
    /// <summary>The questions, in the order of the sheet.</summary>
    public static IReadOnlyList<OpenQuestion> Of(Sheet sheet, Estate estate) =>
    [
        .. sheet.Places.Select(p => OfPlace(p, estate)),
        .. sheet.Questions.Select(q => new OpenQuestion($"answers.{q.Key}", q.Ask, Answers(q.Type), 1, 1, q.Default)),
        .. sheet.SignIn is null ? [] : new[]
        {
            One("sign-in.directory", "with which directory people sign in", [.. estate.PeopleDirectories.Select(d => d.Key)]),
        },
    ];

    private static OpenQuestion OfPlace(Place place, Estate estate)
    {
        var field = $"places.{place.Key}";
        var known = place.Kind switch
        {
            PlaceKind.Host => estate.Hosts.Select(h => h.Name),
            PlaceKind.Instance => Instances(place, estate),
            PlaceKind.Database => place.DatabaseName is { } name ? Instances(place, estate).Select(i => $"{i}/{name}") : [],
            PlaceKind.Branch => estate.Branches.Select(b => b.Key).Append(Estate.WholeDomain),
        };
        var asks = place.Kind switch
        {
            PlaceKind.Host => $"which host is '{place.Key}'",
            PlaceKind.Instance => $"which database instance is '{place.Key}'",
            PlaceKind.Database => place.DatabaseName is not null ? $"which database is '{place.Key}'"
                : $"which database is '{place.Key}', as INSTANCE/DATABASE; instances: {Words(Instances(place, estate))}",
            PlaceKind.Branch => $"which branch is '{place.Key}'",
        };
        var values = known.ToList();
        return new OpenQuestion(
            field, asks, values, place.AtLeast, place.AtMost, values is [var only] && place.AtLeast <= 1 ? only : null);
    }

    /// <summary>The answers that there are, where a person may not say just anything.</summary>
    private static IReadOnlyList<string> Answers(Conditions.ValueType type) => type switch
    {
        Conditions.ValueType.YesNo => ["yes", "no"],
        Conditions.ValueType.Number or Conditions.ValueType.Text => [],
        Conditions.ValueType.Hosts => throw new InvalidOperationException("A sheet asks for hosts as places."),
    };

    private static IEnumerable<string> Instances(Place place, Estate estate) =>
        estate.Instances.Where(i => place.Engine is null || i.Engine == place.Engine).Select(i => i.Name);

    private static OpenQuestion One(string field, string asks, IReadOnlyList<string> known) =>
        new(field, asks, known, 1, 1, known is [var only] ? only : null);

    private static string Words(IEnumerable<string> names) =>
        string.Join(", ", names) is { Length: > 0 } words ? words : "the estate has none";
}
