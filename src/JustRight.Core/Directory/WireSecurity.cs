namespace JustRight.Core.Directory;

/// <summary>How what goes over the wire to a directory is protected.</summary>
public enum WireSecurity
{
    /// <summary>TLS from the start, by custom on port 636.</summary>
    Tls,

    /// <summary>A plain connection that turns to TLS before anything is said [RFC 4511 4.14], by custom on port 389.</summary>
    StartTls,

    /// <summary>Nothing: passwords can be read on the way. By custom on port 389.</summary>
    Plain,
}

/// <summary>Words and ports of <see cref="WireSecurity"/>.</summary>
public static class WireSecurityWords
{
    /// <summary>The words of files and pages.</summary>
    public static readonly IReadOnlyList<string> All = ["tls", "start-tls", "plain"];

    /// <summary>The word for one.</summary>
    public static string Word(this WireSecurity security) => All[(int)security];

    /// <summary>The port by custom.</summary>
    public static int CustomaryPort(this WireSecurity security) => security == WireSecurity.Tls ? 636 : 389;
}
