namespace JustRight.Core.Plans;

/// <summary>What kind of place a password is typed in.</summary>
public enum PasswordPlaceKind
{
    /// <summary>A secret that Just Right itself keeps to sign in with.</summary>
    OwnSecret,

    /// <summary>A service, which the service controller of a host starts with it.</summary>
    Service,

    /// <summary>A scheduled task, which the host keeps the password with.</summary>
    Task,

    /// <summary>An application pool of the web server, which keeps the password in its own settings.</summary>
    Pool,

    /// <summary>A setting with which a product looks people up.</summary>
    SignIn,

    /// <summary>Another setting of a product.</summary>
    Setting,

    /// <summary>A place that a person told of.</summary>
    Told,
}

/// <summary>A place where the password of an account is typed.</summary>
/// <param name="Account">The account: a logon name of the domain, or a distinguished name.</param>
/// <param name="Host">The host; empty where there is none.</param>
/// <param name="Where">The file, the page, or that it is a service.</param>
/// <param name="Setting">The product's own name of the setting, or the name of the service.</param>
/// <param name="Breaks">What stops when the password is changed in the directory and not here.</param>
public sealed record PasswordPlace(
    string Account, PasswordPlaceKind Kind, string Host, string Where, string Setting, string Breaks)
{
    /// <summary>The product's title; empty where none is known to be behind it.</summary>
    public string Product { get; init; } = "";

    /// <summary>The install; empty where none is known to be behind it.</summary>
    public string Install { get; init; } = "";

    /// <summary>The service of the host that reads it at its start only, or null when it is read at each use.</summary>
    public string? ReadByService { get; init; }

    /// <summary>
    /// For a place that holds a reference instead of the password: the name of the secret it refers to, and where that is kept.
    /// </summary>
    public string? Reference { get; init; }

    /// <summary>Why what is there now could not be looked at, or null.</summary>
    public string? NotSeen { get; init; }

    /// <summary>What was seen that somebody should know before the next change, or null.</summary>
    public string? Note { get; init; }

    /// <summary>
    /// Whether every use is refused from the moment the directory has another password. A service that runs goes on until its
    /// next start.
    /// </summary>
    public bool BreaksAtOnce => Kind switch
    {
        // a task fails the next time it is due, a pool with its next recycling
        PasswordPlaceKind.Service or PasswordPlaceKind.Task or PasswordPlaceKind.Pool => false,
        PasswordPlaceKind.OwnSecret or PasswordPlaceKind.SignIn or PasswordPlaceKind.Setting or PasswordPlaceKind.Told =>
            ReadByService is null,
    };

    /// <summary>Stable identity within an account.</summary>
    public string Id => string.Join('|', Kind.ToString(), Host, Where, Setting).ToLowerInvariant();

    /// <summary>Where it is, in words.</summary>
    public string Words => Kind switch
    {
        PasswordPlaceKind.Service => $"the service {Setting} on {Host}",
        PasswordPlaceKind.Task => $"the scheduled task {Setting} on {Host}",
        PasswordPlaceKind.Pool => $"the web application pool {Setting} on {Host}",
        PasswordPlaceKind.OwnSecret => $"the secret {Setting} that Just Right keeps",
        PasswordPlaceKind.SignIn or PasswordPlaceKind.Setting or PasswordPlaceKind.Told =>
            $"{Setting} in {Where}{(Host.Length > 0 ? $" on {Host}" : "")}",
    };
}
