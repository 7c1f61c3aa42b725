using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using static JustRight.Core.SignIn.Settings.SettingsChecks;

namespace JustRight.Core.SignIn.Settings;

/// <summary>Whether what people type means one person each, among the people last read.</summary>
internal static class TypedChecks
{
    private const int Shown = 3;

    /// <summary>Every finding.</summary>
    public static IEnumerable<SettingsFinding> Of(PlannedSignIn plan, SignInSettings settings, ObjectTable table)
    {
        if (settings[SettingKeys.PeopleFilter] is null) yield break;
        List<PeopleObject> people = [.. FilterEvaluator.Matching(settings.People, table).Where(p =>
            plan.Directory.PeopleBranches.Any(b => IsBelow(p.Dn, b.Text)))];
        var names = new Dictionary<string, HashSet<string>>(StringComparer.OrdinalIgnoreCase);
        foreach (var attribute in plan.TypedAttributes.Where(a => table.Schema.Attribute(a) is not null))
        {
            var without = people.Where(p => p.All(attribute).Count == 0).Select(p => p.Dn).ToList();
            if (without.Count > 0)
                yield return new SettingsFinding(
                    "nothing-to-type", plan.TypedAttributes.Count > 1 ? FindingWeight.Caution : FindingWeight.Wrong,
                    SettingKeys.PeopleType,
                    $"{Count(without.Count, "account")} of {people.Count} found have no {attribute}, which people are to type: "
                    + $"{string.Join("; ", without.Order(StringComparer.OrdinalIgnoreCase).Take(Shown))}.",
                    "Fill it in, leave them out by the filter, or let people type something else.");
            foreach (var person in people)
                foreach (var value in person.All(attribute))
                    (names.TryGetValue(value.Trim(), out var who) ? who : names[value.Trim()] = []).Add(person.Dn);
        }

        var shared = names.Where(n => n.Value.Count > 1).OrderBy(n => n.Key, StringComparer.OrdinalIgnoreCase).ToList();
        if (shared.Count > 0)
            yield return new SettingsFinding(
                "shared-name", FindingWeight.Wrong, SettingKeys.PeopleType,
                $"{Count(shared.Count, "name")} that people are to type mean more than one of them: "
                + string.Join("; ", shared.Take(Shown).Select(n => $"{n.Key} is {string.Join(" and ", n.Value.Order())}")) + ".",
                "Make them unique, or let people type something else: the product lets none of these in, or the wrong one.");
    }
}
