using System.DirectoryServices.Protocols;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Directories.Ldap;

/// <summary>Changes access lists of a directory, an entry at a time, and reads back what came of it.</summary>
internal static class LdapAccessLists
{
    private const string Descriptor = AccessSurvey.Descriptor;

    /// <summary>Whether a change is made.</summary>
    public static Observation Observe(LdapSession session, AccessListChange change)
    {
        var dn = change.Dn;
        if (session.Read(dn, Descriptor) is not { } entry)
            return new Observation(ObservedState.Impossible, $"{dn} does not exist, or may not be seen");
        if (entry.Bytes(Descriptor) is null) return new Observation(ObservedState.Impossible, $"the ACL of {dn} may not be read");
        if (TrusteeOf(session, change) is not { } trustee)
            return change is RemoveAccessRule
                ? new Observation(ObservedState.Done, $"{change.Trustee} does not exist")
                : new Observation(ObservedState.Impossible, $"{change.Trustee} does not exist");
        var (made, seen) = AccessListChanges.State(change, Parse(entry), trustee);
        return new Observation(
            made switch { true => ObservedState.Done, false => ObservedState.NotDone, null => ObservedState.Impossible }, seen);
    }

    /// <summary>
    /// Makes a change. Only the access list is sent, so that owner and audit list stay as they are [MS-ADTS 3.1.1.3.4.1.11].
    /// </summary>
    public static void Make(LdapSession session, AccessListChange change)
    {
        var dn = change.Dn;
        var trustee = TrusteeOf(session, change)
            ?? throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no {change.Trustee} in the directory.");
        var before = Read(session, dn);
        var (made, seen) = AccessListChanges.State(change, before, trustee);
        if (made is null) throw new ConnectorException(ConnectorFailure.Conflict, $"{seen}.");
        var wanted = AccessListChanges.Made(change, before, trustee);
        var modification = new DirectoryAttributeModification
        {
            Name = Descriptor,
            Operation = DirectoryAttributeOperation.Replace,
        };
        modification.Add(DescriptorBytes.Write(wanted.DaclOnly));
        var request = new ModifyRequest(dn, modification);
        request.Controls.Add(new SecurityDescriptorFlagControl(SecurityMasks.Dacl));
        session.Change(request, $"changing the ACL of {dn}");

        // A list is written whole: another's change of the same list at the same moment would be lost unseen.
        var after = Read(session, dn);
        if (after.IsProtected != wanted.IsProtected || !Own(after).SequenceEqual(Own(wanted)))
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"the ACL of {dn} is not the one that was written: somebody else changed it at the same time. It is now {DescriptorText.Write(after.DaclOnly)}.");
    }

    /// <summary>Whether an entry of the object itself denies deleting it to Everyone.</summary>
    public static bool IsKeptFromDeletion(LdapSession session, string dn) =>
        session.Read(dn, Descriptor) is { } entry && entry.Bytes(Descriptor) is not null && DeletionProtection.IsOn(Parse(entry));

    private static IEnumerable<Ace> Own(SecurityDescriptor descriptor) => descriptor.Entries.Where(e => !e.IsInherited);

    private static SecurityDescriptor Read(LdapSession session, string dn)
    {
        var entry = session.Read(dn, Descriptor)
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"{dn} does not exist, or may not be seen.");
        if (entry.Bytes(Descriptor) is null)
            throw new ConnectorException(ConnectorFailure.NotAllowed, $"the ACL of {dn} may not be read.");
        return Parse(entry);
    }

    private static SecurityDescriptor Parse(DirectoryEntry entry)
    {
        try
        {
            return DescriptorBytes.Read(entry.Bytes(Descriptor));
        }
        catch (DescriptorFormatException e)
        {
            throw new ConnectorException(ConnectorFailure.Conflict, $"the ACL of {entry.Dn} cannot be decoded: {e.Message}", e);
        }
    }

    /// <summary>The SID of the principal, empty when the change names none, or null when the principal is not there.</summary>
    private static Sid? TrusteeOf(LdapSession session, AccessListChange change)
    {
        if (change.Trustee is not { } principal) return default(Sid);
        if (Sid.TryParse(principal, out var sid)) return sid;
        if (WellKnownSids.Find(principal) is { } known) return known;
        var name = LogonName.WithoutDomain(principal);
        return session.Find(name, "objectSid")?.Bytes("objectSid") is { } bytes && Sid.TryFromBytes(bytes, out var found)
            ? found
            : null;
    }
}
