namespace JustRight.Formats.Databases;

/// <summary>What within a database a permission is on, taken apart.</summary>
internal static class Securable
{
    private const string Schema = "SCHEMA::";
    private const string Object = "OBJECT::";

    /// <summary>
    /// The schema, and the object of it, of <c>SCHEMA::name</c> or <c>OBJECT::schema.name</c>; null for the database itself.
    /// </summary>
    /// <exception cref="ArgumentException">It is neither.</exception>
    public static (string Schema, string? Item)? Of(string? on)
    {
        if (on is null) return null;
        if (on.StartsWith(Schema, StringComparison.OrdinalIgnoreCase)) return (on[Schema.Length..], null);
        if (on.StartsWith(Object, StringComparison.OrdinalIgnoreCase)
            && on.IndexOf('.', StringComparison.Ordinal) is > 8 and var dot)
            return (on[Object.Length..dot], on[(dot + 1)..]);
        throw new ArgumentException($"'{on}' is neither SCHEMA::name nor OBJECT::schema.name.", nameof(on));
    }
}
