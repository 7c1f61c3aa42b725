using System.DirectoryServices.Protocols;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Connectors.People;

/// <summary>Reading single objects of a directory of people.</summary>
public static class PeopleSearching
{
    /// <summary>Reads one object; null when it is not there or may not be seen.</summary>
    public static PeopleObject? Read(this IPeopleSession session, string dn, params IReadOnlyList<string> attributes)
    {
        try
        {
            return session.Search(dn, SearchScope.Base, "(objectClass=*)", null, attributes).FirstOrDefault();
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.NotFound)
        {
            return null;
        }
    }
}
