using System.DirectoryServices.Protocols;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>Service principal names of accounts. One that another account has is never given to a second.</summary>
internal static class LdapServiceNames
{
    private const string Attribute = "servicePrincipalName";

    /// <summary>Whether an account has a name, and whether it can be given it.</summary>
    public static Observation Observe(LdapSession session, string account, string name, bool wanted)
    {
        if (session.Find(account, Attribute) is not { } found)
            return wanted ? new Observation(ObservedState.Impossible, $"{account} does not exist")
                : new Observation(ObservedState.Done, $"{account} does not exist");
        var has = found.Texts(Attribute).Contains(name, StringComparer.OrdinalIgnoreCase);
        if (wanted && !has && Other(session, found.Dn, name) is { } other)
            return new Observation(ObservedState.Impossible, $"{other} has {name}: Kerberos sign-in would fail for both");
        return new Observation(
            has == wanted ? ObservedState.Done : ObservedState.NotDone, has ? $"{account} has {name}"
                : $"{account} does not have {name}");
    }

    /// <summary>Adds or deletes the one value.</summary>
    public static void Make(LdapSession session, string account, string name, DirectoryAttributeOperation operation)
    {
        var found = session.Find(account, Attribute)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no {account}.");
        if (operation == DirectoryAttributeOperation.Add && Other(session, found.Dn, name) is { } other)
            throw new ConnectorException(ConnectorFailure.Conflict, $"{other} has {name}.");

        LdapValues.Change(session, found, Attribute, name, operation);
    }

    private static string? Other(LdapSession session, string dn, string name) =>
        session.Search(session.Root, SearchScope.Subtree, new EntryFilter(Attribute, [name]), "sAMAccountName")
            .FirstOrDefault(e => !string.Equals(e.Dn, dn, StringComparison.OrdinalIgnoreCase)) is { } other
            ? other.Text("sAMAccountName") ?? other.Dn : null;
}
