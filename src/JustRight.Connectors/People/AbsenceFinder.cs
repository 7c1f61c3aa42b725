using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Connectors.People;

/// <summary>Why somebody with a logon name is not found, or not let in.</summary>
internal static class AbsenceFinder
{
    private const int Disabled = 2; // ADS_UF_ACCOUNTDISABLE [MS-ADTS 2.2.16]

    /// <summary>The cause; null when none was found.</summary>
    public static WhyAbsent? Why(SignInTestRun run, IPeopleSession session, string name)
    {
        try
        {
            var here = Named(run, session, name);
            var below = here.Where(run.IsSearched).ToList();
            if (here.Count == 0) return new WhyAbsent(SignInCause.NotInDirectory, "not in the directory");
            if (below.Count == 0)
                return new WhyAbsent(
                    SignInCause.OutsideBase,
                    $"not {(run.Plan.PeopleDepth == SearchDepth.OneLevel ? "directly " : "")}below {run.PeopleBaseWords}, but "
                    + SignInTestRun.Few([.. here.Select(p => p.Dn)], 2));
            if (below.Count > 1)
                return new WhyAbsent(
                    SignInCause.TwiceBelowBase, $"twice below the base: {SignInTestRun.Few([.. below.Select(p => p.Dn)], 3)}");
            if (int.TryParse(below[0].First("userAccountControl"), out var control) && (control & Disabled) != 0)
                return new WhyAbsent(SignInCause.Disabled, "disabled");
            return InGroup(run, session, below[0])
                ?? new WhyAbsent(SignInCause.NotForFilter, $"{below[0].Dn} does not match the people filter");
        }
        catch (ConnectorException)
        {
            return null; // the difference itself stands without its reason
        }
    }

    /// <summary>Everybody in the directory with a logon name.</summary>
    public static List<PeopleObject> Named(SignInTestRun run, IPeopleSession session, string name)
    {
        var filter = new Filter.And(
            [
                new Filter.Same("objectClass", FilterValue.Of(run.Map.PeopleClass)),
                new Filter.Same(run.Map.LogonName, FilterValue.Of(name))]).Text;
        return [.. session.Search(
            run.Plan.Directory.Root.Text, SearchScope.Subtree, filter, null, run.Map.LogonName, "userAccountControl", "memberOf",
            "primaryGroupID")];
    }

    /// <summary>Why somebody's group does not let them in; null when no group has a say, or it does.</summary>
    private static WhyAbsent? InGroup(SignInTestRun run, IPeopleSession session, PeopleObject person)
    {
        return run.Plan.EnterDn is { } dn
            ? NotIn(run, session, person, dn, run.Plan.EnterName!, run.Plan.GroupInFilter)
            : null;
    }

    /// <summary>Why somebody is not in a group as the product sees it; null when they are.</summary>
    /// <param name="byBackLink">Whether the product goes by the groups that people carry.</param>
    public static WhyAbsent? NotIn(
        SignInTestRun run, IPeopleSession session, PeopleObject person, string dn, string group, bool byBackLink)
    {
        if (session.Read(dn, "primaryGroupToken") is not { } read)
            return new WhyAbsent(SignInCause.GroupMissing, $"the group {dn} does not exist");
        var members = GroupMembers.Known(run, session, dn);
        if (!byBackLink && members.Has(person, run.Plan.NestedCount)) return null;
        if (read.First("primaryGroupToken") is { } token && token == person.First("primaryGroupID"))
            return new WhyAbsent(
                SignInCause.PrimaryGroup, $"{group} is the primary group, which is no membership that a filter finds");
        if (members.Count == 0) return new WhyAbsent(SignInCause.GroupEmpty, $"nobody is in {group}");
        if (members.Has(person, nested: false))
            return byBackLink && !person.All("memberOf").Any(g => ComparedName.KeyOf(g) == ComparedName.KeyOf(dn))
                ? new WhyAbsent(
                    SignInCause.NoBackLink, $"in {group}, but the person has no memberOf that says so, which the filter asks for")
                : null;
        return members.Has(person, nested: true)
            ? run.Plan.NestedCount ? null : new WhyAbsent(SignInCause.OnlyNested, $"in {group} only through another group")
            : new WhyAbsent(SignInCause.NotInGroup, $"not in {group}");
    }
}
