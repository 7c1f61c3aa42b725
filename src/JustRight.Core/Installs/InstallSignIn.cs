using JustRight.Core.Faults;

namespace JustRight.Core.Installs;

/// <summary>With which directory people sign in here, and what is expected of it.</summary>
/// <param name="Directory">The estate's key of the directory.</param>
public sealed record InstallSignIn(string Directory, Origin At)
{
    /// <summary>Where each key stands, for faults.</summary>
    public IReadOnlyDictionary<string, Origin> Lines { get; init; } = new Dictionary<string, Origin>();

    /// <summary>Where a key stands; the section itself where it does not.</summary>
    public Origin Line(string key) => Lines.GetValueOrDefault(key, At);

    /// <summary>The account of the directory's own to bind as, where the plan makes none: a distinguished name.</summary>
    public string? BindAs { get; init; }

    /// <summary>The name of the secret, kept by the service, that holds the bind account's password.</summary>
    public string? BindSecret { get; init; }

    /// <summary>
    /// The group of the directory's own whose members may enter, where the plan makes none: a distinguished name.
    /// </summary>
    public string? EnterThrough { get; init; }

    /// <summary>Groups and people of the domain that belong in the plan's group of those who may enter, by logon name.</summary>
    public IReadOnlyList<string> EnterMembers { get; init; } = [];

    /// <summary>What the names of groups start with that an administrator sees; empty for what the sheet says.</summary>
    public IReadOnlyList<string> GroupsStart { get; init; } = [];

    /// <summary>How many people are expected; null when that is not known.</summary>
    public int? ExpectedPeople { get; init; }

    /// <summary>The logon names of the people expected; empty when they are not known.</summary>
    public IReadOnlyList<string> ExpectedNames { get; init; } = [];

    /// <summary>The names of the groups that an administrator should see; empty when they are not known.</summary>
    public IReadOnlyList<string> ExpectedGroups { get; init; } = [];

    /// <summary>The logon name of somebody who must be able to sign in.</summary>
    public string? MayEnter { get; init; }

    /// <summary>The logon names of people who must not.</summary>
    public IReadOnlyList<string> MayNotEnter { get; init; } = [];
}
