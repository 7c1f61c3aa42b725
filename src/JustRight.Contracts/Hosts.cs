using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A host as the latest survey read it.</summary>
/// <param name="Reach">How it is reached.</param>
/// <param name="Role"><c>member</c>, <c>controller</c> or <c>standalone</c>.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
/// <param name="UnreadParts">Parts that could not be read, though the host could.</param>
/// <param name="Policies">The policies linked above it, the one of highest precedence first.</param>
/// <param name="PoliciesUnseen">Why their order could not be worked out, or null.</param>
/// <param name="Installs">The installs that need something of it.</param>
public sealed record HostView(
    string Estate, string Name, bool Simulated, string Reach,
    [property: AllowedValues("member", "controller", "standalone")] string Role, string System, DateTimeOffset ReadAt,
    string ReadBy, string? Unread, IReadOnlyList<UnreadPartView> UnreadParts, IReadOnlyList<HostGroupView> Groups,
    IReadOnlyList<HostRightView> Rights, IReadOnlyList<HostServiceView> Services, IReadOnlyList<HostPolicyView> Policies,
    string? PoliciesUnseen, IReadOnlyList<string> Installs);

/// <summary>A local group.</summary>
public sealed record HostGroupView(string Name, string Sid, IReadOnlyList<HostHolderView> Members);

/// <summary>Somebody on a list of a host.</summary>
/// <param name="Name">The name, or the SID when it has none here.</param>
/// <param name="Known">Whether the name is known.</param>
/// <param name="Machine">Whether it is a computer account.</param>
public sealed record HostHolderView(string Name, string Sid, bool Known, bool Machine);

/// <summary>A log-on right or privilege with its holders.</summary>
/// <param name="Policy">The policy that decides on it, or null when none does.</param>
/// <param name="Unseen">Why it is not known whether a policy decides on it, or null.</param>
/// <param name="TakenBack">Holders that the policy's list lacks: the next refresh takes the right back from them.</param>
public sealed record HostRightView(
    string Constant, string Words, bool Denies, IReadOnlyList<HostHolderView> Holders, string? Policy, string? Unseen,
    IReadOnlyList<string> TakenBack);

/// <summary>A service.</summary>
/// <param name="Account">What it runs as from its next start.</param>
/// <param name="RunsNowAs">What it runs as now, or null.</param>
/// <param name="RestartPending">Whether it runs as something else than it is set to.</param>
/// <param name="Start">When it starts.</param>
/// <param name="StartOrder">When it starts once what waits for it is counted in: <c>with the system</c>, <c>automatic</c>,
/// <c>automatic, delayed</c>, <c>manual</c> or <c>disabled</c>.</param>
/// <param name="Obstacle">Why it cannot start, or null.</param>
/// <param name="AskedBy">The install and account that ask for it, or null.</param>
public sealed record HostServiceView(
    string Name, string Title, string Account, bool Running, string? RunsNowAs, DateTimeOffset? RunsSince,
    bool RestartPending, string Start, string StartOrder, IReadOnlyList<string> WaitsFor, string? Obstacle, string? AskedBy);

/// <summary>A policy as it stands for a host.</summary>
/// <param name="Fate">
/// <c>applies</c>, <c>unseen</c>, <c>link-disabled</c>, <c>blocked</c>, <c>gone</c>, <c>half-disabled</c> or <c>filtered</c>.
/// </param>
public sealed record HostPolicyView(
    string Policy, string Name, string LinkedAt, int Number, bool Enforced,
    [property: AllowedValues("applies", "unseen", "link-disabled", "blocked", "gone", "half-disabled", "filtered")] string Fate,
    string Why);
