namespace JustRight.Core.Rights;

/// <summary>What a policy does, at the next refresh, to who is denied a right of a host.</summary>
/// <param name="Policy">The policy's identifier.</param>
/// <param name="Name">Its name.</param>
/// <param name="Denies">Whether its list denies the right to the account; null when that is not known.</param>
/// <param name="WhyNotKnown">Why it is not known, or null when it is.</param>
public sealed record GovernedDenial(string Policy, string Name, bool? Denies, string? WhyNotKnown);
