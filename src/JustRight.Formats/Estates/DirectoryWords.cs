using JustRight.Core.Directory;
using JustRight.Core.Estates;

namespace JustRight.Formats.Estates;

/// <summary>The words for directories of people, in estates and in the settings of the service.</summary>
public static class DirectoryWords
{
    /// <summary>The families.</summary>
    public static readonly IReadOnlyDictionary<string, DirectoryFamily> Families = new Dictionary<string, DirectoryFamily>
    {
        ["ad-like"] = DirectoryFamily.AdLike,
        ["inetorgperson"] = DirectoryFamily.InetOrgPerson,
    };

    /// <summary>How groups of the family inetorgperson keep who is in them.</summary>
    public static readonly IReadOnlyDictionary<string, GroupKind> GroupKinds = new Dictionary<string, GroupKind>
    {
        ["group-of-names"] = GroupKind.GroupOfNames,
        ["group-of-unique-names"] = GroupKind.GroupOfUniqueNames,
        ["posix-group"] = GroupKind.PosixGroup,
    };

    /// <summary>How a connection is protected.</summary>
    public static readonly IReadOnlyDictionary<string, WireSecurity> Securities =
        Enum.GetValues<WireSecurity>().ToDictionary(s => s.Word());
}
