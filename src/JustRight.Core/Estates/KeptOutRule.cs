using JustRight.Core.Faults;
using JustRight.Core.Sheets;

namespace JustRight.Core.Estates;

/// <summary>Log-ons that the organization keeps accounts from, on every host of an install.</summary>
/// <param name="From">The types of log-on.</param>
/// <param name="WorksAs">The accounts it is about, by how they are used.</param>
/// <param name="Through">The domain group through which they are denied, or null for each account by itself.</param>
public sealed record KeptOutRule(
    IReadOnlyList<string> From, IReadOnlyList<WorksAs> WorksAs, string? Through, string Why, Origin At)
{
    /// <summary>Whom a rule is about that does not say so.</summary>
    public static IReadOnlyList<WorksAs> Usual { get; } =
        [Sheets.WorksAs.Service, Sheets.WorksAs.Job, Sheets.WorksAs.Pool, Sheets.WorksAs.Bind];

    /// <summary>The faults of an estate's rules.</summary>
    public static IEnumerable<Fault> Check(Estate estate) => estate.Rules.KeptOut.SelectMany((r, i) => Check(estate, r, i));

    private static IEnumerable<Fault> Check(Estate estate, KeptOutRule rule, int number)
    {
        var field = $"rules.kept-out[{number}]";
        if (rule.WorksAs.SelectMany(u => rule.From.Select(t => KeptOutRules.WhyNot(u, t)))
            .FirstOrDefault(w => w is not null) is { } why)
            yield return new Fault("kept-from-work", rule.At, $"{field}.from", $"This rule would stop what it is about: {why}.")
            {
                Expected = "log-ons that the accounts' work does not need, or other accounts under works-as",
            };
        if (rule.Through is { } through && estate.Rules.Forbidden.FirstOrDefault(f =>
            string.Equals(f.Group, through, StringComparison.OrdinalIgnoreCase)) is { } forbidden)
            yield return new Fault(
                "forbidden-group", rule.At, $"{field}.through", $"No account may be in {through} ({forbidden.At}).")
            {
                Expected = "a group that gives nothing else",
            };
    }
}
