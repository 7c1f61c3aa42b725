namespace JustRight.Formats.Shapes;

/// <summary>Shapes that several files share.</summary>
internal static class Words
{
    /// <summary>The pattern of keys.</summary>
    public const string KeyPattern = "[a-z][a-z0-9-]{0,39}";

    /// <summary>The pattern in words.</summary>
    public const string KeySays = "a short word of small letters, digits and hyphens that starts with a letter";

    /// <summary>A key of the writer's own.</summary>
    public static Shape.Text Key(string summary) => new(summary, KeyPattern, KeySays);

    /// <summary>Names of hosts and instances.</summary>
    public const string HostPattern = "[A-Za-z0-9][A-Za-z0-9._\\\\-]{0,62}";

    /// <summary>The pattern in words.</summary>
    public const string HostSays = "a host or instance name";

    /// <summary>A release number.</summary>
    public static Shape.Text Release(string summary) => new(summary, "[0-9]+(\\.[0-9]+){0,7}", "a number such as 15 or 4.2");

    /// <summary>A mapping whose keys are <see cref="KeyPattern"/>.</summary>
    public static Shape.Named Named(string summary, Shape value) => new(summary, KeyPattern, KeySays, value);
}
