using JustRight.Core.Faults;

namespace JustRight.Core.Installs;

/// <summary>
/// That the password of an account never expires: a choice, with a reason, who made it, and when it is looked at again.
/// </summary>
public sealed record NeverExpires(string Why, string By, DateOnly ReviewBy, Origin At);
