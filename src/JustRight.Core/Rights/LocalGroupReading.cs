using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Core.Rights;

/// <summary>What a survey does not say of the local groups of a host.</summary>
internal static class LocalGroupReading
{
    private static readonly HashSet<string> OtherParts = new(StringComparer.OrdinalIgnoreCase)
    {
        HostSnapshot.RightsPart, HostSnapshot.SourcesPart, HostSnapshot.ServicesPart, HostSnapshot.ServiceOrderPart,
        HostSnapshot.RunningIdentitiesPart,
    };

    /// <summary>
    /// Why it is not known who comes through a principal that a host, or an instance on it, names: it may be a local group of the
    /// host that was not read. Null when it is known, or is no such group.
    /// </summary>
    public static string? WhyMembersUnread(this SurveyView view, string host, Sid sid)
    {
        if (!sid.IsBuiltIn && (!sid.IsOfAccounts || view.Graph.IndexOf(sid) >= 0)) return null;
        if (view.Host(host) is { Unread: null } read)
        {
            if (read.Role == HostRole.Controller || read.LocalGroups.Any(g => g.Sid == sid)) return null;
            return read.UnreadParts.FirstOrDefault(p => IsOfLocalGroups(p.Part)) is { } part
                ? $"{part.Part} on {read.Name} could not be read: {part.Reason}"
                : null;
        }

        return view.WhyHostUnread(host);
    }

    /// <summary>A part that is not read is all local groups, or one of them, unless it is something else that is known.</summary>
    private static bool IsOfLocalGroups(string part) => !OtherParts.Contains(part)
        && LogonRights.OfConstant(part) is null && Privileges.Find(part) is null
        && !part.StartsWith(HostSnapshot.TemplatePart, StringComparison.OrdinalIgnoreCase);
}
