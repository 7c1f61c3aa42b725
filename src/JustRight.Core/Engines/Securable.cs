namespace JustRight.Core.Engines;

/// <summary>A permission and what it is on, as sheets write both families' alike.</summary>
/// <param name="Permission">In capitals.</param>
/// <param name="On">Such as <c>SCHEMA::name</c>; null for the database or the instance itself.</param>
internal sealed record Securable(string Permission, string? On)
{
    /// <summary>As a sheet writes it.</summary>
    public string Words => On is null ? Permission : $"{Permission} on {On}";

    /// <summary>Reads a sheet's words: <c>EXECUTE</c>, <c>EXECUTE on SCHEMA::reports</c>.</summary>
    public static Securable Parse(string text)
    {
        var at = text.IndexOf(" on ", StringComparison.OrdinalIgnoreCase);
        return at < 0
            ? new Securable(text.Trim().ToUpperInvariant(), null)
            : new Securable(text[..at].Trim().ToUpperInvariant(), text[(at + 4)..].Trim());
    }
}
