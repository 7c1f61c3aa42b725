using System.Globalization;
using JustRight.Core.Rights.Directory;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.SignIn.Cards;

/// <summary>How much a finding about a card weighs.</summary>
public enum CardWeight
{
    /// <summary>People cannot sign in, or the wrong ones can.</summary>
    Wrong,

    /// <summary>It works, and something is too open or will surprise somebody.</summary>
    Caution,

    /// <summary>It cannot be said.</summary>
    Unseen,
}

/// <summary>Something found by holding the values of a card against each other and against the people last read.</summary>
/// <param name="Code">Stable, for programs.</param>
/// <param name="Key">The setting it is about, by neutral name; null for the card as a whole.</param>
/// <param name="Text">The fact.</param>
/// <param name="Mend">What would mend it.</param>
public sealed record CardFinding(string Code, CardWeight Weight, string? Key, string Text, string Mend);

/// <summary>Checks the values of a card against each other, against the directory's schema, and against the people last read.</summary>
public static class CardChecks
{
    /// <summary>Every finding, in the order of the card.</summary>
    /// <param name="people">The people and groups last read; null when none were.</param>
    /// <param name="unread">Why they could not be read, when that was tried; or null.</param>
    public static IReadOnlyList<CardFinding> Check(PlannedSignIn plan, SettingsCard card, ObjectTable? people, string? unread = null)
    {
        var findings = new List<CardFinding>();
        Security(plan, findings);
        Bases(plan, card, findings);
        Pages(plan, findings);
        foreach (var field in card.Fields) Text(field, findings);
        foreach (var field in card.Fields.Where(f => f.Value is null))
            findings.Add(new CardFinding("not-known", CardWeight.Unseen, field.Key, $"What belongs in {field.Name} is not known: {card.Settings.FirstOrDefault(s => s.Key == field.Key)?.Because ?? $"this directory has no {field.Key}"}.", "See the reason on the card; the product cannot be set up before."));
        Groups(plan, findings);
        if (people is null && unread is not null) findings.Add(new CardFinding("people-unread", CardWeight.Unseen, CardKeys.PeopleFilter, $"The filters were not tried: {unread}", "Mend that and take a survey, or run the trial."));
        else if (people is null) findings.Add(new CardFinding("no-people-read", CardWeight.Unseen, CardKeys.PeopleFilter, $"No people of '{plan.Directory.Key}' were read yet, so that the filters were not tried.", "Take a survey, or run the trial."));
        else People(plan, card, people, findings);
        return [.. findings.OrderBy(f => f.Key is null ? -1 : CardKeys.All.Select(k => k.Key).ToList().IndexOf(f.Key))];
    }

    private static void Security(PlannedSignIn plan, List<CardFinding> findings)
    {
        if (plan.Security != WireSecurity.Plain) return;
        var because = plan.Directory.PlainTextBecause;
        findings.Add(because is null
            ? new CardFinding("plain-text", CardWeight.Wrong, CardKeys.Security, $"Every password typed in the product goes over the wire to {plan.Directory.Host} in plain text: whoever listens on the way can read it.",
                "Have the product or the directory learn TLS. Where it must be for now, say why in the estate: plain-text-because.")
            : new CardFinding("plain-text-allowed", CardWeight.Caution, CardKeys.Security, $"Every password typed in the product goes over the wire to {plan.Directory.Host} in plain text. Allowed in the estate: {because}", "See that the reason still holds."));
    }

    private static void Bases(PlannedSignIn plan, SettingsCard card, List<CardFinding> findings)
    {
        var groupsBase = card[CardKeys.Base] ?? card[CardKeys.GroupsBase];
        if (plan.EnterDn is { } enter && groupsBase is not null && !IsBelow(enter, groupsBase))
            findings.Add(new CardFinding("group-outside", CardWeight.Wrong, card[CardKeys.Base] is null ? CardKeys.GroupsBase : CardKeys.Base, $"The group whose members may enter, {enter}, is not below {groupsBase}: a product that looks it up there does not find it.", "Move the group, or name a branch in the estate that has it: groups-in."));
        var peopleBase = card[CardKeys.Base] ?? card[CardKeys.PeopleBase];
        if (plan.BindDn is { } bind && peopleBase is not null && !IsBelow(bind, peopleBase))
            findings.Add(new CardFinding("bind-outside", CardWeight.Caution, CardKeys.BindName, $"The bind account {bind} is not below {peopleBase}. That is as it should be, unless the product looks its own account up there.", "If it does, it will say that the account is unknown: give it the distinguished name."));
    }

    private static void Pages(PlannedSignIn plan, List<CardFinding> findings)
    {
        if (plan.Directory.MostInOneAnswer is not { } most || plan.Wants.PageSize is not null || plan.Install.ExpectedPeople is not { } expected || expected <= most) return;
        findings.Add(new CardFinding("too-many", CardWeight.Wrong, CardKeys.PageSize, string.Create(CultureInfo.InvariantCulture, $"{expected} people are expected, the product cannot ask page by page, and '{plan.Directory.Key}' gives at most {most} in one answer."), "Narrow the people down, by a group or a branch."));
    }

    private static void Text(FilledField field, List<CardFinding> findings)
    {
        if (field.Value is not { } value) return;
        if (value != value.Trim()) findings.Add(new CardFinding("space-at-end", CardWeight.Wrong, field.Key, $"The value of {field.Name} begins or ends with a space, which nobody sees and products compare: '{value}'.", "Take it away where it comes from."));
        if (value.Any(char.IsControl)) findings.Add(new CardFinding("control-character", CardWeight.Wrong, field.Key, $"The value of {field.Name} has a character that cannot be seen.", "Take it away where it comes from."));
    }

    private static void Groups(PlannedSignIn plan, List<CardFinding> findings)
    {
        if (plan.EnterName is null)
            findings.Add(new CardFinding("everyone", CardWeight.Caution, CardKeys.PeopleFilter, "No group says who may enter: everyone found can sign in.", "Name a group in the sheet: enter."));
        else if (!plan.GroupInFilter)
            findings.Add(new CardFinding("group-not-in-filter", CardWeight.Caution, CardKeys.PeopleFilter, $"The filter finds everyone: that only members of {plan.EnterName} enter rests on the product.", "Try with somebody who is not in the group."));
        if (plan.Wants.Groups is { BuiltIn: true } && plan.Directory.Family == DirectoryFamily.AdLike)
            findings.Add(new CardFinding("built-in-groups", CardWeight.Caution, CardKeys.GroupsFilter, "The groups that a domain comes with are in the list: choosing one of them gives more people rights than it seems.", "Leave them out: built-in: no."));
    }

    private static void People(PlannedSignIn plan, SettingsCard card, ObjectTable table, List<CardFinding> findings)
    {
        foreach (var (key, filter) in new[] { (CardKeys.PeopleFilter, card.People), (CardKeys.GroupsFilter, card.Groups) })
        {
            if (filter is null || card[key] is null) continue;
            foreach (var attribute in Filter.AttributesOf(filter).Distinct(StringComparer.OrdinalIgnoreCase).Where(a => table.Schema.Attribute(a) is null))
                findings.Add(new CardFinding("unknown-attribute", CardWeight.Wrong, key, $"'{plan.Directory.Key}' knows no attribute {attribute}: the filter finds nobody by it.", "Set the directory's family, groups and back-link in the estate as they are."));
            if (FilterEvaluator.Matching(filter, table).Count == 0)
                findings.Add(new CardFinding("finds-nothing", CardWeight.Wrong, key, $"Of {Count(table.Objects.Count, "object")} last read, the filter finds none.", key == CardKeys.PeopleFilter && plan.EnterName is not null ? $"See who is in {plan.EnterName}; a primary group has no members that a filter finds." : "See that the branches in the estate are those with people and groups in them."));
        }

        foreach (var key in new[] { CardKeys.LogonName, CardKeys.DisplayName, CardKeys.Mail, CardKeys.UniqueId, CardKeys.MemberOf, CardKeys.Member, CardKeys.GroupName })
            if (card[key] is { } attribute && card.Fields.Any(f => f.Key == key) && table.Schema.Attribute(attribute) is null)
                findings.Add(new CardFinding("unknown-attribute", CardWeight.Wrong, key, $"'{plan.Directory.Key}' knows no attribute {attribute}.", "Set the directory's family in the estate as it is."));
        Nested(plan, table, findings);
    }

    /// <summary>Who is only in a group inside the group is not found where nobody follows those.</summary>
    private static void Nested(PlannedSignIn plan, ObjectTable table, List<CardFinding> findings)
    {
        if (plan.NestedCount || plan.EnterDn is not { } enter) return;
        var group = table.Objects.FirstOrDefault(o => table.NormalName(o.Dn) == table.NormalName(enter));
        if (group is null) return;
        var groups = table.Objects.Where(o => o.All("objectClass").Contains(AttributeMap.Of(plan.Directory).GroupClass, StringComparer.OrdinalIgnoreCase)).Select(o => table.NormalName(o.Dn)).ToHashSet();
        var inside = group.All(AttributeMap.Of(plan.Directory).Member).Where(m => groups.Contains(table.NormalName(m))).ToList();
        if (inside.Count > 0)
            findings.Add(new CardFinding("groups-inside", CardWeight.Caution, CardKeys.NestedGroups, $"{plan.EnterName} has {Count(inside.Count, "group")} inside it, whose members will not be found: {string.Join("; ", inside.Order(StringComparer.OrdinalIgnoreCase).Take(3))}.", "Put their people into the group itself, or have the product follow groups inside groups."));
    }

    private static bool IsBelow(string name, string ancestor) => DistinguishedName.TryParse(name, out var inner) && DistinguishedName.TryParse(ancestor, out var outer) && inner.IsAtOrBelow(outer);

    private static string Count(int count, string what) => string.Create(CultureInfo.InvariantCulture, $"{count} {what}{(count == 1 ? "" : "s")}");
}
