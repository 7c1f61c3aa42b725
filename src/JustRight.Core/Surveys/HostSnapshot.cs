using JustRight.Core.Rights.Directory;

namespace JustRight.Core.Surveys;

/// <summary>What was read of a host.</summary>
/// <param name="Unread">Why nothing could be read, or null.</param>
/// <param name="LogonLists">The lists of log-on rights as they count, denying ones included.</param>
/// <param name="UnreadParts">Lists that could not be read, though the host could.</param>
public sealed record HostSnapshot(
    string Name, DateTimeOffset ReadAt, string? Unread, IReadOnlyList<LocalGroup> LocalGroups, IReadOnlyList<LogonList> LogonLists, IReadOnlyList<UnreadPart> UnreadParts)
{
    /// <summary>The part name that stands for all local groups.</summary>
    public const string LocalGroupsPart = "local groups";

    /// <summary>A host that could not be read.</summary>
    public static HostSnapshot NotRead(string name, DateTimeOffset at, string reason) => new(name, at, reason, [], [], []);
}

/// <summary>A local group with its direct members.</summary>
/// <param name="Sid">Its own SID, by which the host's lists may name it.</param>
public sealed record LocalGroup(string Name, Sid Sid, IReadOnlyList<Sid> Members);

/// <summary>The holders of one log-on right.</summary>
/// <param name="Constant">Such as <c>SeServiceLogonRight</c>.</param>
public sealed record LogonList(string Constant, IReadOnlyList<Sid> Holders);

/// <summary>A part that could not be read.</summary>
public sealed record UnreadPart(string Part, string Reason);
