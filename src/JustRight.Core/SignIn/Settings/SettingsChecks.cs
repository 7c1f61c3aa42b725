using System.Globalization;
using JustRight.Core.Directory;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Settings;

/// <summary>How much a finding about settings weighs.</summary>
public enum FindingWeight
{
    /// <summary>People cannot sign in, or the wrong ones can.</summary>
    Wrong,

    /// <summary>It works, and something is too open or will surprise somebody.</summary>
    Caution,

    /// <summary>It cannot be said.</summary>
    Unseen,
}

/// <summary>Something found by holding the settings against each other and against the people last read.</summary>
/// <param name="Code">Stable, for programs.</param>
/// <param name="Key">The setting it is about, by neutral name; null for the settings as a whole.</param>
/// <param name="Text">The fact.</param>
/// <param name="Fix">What would fix it.</param>
public sealed record SettingsFinding(string Code, FindingWeight Weight, string? Key, string Text, string Fix);

/// <summary>Checks the settings against each other, against the directory's schema, and against the people last read.</summary>
public static class SettingsChecks
{
    /// <summary>Every finding, in the order of the settings.</summary>
    /// <param name="people">The people and groups last read; null when none were.</param>
    /// <param name="unread">Why they could not be read, when that was tried; or null.</param>
    public static IReadOnlyList<SettingsFinding> Check(
        PlannedSignIn plan, SignInSettings settings, ObjectTable? people, string? unread = null)
    {
        var findings = new List<SettingsFinding>();
        Security(plan, findings);
        Bases(plan, settings, findings);
        findings.AddRange(WidthChecks.Of(plan, settings));
        Pages(plan, findings);
        foreach (var field in settings.Fields) Text(field, findings);
        foreach (var field in settings.Fields.Where(f => f.Value is null))
            findings.Add(new SettingsFinding(
                "not-known", FindingWeight.Unseen, field.Key,
                $"The value of {field.Name} is not known: {settings.Find(field.Key!, field.Role)?.Because ?? $"this directory has no {field.Key}"}.",
                "The reason says what to do; the product cannot be configured before that."));
        Groups(plan, findings);
        findings.AddRange(RoleChecks.Of(plan));
        findings.AddRange(Leaving(plan));
        if (people is null && unread is not null)
            findings.Add(new SettingsFinding(
                "people-unread", FindingWeight.Unseen, SettingKeys.PeopleFilter, $"The filters were not tested: {unread}",
                "Fix that and take a survey, or run the sign-in test."));
        else if (people is null)
            findings.Add(new SettingsFinding(
                "no-people-read", FindingWeight.Unseen, SettingKeys.PeopleFilter,
                $"No people of '{plan.Directory.Key}' were read yet, so the filters were not tested.",
                "Take a survey, or run the sign-in test."));
        else
        {
            People(plan, settings, people, findings);
            findings.AddRange(TypedChecks.Of(plan, settings, people));
        }

        return [.. findings.OrderBy(f => f.Key is null ? -1 : SettingKeys.All.Select(k => k.Key).ToList().IndexOf(f.Key))];
    }

    private static void Security(PlannedSignIn plan, List<SettingsFinding> findings)
    {
        if (plan.Security != WireSecurity.Plain) return;
        var because = plan.Directory.PlainTextBecause;
        findings.Add(because is null
            ? new SettingsFinding("plain-text", FindingWeight.Wrong, SettingKeys.Security, $"Every password typed in the product goes to {plan.Directory.Host} unencrypted: anybody on the network path can read it.",
                "Enable TLS in the product or the directory. If that is impossible for now, give the reason in the estate: plain-text-because.")
            : new SettingsFinding(
                "plain-text-allowed", FindingWeight.Caution, SettingKeys.Security,
                $"Every password typed in the product goes to {plan.Directory.Host} unencrypted. Allowed in the estate: {because}",
                "Check that the reason still holds."));
    }

    private static void Bases(PlannedSignIn plan, SignInSettings settings, List<SettingsFinding> findings)
    {
        var groups = settings.Find(SettingKeys.Base, null) ?? settings.Find(SettingKeys.GroupsBase, null)!;
        if (plan.EnterDn is { } enter && groups.Values.Count > 0 && !groups.Values.Any(b => IsBelow(enter, b)))
            findings.Add(new SettingsFinding(
                "group-outside", FindingWeight.Wrong, groups.Key,
                $"The group whose members may sign in, {enter}, is not below {Any(groups)}: a product that searches there does not find it.",
                "Move the group, or set groups-in in the estate to an OU that contains it."));
        var people = settings.Find(SettingKeys.Base, null) ?? settings.Find(SettingKeys.PeopleBase, null)!;
        if (plan.BindDn is { } bind && plan.Wants.BindsAs == BindsAs.Account && people.Values.Count > 0
            && !people.Values.Any(b => IsBelow(bind, b)))
            findings.Add(new SettingsFinding(
                "bind-outside", FindingWeight.Caution, SettingKeys.BindName,
                $"The bind account {bind} is not below {Any(people)}. That is fine unless the product searches for its own account there.",
                "If it does, it reports an unknown account: configure the distinguished name."));
    }

    private static string Any(SignInSetting bases) => string.Join(" or ", bases.Values);

    /// <summary>What becomes of people who left, where a product reads people from time to time.</summary>
    private static IEnumerable<SettingsFinding> Leaving(PlannedSignIn plan)
    {
        var (what, fix) = plan.Wants.Reading switch
        {
            PeopleReading.AtSignIn or PeopleReading.SyncDisables => (null, ""),
            PeopleReading.SyncKeeps => (
                "People who leave the group or the directory stay in the product, and may go on with whatever it gave them.",
                "Take them out of the product by hand, and have that done by whoever handles leavers."),
            PeopleReading.SyncRemoves => (
                "People whom the product no longer finds are removed there, with what they own: a filter that finds too few removes too many.",
                "Run the sign-in test before each sync with other settings, and compare the people found with those expected."),
        };
        if (what is not null)
            yield return new SettingsFinding("who-left", FindingWeight.Caution, SettingKeys.PeopleFilter, what, fix);
    }

    private static void Pages(PlannedSignIn plan, List<SettingsFinding> findings)
    {
        if (plan.Directory.MostInOneAnswer is not { } most || plan.Wants.PageSize is not null
            || plan.Install.ExpectedPeople is not { } expected || expected <= most)
            return;
        findings.Add(new SettingsFinding(
            "too-many", FindingWeight.Wrong, SettingKeys.PageSize,
            string.Create(
                CultureInfo.InvariantCulture,
                $"{expected} people are expected, the product cannot page, and '{plan.Directory.Key}' returns at most {most} in one answer."),
            "Limit the people by a group or an OU."));
    }

    private static void Text(FilledField field, List<SettingsFinding> findings)
    {
        if (field.Value is not { } value) return;
        if (value != value.Trim())
            findings.Add(new SettingsFinding(
                "space-at-end", FindingWeight.Wrong, field.Key,
                $"The value of {field.Name} has a leading or trailing space, which is invisible and counts: '{value}'.",
                "Remove it at its source."));
        if (value.Any(char.IsControl))
            findings.Add(new SettingsFinding(
                "control-character", FindingWeight.Wrong, field.Key, $"The value of {field.Name} has an invisible character.",
                "Remove it at its source."));
    }

    private static void Groups(PlannedSignIn plan, List<SettingsFinding> findings)
    {
        if (plan.EnterName is null)
            findings.Add(new SettingsFinding(
                "everyone", FindingWeight.Caution, SettingKeys.PeopleFilter,
                "No group limits who may sign in: everyone found can sign in.", "Name a group in the sheet: enter."));
        else if (!plan.GroupInFilter)
            findings.Add(new SettingsFinding(
                "group-not-in-filter", FindingWeight.Caution, SettingKeys.PeopleFilter,
                $"The filter finds everyone: only the product itself limits sign-in to members of {plan.EnterName}.",
                "Test with somebody who is not in the group."));
        if (plan.Wants.Groups is { BuiltIn: true } && plan.Directory.Family == DirectoryFamily.AdLike)
            findings.Add(new SettingsFinding(
                "built-in-groups", FindingWeight.Caution, SettingKeys.GroupsFilter,
                "The domain's built-in groups are in the list: choosing one of them gives rights to more people than it seems.",
                "Leave them out: built-in: no."));
    }

    private static void People(PlannedSignIn plan, SignInSettings settings, ObjectTable table, List<SettingsFinding> findings)
    {
        foreach (var (key, filter) in new[] { (SettingKeys.PeopleFilter, settings.People), (
            SettingKeys.GroupsFilter, settings.Groups) })
        {
            if (filter is null || settings[key] is null) continue;
            foreach (var attribute in Filter.AttributesOf(filter).Distinct(StringComparer.OrdinalIgnoreCase).Where(a =>
                table.Schema.Attribute(a) is null))
                findings.Add(new SettingsFinding(
                    "unknown-attribute", FindingWeight.Wrong, key,
                    $"'{plan.Directory.Key}' has no attribute {attribute}: the filter finds nobody by it.",
                    "Correct the directory's family, groups and back-link in the estate."));
            if (FilterEvaluator.Matching(filter, table).Count == 0)
                findings.Add(new SettingsFinding(
                    "finds-nothing", FindingWeight.Wrong, key,
                    $"Of {Count(table.Objects.Count, "object")} last read, the filter finds none.",
                    key == SettingKeys.PeopleFilter && plan.EnterName is not null
                        ? $"Check who is in {plan.EnterName}; a filter does not find members of a primary group."
                        : "Check that the OUs in the estate contain people and groups."));
        }

        foreach (var key in AttributeMap.Keys.Concat([SettingKeys.MemberOf, SettingKeys.Member, SettingKeys.GroupName]))
            if (settings[key] is { } attribute && settings.Fields.Any(f => f.Key == key)
                && table.Schema.Attribute(attribute) is null)
                findings.Add(new SettingsFinding(
                    "unknown-attribute", FindingWeight.Wrong, key, $"'{plan.Directory.Key}' knows no attribute {attribute}.",
                    "Correct the directory's family in the estate."));
        Nested(plan, table, findings);
    }

    /// <summary>Who is only in a group inside the group is not found where nobody follows those.</summary>
    private static void Nested(PlannedSignIn plan, ObjectTable table, List<SettingsFinding> findings)
    {
        if (plan.NestedCount || plan.EnterDn is not { } enter) return;
        var group = table.Objects.FirstOrDefault(o => table.NormalName(o.Dn) == table.NormalName(enter));
        if (group is null) return;
        var groups = table.Objects.Where(o =>
            o.All("objectClass").Contains(AttributeMap.Of(plan.Directory).GroupClass, StringComparer.OrdinalIgnoreCase))
            .Select(o => table.NormalName(o.Dn)).ToHashSet();
        var inside = group.All(AttributeMap.Of(plan.Directory).Member).Where(m => groups.Contains(table.NormalName(m))).ToList();
        if (inside.Count > 0)
            findings.Add(new SettingsFinding(
                "groups-inside", FindingWeight.Caution, SettingKeys.NestedGroups,
                $"{plan.EnterName} has {Count(inside.Count, "group")} inside it, whose members will not be found: {string.Join("; ", inside.Order(StringComparer.OrdinalIgnoreCase).Take(3))}.",
                "Add their people to the group itself, or let the product resolve nested groups."));
    }

    internal static bool IsBelow(string name, string ancestor) =>
        DistinguishedName.TryParse(name, out var inner) && DistinguishedName.TryParse(ancestor, out var outer)
            && inner.IsAtOrBelow(outer);

    internal static string Count(int count, string what) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {what}{(count == 1 ? "" : "s")}");
}
