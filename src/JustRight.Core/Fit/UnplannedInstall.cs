using JustRight.Core.Rights;

namespace JustRight.Core.Fit;

/// <summary>
/// An install that cannot be planned now: its file, its sheet or its estate no longer reads. What it needs is not known, so
/// nothing that it may need can be called excess, or be taken away.
/// </summary>
/// <param name="Install">Its name.</param>
/// <param name="Why">Why it cannot be planned.</param>
/// <param name="Names">The accounts and groups that are known to be its own or used by it; null when not even that is
/// known.</param>
/// <param name="Places">The hosts, instances and databases that it names; null when not even that is known.</param>
public sealed record UnplannedInstall(string Install, string Why, IReadOnlySet<string>? Names, IReadOnlySet<string>? Places)
{
    /// <summary>Whether an account or group may be one that it uses.</summary>
    public bool MayUse(string name) => Names is null || Names.Contains(name);

    /// <summary>Whether it may need a right of an account.</summary>
    public bool MayNeed(string account, Right right) => MayUse(account) || Places is null || IsAtItsPlace(right);

    /// <summary>That it is not known whether it needs something.</summary>
    public string Words => $"whether {Install} needs it is not known, because it cannot be planned: {Why}";

    private bool IsAtItsPlace(Right right) =>
        new[] { right.Place, right.OnHost, right.AtInstance }.Any(place => place is not null && Places!.Contains(place));
}
