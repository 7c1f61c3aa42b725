using System.ComponentModel.DataAnnotations;

namespace JustRight.Contracts;

/// <summary>A host as the latest survey read it.</summary>
/// <param name="Estate">The estate.</param>
/// <param name="Name">Its name, as the estate has it.</param>
/// <param name="Simulated">Whether it is simulated.</param>
/// <param name="Reach">How it is reached.</param>
/// <param name="Role"><c>member</c>, <c>controller</c> or <c>standalone</c>.</param>
/// <param name="System">Its operating system, as it says; empty when it was not told.</param>
/// <param name="ReadAt">When it was read.</param>
/// <param name="ReadBy">Who read it, as the host calls the reader.</param>
/// <param name="Unread">Why nothing could be read, or null.</param>
/// <param name="UnreadParts">Parts that could not be read, though the host could.</param>
/// <param name="Groups">Its local groups.</param>
/// <param name="Rights">Log-on rights and privileges, with who has them.</param>
/// <param name="Services">Its services.</param>
/// <param name="Policies">The policies linked above it, the one of highest precedence first.</param>
/// <param name="PoliciesUnseen">Why their order could not be worked out, or null.</param>
/// <param name="Installs">The installs that need something of it.</param>
public sealed record HostView(
    string Estate, string Name, bool Simulated, [property: ReachWord] string Reach,
    [property: AllowedValues("member", "controller", "standalone")] string Role, string System, DateTimeOffset ReadAt,
    string ReadBy, string? Unread, IReadOnlyList<UnreadPartView> UnreadParts, IReadOnlyList<HostGroupView> Groups,
    IReadOnlyList<HostRightView> Rights, IReadOnlyList<HostServiceView> Services, IReadOnlyList<HostPolicyView> Policies,
    string? PoliciesUnseen, IReadOnlyList<string> Installs)
{
    /// <summary>Its scheduled tasks and web application pools that run as an account.</summary>
    public IReadOnlyList<HostRunnerView> Runners { get; init; } = [];
}

/// <summary>A scheduled task or a web application pool.</summary>
/// <param name="Kind"><c>task</c> or <c>pool</c>.</param>
/// <param name="Name">Its name; of a task with its folder.</param>
/// <param name="Account">What it runs as.</param>
/// <param name="Identity">What that is, what it may do on this host, and what other hosts take it for.</param>
/// <param name="KeepsPassword">Whether the host keeps a password with it.</param>
/// <param name="Disabled">Whether it is switched off.</param>
public sealed record HostRunnerView(
    [property: AllowedValues("task", "pool")] string Kind, string Name, string Account, string Identity, bool KeepsPassword,
    bool Disabled);

/// <summary>A local group.</summary>
/// <param name="Name">Its name.</param>
/// <param name="Sid">Its security identifier.</param>
/// <param name="Members">Who is in it.</param>
public sealed record HostGroupView(string Name, string Sid, IReadOnlyList<HostHolderView> Members);

/// <summary>Somebody on a list of a host.</summary>
/// <param name="Name">The name, or the SID when it has none here.</param>
/// <param name="Sid">The security identifier.</param>
/// <param name="Known">Whether the name is known.</param>
/// <param name="Machine">Whether it is a computer account.</param>
public sealed record HostHolderView(string Name, string Sid, bool Known, bool Machine);

/// <summary>A log-on right or privilege with its holders.</summary>
/// <param name="Constant">The constant of the right, such as <c>SeServiceLogonRight</c>.</param>
/// <param name="Words">The right, in words.</param>
/// <param name="Denies">Whether it keeps its holders from something.</param>
/// <param name="Holders">Who has it.</param>
/// <param name="Policy">The policy that decides on it, or null when none does.</param>
/// <param name="Unseen">Why it is not known whether a policy decides on it, or null.</param>
/// <param name="TakenBack">Holders that the policy's list lacks: the next refresh takes the right back from them.</param>
public sealed record HostRightView(
    string Constant, string Words, bool Denies, IReadOnlyList<HostHolderView> Holders, string? Policy, string? Unseen,
    IReadOnlyList<string> TakenBack);

/// <summary>A service.</summary>
/// <param name="Name">Its short name.</param>
/// <param name="Title">Its display name.</param>
/// <param name="Account">What it runs as from its next start.</param>
/// <param name="Running">Whether it runs.</param>
/// <param name="RunsNowAs">What it runs as now, or null.</param>
/// <param name="RunsSince">Since when it runs; null when it does not, or that was not told.</param>
/// <param name="RestartPending">Whether it runs as something else than it is set to.</param>
/// <param name="Start">When it starts.</param>
/// <param name="StartOrder">When it starts once what waits for it is counted in: <c>with the system</c>, <c>automatic</c>,
/// <c>automatic, delayed</c>, <c>manual</c> or <c>disabled</c>.</param>
/// <param name="WaitsFor">The services it waits for.</param>
/// <param name="Obstacle">Why it cannot start, or null.</param>
/// <param name="AskedBy">The install and account that ask for it, or null.</param>
public sealed record HostServiceView(
    string Name, string Title, string Account, bool Running, string? RunsNowAs, DateTimeOffset? RunsSince, bool RestartPending,
    string Start,
    [property: AllowedValues("with the system", "automatic", "automatic, delayed", "manual", "disabled")] string StartOrder,
    IReadOnlyList<string> WaitsFor, string? Obstacle, string? AskedBy)
{
    /// <summary>What an install asks it to run as; null where none does.</summary>
    public HostServiceAskedView? Asked { get; init; }

    /// <summary>
    /// What it runs as from its next start: what that is, what it may do here, and what other hosts take it for.
    /// </summary>
    public string Identity { get; init; } = "";

    /// <summary>
    /// Log-on rights and privileges that a built-in identity holds on this host; empty for accounts, which have a page of their
    /// own, and for LocalSystem, which may do everything.
    /// </summary>
    public IReadOnlyList<string> IdentityRights { get; init; } = [];
}

/// <summary>What an install asks a service to run as.</summary>
/// <param name="Install">The install.</param>
/// <param name="Account">What its sheet calls the account.</param>
/// <param name="Name">The logon name of the account.</param>
/// <param name="Need">The id of the need: the step of the worklist that is for it sets it.</param>
public sealed record HostServiceAskedView(string Install, string Account, string Name, string Need);

/// <summary>A policy as it stands for a host.</summary>
/// <param name="Policy">Its GUID.</param>
/// <param name="Name">Its display name.</param>
/// <param name="LinkedAt">The distinguished name of where it is linked.</param>
/// <param name="Number">Its place in the order of links there, from 1.</param>
/// <param name="Enforced">Whether the link is enforced.</param>
/// <param name="Fate">
/// <c>applies</c>, <c>unseen</c>, <c>link-disabled</c>, <c>blocked</c>, <c>gone</c>, <c>half-disabled</c> or <c>filtered</c>.
/// </param>
/// <param name="Why">Why its fate is this.</param>
public sealed record HostPolicyView(
    string Policy, string Name, string LinkedAt, int Number, bool Enforced,
    [property: AllowedValues("applies", "unseen", "link-disabled", "blocked", "gone", "half-disabled", "filtered")] string Fate,
    string Why);
