namespace JustRight.Core.Surveys;

/// <summary>What permissions of the SQL Server family are on [GRANT; <c>sys.fn_builtin_permissions</c>, class_desc].</summary>
public enum SqlServerClass
{
    /// <summary>The instance itself.</summary>
    Server,

    /// <summary>A login.</summary>
    Login,

    /// <summary>A role of the instance.</summary>
    ServerRole,

    /// <summary>An endpoint.</summary>
    Endpoint,

    /// <summary>An availability group.</summary>
    AvailabilityGroup,

    /// <summary>A database itself.</summary>
    Database,

    /// <summary>A user of a database.</summary>
    User,

    /// <summary>A role of a database.</summary>
    Role,

    /// <summary>An application role.</summary>
    ApplicationRole,

    /// <summary>An assembly.</summary>
    Assembly,

    /// <summary>An asymmetric key.</summary>
    AsymmetricKey,

    /// <summary>A symmetric key.</summary>
    SymmetricKey,

    /// <summary>A certificate.</summary>
    Certificate,

    /// <summary>A contract of message queues.</summary>
    Contract,

    /// <summary>A type of messages.</summary>
    MessageType,

    /// <summary>A service of message queues.</summary>
    Service,

    /// <summary>A route of messages.</summary>
    Route,

    /// <summary>A binding to a service elsewhere.</summary>
    RemoteServiceBinding,

    /// <summary>A full-text catalog.</summary>
    FulltextCatalog,

    /// <summary>A full-text stoplist.</summary>
    FulltextStoplist,

    /// <summary>A list of search properties.</summary>
    SearchPropertyList,

    /// <summary>A credential of a database.</summary>
    DatabaseScopedCredential,

    /// <summary>A language of outside scripts.</summary>
    ExternalLanguage,

    /// <summary>A schema.</summary>
    Schema,

    /// <summary>A type.</summary>
    Type,

    /// <summary>A collection of XML schemas.</summary>
    XmlSchemaCollection,

    /// <summary>A table, view, routine, queue, sequence or synonym: they share their names.</summary>
    SchemaObject,

    /// <summary>A column of a table or view.</summary>
    Column,
}

/// <summary>
/// Something of an instance or a database that permissions are on, as sheets write it: <c>LOGIN::FENNMOOR\svc-mill</c>,
/// <c>SCHEMA::sales</c>, <c>OBJECT::sales.orders</c>, <c>COLUMN::sales.orders.price</c>, <c>CERTIFICATE::backup</c>. A part of a
/// name that holds a dot, a quote or a parenthesis stands in double quotes, a quote in it doubled.
/// </summary>
/// <param name="Schema">The schema it lies in; null for what lies in none.</param>
/// <param name="Name">Its name; of a column the table's.</param>
/// <param name="Column">The column; null for others.</param>
public sealed record SqlServerSecurable(SqlServerClass Class, string? Schema, string Name, string? Column)
{
    private static readonly (SqlServerClass Class, string Word)[] Classes =
    [
        (SqlServerClass.Login, "LOGIN"), (SqlServerClass.ServerRole, "SERVER ROLE"), (SqlServerClass.Endpoint, "ENDPOINT"),
        (SqlServerClass.AvailabilityGroup, "AVAILABILITY GROUP"), (SqlServerClass.User, "USER"), (SqlServerClass.Role, "ROLE"),
        (SqlServerClass.ApplicationRole, "APPLICATION ROLE"), (SqlServerClass.Assembly, "ASSEMBLY"),
        (SqlServerClass.AsymmetricKey, "ASYMMETRIC KEY"), (SqlServerClass.SymmetricKey, "SYMMETRIC KEY"),
        (SqlServerClass.Certificate, "CERTIFICATE"), (SqlServerClass.Contract, "CONTRACT"),
        (SqlServerClass.MessageType, "MESSAGE TYPE"), (SqlServerClass.Service, "SERVICE"), (SqlServerClass.Route, "ROUTE"),
        (SqlServerClass.RemoteServiceBinding, "REMOTE SERVICE BINDING"), (SqlServerClass.FulltextCatalog, "FULLTEXT CATALOG"),
        (SqlServerClass.FulltextStoplist, "FULLTEXT STOPLIST"), (SqlServerClass.SearchPropertyList, "SEARCH PROPERTY LIST"),
        (SqlServerClass.DatabaseScopedCredential, "DATABASE SCOPED CREDENTIAL"),
        (SqlServerClass.ExternalLanguage, "EXTERNAL LANGUAGE"), (SqlServerClass.Schema, "SCHEMA"), (SqlServerClass.Type, "TYPE"),
        (SqlServerClass.XmlSchemaCollection, "XML SCHEMA COLLECTION"), (SqlServerClass.SchemaObject, "OBJECT"),
        (SqlServerClass.Column, "COLUMN"),
    ];

    private static readonly Dictionary<string, SqlServerClass> ByWord =
        Classes.ToDictionary(c => c.Word, c => c.Class, StringComparer.OrdinalIgnoreCase);

    /// <summary>As a sheet writes it.</summary>
    public string Words => $"{ClassWord}::{NameWords}";

    /// <summary>The words of its class, also the engine's own: <c>OBJECT</c>.</summary>
    public string ClassWord => Classes.First(c => c.Class == Class).Word;

    /// <summary>Its name with what it lies in, parted by dots.</summary>
    public string NameWords =>
        (Schema is null ? "" : DottedName.Part(Schema) + ".") + DottedName.Part(Name)
            + (Column is null ? "" : "." + DottedName.Part(Column));

    /// <summary>What of the same database it lies in: an object's schema, a column's table; null for what lies in none.</summary>
    public SqlServerSecurable? Around => Column is not null ? OfObject(Schema!, Name) : Schema is null ? null : OfSchema(Schema);

    /// <summary>Whether it is something of the instance, and of no database.</summary>
    public bool IsOfInstance => Class
        is SqlServerClass.Login or SqlServerClass.ServerRole or SqlServerClass.Endpoint or SqlServerClass.AvailabilityGroup;

    /// <summary>Whether it is the engine's own, or lies in a schema that is.</summary>
    public bool IsOfEngine => (Class == SqlServerClass.Schema ? Name : Schema) is { } schema
        && (string.Equals(schema, "sys", StringComparison.OrdinalIgnoreCase)
            || string.Equals(schema, "INFORMATION_SCHEMA", StringComparison.OrdinalIgnoreCase));

    /// <summary>A class by its words.</summary>
    public static SqlServerClass ClassOf(string word) => ByWord[word];

    /// <summary>A schema.</summary>
    public static SqlServerSecurable OfSchema(string name) => new(SqlServerClass.Schema, null, name, null);

    /// <summary>An object of a schema.</summary>
    public static SqlServerSecurable OfObject(string schema, string name) => new(SqlServerClass.SchemaObject, schema, name, null);

    /// <summary>Reads a sheet's words; null when they name nothing of this family.</summary>
    public static SqlServerSecurable? TryParse(string text)
    {
        var at = text.IndexOf("::", StringComparison.Ordinal);
        return at >= 0 && ByWord.TryGetValue(text[..at].Trim(), out var kind) ? Named(kind, text[(at + 2)..].Trim()) : null;
    }

    private static SqlServerSecurable? Named(SqlServerClass kind, string text) => (kind, DottedName.Parts(text)) switch
    {
        (SqlServerClass.Column, [var schema, var table, var column]) => new(kind, schema, table, column),
        (SqlServerClass.Column, _) => null,
        (SqlServerClass.SchemaObject or SqlServerClass.Type or SqlServerClass.XmlSchemaCollection,
            // a dot in the second part needs no quotes
            [var schema, var name, .. var more]) => new(kind, schema, string.Join('.', more.Prepend(name)), null),
        (SqlServerClass.SchemaObject or SqlServerClass.Type or SqlServerClass.XmlSchemaCollection, _) => null,
        (_, [var name, .. var more]) => new(kind, null, string.Join('.', more.Prepend(name)), null),
        (_, []) => text.Length == 0 ? null : new(kind, null, text, null), // quotes that end nowhere are part of the name
    };
}
