namespace JustRight.Core.Engines;

/// <summary>A permission and what within a database it is on, as sheets write both families' alike.</summary>
/// <param name="Permission">In capitals.</param>
/// <param name="On"><c>SCHEMA::name</c>, <c>OBJECT::schema.name</c>, or null for the database itself.</param>
internal sealed record Securable(string Permission, string? On)
{
    private const string Schema = "SCHEMA::";
    private const string Object = "OBJECT::";

    /// <summary>As a sheet writes it.</summary>
    public string Words => On is null ? Permission : $"{Permission} on {On}";

    /// <summary>Whether the words of <see cref="On"/> are of a schema.</summary>
    public static bool IsSchema(string on) => on.StartsWith(Schema, StringComparison.OrdinalIgnoreCase);

    /// <summary>Reads a sheet's words: <c>EXECUTE</c>, <c>EXECUTE on SCHEMA::reports</c>.</summary>
    public static Securable Parse(string text)
    {
        var at = text.IndexOf(" on ", StringComparison.OrdinalIgnoreCase);
        return at < 0
            ? new Securable(text.Trim().ToUpperInvariant(), null)
            : new Securable(text[..at].Trim().ToUpperInvariant(), text[(at + 4)..].Trim());
    }

    /// <summary>A schema, in the words of <see cref="On"/>.</summary>
    private static string OfSchema(string name) => Schema + name;

    /// <summary>The next wider thing within the database that something lies in: an object's schema; null for a schema.</summary>
    public static string? Around(string on) =>
        on.StartsWith(Object, StringComparison.OrdinalIgnoreCase) && on.IndexOf('.', StringComparison.Ordinal) is > 0 and var dot
            ? OfSchema(on[Object.Length..dot])
            : null;
}
