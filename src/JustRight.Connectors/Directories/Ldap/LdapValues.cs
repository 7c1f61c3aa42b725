using System.DirectoryServices.Protocols;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>Adds one value to an attribute that holds several, or deletes it, and leaves the others alone.</summary>
internal static class LdapValues
{
    /// <summary>Makes the change, of a value whose case does not count.</summary>
    /// <param name="found">The object, with the attribute's values.</param>
    public static void Change(
        LdapSession session, DirectoryEntry found, string attribute, string value, DirectoryAttributeOperation operation)
    {
        var modify = new ModifyRequest(found.Dn);
        var change = new DirectoryAttributeModification { Name = attribute, Operation = operation };

        // as it is written there: a server may compare it by case all the same
        change.Add(
            found.Texts(attribute).FirstOrDefault(n => string.Equals(n, value, StringComparison.OrdinalIgnoreCase)) ?? value);
        modify.Modifications.Add(change);
        session.Change(modify, $"changing {found.Dn}");
    }
}
