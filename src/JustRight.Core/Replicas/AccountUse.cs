namespace JustRight.Core.Replicas;

/// <summary>
/// When an account last signed in, as one controller knows it: <c>lastLogon</c> is not replicated [MS-ADA1 2.351].
/// </summary>
/// <param name="Controller">The controller, by its own name.</param>
/// <param name="Unread">Why it could not be asked, or null.</param>
/// <param name="LastLogon">When the account last signed in there; null for never.</param>
public sealed record ControllerLogon(string Controller, string? Unread, DateTimeOffset? LastLogon);

/// <summary>What the controllers of a domain know of an account's use. What one of them was not asked counts as use.</summary>
public sealed record AccountUse(string Account, IReadOnlyList<ControllerLogon> Controllers)
{
    /// <summary>Why it is not known to be unused, or null when every controller says that it never signed in.</summary>
    public string? WhyNotUnused()
    {
        if (Controllers.MaxBy(c => c.LastLogon ?? DateTimeOffset.MinValue) is { LastLogon: { } last } used)
            return $"it signed in at {used.Controller}, last {last.UtcDateTime:yyyy-MM-dd HH:mm} UTC";
        if (Controllers.FirstOrDefault(c => c.Unread is not null) is { } unread)
            return $"whether it signed in at {unread.Controller} is not known: {unread.Unread}";
        return Controllers.Count == 0 ? "no domain controller could be asked whether it signed in" : null;
    }
}
