using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>Where the test controller (Samba 4.17) is known to differ from the protocol. Each was seen by real attempts.</summary>
[Flags]
public enum Deviations
{
    None = 0,

    /// <summary>An object entry that allows control access grants every right at the node it names; the protocol grants only the bits of its mask [MS-ADTS 5.1.3.3.3].</summary>
    ControlAccessGrantsAll = 1,

    /// <summary>An object entry never counts for list contents; by the protocol one without a GUID equals the plain one [MS-ADTS 5.1.3.3.2].</summary>
    ObjectEntriesNotForListing = 2,

    /// <summary>An object entry that names the object's own class counts for delete and for writing the access list; by the protocol only one without a GUID does [MS-ADTS 5.1.3.3.2].</summary>
    OwnClassForSimpleRights = 4,

    /// <summary>Owner Rights entries count for nothing, and the owner always has write-DACL [MS-DTYP 2.5.3.2].</summary>
    OwnerRightsIgnored = 8,

    /// <summary>All of them.</summary>
    All = 15,
}

/// <summary>A second, simpler way to judge, with the test controller's deviations built in and each of them to be switched off.</summary>
public static class ControllerModel
{
    public static bool Judge(
        SecurityDescriptor descriptor, AccessToken token, AccessQuestion question, SceneObject target, DirectorySchema schema,
        Deviations deviations)
    {
        var nodes = new List<Guid?> { question.Target, question.PropertySet, question.Class };
        var simple = question is { Target: null, Class: null };
        if (simple && deviations.HasFlag(Deviations.OwnClassForSimpleRights) && question.Rights != AccessRights.ListContents)
            nodes.Add(schema.Class(target.Class)!.Id);
        var left = question.Rights;
        var isOwner = token.Holds(descriptor.Owner);
        var ownerRights = descriptor.Entries.Any(a => a.IsEffective && a.Trustee == Sid.OwnerRights);
        if (isOwner && (!ownerRights || deviations.HasFlag(Deviations.OwnerRightsIgnored)))
            left &= ~(AccessRights.ReadControl | AccessRights.WriteDacl);
        foreach (var ace in descriptor.Entries.Where(a => a.IsEffective))
        {
            var forOwner = isOwner && ace.Trustee == Sid.OwnerRights && !deviations.HasFlag(Deviations.OwnerRightsIgnored);
            if (!forOwner && !token.Holds(ace.Trustee == Sid.Self && !target.Sid.IsEmpty ? target.Sid : ace.Trustee)) continue;
            if (ace.IsObject && question.Rights == AccessRights.ListContents
                && deviations.HasFlag(Deviations.ObjectEntriesNotForListing))
                continue;
            if (ace.ObjectType is { } id && !nodes.Contains(id)) continue;
            var bits = ace.Mask.Mapped();
            if (ace.Denies && (bits & left) != 0) return false;
            if (!ace.Allows) continue;
            left &= ~bits;
            if (ace.IsObject && bits.HasFlag(AccessRights.ControlAccess) && deviations.HasFlag(Deviations.ControlAccessGrantsAll))
                left = AccessRights.None;
            if (left == AccessRights.None) return true;
        }

        return left == AccessRights.None;
    }
}
