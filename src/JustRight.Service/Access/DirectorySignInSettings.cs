using JustRight.Core.Rights.Directory;

namespace JustRight.Service.Access;

/// <summary>With which directory people sign in to the console, under <c>JustRight:DirectorySignIn</c>; beside tokens and one-time links, which always work.</summary>
public sealed class DirectorySignInSettings
{
    /// <summary>The estate; null for no sign-in through a directory.</summary>
    public string? Estate { get; set; }

    /// <summary>The directory of people of that estate. Its <c>sign-in-as</c> and <c>secret</c> are the account that we look people up as.</summary>
    public string? Directory { get; set; }

    /// <summary>The groups whose members have a role, by role: distinguished names.</summary>
    public Dictionary<string, List<string>> Roles { get; set; } = [];

    /// <summary>After how many minutes it is asked again whether somebody who is signed in still has the role.</summary>
    public int AskAgainMinutes { get; set; } = 10;

    /// <summary>What is wrong with it, in one sentence; null when it is sound.</summary>
    public string? Fault()
    {
        if (Estate is null) return null;
        if (Directory is null) return "JustRight:DirectorySignIn:Directory is missing: the key of a directory under people-directories of the estate.";
        if (Roles.Count == 0) return "JustRight:DirectorySignIn:Roles is empty: name a group for at least one role, such as Roles:reader:0.";
        if (Roles.Keys.FirstOrDefault(r => !Access.Roles.All.Contains(r)) is { } role) return $"JustRight:DirectorySignIn:Roles:{role} is no role: {string.Join(", ", Access.Roles.All)}.";
        return Roles.SelectMany(r => r.Value.Select((g, i) => (r.Key, i, Group: g))).FirstOrDefault(g => !DistinguishedName.TryParse(g.Group, out _)) is { Group: not null } wrong
            ? $"JustRight:DirectorySignIn:Roles:{wrong.Key}:{wrong.i} is not a distinguished name: {wrong.Group}"
            : null;
    }

    /// <summary>The strongest role that membership of some groups gives, or null.</summary>
    public string? RoleOf(IEnumerable<string> groups)
    {
        var names = groups.Where(g => DistinguishedName.TryParse(g, out _)).Select(DistinguishedName.Parse).ToHashSet();
        return Access.Roles.All.Reverse().FirstOrDefault(role => Roles.TryGetValue(role, out var wanted) && wanted.Any(w => names.Contains(DistinguishedName.Parse(w))));
    }
}
