using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>
/// What changes of access lists mean: whether one is made already, and the list afterwards. The simulation and the live
/// connector share it.
/// </summary>
public static class AccessListChanges
{
    /// <summary>Whether a change is made, in words.</summary>
    /// <param name="descriptor">The object's descriptor as it is.</param>
    /// <param name="trustee">The SID of the rule's principal; not used for inheritance.</param>
    /// <returns>Whether it is made; null when it cannot be made as things are; and what was seen.</returns>
    public static (bool? Made, string Seen) State(
        AccessListChange change, SecurityDescriptor descriptor, Sid trustee) => change switch
        {
            AddAccessRule c =>
                descriptor.Entries.Contains(c.Rule.ToAce(trustee))
                    ? (true, $"the entry stands on {c.Dn}")
                    : (false, $"{c.Dn} has no such ACE"),
            RemoveAccessRule c => descriptor.Entries.Count(e => e == c.Rule.ToAce(trustee)) switch
            {
                0 => (true, $"{c.Dn} has no such ACE"),
                1 => (false, $"the entry stands on {c.Dn}"),
                // One taken away changes nothing, and all of them could not be put back where they were.
                var many => (null, $"the same ACE stands {many} times on {c.Dn}: leave one of them first"),
            },
            SwitchInheritance { On: true } c => !descriptor.IsProtected ? (true, $"{c.Dn} inherits")
                : SameList(descriptor, c) ? (false, $"{c.Dn} does not inherit")
                : (null, $"the ACL of {c.Dn} has changed since it was read: read it again"),
            SwitchInheritance c => !descriptor.IsProtected ? (false, $"{c.Dn} inherits")
                : SameList(descriptor, c) ? (true, $"{c.Dn} has its own ACL again")
                : (null, $"{c.Dn} has inheritance disabled, and its ACL is not the one to be restored"),
            _ => throw new InvalidOperationException($"{change.GetType().Name} is no change of an access list."),
        };

    /// <summary>
    /// The descriptor with the change made to the object's own entries; what it inherits is the directory's to work out.
    /// </summary>
    public static SecurityDescriptor Made(AccessListChange change, SecurityDescriptor descriptor, Sid trustee) => change switch
    {
        AddAccessRule c => AclEditor.Insert(descriptor, c.Rule.ToAce(trustee), c.Position),
        RemoveAccessRule c => AclEditor.Remove(descriptor, c.Rule.ToAce(trustee)).Descriptor,
        SwitchInheritance { On: true } => descriptor.WithProtection(false),
        SwitchInheritance c => Closed(descriptor, DescriptorText.Read(c.OwnList)),
        _ => throw new InvalidOperationException($"{change.GetType().Name} is no change of an access list."),
    };

    /// <summary>With its own list again, and the bits that speak of it as they were.</summary>
    private static SecurityDescriptor Closed(SecurityDescriptor descriptor, SecurityDescriptor own) => descriptor with
    {
        Dacl = own.Dacl,
        Control = (descriptor.Control & ~SecurityDescriptor.OfDacl) | (own.Control & SecurityDescriptor.OfDacl)
            | DescriptorControl.DaclProtected,
    };

    private static bool SameList(SecurityDescriptor descriptor, SwitchInheritance change) =>
        DescriptorText.Read(change.OwnList).Entries.SequenceEqual(descriptor.Entries);
}
