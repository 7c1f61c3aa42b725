using JustRight.Core.Surveys;

namespace JustRight.Core.Rights.Policies;

/// <summary>What became of one link for one host.</summary>
public enum LinkFate
{
    /// <summary>The policy applies.</summary>
    Applies,

    /// <summary>Whether it applies could not be settled.</summary>
    Unseen,

    /// <summary>The link is disabled.</summary>
    LinkDisabled,

    /// <summary>A container below blocks what is not enforced.</summary>
    Blocked,

    /// <summary>The policy no longer exists.</summary>
    Gone,

    /// <summary>The policy's computer half is switched off.</summary>
    HalfDisabled,

    /// <summary>Its access list does not let the computer apply it.</summary>
    Filtered,
}

/// <summary>A policy as it stands for one host.</summary>
/// <param name="Policy">Its identifier.</param>
/// <param name="Name">Its name, or the identifier when it has none here.</param>
/// <param name="Container">Where it is linked.</param>
/// <param name="Number">Its link number there, from 1.</param>
/// <param name="Why">One sentence on its fate.</param>
public sealed record PolicyStanding(
    string Policy, string Name, string Container, int Number, bool IsEnforced, LinkFate Fate, string Why);

/// <summary>Whether a computer may apply a policy.</summary>
/// <param name="Passes">Null when that is not known.</param>
/// <param name="Why">The reason, for no and for not known.</param>
public readonly record struct PolicyFilter(bool? Passes, string Why);

/// <summary>
/// The order in which policies count for one host [MS-GPOL 3.2.5.1.5, 3.2.5.1.6]: enforced links first, those of the highest
/// container before those below; then all others from the host's own branch upwards, as far as nothing blocks them. Within one
/// container the lowest link number wins. Only computer halves matter for rights: loopback changes what users get, never these.
/// </summary>
public static class PolicyOrder
{
    /// <summary>Works out the order.</summary>
    /// <param name="chain">The containers above the host, from the site over the domain to its own branch.</param>
    /// <param name="policies">The policies that exist, by identifier.</param>
    /// <param name="filter">Whether the host may apply a policy.</param>
    /// <returns>Every link, the one of highest precedence first; those that do not apply stand where they would.</returns>
    public static IReadOnlyList<PolicyStanding> Of(
        IReadOnlyList<PolicyContainer> chain, IReadOnlyDictionary<string, GroupPolicy> policies, Func<GroupPolicy,
        PolicyFilter> filter)
    {
        var levels = chain.Select(c => (Container: c, Links: PolicyLink.Read(c.Links, out _))).ToList();
        // What blocks stands below what it blocks, and never blocks its own links.
        var blockedBelow = levels.FindLastIndex(l => l.Container.BlocksInheritance);
        var enforced = levels.SelectMany(l => l.Links.Select((link, i) => (l.Container, Link: link, Number: i + 1)))
            .Where(l => l.Link.IsEnforced).Select(l => Stand(l.Container, l.Link, l.Number, null));
        var others = levels.Select((l, level) => (l.Container, l.Links, level)).Reverse()
            .SelectMany(l =>
                l.Links.Select((link, i) =>
                    (
                        l.Container, Link: link, Number: i + 1,
                        By: l.level < blockedBelow ? levels[blockedBelow].Container.Dn : null)))
            .Where(l => !l.Link.IsEnforced).Select(l => Stand(l.Container, l.Link, l.Number, l.By));
        return [.. enforced, .. others];

        PolicyStanding Stand(PolicyContainer container, PolicyLink link, int number, string? blockedBy)
        {
            var policy = policies.GetValueOrDefault(link.Policy);
            var (fate, why) = link.IsDisabled ? (LinkFate.LinkDisabled, "the link is disabled")
                : blockedBy is not null ? (LinkFate.Blocked, $"{blockedBy} blocks inheritance of policies from above")
                : policy is null ? (LinkFate.Gone, "the policy no longer exists")
                : policy.ComputerHalfDisabled ? (LinkFate.HalfDisabled, "the policy's computer part is disabled")
                : filter(policy) switch
                {
                    { Passes: true } => (LinkFate.Applies, "it applies"),
                    { Passes: false } no => (LinkFate.Filtered, no.Why),
                    var unknown => (LinkFate.Unseen, unknown.Why),
                };
            return new PolicyStanding(link.Policy, policy?.Name ?? link.Policy, container.Dn, number, link.IsEnforced, fate, why);
        }
    }
}
