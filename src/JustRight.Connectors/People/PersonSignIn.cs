using System.DirectoryServices.Protocols;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SignIn;
using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Connectors.People;

/// <summary>Somebody of a directory.</summary>
/// <param name="LogonName">As the directory writes it, whatever was typed.</param>
/// <param name="Groups">The distinguished names of the groups that person is in, directly or through others.</param>
public sealed record KnownPerson(string Dn, string LogonName, IReadOnlyList<string> Groups);

/// <summary>
/// Lets people sign in to us with their directory account: looked up as our own account, then bound as themselves.
/// </summary>
public static class PersonSignIn
{
    /// <summary>
    /// Somebody who can sign in, by logon name; null when nobody has it, or more than one, or that account is disabled.
    /// </summary>
    /// <param name="session">As our own account.</param>
    public static KnownPerson? Find(IPeopleSession session, PeopleDirectory directory, string logonName)
    {
        var map = AttributeMap.Of(directory);
        var filter = SignInFilters.Person(SignInFilters.People(directory, null, false), directory, logonName).Text;
        List<PeopleObject> found = [.. directory.PeopleBranches.SelectMany(b =>
            session.Search(b.Text, SearchScope.Subtree, filter, null, map.LogonName)).DistinctBy(p => ComparedName.KeyOf(p.Dn))];
        // A directory compares more loosely than people read: blanks, or letters that look alike to it.
        return found is [var person] && person.First(map.LogonName) is { } name
            && string.Equals(name, logonName, StringComparison.OrdinalIgnoreCase)
            ? new KnownPerson(person.Dn, name, [.. PersonGroups.Of(session, directory, person).All.Select(g => g.Dn)])
            : null;
    }

    /// <summary>Whether a password is that person's. Asked once; the directory counts a wrong one.</summary>
    /// <exception cref="ConnectorException">The directory cannot be reached.</exception>
    public static async Task<bool> IsPasswordOfAsync(
        IPeopleDirectory people, WireSecurity security, KnownPerson person, NewPassword password, CancellationToken cancel)
    {
        try
        {
            using var session = await people.BindAsync(security, person.Dn, password, cancel);
            return true;
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.SignIn)
        {
            return false;
        }
    }
}
