using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>Puts entries into lists and takes them out, leaving every other entry where it is.</summary>
public static class AclEditor
{
    /// <summary>
    /// Puts a direct entry into a list: one that denies before the first own entry that does not, one that allows after the
    /// last own one, both before the inherited ones [MS-DTYP 2.4.5.1, canonical order]. A list out of order is not put in order.
    /// </summary>
    /// <param name="position">Where to put it among all entries, to restore a list exactly; null for the canonical place.</param>
    /// <returns>The descriptor; the same one when the entry is there already.</returns>
    public static SecurityDescriptor Insert(SecurityDescriptor descriptor, Ace ace, int? position = null)
    {
        if (descriptor.Entries.Contains(ace)) return descriptor;
        var entries = descriptor.Entries.ToList();
        entries.Insert(Math.Min(position ?? Place(entries, ace), entries.Count), ace);
        return descriptor.WithEntries(entries);
    }

    /// <summary>Takes a direct entry out of a list.</summary>
    /// <returns>The descriptor, the same one when there is no such entry; and where the entry stood, or -1.</returns>
    public static (SecurityDescriptor Descriptor, int Position) Remove(SecurityDescriptor descriptor, Ace ace)
    {
        var entries = descriptor.Entries.ToList();
        var at = entries.IndexOf(ace);
        if (at < 0) return (descriptor, -1);
        entries.RemoveAt(at);
        return (descriptor.WithEntries(entries), at);
    }

    private static int Place(List<Ace> entries, Ace ace)
    {
        var inherited = entries.FindIndex(e => e.IsInherited);
        var own = inherited < 0 ? entries.Count : inherited;
        if (!ace.Denies) return own;
        var first = entries.FindIndex(e => !e.Denies);
        return first < 0 ? own : Math.Min(first, own);
    }
}
