using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Faults;
using JustRight.Formats.Estates;
using JustRight.Service.Platform.Answers;

namespace JustRight.Service.Platform.Settings;

/// <summary>
/// With which directory people sign in to the console, under <c>JustRight:DirectorySignIn</c>; beside tokens and one-time links,
/// which always work. It stands here whole: whoever may replace an estate must not thereby choose who is an owner.
/// </summary>
public sealed class DirectorySignInSettings
{
    private static readonly Origin Settings = new("the settings of the service", 1, 1);

    /// <summary>The organization's own word for the directory, which the sign-in page shows.</summary>
    public string Name { get; set; } = "directory";

    /// <summary>What stands before a logon name, as in <c>FENNMOOR\a.brandt</c>.</summary>
    public string? ShortName { get; set; }

    /// <summary>The name of the server, which its certificate must carry; null for no sign-in through a directory.</summary>
    public string? Host { get; set; }

    /// <summary>The port; by custom that of <see cref="Security"/>.</summary>
    public int? Port { get; set; }

    /// <summary><c>tls</c> or <c>start-tls</c>: no password is sent in clear.</summary>
    public string Security { get; set; } = "tls";

    /// <summary><c>ad-like</c> or <c>inetorgperson</c>.</summary>
    public string Family { get; set; } = "ad-like";

    /// <summary>The name above everything in the directory.</summary>
    public string? Root { get; set; }

    /// <summary>The branch of people.</summary>
    public string? PeopleIn { get; set; }

    /// <summary>The branch of groups.</summary>
    public string? GroupsIn { get; set; }

    /// <summary>For the family inetorgperson: how groups keep who is in them.</summary>
    public string Groups { get; set; } = "group-of-names";

    /// <summary>For the family inetorgperson: whether people carry the groups they are in, as <c>memberOf</c>.</summary>
    public bool BackLink { get; set; }

    /// <summary>A folder with the certificates of the authorities to trust.</summary>
    public string? CaFolder { get; set; }

    /// <summary>The account that people are looked up as.</summary>
    public string? SignInAs { get; set; }

    /// <summary>The name of the secret with its password; an owner allows it for this use.</summary>
    public string? Secret { get; set; }

    /// <summary>A simulated directory instead, as <c>estate/directory</c>: in a demo only.</summary>
    public string? Simulation { get; set; }

    /// <summary>The groups whose members have a role, by role: distinguished names.</summary>
    public Dictionary<string, List<string>> Roles { get; set; } = [];

    /// <summary>After how many minutes it is asked again whether somebody who is signed in still has the role.</summary>
    public int AskAgainMinutes { get; set; } = 10;

    /// <summary>Whether people sign in with a directory at all.</summary>
    public bool IsSet => Host is not null || Simulation is not null;

    /// <summary>The directory's key, as pages show it.</summary>
    public string Key => Simulation?.Split('/')[^1] ?? Name;

    /// <summary>What is wrong with it, in one sentence; null when it is sound.</summary>
    /// <param name="isDemo">Whether the service runs a demo.</param>
    /// <param name="roles">The roles that there are, in order of power.</param>
    public string? Fault(bool isDemo, IReadOnlyList<string> roles)
    {
        if (!IsSet) return null;
        if (Simulation is not null)
        {
            if (Host is not null) return "JustRight:DirectorySignIn names both a Host and a Simulation: one of them.";
            if (Simulation.Split('/') is not [{ Length: > 0 }, { Length: > 0 }])
                return "JustRight:DirectorySignIn:Simulation is not ESTATE/DIRECTORY, such as fennmoor/staff.";
            if (!isDemo)
                return "JustRight:DirectorySignIn:Simulation gives roles to simulated people: that is for demos only (JustRight:Demo).";
        }
        else if (DirectoryFault() is { } fault)
        {
            return fault;
        }

        if (Roles.Count == 0)
            return "JustRight:DirectorySignIn:Roles is empty: name a group for at least one role, such as Roles:reader:0.";
        if (Roles.Keys.FirstOrDefault(r => !roles.Contains(r)) is { } role)
            return $"JustRight:DirectorySignIn:Roles:{role} is no role: {string.Join(", ", roles)}.";
        var groups = Roles.SelectMany(r => r.Value.Select((g, i) => (r.Key, i, Group: g)));
        return groups.FirstOrDefault(g => !DistinguishedName.TryParse(g.Group, out _)) is { Group: not null } wrong
            ? $"JustRight:DirectorySignIn:Roles:{wrong.Key}:{wrong.i} is not a distinguished name: {wrong.Group}"
            : null;
    }

    /// <summary>The directory, for settings that name one of their own.</summary>
    public PeopleDirectory ToDirectory()
    {
        var security = DirectoryWords.Securities[Security];
        var family = DirectoryWords.Families[Family];
        return new PeopleDirectory(
            Name, family, Host!, new Dictionary<WireSecurity, int> { [security] = Port ?? security.CustomaryPort() },
            DistinguishedName.Parse(Root!), DistinguishedName.Parse(PeopleIn!), DistinguishedName.Parse(GroupsIn!),
            family == DirectoryFamily.AdLike ? GroupKind.Group : DirectoryWords.GroupKinds[Groups],
            family == DirectoryFamily.AdLike || BackLink, Settings)
        {
            Reach = Reach.Ldaps,
            CaFolder = CaFolder,
            SignInAs = SignInAs,
            Secret = Secret,
        };
    }

    /// <summary>The strongest role that membership of some groups gives, or null.</summary>
    /// <param name="roles">The roles that there are, in order of power.</param>
    public string? RoleOf(IEnumerable<string> groups, IReadOnlyList<string> roles)
    {
        var names = groups.Where(g => DistinguishedName.TryParse(g, out _)).Select(DistinguishedName.Parse).ToHashSet();
        return roles.Reverse().FirstOrDefault(role =>
            Roles.TryGetValue(role, out var wanted) && wanted.Any(w => names.Contains(DistinguishedName.Parse(w))));
    }

    private string? DirectoryFault()
    {
        foreach (var (key, value) in new[] { ("CaFolder", CaFolder), ("SignInAs", SignInAs), ("Secret", Secret), (
            "ShortName", ShortName) })
            if (string.IsNullOrWhiteSpace(value)) return $"JustRight:DirectorySignIn:{key} is missing (docs/operations.md).";
        foreach (var (key, value) in new[] { ("Root", Root), ("PeopleIn", PeopleIn), ("GroupsIn", GroupsIn) })
            if (!DistinguishedName.TryParse(value ?? "", out _))
                return $"JustRight:DirectorySignIn:{key} is not a distinguished name: {value}";
        if (!DirectoryWords.Families.ContainsKey(Family))
            return $"JustRight:DirectorySignIn:Family is none of {string.Join(", ", DirectoryWords.Families.Keys)}: {Family}";
        if (!DirectoryWords.GroupKinds.ContainsKey(Groups))
            return $"JustRight:DirectorySignIn:Groups is none of {string.Join(", ", DirectoryWords.GroupKinds.Keys)}: {Groups}";
        return Security is "tls" or "start-tls"
            ? null
            : $"JustRight:DirectorySignIn:Security is neither tls nor start-tls: {Security}";
    }
}
