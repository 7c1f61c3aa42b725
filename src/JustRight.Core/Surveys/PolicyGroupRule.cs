namespace JustRight.Core.Surveys;

/// <summary>What a policy does to local groups of the hosts that it applies to.</summary>
public enum PolicyGroupAct
{
    /// <summary>The whole membership of a group [Restricted Groups, Members].</summary>
    Members,

    /// <summary>The groups that a principal is put into [Restricted Groups, Member Of].</summary>
    MemberOf,

    /// <summary>A preference item that makes a group where there is none.</summary>
    Create,

    /// <summary>A preference item that changes a group, and makes it where there is none.</summary>
    Update,

    /// <summary>A preference item that makes a group anew: who was in it before is not any more.</summary>
    Replace,

    /// <summary>A preference item that takes a group away.</summary>
    Delete,
}

/// <summary>One rule of a policy for local groups, of its template or of its preferences [MS-GPSB; MS-GPPREF].</summary>
/// <param name="Name">The group; for <see cref="PolicyGroupAct.MemberOf"/> the principal. As written: <c>*SID</c>, or a
/// name.</param>
/// <param name="Entries">Who is to be in it; for <see cref="PolicyGroupAct.MemberOf"/> the groups.</param>
public sealed record PolicyGroupRule(PolicyGroupAct Act, string Name, IReadOnlyList<string> Entries)
{
    /// <summary>Of a preference item: who is to go.</summary>
    public IReadOnlyList<string> Removed { get; init; } = [];

    /// <summary>Of a preference item: whether all users go first.</summary>
    public bool ClearsUsers { get; init; }

    /// <summary>Of a preference item: whether all groups go first.</summary>
    public bool ClearsGroups { get; init; }

    /// <summary>Of a preference item: whether it is for some hosts alone, by what only the host can tell.</summary>
    public bool IsTargeted { get; init; }
}
