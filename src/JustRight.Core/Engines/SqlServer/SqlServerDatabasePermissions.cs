namespace JustRight.Core.Engines.SqlServer;

/// <summary>
/// The permissions of a database: for each what covers it on the database itself and at the instance [GRANT Database
/// Permissions; <c>sys.fn_builtin_permissions('DATABASE')</c>, columns covering and parent covering permission], how far it
/// reaches and what it lets its holder do. Written from knowledge; not checked against the text.
/// </summary>
internal static class SqlServerDatabasePermissions
{
    private const string Control = SqlServerPermissions.Control;
    private const string ControlServer = SqlServerPermissions.ControlServer;

    /// <summary>The table.</summary>
    public static IReadOnlyList<SqlServerPermission> Rows { get; } =
    [
        new(Control, null, ControlServer, 80, "do anything in its database"),
        new("ADMINISTER DATABASE BULK OPERATIONS", Control, ControlServer, 60, "load files into its database"),
        new("ALTER", Control, "ALTER ANY DATABASE", 70, "change the structure of its database"),
        new("ALTER ANY APPLICATION ROLE", "ALTER", ControlServer, 60, "change application roles"),
        new("ALTER ANY ASSEMBLY", "ALTER", ControlServer, 60, "add and change code modules"),
        new("ALTER ANY ASYMMETRIC KEY", "ALTER", ControlServer, 50, "change asymmetric keys"),
        new("ALTER ANY CERTIFICATE", "ALTER", ControlServer, 50, "change certificates"),
        new("ALTER ANY COLUMN ENCRYPTION KEY", "ALTER", ControlServer, 40, "change keys of encrypted columns"),
        new("ALTER ANY COLUMN MASTER KEY", "ALTER", ControlServer, 40, "change master keys of encrypted columns"),
        new("ALTER ANY CONTRACT", "ALTER", ControlServer, 15, "change contracts of message queues"),
        new("ALTER ANY DATABASE AUDIT", "ALTER", "ALTER ANY SERVER AUDIT", 50, "change what is audited in its database"),
        new("ALTER ANY DATABASE DDL TRIGGER", "ALTER", ControlServer, 60, "run its own code when others change the structure"),
        new("ALTER ANY DATABASE EVENT NOTIFICATION", "ALTER", "ALTER ANY EVENT NOTIFICATION", 20, "change event notifications"),
        new("ALTER ANY DATABASE SCOPED CONFIGURATION", Control, ControlServer, 30, "change settings of its database"),
        new("ALTER ANY DATASPACE", "ALTER", ControlServer, 30, "change where data lies"),
        new("ALTER ANY EXTERNAL DATA SOURCE", "ALTER", ControlServer, 40, "change which other sources are read"),
        new("ALTER ANY EXTERNAL FILE FORMAT", "ALTER", ControlServer, 20, "change how outside files are read"),
        new("ALTER ANY EXTERNAL LIBRARY", Control, ControlServer, 50, "add libraries for outside scripts"),
        new("ALTER ANY FULLTEXT CATALOG", "ALTER", ControlServer, 15, "change full-text catalogs"),
        new("ALTER ANY MASK", Control, ControlServer, 40, "take masks off columns"),
        new("ALTER ANY MESSAGE TYPE", "ALTER", ControlServer, 15, "change types of messages"),
        new(
            "ALTER ANY REMOTE SERVICE BINDING", "ALTER", ControlServer, 20,
            "change with which other services messages are exchanged"),
        new("ALTER ANY ROLE", "ALTER", ControlServer, 70, "add itself to roles of its database"),
        new("ALTER ANY ROUTE", "ALTER", ControlServer, 20, "change where messages go"),
        new("ALTER ANY SCHEMA", "ALTER", ControlServer, 45, "change schemas"),
        new("ALTER ANY SECURITY POLICY", Control, ControlServer, 60, "change which rows others see"),
        new("ALTER ANY SENSITIVITY CLASSIFICATION", Control, ControlServer, 10, "change how data is classified"),
        new("ALTER ANY SERVICE", "ALTER", ControlServer, 15, "change services of message queues"),
        new("ALTER ANY SYMMETRIC KEY", "ALTER", ControlServer, 50, "change symmetric keys"),
        new("ALTER ANY USER", "ALTER", ControlServer, 40, "let others in"),
        new("AUTHENTICATE", Control, "AUTHENTICATE SERVER", 40, "vouch for another across databases"),
        new("BACKUP DATABASE", Control, ControlServer, 30, "copy the whole database away"),
        new("BACKUP LOG", Control, ControlServer, 20, "copy the log away"),
        new("CHECKPOINT", Control, ControlServer, 5, "write a checkpoint"),
        new("CONNECT", "CONNECT REPLICATION", "CONNECT ANY DATABASE", 1, "enter its database"),
        new("CONNECT REPLICATION", Control, ControlServer, 5, "connect for replication"),
        new("CREATE AGGREGATE", "ALTER", ControlServer, 20, "create aggregates"),
        new("CREATE ASSEMBLY", "ALTER ANY ASSEMBLY", ControlServer, 50, "add code modules"),
        new("CREATE ASYMMETRIC KEY", "ALTER ANY ASYMMETRIC KEY", ControlServer, 20, "create asymmetric keys"),
        new("CREATE CERTIFICATE", "ALTER ANY CERTIFICATE", ControlServer, 20, "create certificates"),
        new("CREATE CONTRACT", "ALTER ANY CONTRACT", ControlServer, 10, "create contracts of message queues"),
        new("CREATE DATABASE", Control, "CREATE ANY DATABASE", 100, "create databases"),
        new(
            "CREATE DATABASE DDL EVENT NOTIFICATION", "ALTER ANY DATABASE EVENT NOTIFICATION",
            "CREATE DDL EVENT NOTIFICATION", 15,
            "receive notifications of structure changes"),
        new("CREATE DEFAULT", "ALTER", ControlServer, 10, "create defaults"),
        new("CREATE FULLTEXT CATALOG", "ALTER ANY FULLTEXT CATALOG", ControlServer, 10, "create full-text catalogs"),
        new("CREATE FUNCTION", "ALTER", ControlServer, 20, "create functions"),
        new("CREATE MESSAGE TYPE", "ALTER ANY MESSAGE TYPE", ControlServer, 10, "create types of messages"),
        new("CREATE PROCEDURE", "ALTER", ControlServer, 20, "create procedures"),
        new("CREATE QUEUE", "ALTER", ControlServer, 15, "create message queues"),
        new(
            "CREATE REMOTE SERVICE BINDING", "ALTER ANY REMOTE SERVICE BINDING", ControlServer, 15,
            "add services with which messages are exchanged"),
        new("CREATE ROLE", "ALTER ANY ROLE", ControlServer, 20, "create roles"),
        new("CREATE ROUTE", "ALTER ANY ROUTE", ControlServer, 15, "add ways for messages"),
        new("CREATE RULE", "ALTER", ControlServer, 10, "create rules"),
        new("CREATE SCHEMA", "ALTER ANY SCHEMA", ControlServer, 20, "create schemas"),
        new("CREATE SERVICE", "ALTER ANY SERVICE", ControlServer, 10, "create services of message queues"),
        new("CREATE SYMMETRIC KEY", "ALTER ANY SYMMETRIC KEY", ControlServer, 20, "create symmetric keys"),
        new("CREATE SYNONYM", "ALTER", ControlServer, 15, "create synonyms"),
        new("CREATE TABLE", "ALTER", ControlServer, 20, "create tables"),
        new("CREATE TYPE", "ALTER", ControlServer, 15, "create types"),
        new("CREATE USER", "ALTER ANY USER", ControlServer, 30, "create users"),
        new("CREATE VIEW", "ALTER", ControlServer, 20, "create views"),
        new("CREATE XML SCHEMA COLLECTION", "ALTER", ControlServer, 10, "create collections of XML schemas"),
        new("DELETE", Control, ControlServer, 20, "delete data"),
        new("EXECUTE", Control, ControlServer, 20, "run procedures and functions"),
        new("EXECUTE ANY EXTERNAL SCRIPT", Control, ControlServer, 60, "run scripts of other languages"),
        new("INSERT", Control, ControlServer, 15, "add data"),
        new("KILL DATABASE CONNECTION", Control, "ALTER ANY CONNECTION", 30, "end sessions in its database"),
        new("REFERENCES", Control, ControlServer, 5, "refer to tables"),
        new("SELECT", Control, "SELECT ALL USER SECURABLES", 15, "read data"),
        new("SHOWPLAN", Control, "ALTER TRACE", 10, "see how statements are run"),
        new("SUBSCRIBE QUERY NOTIFICATIONS", Control, ControlServer, 5, "be told when results change"),
        new("TAKE OWNERSHIP", Control, ControlServer, 75, "make itself owner"),
        new("UNMASK", Control, ControlServer, 20, "see masked data"),
        new("UPDATE", Control, ControlServer, 20, "change data"),
        new(
            "VIEW ANY COLUMN ENCRYPTION KEY DEFINITION", Control, "VIEW ANY DEFINITION", 5,
            "see keys of encrypted columns, encrypted"),
        new("VIEW ANY COLUMN MASTER KEY DEFINITION", Control, "VIEW ANY DEFINITION", 5, "see where master keys lie"),
        new("VIEW ANY SENSITIVITY CLASSIFICATION", Control, "VIEW ANY DEFINITION", 5, "see how data is classified"),
        new(
            "VIEW CRYPTOGRAPHICALLY SECURED DEFINITION", Control, "VIEW ANY CRYPTOGRAPHICALLY SECURED DEFINITION", 30,
            "see secured definitions"),
        new(
            "VIEW DATABASE PERFORMANCE STATE", "VIEW DATABASE STATE", "VIEW SERVER PERFORMANCE STATE", 5,
            "see how its database performs"),
        new(
            "VIEW DATABASE SECURITY STATE", "VIEW DATABASE STATE", "VIEW SERVER SECURITY STATE", 5,
            "see its database's security state"),
        new("VIEW DATABASE STATE", Control, "VIEW SERVER STATE", 10, "see the state of its database"),
        new("VIEW DEFINITION", Control, "VIEW ANY DEFINITION", 10, "see definitions in its database"),
        new(
            "VIEW PERFORMANCE DEFINITION", "VIEW DEFINITION", "VIEW ANY PERFORMANCE DEFINITION", 5,
            "see definitions for performance"),
        new(
            "VIEW SECURITY DEFINITION", "VIEW DEFINITION", "VIEW ANY SECURITY DEFINITION", 5,
            "see who holds what in its database"),
    ];
}
