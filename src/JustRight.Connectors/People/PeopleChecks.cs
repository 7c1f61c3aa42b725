using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Counts the people and groups that the product will find, and compares them with those expected.</summary>
internal static class PeopleChecks
{
    private const int GroupNamesKept = 100;

    public static FoundAndExpected? CountPeople(SignInTestRun run, IPeopleSession session)
    {
        const string asks = "How many people are found?";
        if (run.Settings[SettingKeys.PeopleFilter] is not { } filter)
        {
            run.Unseen(
                "people", asks, run.Settings.Settings.First(s => s.Key == SettingKeys.PeopleFilter).Because + ".",
                "Verify the install first, or carry out its worklist.");
            return null;
        }

        var found = new List<string>();
        try
        {
            var lookedUp = run.Plan.EnterName is not null && !run.Plan.GroupInFilter;
            if (lookedUp) GroupMembers.Known(run, session);
            var all = 0;
            foreach (var person in run.Counted(
                "people", session.Search(run.PeopleBase, true, filter, run.ProductPageSize, run.Map.LogonName)))
            {
                all++;
                if (!lookedUp || GroupMembers.Has(run, session, person)) found.Add(person.First(run.Map.LogonName) ?? person.Dn);
            }

            var facts = SignInTestRun.Number(found.Count, "person", "people") + (
                lookedUp ? $" in {run.Plan.EnterName}, of {all} in the directory" : "");
            if (found.Count == 0)
                run.Fail(
                    "people", asks, $"{facts}: nobody can sign in.",
                    run.Plan.EnterName is { } group
                        ? $"Add the people who may sign in to {group}."
                        : "Check the base and the filter.");
            else run.Pass("people", asks, facts);
        }
        catch (ConnectorException e)
        {
            run.Fail("people", asks, e.Message, "Let the product page, or limit the people by a group or an OU.");
            return null;
        }

        return Compare(run, session, found);
    }

    public static (FoundAndExpected? Groups, IReadOnlyList<string> Names) CountGroups(SignInTestRun run, IPeopleSession session)
    {
        const string asks = "Which groups does an administrator see?";
        if (run.Settings[SettingKeys.GroupsFilter] is not { } filter) return (null, []);
        List<PeopleObject> groups;
        try
        {
            groups = [.. run.Counted(
                "groups",
                session.Search(run.GroupsBase, true, filter, run.ProductPageSize, run.Map.GroupName, "isCriticalSystemObject"))];
        }
        catch (ConnectorException e)
        {
            run.Fail("groups", asks, e.Message, "Limit the groups by the prefix of their names.");
            return (null, []);
        }

        List<string> names = [.. groups.Select(g => g.First(run.Map.GroupName)).OfType<string>().Order(
            StringComparer.OrdinalIgnoreCase)];
        if (names.Count == 0) run.Fail("groups", asks, "None.", "Check the prefix of the group names, and their container.");
        else run.Pass("groups", asks, $"{SignInTestRun.Number(names.Count, "group")}: {SignInTestRun.Few(names, 8)}");
        if (run.IsAdLike)
        {
            const string own = "Are built-in groups left out of the list?";
            List<string> theirs = [.. groups.Where(g => g.First("isCriticalSystemObject") == "TRUE").Select(g =>
                g.First(run.Map.GroupName)).OfType<string>()];
            if (theirs.Count == 0) run.Pass("built-in-groups", own, "None of them is in it");
            else
                run.Fail(
                    "built-in-groups", own,
                    $"{SignInTestRun.Number(theirs.Count, "group")} of them: {SignInTestRun.Few(theirs)}.",
                    "Leave them out: built-in: no. Choosing one of them gives rights to more people than it seems.");
        }

        if (run.Plan.Install.ExpectedGroups is not { Count: > 0 } expected)
            return (new FoundAndExpected(null, names.Count, [], []), [.. names.Take(GroupNamesKept)]);
        var compared = FoundAndExpected.Compare(null, expected, names, _ => null);
        Said(
            run, "groups-expected", "Are these the groups expected?", compared,
            "Check the prefix of the group names, and their container.");
        return (compared, [.. names.Take(GroupNamesKept)]);
    }

    private static FoundAndExpected Compare(SignInTestRun run, IPeopleSession session, List<string> found)
    {
        var here = run.Plan.Install;
        var compared = FoundAndExpected.Compare(
            here.ExpectedPeople, here.ExpectedNames, found, name => WhyNot(run, session, name));
        if (compared.Agrees is null)
            run.Unseen(
                "people-expected", "Are these the people expected?",
                "The install does not say how many people are expected, or who.",
                "Set it in the install: sign-in.expected-people or expected-names.");
        else
            Said(
                run, "people-expected", "Are these the people expected?", compared,
                run.Plan.EnterName is { } group
                    ? $"Add the missing people to {group}, and remove those who should not be in it."
                    : "Check the base and the filter.");
        return compared;
    }

    private static void Said(SignInTestRun run, string id, string asks, FoundAndExpected compared, string fix)
    {
        var facts = $"{compared.Found} found, {compared.Expected} expected";
        if (compared.Missing.Count > 0)
            facts += $"; missing: {SignInTestRun.Few([.. compared.Missing.Select(m => m.Why is null ? m.Name : $"{m.Name} ({m.Why})")])}";
        if (compared.Extra.Count > 0) facts += $"; not expected: {SignInTestRun.Few([.. compared.Extra.Select(e => e.Name)])}";
        if (compared.Agrees == true) run.Pass(id, asks, facts);
        else run.Fail(id, asks, facts, fix);
    }

    /// <summary>Why the filter does not find somebody who is expected.</summary>
    internal static string? WhyNot(SignInTestRun run, IPeopleSession session, string name)
    {
        var plain = new Filter.And(
            [
                new Filter.Same("objectClass", FilterValue.Of(run.Map.PeopleClass)),
                new Filter.Same(run.Map.LogonName, FilterValue.Of(name))]).Text;
        try
        {
            if (session.Search(
                run.Plan.Directory.Root.Text, true, plain, null, "userAccountControl").FirstOrDefault() is not { } person)
                return "not in the directory";
            if (!Core.Directory.DistinguishedName.IsAtOrBelow(person.Dn, run.PeopleBase)) return $"not below {run.PeopleBase}";
            if (int.TryParse(person.First("userAccountControl"), out var control) && (control & 2) != 0) return "disabled";
            return run.Plan.EnterName is { } group ? $"not in {group}" : null;
        }
        catch (ConnectorException)
        {
            return null; // the difference itself stands without its reason
        }
    }
}
