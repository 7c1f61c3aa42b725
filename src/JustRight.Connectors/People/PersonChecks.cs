using System.DirectoryServices.Protocols;
using JustRight.Core.Sheets;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Somebody who must be able to sign in, and those who must not.</summary>
internal static class PersonChecks
{
    /// <summary>Names that a product which does not escape what is typed would take for parts of its filter.</summary>
    private static readonly string[] HostileNames = [
        "*", ")(objectClass=*", "*)(|(objectClass=*", "a\\2a", "(", ")", "\\", "nobody\0"];

    public static async Task RunAsync(SignInTestRun run, IPeopleSession session)
    {
        if (run.Settings[SettingKeys.PeopleFilter] is null) return;
        PeopleObject? person = null;
        await run.NeedAsync(
            "person", "Is the person who must be able to sign in found?", (id, asks) => person = Found(run, session, id, asks));
        if (person is not null)
        {
            await run.CheckAsync(
                "person-groups", "Which groups is that person in?", (id, asks) => Groups(run, session, person, id, asks));
            if (AttributeChecks.Read(run) is { Count: > 0 } attributes)
                await run.CheckAsync(
                    "person-attributes", "Is everything there that the product reads of that person?",
                    (id, asks) => AttributeChecks.OfPerson(run, session, person, attributes, id, asks));
            if (run.Plan.Wants.BindsAs != BindsAs.Person)
                await run.NeedAsync(
                    "person-signs-in", "Can that person really sign in?", (id, asks) => SignsInAsync(run, person, id, asks));
        }

        await RoleProofs.RunAsync(run, session);

        foreach (var name in run.Plan.Install.MayNotEnter)
            await run.NeedAsync(
                $"kept-out/{name}", $"Is {name} kept out?", (id, asks) => Refused(run, session, name, id, asks));
        await run.CheckAsync(
            "disabled", "Are disabled accounts kept out?", (id, asks) => Disabled(run, session, id, asks));
        if ((person?.Dn ?? run.Settings[SettingKeys.BindName]) is { } anybody)
            await run.CheckAsync(
                "empty-password", "Is an empty password refused?", (id, asks) => EmptyPasswordAsync(run, anybody, id, asks));
        await run.NeedAsync(
            "special-characters", "Do special characters in a name find nobody?",
            (id, asks) => SpecialCharacters(run, session, id, asks));
    }

    private static PeopleObject? Found(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        if (run.Plan.Install.MayEnter is not { } name)
        {
            run.Unseen(
                id, asks, SignInCause.NothingExpected, "The install names nobody.",
                "Name somebody in the install: sign-in.may-enter.");
            return null;
        }

        var found = Search(run, session, name);
        if (found.Count == 1 && Enters(run, session, found[0]))
        {
            if (Untypable(run, session, found[0]) is { } trouble)
            {
                run.Fail(
                    id, asks, trouble.Cause, $"{name} is {found[0].Dn}, and {trouble.Words}.",
                    SignInRemedies.Of(trouble.Cause, run.Plan, name));
                return found[0];
            }

            var elsewhere = AbsenceFinder.Named(run, session, name)
                .Where(p => ComparedName.KeyOf(p.Dn) != ComparedName.KeyOf(found[0].Dn)).Select(p => p.Dn).ToList();
            if (elsewhere.Count == 0) run.Pass(id, asks, $"{Typed(run, found[0], name)} is {found[0].Dn}, and nobody else is");
            else
                run.Caution(
                    id, asks, SignInCause.InTwoPlaces,
                    $"{name} is {found[0].Dn} here, and outside the base or the filter also {SignInTestRun.Few(elsewhere, 3)}.",
                    "A wider base would find both, and let neither in: have one of them renamed.");
            return found[0];
        }

        var why = found.Count > 1
            ? new WhyAbsent(
                SignInCause.TwiceBelowBase, $"{found.Count} have that name: {SignInTestRun.Few([.. found.Select(f => f.Dn)], 3)}")
            : AbsenceFinder.Why(run, session, name);
        run.Fail(
            id, asks, why?.Cause ?? SignInCause.NobodyFound, $"{name} is not found: {why?.Words ?? "no reason was found"}.",
            SignInRemedies.Of(why?.Cause ?? SignInCause.NobodyFound, run.Plan, name));
        return null;
    }

    /// <summary>What somebody types, by every attribute that the product looks in.</summary>
    private static string Typed(SignInTestRun run, PeopleObject person, string name) =>
        string.Join(" or ", run.Plan.TypedAttributes.Select(person.First).OfType<string>().DefaultIfEmpty(name));

    /// <summary>Why somebody who is let in cannot type anything that means them alone; null when they can.</summary>
    private static WhyAbsent? Untypable(SignInTestRun run, IPeopleSession session, PeopleObject person)
    {
        var typed = run.Plan.TypedAttributes.SelectMany(person.All).ToList();
        if (typed.Count == 0)
            return new WhyAbsent(
                SignInCause.NothingToType,
                $"has no {string.Join(" and no ", run.Plan.TypedAttributes)}, which people are to type");
        foreach (var text in typed)
            if (SearchTyped(run, session, text).Where(p => ComparedName.KeyOf(p.Dn) != ComparedName.KeyOf(person.Dn))
                .Select(p => p.Dn).ToList() is { Count: > 0 } others)
                return new WhyAbsent(SignInCause.SharedName, $"{text} also means {SignInTestRun.Few(others, 3)}");
        return null;
    }

    private static void Groups(SignInTestRun run, IPeopleSession session, PeopleObject person, string id, string asks)
    {
        var (direct, all) = PersonGroups.Of(session, run.Plan.Directory, person);
        var through = all.Where(g => !direct.Contains(g)).ToList();
        run.Pass(
            id, asks,
            $"Directly: {Names(direct)}; through those: {Names(through)}{(through.Count > 0 && !run.Plan.NestedCount ? ", which do not count here" : "")}");

        string Names(IReadOnlyList<PeopleObject> groups) =>
            groups.Count == 0
                ? "none"
                : SignInTestRun.Few(
                    [.. groups.Select(g => g.First(run.Map.GroupName) ?? g.Dn).Order(StringComparer.OrdinalIgnoreCase)]);
    }

    private static async Task SignsInAsync(SignInTestRun run, PeopleObject person, string id, string asks)
    {
        if (run.Passwords.Person is not { } password)
        {
            run.Unseen(
                id, asks, SignInCause.PasswordNotKnown, "Nobody typed that person's password.",
                "Let the person type it at the sign-in test's prompt; it is stored nowhere.");
            return;
        }

        var host = run.Plan.Directory.Host;
        var answer = await run.Directory.TryPasswordAsync(run.Plan.Security, person.Dn, password, run.Cancel);
        if (answer.Cause is not { } cause)
            run.Pass(
                id, asks,
                $"{host} accepts {person.Dn} with the typed password{(answer.Words.Length > 0 ? "; " + answer.Words : "")}");
        else
            run.Fail(
                id, asks, cause, $"{host} does not let {person.Dn} in: {answer.Words}.",
                cause == SignInCause.WrongPassword
                    ? "The sign-in test tries once, so that it does not lock the account: check that the password was typed correctly."
                    : SignInRemedies.Of(cause, run.Plan));
    }

    private static void Refused(SignInTestRun run, IPeopleSession session, string name, string id, string asks)
    {
        var found = Search(run, session, name).Where(p => Enters(run, session, p)).ToList();
        if (found.Count == 0)
            run.Pass(id, asks, $"Yes: {AbsenceFinder.Why(run, session, name)?.Words ?? "not found by the filter"}");
        else
            run.Fail(
                id, asks, SignInCause.Enters, $"No: {found[0].Dn} is found, and can sign in.",
                run.Plan.EnterName is { } group
                    ? $"Remove {name} from {group} and from the groups nested in it."
                    : "Name a group in the sheet whose members may sign in: enter.");
    }

    private static void Disabled(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        if (!run.IsAdLike)
        {
            run.Unseen(
                id, asks, SignInCause.NotSaid, "Directories of this family have no common attribute for disabled accounts.",
                "Ask the directory team how accounts are disabled, and test with one.");
            return;
        }

        var disabled = new Filter.ByRule("userAccountControl", MatchingRules.AllBits, false, FilterValue.Of("2"));
        var there = run.SearchPeople(
            session, new Filter.And([new Filter.Same("objectCategory", FilterValue.Of("person")), disabled]).Text,
            SignInTestRun.OwnPageSize, run.Map.LogonName)
            .Count();
        if (there == 0)
        {
            run.Unseen(
                id, asks, SignInCause.NothingExpected, $"Nobody below {run.PeopleBaseWords} is disabled: there is nobody to test with.",
                "Nothing to do: the filter leaves them out.");
            return;
        }

        var found = run.SearchPeople(
            session, new Filter.And([run.Settings.People, disabled]).Text, SignInTestRun.OwnPageSize, run.Map.LogonName)
            .Select(p => p.First(run.Map.LogonName) ?? p.Dn).ToList();
        if (found.Count == 0)
            run.Pass(id, asks, $"Yes: of {SignInTestRun.Number(there, "disabled account")} the filter finds none");
        else
            run.Fail(
                id, asks, SignInCause.Enters, $"No: {SignInTestRun.Few(found)}.",
                "Leave them out by the filter. A product that only searches for them would let them in.");
    }

    private static async Task EmptyPasswordAsync(SignInTestRun run, string name, string id, string asks)
    {
        var answer = await run.Directory.TryEmptyPasswordAsync(run.Plan.Security, name, run.Cancel);
        if (answer == EmptyPasswordAnswer.Refused) run.Pass(id, asks, "Yes: the directory refuses it");
        else
            run.Unseen(
                id, asks, SignInCause.OnlyTheProduct,
                "The directory accepts an empty password as an anonymous bind [RFC 4513 5.1.2]. Test on the product's own page whether it rejects one.",
                "Test it on the product's page. A product that only asks the directory lets anyone in.");
    }

    /// <summary>Names that mean something in filters find nobody, unless somebody is called just that.</summary>
    private static void SpecialCharacters(SignInTestRun run, IPeopleSession session, string id, string asks)
    {
        foreach (var name in HostileNames)
        {
            var others = SearchTyped(run, session, name)
                .Where(p => !run.Plan.TypedAttributes.SelectMany(p.All)
                    .Contains(name.Trim(), StringComparer.OrdinalIgnoreCase))
                .ToList();
            if (others.Count == 0) continue;
            run.Fail(
                id, asks, SignInCause.Unexpected, $"'{name}' finds {SignInTestRun.Number(others.Count, "other person", "other people")}.",
                "This is an error in Just Right or in the directory: report it.");
            return;
        }

        run.Pass(
            id, asks,
            $"Yes, with every value escaped [RFC 4515]: {HostileNames.Length} such names find nobody. Test on the product's own page whether it escapes what people type: try *");
    }

    /// <summary>Who has a logon name, among those that the product finds.</summary>
    internal static List<PeopleObject> Search(SignInTestRun run, IPeopleSession session, string name) =>
        Searched(run, session, SignInFilters.Person(run.Settings.People, run.Plan.Directory, name));

    /// <summary>Whom the product finds when somebody types a text.</summary>
    private static List<PeopleObject> SearchTyped(SignInTestRun run, IPeopleSession session, string text) =>
        Searched(run, session, SignInFilters.Typed(run.Settings.People, run.Plan.TypedAttributes, text));

    private static List<PeopleObject> Searched(SignInTestRun run, IPeopleSession session, Filter filter) =>
        [.. run.SearchPeople(
            session, filter.Text, null,
            [.. run.Plan.TypedAttributes.Concat(GroupMembers.Needs(run)).Append("memberOf").Distinct(StringComparer.OrdinalIgnoreCase)])];

    /// <summary>Whether somebody who is found is let in: by the filter alone, or by being in the group as well.</summary>
    internal static bool Enters(SignInTestRun run, IPeopleSession session, PeopleObject person) =>
        run.Plan.EnterName is null || run.Plan.GroupInFilter
            || GroupMembers.Known(run, session).Has(person, run.Plan.NestedCount);
}
