namespace JustRight.Core.Surveys;

/// <summary>A privilege on a parameter of an instance of the PostgreSQL family, as sheets and changes write it.</summary>
/// <param name="Privilege">In capitals.</param>
/// <param name="Parameter">The parameter, whose name does not count by case.</param>
public sealed record ParameterPrivilege(string Privilege, string Parameter)
{
    private const string Before = "PARAMETER::";
    private const string On = " on ";

    /// <summary>The two that there are [PostgreSQL, GRANT ON PARAMETER].</summary>
    public static IReadOnlyList<string> All { get; } = ["SET", "ALTER SYSTEM"];

    /// <summary>As a sheet writes it.</summary>
    public string Words => $"{Privilege}{On}{Before}{Parameter}";

    /// <summary>
    /// The privileges there are on something an instance has, in a sheet's words; none on what is no parameter.
    /// </summary>
    public static IReadOnlyList<string> NamesOn(string on) =>
        on.StartsWith(Before, StringComparison.OrdinalIgnoreCase) && on.Length > Before.Length ? All : [];

    /// <summary>Reads a sheet's words: <c>SET on PARAMETER::log_statement</c>; null when they are of something else.</summary>
    public static ParameterPrivilege? TryParse(string text)
    {
        var at = text.IndexOf(On + Before, StringComparison.OrdinalIgnoreCase);
        return at < 0
            ? null
            : new(text[..at].Trim().ToUpperInvariant(), text[(at + On.Length + Before.Length)..].Trim().ToLowerInvariant());
    }
}
