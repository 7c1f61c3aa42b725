using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Core.Rights.Branches;

/// <summary>Where an inherited entry comes from: that is where it is changed.</summary>
public static class EntryOrigin
{
    /// <summary>
    /// Where an entry of an object stands as a direct entry: the nearest object above that carries it, and its place in the list
    /// there; the object itself where none does.
    /// </summary>
    public static (int Index, int Entry) Of(AccessTree tree, int index, Ace ace)
    {
        foreach (var above in ace.IsInherited ? tree.AtAndAbove(index).Skip(1) : [index])
        {
            var entries = tree.DescriptorOf(above)?.Entries ?? [];
            for (var i = 0; i < entries.Count; i++)
            {
                var own = entries[i];
                if (!own.IsInherited && own.Denies == ace.Denies && own.ObjectType == ace.ObjectType
                    && own.Mask.Mapped() == ace.Mask.Mapped() && (own.Trustee == ace.Trustee || own.Trustee == Sid.CreatorOwner))
                    return (above, i);
            }
        }

        return (index, tree.DescriptorOf(index)!.Entries.ToList().IndexOf(ace));
    }
}
