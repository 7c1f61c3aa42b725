using JustRight.Core.Directory.Descriptors;

namespace JustRight.Core.Rights.Access;

/// <summary>The answer to a question of access. Unknown is an answer of its own.</summary>
public enum AccessAnswer
{
    /// <summary>Allowed.</summary>
    Yes,

    /// <summary>Not allowed.</summary>
    No,

    /// <summary>Something that is not understood or was not read could change it.</summary>
    Unknown,
}

/// <summary>What settled an answer.</summary>
public enum AccessReason
{
    /// <summary>Entries that allow.</summary>
    Allowed,

    /// <summary>There is no access list: all is allowed.</summary>
    NoList,

    /// <summary>What an owner may do by being the owner.</summary>
    Owner,

    /// <summary>A privilege of the account.</summary>
    Privilege,

    /// <summary>An entry that denies.</summary>
    Denied,

    /// <summary>No entry allows it.</summary>
    NothingAllows,

    /// <summary>An entry of a type that is not understood.</summary>
    UnknownEntry,

    /// <summary>An entry for somebody whom the account may belong to: what it is in could not be read whole.</summary>
    UnreadMembership,

    /// <summary>The descriptor could not be read.</summary>
    Unread,
}

/// <summary>An answer with what settled it.</summary>
/// <param name="Entry">The index in the stored list of the entry that settled it: the one that allowed the last bit, or denied.
/// -1 when no entry did.</param>
/// <param name="Missing">The bits that were not allowed.</param>
public readonly record struct AccessDecision(AccessAnswer Answer, AccessReason Reason, int Entry, AccessRights Missing);
