using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.People;

/// <summary>Reads the people and groups of a directory, so that filters can be tried without asking it again.</summary>
public static class PeopleSurvey
{
    private const int PageSize = 500;

    /// <summary>Reads everything below the branches of people and of groups.</summary>
    /// <param name="readAs">The account that reads.</param>
    /// <param name="counted">Told how many were read so far.</param>
    /// <exception cref="ConnectorException">The directory breaks off, or a branch is not there.</exception>
    public static PeopleSnapshot Read(
        IPeopleSession session, PeopleDirectory directory, string readAs, DateTimeOffset now, Action<int> counted)
    {
        var attributes = AttributeMap.Surveyed(directory);
        var (types, classes) = session.Schema();
        var objects = new List<PeopleObject>();
        foreach (var branch in Branches(directory))
        {
            foreach (var one in session.Search(branch, SearchScope.Subtree, "(objectClass=*)", PageSize, attributes))
            {
                objects.Add(one);
                if (objects.Count % PageSize == 0) counted(objects.Count);
            }
        }

        return new PeopleSnapshot(directory.Key, directory.Family, readAs, now, objects, attributes, types, classes, null);
    }

    /// <summary>Asks the directory whom a filter finds, with what is needed to show them.</summary>
    /// <param name="below">Where to search; null for the branches of people and of groups.</param>
    public static IReadOnlyList<PeopleObject> Find(
        IPeopleSession session, PeopleDirectory directory, Filter filter, DistinguishedName? below) =>
        [.. (below is null ? Branches(directory) : [below.Text]).SelectMany(b =>
            session.Search(
                b, SearchScope.Subtree, filter.Text, PageSize, "objectClass", "displayName", "cn", "sAMAccountName", "uid"))];

    /// <summary>The branches, without one that lies in another.</summary>
    private static IEnumerable<string> Branches(PeopleDirectory directory)
    {
        DistinguishedName[] all = [.. directory.PeopleBranches, .. directory.GroupsBranches];
        return all.Distinct().Where(b => !all.Any(o => !o.Equals(b) && b.IsAtOrBelow(o))).Select(b => b.Text);
    }
}
