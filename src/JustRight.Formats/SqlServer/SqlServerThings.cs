using JustRight.Core.Surveys;

namespace JustRight.Formats.SqlServer;

/// <summary>Where the catalog of the SQL Server family keeps things of a class that permissions are on.</summary>
/// <param name="Number">The class's number in the views of permissions [<c>sys.database_permissions</c>, class].</param>
/// <param name="View">The view without its schema.</param>
/// <param name="Id">The column that the views of permissions name things by.</param>
/// <param name="InSchema">Whether the things lie in schemas.</param>
/// <param name="Owner">The column of the owner; null where they have none of their own.</param>
/// <param name="Since">The first release that has the view, by its number; 13 also for older ones.</param>
public sealed record SqlServerThings(
    SqlServerClass Class, int Number, string View, string Id, bool InSchema, string? Owner, int Since = SqlServerThings.Oldest)
{
    /// <summary>The oldest release that counts.</summary>
    public const int Oldest = 13;

    /// <summary>The class of an object's number; with a column's number beside it, a column.</summary>
    public const int ObjectNumber = 1;

    /// <summary>The class of an availability group's number: permissions name it by its replica.</summary>
    public const int GroupNumber = 108;

    private const string Principal = "principal_id";
    private const string RoleOwner = "owning_principal_id";

    /// <summary>Those of a database.</summary>
    public static IReadOnlyList<SqlServerThings> InDatabase { get; } =
    [
        new(SqlServerClass.SchemaObject, ObjectNumber, "objects", "object_id", true, Principal),
        new(SqlServerClass.Schema, 3, "schemas", "schema_id", false, Principal),
        new(SqlServerClass.User, 4, "database_principals", Principal, false, null),
        new(SqlServerClass.Role, 4, "database_principals", Principal, false, RoleOwner),
        new(SqlServerClass.ApplicationRole, 4, "database_principals", Principal, false, null),
        new(SqlServerClass.Assembly, 5, "assemblies", "assembly_id", false, Principal),
        new(SqlServerClass.Type, 6, "types", "user_type_id", true, Principal),
        new(SqlServerClass.XmlSchemaCollection, 10, "xml_schema_collections", "xml_collection_id", true, Principal),
        new(SqlServerClass.MessageType, 15, "service_message_types", "message_type_id", false, Principal),
        new(SqlServerClass.Contract, 16, "service_contracts", "service_contract_id", false, Principal),
        new(SqlServerClass.Service, 17, "services", "service_id", false, Principal),
        new(SqlServerClass.RemoteServiceBinding, 18, "remote_service_bindings", "remote_service_binding_id", false, Principal),
        new(SqlServerClass.Route, 19, "routes", "route_id", false, Principal),
        new(SqlServerClass.FulltextCatalog, 23, "fulltext_catalogs", "fulltext_catalog_id", false, Principal),
        new(SqlServerClass.SymmetricKey, 24, "symmetric_keys", "symmetric_key_id", false, Principal),
        new(SqlServerClass.Certificate, 25, "certificates", "certificate_id", false, Principal),
        new(SqlServerClass.AsymmetricKey, 26, "asymmetric_keys", "asymmetric_key_id", false, Principal),
        new(SqlServerClass.FulltextStoplist, 29, "fulltext_stoplists", "stoplist_id", false, Principal),
        new(SqlServerClass.SearchPropertyList, 31, "registered_search_property_lists", "property_list_id", false, Principal),
        new(SqlServerClass.DatabaseScopedCredential, 32, "database_scoped_credentials", "credential_id", false, Principal),
        new(SqlServerClass.ExternalLanguage, 34, "external_languages", "external_language_id", false, Principal, 15),
    ];

    /// <summary>Those of an instance.</summary>
    public static IReadOnlyList<SqlServerThings> AtInstance { get; } =
    [
        new(SqlServerClass.Login, 101, "server_principals", Principal, false, null),
        new(SqlServerClass.ServerRole, 101, "server_principals", Principal, false, RoleOwner),
        new(SqlServerClass.Endpoint, 105, "endpoints", "endpoint_id", false, Principal),
        new(SqlServerClass.AvailabilityGroup, GroupNumber, "availability_replicas", "replica_metadata_id", false, null),
    ];

    /// <summary>
    /// The condition on rows of the view <c>t</c> that are of this class, where others stand in it too; or null.
    /// </summary>
    public string? Only => Class switch
    {
        SqlServerClass.Login => "t.type <> 'R'",
        SqlServerClass.ServerRole or SqlServerClass.Role => "t.type = 'R'",
        SqlServerClass.User => "t.type NOT IN ('R', 'A')",
        SqlServerClass.ApplicationRole => "t.type = 'A'",
        SqlServerClass.Server or SqlServerClass.Database or SqlServerClass.Column => null,
        SqlServerClass.Endpoint or SqlServerClass.AvailabilityGroup or SqlServerClass.Assembly => null,
        SqlServerClass.AsymmetricKey or SqlServerClass.SymmetricKey or SqlServerClass.Certificate => null,
        SqlServerClass.Contract or SqlServerClass.MessageType or SqlServerClass.Service or SqlServerClass.Route => null,
        SqlServerClass.RemoteServiceBinding or SqlServerClass.FulltextCatalog or SqlServerClass.FulltextStoplist => null,
        SqlServerClass.SearchPropertyList or SqlServerClass.DatabaseScopedCredential => null,
        SqlServerClass.ExternalLanguage or SqlServerClass.Schema or SqlServerClass.Type => null,
        SqlServerClass.XmlSchemaCollection or SqlServerClass.SchemaObject => null,
    };

    /// <summary>The name of a thing of the view <c>t</c>.</summary>
    public string Name => Number == GroupNumber ? "g.name" : "t.name";

    /// <summary>The view as <c>t</c>.</summary>
    /// <param name="sys">The schema of the views, with its database where that is another.</param>
    public string From(string sys) => $"{sys}.{View} AS t";

    /// <summary>
    /// What is joined to the view where the names, or the schemas as <c>s</c>, stand in another; empty for others.
    /// </summary>
    /// <param name="sys">The schema of the views, with its database where that is another.</param>
    public string With(string sys) => InSchema ? $" JOIN {sys}.schemas AS s ON s.schema_id = t.schema_id"
        : Number == GroupNumber ? $" JOIN {sys}.availability_groups AS g ON g.group_id = t.group_id"
        : "";

    /// <summary>Things of a class; of columns, the objects they are of.</summary>
    public static SqlServerThings Of(SqlServerClass kind) =>
        InDatabase.Concat(AtInstance).First(t => t.Class == (kind == SqlServerClass.Column ? SqlServerClass.SchemaObject : kind));
}
