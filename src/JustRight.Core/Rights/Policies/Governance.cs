using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Policies;

/// <summary>Which policy's list decides on one right of one host, if any.</summary>
/// <param name="Policy">The policy, or null when the host's own list counts.</param>
/// <param name="List">The policy's list, or null when it is known only that this policy governs.</param>
/// <param name="Standing">Where it is linked, when that was worked out from the directory.</param>
/// <param name="Unseen">Why it is not known whether a policy governs, or null.</param>
public sealed record Governance(GroupPolicy? Policy, PolicyList? List, PolicyStanding? Standing, string? Unseen)
{
    /// <summary>No policy governs: a grant on the host stays.</summary>
    public static Governance None { get; } = new(null, null, null, null);

    /// <summary>
    /// When a change of a policy reaches the host, and when a change on the host that the policy governs is taken back [MS-GPSB
    /// 3.2.5; refresh intervals are the host's own].
    /// </summary>
    public const string Refresh = "the next policy refresh (at a start, within about 90 minutes after a policy changed, within 16 hours in any case)";

    /// <summary>Whether it is known that a policy governs.</summary>
    public bool Governs => Policy is not null;

    /// <summary>
    /// The winner of one right: each right is one whole list, and the list of the policy of highest precedence that names the
    /// right replaces all others and the host's own. A policy above it that is not known to apply or not, and names the right or
    /// could, leaves it open.
    /// </summary>
    /// <param name="order">The host's policies, the one of highest precedence first.</param>
    /// <param name="policies">The policies by identifier.</param>
    /// <param name="constant">The right.</param>
    public static Governance Of(
        IReadOnlyList<PolicyStanding> order, IReadOnlyDictionary<string, GroupPolicy> policies, string constant)
    {
        foreach (var standing in order)
        {
            if (standing.Fate is not (LinkFate.Applies or LinkFate.Unseen)) continue;
            var policy = policies[standing.Policy];
            if (policy.Lists is null)
                return new Governance(
                    null, null, standing,
                    $"the template of policy {policy.Name} could not be read{(policy.ListsUnread is { } why ? $": {why}" : "")}");
            if (policy.Lists.FirstOrDefault(l =>
                string.Equals(l.Constant, constant, StringComparison.OrdinalIgnoreCase)) is not { } list)
                continue;
            return standing.Fate == LinkFate.Unseen
                ? new Governance(null, null, standing, $"whether policy {policy.Name} applies is not known: {standing.Why}")
                : new Governance(policy, list, standing, null);
        }

        return None;
    }
}
