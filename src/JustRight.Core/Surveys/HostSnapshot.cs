using JustRight.Core.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of a host.</summary>
/// <param name="Unread">Why nothing could be read, or null.</param>
/// <param name="LogonLists">The lists of effective log-on rights and privileges, denying ones included.</param>
/// <param name="UnreadParts">Lists that could not be read, though the host could.</param>
public sealed record HostSnapshot(
    string Name, DateTimeOffset ReadAt, string? Unread, IReadOnlyList<LocalGroup> LocalGroups,
    IReadOnlyList<LogonList> LogonLists, IReadOnlyList<UnreadPart> UnreadParts)
{
    /// <summary>The part name that stands for all local groups.</summary>
    public const string LocalGroupsPart = "local groups";

    /// <summary>The part name that stands for all lists of rights.</summary>
    public const string RightsPart = "rights";

    /// <summary>The part name that stands for the policies that lists of rights come from.</summary>
    public const string SourcesPart = "sources of rights";

    /// <summary>The part name that stands for all services.</summary>
    public const string ServicesPart = "services";

    /// <summary>The part name that stands for all scheduled tasks.</summary>
    public const string TasksPart = "scheduled tasks";

    /// <summary>The part name that stands for all application pools of the web server.</summary>
    public const string PoolsPart = "web application pools";

    /// <summary>The part name that stands for what services wait for.</summary>
    public const string ServiceOrderPart = "order of services";

    /// <summary>The part name that stands for the identities services run as now.</summary>
    public const string RunningIdentitiesPart = "running identities";

    /// <summary>How the name of a part begins that is the template of a policy on the host.</summary>
    public const string TemplatePart = "template of policy";

    /// <summary>What the host is.</summary>
    public HostRole Role { get; init; }

    /// <summary>Its operating system and release; empty when that was not told.</summary>
    public string System { get; init; } = "";

    /// <summary>Who read it, as the host calls the reader; empty when that was not told.</summary>
    public string ReadBy { get; init; } = "";

    /// <summary>Its services.</summary>
    public IReadOnlyList<HostService> Services { get; init; } = [];

    /// <summary>Its scheduled tasks and web application pools, those that run as a built-in identity left out.</summary>
    public IReadOnlyList<HostRunner> Runners { get; init; } = [];

    /// <summary>The policies it says it has applied, the one of highest precedence first; null when it did not say.</summary>
    public IReadOnlyList<AppliedPolicy>? Policies { get; init; }

    /// <summary>A host that could not be read.</summary>
    public static HostSnapshot NotRead(string name, DateTimeOffset at, string reason) => new(name, at, reason, [], [], []);
}

/// <summary>A local group with its direct members.</summary>
/// <param name="Sid">Its own SID, by which the host's lists may name it.</param>
public sealed record LocalGroup(string Name, Sid Sid, IReadOnlyList<Sid> Members);

/// <summary>The holders of one log-on right or privilege.</summary>
/// <param name="Constant">Such as <c>SeServiceLogonRight</c>.</param>
public sealed record LogonList(string Constant, IReadOnlyList<Sid> Holders)
{
    /// <summary>Holders that the host names without a SID.</summary>
    public IReadOnlyList<string> Named { get; init; } = [];

    /// <summary>
    /// The policy that the host says the list comes from, or null when it comes from the host itself or that was not told.
    /// </summary>
    public string? Policy { get; init; }
}

/// <summary>What a host is in its domain.</summary>
public enum HostRole
{
    /// <summary>A member of the domain with local groups of its own.</summary>
    Member,

    /// <summary>A domain controller: its local groups are those of the domain [MS-ADTS 6.1.1.4.12].</summary>
    Controller,

    /// <summary>In no domain.</summary>
    Standalone,
}

/// <summary>A part that could not be read.</summary>
public sealed record UnreadPart(string Part, string Reason);
