using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;

namespace JustRight.Core.Engines.Directory;

/// <summary>Holds entries that were found against rights that are needed, or forbidden.</summary>
public static class EntryReach
{
    /// <summary>The bits by which something can be changed, or a secret read; the others only look.</summary>
    public const AccessRights Changing = AccessRights.FullControl & ~(
        AccessRights.ReadProperty | AccessRights.ListContents | AccessRights.ListObject | AccessRights.ReadControl);

    private static readonly Sid Somebody = Sid.Parse("S-1-5-21-0-0-0-1000");

    /// <summary>What an entry lets its holder change beyond what the needs ask for.</summary>
    /// <param name="needs">What its holder needs below branches.</param>
    public static AccessRights Beyond(EntryRight entry, IEnumerable<BranchAsked> needs, DirectorySchema schema)
    {
        var beyond = entry.Rule.Rights.Mapped() & Changing;
        foreach (var need in needs.Where(n => DistinguishedName.IsAtOrBelow(entry.Where, n.Branch)))
        {
            if (Demands.Of(need, schema).Demands is not { } demands || schema.Class(need.Of) is not { } of) continue;
            foreach (var demand in demands)
            {
                if (demand.ObjectType is not null && demand.ObjectType != entry.Rule.ObjectType) continue;
                // An entry that stops at its own object reaches nothing else, whatever its class says.
                if (!demand.GivenOnContainers && entry.Rule.InheritedBy != of.Id
                    && entry.Rule.Flags.HasFlag(AceFlags.ContainerInherit))
                    continue;
                beyond &= ~demand.Grant.Mapped();
            }
        }

        return beyond;
    }

    /// <summary>Whether an entry alone lets its holder do a part of an act to objects of a class.</summary>
    public static bool Gives(EntryRight entry, BranchAsked act, DirectorySchema schema)
    {
        var rule = entry.Rule;
        if (Demands.Of(act, schema).Demands is not { } demands || schema.Class(act.Of) is not { } of) return false;
        var list = new SecurityDescriptor(
            DescriptorControl.DaclPresent, default, default,
            Acl.Of([(rule with { Flags = AceFlags.None, InheritedBy = null }).ToAce(Somebody)]), null);
        var token = new AccessToken(Somebody, []);
        return demands.Any(d => (d.GivenOnContainers || rule.InheritedBy is not { } heir || heir == of.Id)
            && (AccessCheck.Judge(list, token, d.Question).Answer == AccessAnswer.Yes
                || (d.OrOfParent ?? d.OrWrite) is { } other
                    && AccessCheck.Judge(list, token, other).Answer == AccessAnswer.Yes));
    }
}
