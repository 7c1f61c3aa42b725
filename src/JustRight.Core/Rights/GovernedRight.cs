namespace JustRight.Core.Rights;

/// <summary>What a policy does to a right that an account needs on a host.</summary>
/// <param name="Policy">The policy's identifier.</param>
/// <param name="Name">Its name.</param>
/// <param name="LinkedAt">Where it is linked, or null when only the host's word is known.</param>
/// <param name="Entries">Its list for the right, as written; null when the template was not read.</param>
/// <param name="Gives">Whether its list gives the right to the account; null when the list was not read.</param>
public sealed record GovernedRight(string Policy, string Name, string? LinkedAt, IReadOnlyList<string>? Entries, bool? Gives);
