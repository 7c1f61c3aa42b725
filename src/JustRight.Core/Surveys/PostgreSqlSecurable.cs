namespace JustRight.Core.Surveys;

/// <summary>What within a database privileges are on [PostgreSQL, GRANT].</summary>
public enum SecurableClass
{
    /// <summary>A schema.</summary>
    Schema,

    /// <summary>A table, a view or a sequence: they share their names.</summary>
    Relation,

    /// <summary>A column of a table.</summary>
    Column,

    /// <summary>A function, procedure or aggregate, with the types of what it is called with.</summary>
    Routine,

    /// <summary>A type or domain.</summary>
    Type,

    /// <summary>A language that routines are written in.</summary>
    Language,

    /// <summary>A large object, by its number.</summary>
    LargeObject,

    /// <summary>A foreign server.</summary>
    ForeignServer,

    /// <summary>What reaches foreign servers of a kind.</summary>
    ForeignDataWrapper,
}

/// <summary>
/// Something within a database that privileges are on, as sheets write it: <c>SCHEMA::sales</c>, <c>OBJECT::sales.orders</c>,
/// <c>COLUMN::sales.orders.price</c>, <c>ROUTINE::sales.total(integer, text)</c>. A part of a name that holds a dot, a quote or a
/// parenthesis stands in double quotes, a quote in it doubled. Names are exact in case.
/// </summary>
/// <param name="Schema">The schema it lies in; null for what lies in none.</param>
/// <param name="Name">Its name; of a column the table's.</param>
/// <param name="Detail">The column, or the types a routine is called with; null for others.</param>
public sealed record PostgreSqlSecurable(SecurableClass Class, string? Schema, string Name, string? Detail)
{
    private static readonly (SecurableClass Class, string Word)[] Classes =
    [
        (SecurableClass.Schema, "SCHEMA"), (SecurableClass.Relation, "OBJECT"), (SecurableClass.Column, "COLUMN"),
        (SecurableClass.Routine, "ROUTINE"), (SecurableClass.Type, "TYPE"), (SecurableClass.Language, "LANGUAGE"),
        (SecurableClass.LargeObject, "LARGE OBJECT"), (SecurableClass.ForeignServer, "FOREIGN SERVER"),
        (SecurableClass.ForeignDataWrapper, "FOREIGN DATA WRAPPER"),
    ];

    /// <summary>As a sheet writes it.</summary>
    public string Words => $"{ClassWord}::{NameWords}";

    /// <summary>The words of its class: <c>OBJECT</c>.</summary>
    public string ClassWord => Classes.First(c => c.Class == Class).Word;

    /// <summary>Its name with what it lies in, parted by dots.</summary>
    public string NameWords =>
        $"{(Schema is null ? "" : DottedName.Part(Schema) + ".")}{DottedName.Part(Name)}{DetailWords}";

    private string DetailWords =>
        Detail is null ? "" : Class == SecurableClass.Routine ? $"({Detail})" : "." + DottedName.Part(Detail);

    /// <summary>The schema it lies in; null for a schema, and for what lies in none.</summary>
    public PostgreSqlSecurable? Around => Schema is null ? null : OfSchema(Schema);

    /// <summary>The table of a column; null for others.</summary>
    public PostgreSqlSecurable? Table => Class == SecurableClass.Column ? OfObject(Schema!, Name) : null;

    /// <summary>Whether it is the engine's own, or lies in a schema that is.</summary>
    public bool IsOfEngine => Class == SecurableClass.Schema ? IsEngines(Name) : Schema is not null && IsEngines(Schema);

    /// <summary>A class by the words of it.</summary>
    public static SecurableClass ClassOf(string word) => Classes.First(c => c.Word == word).Class;

    /// <summary>A schema.</summary>
    public static PostgreSqlSecurable OfSchema(string name) => new(SecurableClass.Schema, null, name, null);

    /// <summary>A table, view or sequence.</summary>
    public static PostgreSqlSecurable OfObject(string schema, string name) => new(SecurableClass.Relation, schema, name, null);

    /// <summary>Reads a sheet's words; null when they name nothing of this family.</summary>
    public static PostgreSqlSecurable? TryParse(string text)
    {
        var at = text.IndexOf("::", StringComparison.Ordinal);
        if (at < 0) return null;
        var word = text[..at].Trim();
        foreach (var (kind, known) in Classes)
            if (string.Equals(word, known, StringComparison.OrdinalIgnoreCase)) return Named(kind, text[(at + 2)..].Trim());
        return null;
    }

    private static PostgreSqlSecurable? Named(SecurableClass kind, string text)
    {
        string? types = null;
        if (kind == SecurableClass.Routine)
        {
            if (!text.EndsWith(')') || OpeningOf(text) is not { } open) return null;
            const StringSplitOptions bare = StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries;
            types = string.Join(", ", text[(open + 1)..^1].Split(',', bare));
            text = text[..open];
        }

        return (kind, DottedName.Parts(text)) switch
        {
            (SecurableClass.Schema or SecurableClass.Language or SecurableClass.LargeObject or SecurableClass.ForeignServer
                or SecurableClass.ForeignDataWrapper, [var name]) => new(kind, null, name, null),
            (SecurableClass.Relation or SecurableClass.Type or SecurableClass.Routine, [var schema, var name]) =>
                new(kind, schema, name, types),
            (SecurableClass.Column, [var schema, var table, var column]) => new(kind, schema, table, column),
            _ => null,
        };
    }

    /// <summary>Where the first parenthesis outside of quotes stands.</summary>
    private static int? OpeningOf(string text)
    {
        var quoted = false;
        for (var i = 0; i < text.Length; i++)
        {
            if (text[i] == '"') quoted = !quoted;
            else if (text[i] == '(' && !quoted) return i;
        }

        return null;
    }

    private static bool IsEngines(string schema) =>
        schema.StartsWith("pg_", StringComparison.Ordinal) || schema == "information_schema";
}
