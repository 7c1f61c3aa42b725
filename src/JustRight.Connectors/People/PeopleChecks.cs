using System.DirectoryServices.Protocols;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Counts the people and groups that the product will find, and compares them with those expected.</summary>
internal static class PeopleChecks
{
    private const int GroupNamesKept = 100, MostAsked = 5;

    public static async Task<FoundAndExpected?> CountPeopleAsync(SignInTestRun run, IPeopleSession session)
    {
        const string asks = "How many people are found?";
        if (run.Settings[SettingKeys.PeopleFilter] is not { } filter)
        {
            run.Unseen(
                "people", asks, SignInCause.NotKnownYet,
                run.Settings.Settings.First(s => s.Key == SettingKeys.PeopleFilter).Because + ".",
                "Verify the install first, or carry out its worklist.");
            return null;
        }

        if (run.Plan.EnterDn is { } dn)
            await run.NeedAsync(
                "enter-group", "Is the group there whose members may sign in?", (id, a) => Group(run, session, dn, id, a));
        List<string>? found = null;
        await run.NeedAsync("people", asks, (id, a) => found = Found(run, session, filter, id, a));
        if (found is null) return null;
        FoundAndExpected? compared = null;
        await run.CheckAsync(
            "people-expected", "Are these the people expected?",
            (id, a) => compared = Compare(run, session, found, id, a));
        return compared;
    }

    private static void Group(SignInTestRun run, IPeopleSession session, string dn, string id, string asks)
    {
        if (session.Read(dn, "objectClass") is null)
        {
            run.Fail(
                id, asks, SignInCause.GroupMissing, $"No: {dn} does not exist, or the bind account may not see it.",
                "Create the group, or name one that exists; nobody can sign in without it.");
            return;
        }

        run.Pass(id, asks, $"Yes: {dn}, with {SignInTestRun.Number(GroupMembers.Known(run, session).Count, "direct member")}");
    }

    private static List<string> Found(SignInTestRun run, IPeopleSession session, string filter, string id, string asks)
    {
        var found = new List<string>();
        PeopleObject? one = null;
        var lookedUp = run.Plan.EnterName is not null && !run.Plan.GroupInFilter;
        if (lookedUp) GroupMembers.Known(run, session);
        var all = 0;
        foreach (var person in run.Counted(
            "people", run.SearchPeople(session, filter, run.ProductPageSize, GroupMembers.Needs(run))))
        {
            all++;
            if (lookedUp && !GroupMembers.Known(run, session).Has(person, run.Plan.NestedCount)) one ??= person;
            else found.Add(person.First(run.Map.LogonName) ?? person.Dn);
        }

        var facts = SignInTestRun.Number(found.Count, "person", "people") + (
            lookedUp ? $" in {run.Plan.EnterName}, of {all} in the directory" : "");
        if (found.Count > 0)
        {
            run.Pass(id, asks, facts);
            return found;
        }

        var (cause, why) = Nobody(run, session);
        run.Fail(id, asks, cause, $"{facts}: nobody can sign in{(why is null ? "" : $"; {why}")}.", NobodyRemedy(run, cause));
        return found;
    }

    /// <summary>Why the filter finds nobody at all: what is behind it for one of those who are in the group.</summary>
    private static (SignInCause Cause, string? Words) Nobody(SignInTestRun run, IPeopleSession session)
    {
        if (run.Plan.EnterDn is not { } dn) return (SignInCause.NobodyFound, null);
        if (session.Read(dn, "objectClass") is null) return (SignInCause.GroupMissing, $"the group {dn} does not exist");
        var members = GroupMembers.Known(run, session);
        if (members.Count == 0) return (SignInCause.GroupEmpty, $"nobody is in {run.Plan.EnterName}");
        var filter = new Filter.Same("objectClass", FilterValue.Of(run.Map.PeopleClass)).Text;
        foreach (var person in session.Search(
            run.Plan.Directory.Root.Text, SearchScope.Subtree, filter, SignInTestRun.OwnPageSize, GroupMembers.Needs(run))
            .Where(p => members.Has(p, run.Plan.NestedCount)).Take(MostAsked))
            if (person.First(run.Map.LogonName) is { } name && AbsenceFinder.Why(run, session, name) is { } why)
                return (why.Cause, $"{name} is {why.Words}");
        return (SignInCause.NobodyFound, null);
    }

    private static string NobodyRemedy(SignInTestRun run, SignInCause cause) => cause == SignInCause.GroupEmpty
        ? $"Add the people who may sign in to {run.Plan.EnterName}."
        : SignInRemedies.Of(cause, run.Plan, "each of them");

    public static async Task<(FoundAndExpected? Groups, IReadOnlyList<string> Names)> CountGroupsAsync(
        SignInTestRun run, IPeopleSession session)
    {
        if (run.Settings[SettingKeys.GroupsFilter] is not { } filter) return (null, []);
        List<PeopleObject>? groups = null;
        await run.NeedAsync(
            "groups", "Which groups does an administrator see?", (id, asks) => groups = Seen(run, session, filter, id, asks));
        if (groups is null) return (null, []);
        List<string> names = [.. Names(run, groups)];
        if (run.IsAdLike)
            await run.CheckAsync(
                "built-in-groups", "Are built-in groups left out of the list?", (id, asks) => BuiltIn(run, groups, id, asks));
        if (run.Plan.Install.ExpectedGroups is not { Count: > 0 } expected)
            return (new FoundAndExpected(null, names.Count, [], []), [.. names.Take(GroupNamesKept)]);
        var compared = FoundAndExpected.Compare(null, expected, names, _ => null);
        Said(
            run, "groups-expected", "Are these the groups expected?", compared,
            "Check the prefix of the group names, and their container.");
        return (compared, [.. names.Take(GroupNamesKept)]);
    }

    private static List<PeopleObject> Seen(SignInTestRun run, IPeopleSession session, string filter, string id, string asks)
    {
        List<PeopleObject> groups = [.. run.Counted(
            "groups",
            run.SearchGroups(session, filter, run.ProductPageSize, run.Map.GroupName, "isCriticalSystemObject"))];
        List<string> names = [.. Names(run, groups)];
        if (names.Count == 0)
            run.Fail(
                id, asks, SignInCause.NobodyFound, "None.", "Check the prefix of the group names, and their container.");
        else run.Pass(id, asks, $"{SignInTestRun.Number(names.Count, "group")}: {SignInTestRun.Few(names, 8)}");
        return groups;
    }

    private static IEnumerable<string> Names(SignInTestRun run, IEnumerable<PeopleObject> groups) =>
        groups.Select(g => g.First(run.Map.GroupName)).OfType<string>().Order(StringComparer.OrdinalIgnoreCase);

    private static void BuiltIn(SignInTestRun run, List<PeopleObject> groups, string id, string asks)
    {
        List<string> theirs = [.. Names(run, groups.Where(g => g.First("isCriticalSystemObject") == "TRUE"))];
        if (theirs.Count == 0) run.Pass(id, asks, "None of them is in it");
        else
            run.Fail(
                id, asks, SignInCause.BuiltInGroups,
                $"{SignInTestRun.Number(theirs.Count, "group")} of them: {SignInTestRun.Few(theirs)}.",
                "Leave them out: built-in: no. Choosing one of them gives rights to more people than it seems.");
    }

    private static FoundAndExpected Compare(
        SignInTestRun run, IPeopleSession session, List<string> found, string id, string asks)
    {
        var here = run.Plan.Install;
        var compared = FoundAndExpected.Compare(
            here.ExpectedPeople, here.ExpectedNames, found, name => AbsenceFinder.Why(run, session, name));
        if (compared.Agrees is null)
            run.Unseen(
                id, asks, SignInCause.NothingExpected, "The install does not say how many people are expected, or who.",
                "Set it in the install: sign-in.expected-people or expected-names.");
        else
            Said(
                run, id, asks, compared,
                run.Plan.EnterName is { } group
                    ? $"Add the missing people to {group}, and remove those who should not be in it."
                    : "Check the base and the filter.");
        return compared;
    }

    private static void Said(SignInTestRun run, string id, string asks, FoundAndExpected compared, string fix)
    {
        var facts = $"{compared.Found} found, {compared.Expected} expected";
        if (compared.Missing.Count > 0)
            facts += "; missing: " + SignInTestRun.Few(
                [.. compared.Missing.Select(m => m.Why is { } why ? $"{m.Name} ({why.Words})" : m.Name)]);
        if (compared.Extra.Count > 0) facts += $"; not expected: {SignInTestRun.Few([.. compared.Extra.Select(e => e.Name)])}";
        if (compared.Agrees == true) run.Pass(id, asks, facts);
        else run.Fail(id, asks, SignInCause.NotAsExpected, facts, fix);
    }
}
