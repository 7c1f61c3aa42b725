using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Databases;

/// <summary>Worked situations of rights in the SQL Server family, each with the rule of the public documentation that decides it.</summary>
public sealed class SqlServerRightsTests
{
    /// <summary>Facts, question, answer, rule.</summary>
    public static TheoryData<string, string, string, string> Situations => new()
    {
        // Logins: who gets in.
        { "login a", "CONNECT SQL", "held", "CREATE LOGIN grants CONNECT SQL" },
        { "", "CONNECT SQL", "lacks", "no login, no connection" },
        { "login g", "CONNECT SQL", "held", "a group's login lets its members in" },
        { "login n", "CONNECT SQL", "held", "nested groups are in the token" },
        { "login o", "CONNECT SQL", "lacks", "another's login" },
        { "login L", "CONNECT SQL", "held", "a login may stand for a local group of the host" },
        { "mute a", "CONNECT SQL", "lacks", "REVOKE CONNECT SQL" },
        { "mute a; login g", "CONNECT SQL", "held", "permissions of all logins of the token add up" },
        { "off a; login g", "CONNECT SQL", "denied", "ALTER LOGIN DISABLE keeps that user out" },
        { "off o; login g", "CONNECT SQL", "held", "another's login is switched off" },
        { "login a; deny CONNECT SQL: a", "CONNECT SQL", "denied", "DENY CONNECT SQL" },
        { "login a; login g; deny CONNECT SQL: g", "CONNECT SQL", "denied", "a denial to a group outweighs the user's grant" },
        { "login a; role sysadmin: a; deny CONNECT SQL: a", "CONNECT SQL", "held", "sysadmin bypasses permission checks" },
        { "login a; deny CONTROL SERVER: a", "CONNECT SQL", "denied", "DENY CONTROL SERVER implies DENY CONNECT SQL" },
        { "login a; role x: a; deny CONNECT SQL: role:x", "CONNECT SQL", "denied", "a denial to a role counts for its members" },

        // Fixed roles of the instance.
        { "login a; role sysadmin: a", "role sysadmin", "held", "sys.server_role_members" },
        { "login g; role sysadmin: g", "role sysadmin", "held", "a group's login in a role" },
        { "login n; role sysadmin: n", "role sysadmin", "held", "nested groups" },
        { "login L; role sysadmin: L", "role sysadmin", "held", "BUILTIN\\Administrators in sysadmin" },
        { "role sysadmin: a", "role sysadmin", "lacks", "only logins are members" },
        { "login o; role sysadmin: o", "role sysadmin", "lacks", "another's" },
        { "login a; role sysadmin: a", "role dbcreator", "by sysadmin", "sysadmin can do everything" },
        { "login a; role securityadmin: a", "role sysadmin", "lacks", "securityadmin is not sysadmin, though it can become it" },
        { "login a; role dbcreator: a", "role dbcreator", "held", "fixed role" },
        { "login a; role dbcreator: a; deny CONNECT SQL: a", "role dbcreator", "denied", "who cannot connect cannot use a role" },
        { "mute a; role dbcreator: a", "role dbcreator", "no way in", "membership without CONNECT SQL" },
        { "login a; role dbcreator: role:x; role x: a", "role dbcreator", "held", "user-made roles nest in fixed roles" },
        { "login a; role dbcreator: role:x; role x: role:y; role y: a", "role dbcreator", "held", "nesting goes deep" },
        { "login a; role x: role:dbcreator; role dbcreator: a", "role x", "held", "membership goes outwards" },
        { "login a; role x: role:dbcreator; role x: a", "role dbcreator", "lacks", "and not inwards" },
        { "login a; role x: role:y; role y: role:x a", "role x", "held", "a ring of roles ends" },

        // Permissions of the instance.
        { "login a; grant VIEW SERVER STATE: a", "VIEW SERVER STATE", "held", "GRANT" },
        { "login g; grant VIEW SERVER STATE: g", "VIEW SERVER STATE", "held", "GRANT to a group's login" },
        { "login a; role x: a; grant VIEW SERVER STATE: role:x", "VIEW SERVER STATE", "held", "GRANT to a role" },
        { "login a; grant VIEW SERVER STATE: role:public", "VIEW SERVER STATE", "held", "every login is in public" },
        { "grant VIEW SERVER STATE: role:public", "VIEW SERVER STATE", "lacks", "who has no login is not in public" },
        { "login a; grant ALTER SERVER STATE: a", "VIEW SERVER STATE", "by ALTER SERVER STATE", "covering permission" },
        { "login a; grant CONTROL SERVER: a", "VIEW SERVER STATE", "by CONTROL SERVER", "CONTROL SERVER covers all" },
        { "login a; grant CONTROL SERVER: a", "role sysadmin", "lacks", "CONTROL SERVER is not membership of sysadmin" },
        { "login a; role sysadmin: a", "VIEW SERVER STATE", "by sysadmin", "sysadmin" },
        { "login a; role serveradmin: a", "VIEW SERVER STATE", "by serveradmin", "permissions of fixed roles: ALTER SERVER STATE" },
        { "login a; role processadmin: a", "ALTER ANY CONNECTION", "by processadmin", "permissions of fixed roles" },
        { "login a; role processadmin: a", "VIEW SERVER STATE", "by processadmin", "ALTER SERVER STATE covers VIEW SERVER STATE" },
        { "login a; role bulkadmin: a", "ADMINISTER BULK OPERATIONS", "by bulkadmin", "permissions of fixed roles" },
        { "login a; role bulkadmin: a", "VIEW SERVER STATE", "lacks", "permissions of fixed roles" },
        { "login a; role dbcreator: a", "CREATE ANY DATABASE", "by dbcreator", "permissions of fixed roles" },
        { "login a; role setupadmin: a", "ALTER ANY LINKED SERVER", "by setupadmin", "permissions of fixed roles" },
        { "login a; role diskadmin: a", "ALTER RESOURCES", "by diskadmin", "permissions of fixed roles" },
        { "login a; role securityadmin: a", "ALTER ANY LOGIN", "by securityadmin", "permissions of fixed roles" },
        { "login a; role securityadmin: a", "CREATE LOGIN", "by securityadmin", "2022: CREATE LOGIN is covered by ALTER ANY LOGIN" },
        { "login a; role serveradmin: a", "SHUTDOWN", "by serveradmin", "permissions of fixed roles" },
        { "login a; role serveradmin: a", "ALTER ANY LOGIN", "lacks", "permissions of fixed roles" },
        { "login a; grant ALTER ANY DATABASE: a", "CREATE ANY DATABASE", "by ALTER ANY DATABASE", "covering permission" },
        { "login a; grant CREATE ANY DATABASE: a", "ALTER ANY DATABASE", "lacks", "covering goes one way" },
        { "login a; grant VIEW ANY DEFINITION: a", "VIEW ANY DATABASE", "by VIEW ANY DEFINITION", "covering permission" },
        { "login a; grant VIEW SERVER STATE: a", "VIEW SERVER PERFORMANCE STATE", "by VIEW SERVER STATE", "2022: granular permissions" },
        { "login a; grant VIEW SERVER PERFORMANCE STATE: a", "VIEW SERVER STATE", "lacks", "2022: granular permissions" },
        { "login a; grant ALTER SERVER STATE: a", "VIEW SERVER SECURITY STATE", "by ALTER SERVER STATE", "2022: two steps of covering" },
        { "login a; role ##MS_ServerStateReader##: a", "VIEW SERVER STATE", "by ##MS_ServerStateReader##", "2022: fixed roles" },
        { "login a; role ##MS_ServerStateReader##: a", "VIEW SERVER PERFORMANCE STATE", "by ##MS_ServerStateReader##", "2022: fixed roles" },
        { "login a; role ##MS_ServerPerformanceStateReader##: a", "VIEW SERVER SECURITY STATE", "lacks", "2022: fixed roles" },
        { "login a; role ##MS_DatabaseConnector##: a", "CONNECT ANY DATABASE", "by ##MS_DatabaseConnector##", "2022: fixed roles" },
        { "login a; role ##MS_DefinitionReader##: a", "VIEW ANY SECURITY DEFINITION", "by ##MS_DefinitionReader##", "2022: fixed roles" },
        { "login a; role ##MS_LoginManager##: a", "ALTER ANY LOGIN", "by ##MS_LoginManager##", "2022: fixed roles" },
        { "login a; grant UNSAFE ASSEMBLY: a", "EXTERNAL ACCESS ASSEMBLY", "by UNSAFE ASSEMBLY", "covering permission" },
        { "login a; grant ALTER ANY EVENT NOTIFICATION: a", "CREATE DDL EVENT NOTIFICATION", "by ALTER ANY EVENT NOTIFICATION", "covering permission" },
        { "login a; grant ALTER ANY AVAILABILITY GROUP: a", "CREATE AVAILABILITY GROUP", "by ALTER ANY AVAILABILITY GROUP", "covering permission" },
        { "login a; grant ALTER ANY ENDPOINT: a", "CREATE ENDPOINT", "by ALTER ANY ENDPOINT", "covering permission" },
        { "login a; grant ALTER ANY SERVER ROLE: a", "CREATE SERVER ROLE", "by ALTER ANY SERVER ROLE", "covering permission" },
        { "login a; grant ALTER TRACE: a", "ALTER ANY EVENT SESSION", "lacks", "neither covers the other" },
        { "login a; grant SOME NEW PERMISSION: a", "SOME NEW PERMISSION", "held", "one that is not listed is known by its name" },
        { "login a; grant CONTROL SERVER: a", "SOME NEW PERMISSION", "by CONTROL SERVER", "CONTROL SERVER covers all of its level" },
        { "mute a; grant VIEW SERVER STATE: a", "VIEW SERVER STATE", "no way in", "a permission without CONNECT SQL" },

        // Denials at the instance.
        { "login a; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "denied", "DENY outweighs GRANT" },
        { "login a g; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: g", "VIEW SERVER STATE", "denied", "DENY to a group" },
        { "login a; role x: a; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: role:x", "VIEW SERVER STATE", "denied", "DENY to a role" },
        { "login a; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: role:public", "VIEW SERVER STATE", "denied", "DENY to public" },
        { "login a; grant VIEW SERVER STATE: a; deny ALTER SERVER STATE: a", "VIEW SERVER STATE", "denied", "a denial of what covers it" },
        { "login a; grant ALTER SERVER STATE: a; deny VIEW SERVER STATE: a", "ALTER SERVER STATE", "held", "a denial of less does not deny more" },
        { "login a; grant ALTER SERVER STATE: a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "denied", "though a wider one is granted" },
        { "login a; grant CONTROL SERVER: a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "denied", "CONTROL SERVER respects denials" },
        { "login a; role sysadmin: a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "by sysadmin", "sysadmin cannot be denied" },
        { "login a n; role sysadmin: n; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "by sysadmin", "nor who is sysadmin through a group" },
        { "login a; role serveradmin: a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "denied", "other fixed roles can be denied" },
        { "login a o; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: o", "VIEW SERVER STATE", "held", "a denial to another" },
        { "login a; deny VIEW SERVER STATE: a", "VIEW SERVER STATE", "lacks", "a denial without a grant: it lacks it anyway" },

        // Users of a database.
        { "login a; S.user a", "S. CONNECT", "held", "CREATE USER grants CONNECT" },
        { "login a", "S. CONNECT", "lacks", "no user, no entry" },
        { "login a; S.guest", "S. CONNECT", "held", "guest" },
        { "login g; S.user g", "S. CONNECT", "held", "a group's user" },
        { "login g; S.user a", "S. CONNECT", "held", "a user needs no login of its own when a group's lets it in" },
        { "S.user a", "S. CONNECT", "no way in", "an orphan: a user without any login" },
        { "login L; S.user L", "S. CONNECT", "held", "a user for a local group of the host" },
        { "login a; grant CONNECT ANY DATABASE: a", "S. CONNECT", "by CONNECT ANY DATABASE", "2014" },
        { "login a; grant CONTROL SERVER: a", "S. CONNECT", "by CONTROL SERVER", "CONTROL SERVER covers CONTROL of every database" },
        { "login a; role sysadmin: a", "S. CONNECT", "by sysadmin", "sysadmin is dbo everywhere" },
        { "login a; S.user a; S.deny CONNECT: a", "S. CONNECT", "denied", "DENY CONNECT" },
        { "login a; S.user a; deny CONNECT ANY DATABASE: a", "S. CONNECT", "denied", "a denial of the covering permission of the instance" },
        { "login a; S.user a; S.role db_accessadmin: a", "S. CONNECT", "held", "user" },

        // Roles of a database.
        { "login a; S.user a; S.role db_datareader: a", "S. role db_datareader", "held", "sys.database_role_members" },
        { "login g; S.user g; S.role db_datareader: g", "S. role db_datareader", "held", "a group's user in a role" },
        { "login a; S.role db_datareader: a", "S. role db_datareader", "lacks", "only users are members" },
        { "S.user a; S.role db_datareader: a", "S. role db_datareader", "no way in", "a user without any login" },
        { "login a; S.user a; S.role db_owner: a", "S. role db_datareader", "by db_owner", "db_owner can do everything in its database" },
        { "login a; S.user a; S.role db_owner: a", "S. role db_denydatareader", "lacks", "but is in no denying role" },
        { "login a; role sysadmin: a", "S. role db_owner", "by sysadmin", "sysadmin" },
        { "login a; S.owner a", "S. role db_owner", "held", "the owner is dbo" },
        { "login g; S.owner a", "S. role db_owner", "held", "the owner gets in through a group's login" },
        { "S.owner a", "S. role db_owner", "no way in", "an owner without a login" },
        { "login a; S.user a; S.role db_owner: role:x; S.role x: a", "S. role db_owner", "held", "roles nest" },
        { "login a; msdb.user a; msdb.role SQLAgentOperatorRole: a", "msdb. role SQLAgentReaderRole", "by SQLAgentOperatorRole", "agent roles nest" },
        { "login a; msdb.user a; msdb.role SQLAgentOperatorRole: a", "msdb. role SQLAgentUserRole", "by SQLAgentOperatorRole", "agent roles nest" },
        { "login a; msdb.user a; msdb.role SQLAgentUserRole: a", "msdb. role SQLAgentOperatorRole", "lacks", "and not the other way" },
        { "login a; S.user a; S.role db_datareader: a; S.deny CONNECT: a", "S. role db_datareader", "denied", "who may not enter cannot use a role" },
        { "login a; S.user a; S.role db_datareader: a; deny CONNECT SQL: a", "S. role db_datareader", "denied", "nor who cannot connect" },

        // Permissions in a database.
        { "login a; S.user a; S.grant SELECT: a", "S. SELECT", "held", "GRANT" },
        { "login a; S.user a; S.role db_datareader: a", "S. SELECT", "by db_datareader", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_datawriter: a", "S. SELECT", "lacks", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_datawriter: a", "S. UPDATE", "by db_datawriter", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_owner: a", "S. CREATE TABLE", "by db_owner", "db_owner has CONTROL" },
        { "login a; S.user a; S.role db_ddladmin: a", "S. CREATE TABLE", "by db_ddladmin", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_ddladmin: a", "S. SELECT", "lacks", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_backupoperator: a", "S. BACKUP DATABASE", "by db_backupoperator", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_securityadmin: a", "S. ALTER ANY ROLE", "by db_securityadmin", "permissions of fixed roles" },
        { "login a; S.user a; S.role db_accessadmin: a", "S. ALTER ANY USER", "by db_accessadmin", "permissions of fixed roles" },
        { "login a; S.user a; S.grant ALTER: a", "S. CREATE TABLE", "by ALTER", "covering permission" },
        { "login a; S.user a; S.grant CONTROL: a", "S. SELECT", "by CONTROL", "covering permission" },
        { "login a; S.user a; S.grant ALTER: a", "S. SELECT", "lacks", "ALTER does not cover data" },
        { "login a; S.user a; S.grant VIEW DATABASE STATE: a", "S. VIEW DATABASE PERFORMANCE STATE", "by VIEW DATABASE STATE", "2022" },
        { "login a; S.user a; grant VIEW SERVER STATE: a", "S. VIEW DATABASE STATE", "by VIEW SERVER STATE", "parent covering permission" },
        { "login a; grant VIEW SERVER STATE: a", "S. VIEW DATABASE STATE", "no way in", "but the database must be entered" },
        { "login a; grant VIEW SERVER STATE: a; grant CONNECT ANY DATABASE: a", "S. VIEW DATABASE STATE", "by VIEW SERVER STATE", "CONNECT ANY DATABASE enters it" },
        { "login a; S.user a; grant VIEW ANY DEFINITION: a", "S. VIEW DEFINITION", "by VIEW ANY DEFINITION", "parent covering permission" },
        { "login a; S.user a; grant ALTER ANY DATABASE: a", "S. CREATE TABLE", "by ALTER ANY DATABASE", "covers ALTER of every database" },
        { "login a; S.user a; grant SELECT ALL USER SECURABLES: a", "S. SELECT", "by SELECT ALL USER SECURABLES", "2014" },
        { "login a; grant SELECT ALL USER SECURABLES: a", "S. SELECT", "no way in", "only where it can connect" },
        { "login a; S.user a; grant ALTER TRACE: a", "S. SHOWPLAN", "by ALTER TRACE", "parent covering permission" },
        { "login a; S.user a; S.role x: a; S.grant EXECUTE: role:x", "S. EXECUTE", "held", "GRANT to a role" },
        { "login a; S.user a; S.grant EXECUTE: role:public", "S. EXECUTE", "held", "every user is in public" },
        { "login a; S.guest; S.grant SELECT: role:public", "S. SELECT", "held", "guest is in public" },
        { "login a; S.owner a", "S. EXECUTE", "by db_owner", "dbo" },

        // On schemas and objects.
        { "login a; S.user a; S.grant EXECUTE on SCHEMA::r: a", "S. EXECUTE on SCHEMA::r", "held", "GRANT on a schema" },
        { "login a; S.user a; S.grant EXECUTE on SCHEMA::r: a", "S. EXECUTE", "lacks", "a schema is not the database" },
        { "login a; S.user a; S.grant EXECUTE on SCHEMA::r: a", "S. EXECUTE on SCHEMA::q", "lacks", "another schema" },
        { "login a; S.user a; S.grant EXECUTE: a", "S. EXECUTE on SCHEMA::r", "by EXECUTE", "the database covers its schemas" },
        { "login a; S.user a; S.grant CONTROL on SCHEMA::r: a", "S. SELECT on SCHEMA::r", "by CONTROL on SCHEMA::r", "CONTROL of the schema" },
        { "login a; S.user a; S.grant SELECT on SCHEMA::r: a", "S. SELECT on OBJECT::r.t", "by SELECT on SCHEMA::r", "a schema covers its objects" },
        { "login a; S.user a; S.grant SELECT on SCHEMA::q: a", "S. SELECT on OBJECT::r.t", "lacks", "an object of another schema" },
        { "login a; S.user a; S.grant ALTER ANY SCHEMA: a", "S. ALTER on SCHEMA::r", "by ALTER ANY SCHEMA", "GRANT Schema: ALTER" },
        { "login a; S.user a; S.grant ALTER ANY SCHEMA: a", "S. ALTER on OBJECT::r.t", "by ALTER ANY SCHEMA", "and its objects" },
        {
            "login a; S.user a; S.grant ALTER ANY SCHEMA: a", "S. CREATE SEQUENCE on SCHEMA::r", "by ALTER ANY SCHEMA",
            "GRANT Schema: CREATE SEQUENCE"
        },
        { "login a; S.user a; S.grant ALTER ANY SCHEMA: a", "S. SELECT on SCHEMA::r", "lacks", "changing is not reading" },
        { "login a; S.user a; S.grant ALTER ANY SCHEMA: a", "S. CONTROL on SCHEMA::r", "lacks", "nor controlling" },
        { "login a; S.user a; S.grant ALTER: a", "S. ALTER on SCHEMA::r", "by ALTER", "ALTER of the database brings ALTER ANY SCHEMA" },
        { "login a; S.user a; S.role db_ddladmin: a", "S. ALTER on SCHEMA::r", "by db_ddladmin", "which holds ALTER ANY SCHEMA" },
        { "login a; S.user a; S.role db_ddladmin: a", "S. ALTER on OBJECT::r.t", "by db_ddladmin", "and so every object" },
        { "login a; S.user a; S.role db_ddladmin: a", "S. DELETE on OBJECT::r.t", "lacks", "and no data" },
        {
            "login a; S.user a; S.grant ALTER on SCHEMA::r: a", "S. CREATE SEQUENCE on SCHEMA::r", "by ALTER on SCHEMA::r",
            "GRANT Schema: ALTER covers CREATE SEQUENCE"
        },
        {
            "login a; S.user a; S.grant ALTER on SCHEMA::r: a; S.deny ALTER ANY SCHEMA: a", "S. ALTER on SCHEMA::r", "denied",
            "a denial of what covers it"
        },
        { "login a; S.user a; S.grant TAKE OWNERSHIP: a", "S. TAKE OWNERSHIP on SCHEMA::r", "lacks", "GRANT Schema: CONTROL alone" },
        {
            "login a; S.user a; S.grant TAKE OWNERSHIP on SCHEMA::r: a", "S. TAKE OWNERSHIP on OBJECT::r.t", "lacks",
            "GRANT Object: CONTROL alone"
        },
        {
            "login a; S.user a; S.grant TAKE OWNERSHIP on SCHEMA::r: a; S.deny TAKE OWNERSHIP: a",
            "S. TAKE OWNERSHIP on SCHEMA::r", "held", "nor does its denial reach below"
        },
        {
            "login a; S.user a; S.grant CONTROL on SCHEMA::r: a", "S. TAKE OWNERSHIP on OBJECT::r.t", "by CONTROL on SCHEMA::r",
            "CONTROL reaches below"
        },
        {
            "login a; S.user a; S.grant RECEIVE on OBJECT::r.q: a", "S. SELECT on OBJECT::r.q", "by RECEIVE on OBJECT::r.q",
            "GRANT Object: RECEIVE covers SELECT"
        },
        {
            "login a; S.user a; S.grant VIEW CHANGE TRACKING on SCHEMA::r: a", "S. VIEW CHANGE TRACKING on OBJECT::r.t",
            "by VIEW CHANGE TRACKING on SCHEMA::r", "GRANT Object: VIEW CHANGE TRACKING"
        },
        {
            "login a; S.user a; S.grant VIEW DEFINITION: a", "S. VIEW DEFINITION on OBJECT::r.t", "by VIEW DEFINITION",
            "GRANT Object: VIEW DEFINITION"
        },
        {
            "login a; S.user a; S.grant CONTROL on OBJECT::r.t: a", "S. CONTROL on SCHEMA::r", "lacks",
            "an object does not reach its schema"
        },
        { "login a; S.user a; S.role db_datareader: a", "S. SELECT on OBJECT::r.t", "by db_datareader", "a fixed role reads every object" },
        { "login a; S.user a; S.grant SELECT on OBJECT::r.t: a; S.deny SELECT on SCHEMA::r: a", "S. SELECT on OBJECT::r.t", "denied", "a denial on the schema" },
        { "login a; S.user a; S.grant SELECT on SCHEMA::r: a; S.deny SELECT on OBJECT::r.t: a", "S. SELECT on SCHEMA::r", "held", "a denial on one object does not deny the schema" },
        { "login a; S.user a; S.grant SELECT on SCHEMA::r: a; S.deny SELECT on OBJECT::r.t: a", "S. SELECT on OBJECT::r.t", "denied", "but the object" },

        // Denials in a database.
        { "login a; S.user a; S.grant SELECT: a; S.deny SELECT: a", "S. SELECT", "denied", "DENY outweighs GRANT" },
        { "login a; S.user a; S.role db_datareader: a; S.role db_denydatareader: a", "S. SELECT", "denied", "db_denydatareader" },
        { "login a; S.user a; S.role db_datawriter: a; S.role db_denydatawriter: a", "S. INSERT", "denied", "db_denydatawriter" },
        { "login a; S.user a; S.role db_datareader: a; S.role db_denydatawriter: a", "S. SELECT", "by db_datareader", "denies writing only" },
        { "login a; S.user a; S.role db_owner: a; S.deny SELECT: a", "S. SELECT", "denied", "members of db_owner can be denied" },
        { "login a; S.owner a; S.deny SELECT: role:public", "S. SELECT", "by db_owner", "the owner cannot be denied" },
        { "login a; role sysadmin: a; S.user a; S.deny SELECT: a", "S. SELECT", "by sysadmin", "nor sysadmin" },
        { "login a; S.owner a; deny CONNECT SQL: a", "S. role db_owner", "denied", "an owner who cannot connect" },
        { "login a g; S.user a g; S.grant SELECT: a; S.deny SELECT: g", "S. SELECT", "denied", "a denial to a group's user" },
        { "login a; S.user a; S.grant SELECT: a; deny CONTROL SERVER: o", "S. SELECT", "held", "a denial to another" },
        { "login a; S.user a; grant VIEW SERVER STATE: a; S.deny VIEW DATABASE STATE: a", "S. VIEW DATABASE STATE", "denied", "a denial in the database outweighs a grant above it" },
        { "login a; S.user a; S.grant VIEW DATABASE STATE: a; deny VIEW SERVER STATE: a", "S. VIEW DATABASE STATE", "denied", "a denial above it too" },
        { "login a; S.user a; S.grant EXECUTE: a; S.deny CONTROL: a", "S. EXECUTE", "denied", "a denial of CONTROL denies all" },
        { "login a; S.user a; S.grant select: a", "S. SELECT", "held", "names of permissions have no case" },
    };

    [Theory]
    [MemberData(nameof(Situations))]
    public void A_worked_situation(string facts, string question, string answer, string rule) =>
        DatabaseScene.Of(facts).Ask(question).ShouldBe(answer, rule);

    [Fact]
    public void At_least_120_situations_are_worked() => Situations.Count.ShouldBeGreaterThanOrEqualTo(120);

    [Theory]
    [InlineData("login g; role dbcreator: g", "role dbcreator", @"FENNMOOR\a -> FENNMOOR\g -> i login g -> dbcreator on i")]
    [InlineData(
        "login n; role dbcreator: role:x; role x: n", "role dbcreator",
        @"FENNMOOR\a -> FENNMOOR\g -> FENNMOOR\n -> i login n -> x -> dbcreator on i")]
    [InlineData(
        "login L; role sysadmin: L", "role sysadmin",
        @"FENNMOOR\a -> FENNMOOR\g -> FENNMOOR\n -> h1\Administrators -> i login L -> sysadmin on i")]
    [InlineData(
        "login a; S.user a; S.role x: a; S.grant EXECUTE on SCHEMA::r: role:x", "S. EXECUTE on SCHEMA::r",
        @"FENNMOOR\a -> i/S user a -> x -> EXECUTE on SCHEMA::r on i/S")]
    public void The_path_names_every_step(string facts, string question, string path) =>
        DatabaseScene.Of(facts).Path(question).ShouldBe(path);

    [Theory]
    // the big one is too much where a small one will do
    [InlineData("login a; role sysadmin: a", "VIEW SERVER STATE", "sysadmin on i")]
    [InlineData("login a; grant VIEW SERVER STATE: a", "VIEW SERVER STATE", "")] // the login that lets it in is not
    [InlineData("login a; S.user a; S.role db_owner: a", "S. SELECT", "db_owner on i/S")]
    // the user is needed for what it has
    [InlineData("login a; S.user a; S.grant SELECT: a", "VIEW SERVER STATE", "SELECT on i/S")]
    // a user that nothing needs
    [InlineData("login a; S.user a; grant VIEW SERVER STATE: a", "VIEW SERVER STATE", "CONNECT on i/S")]
    [InlineData("login a", "S. CONNECT", "")]
    [InlineData("login a", "", "CONNECT SQL on i")] // a login that nothing needs
    [InlineData("login a; grant VIEW ANY DATABASE: role:public", "CONNECT SQL", "")] // what everybody has who gets in
    [InlineData("login a; grant ALTER SERVER STATE: a", "VIEW SERVER STATE", "ALTER SERVER STATE on i")]
    // what comes along with a role that is needed
    [InlineData("login a; S.user a; S.role x: a; S.grant EXECUTE on SCHEMA::r: role:x; S.role y: role:x", "S. role x", "")]
    // not with another role
    [InlineData(
        "login a; S.user a; S.role x: a; S.role y: a; S.grant EXECUTE on SCHEMA::r: role:y", "S. role x",
        "EXECUTE on SCHEMA::r on i/S; y on i/S")]
    // but what rules the database is named
    [InlineData("login a; S.user a; S.role x: a; S.role db_owner: role:x", "S. role x", "db_owner on i/S")]
    // part of a needed one: nothing beyond the needs
    [InlineData("login a; grant VIEW SERVER STATE: a", "ALTER SERVER STATE", "")]
    public void What_is_too_much_is_named_once(string facts, string needed, string excess) =>
        string.Join("; ", DatabaseScene.Of(facts).Excess(needed.Length == 0 ? [] : [needed])).ShouldBe(excess);

    [Theory]
    [InlineData("grant VIEW SERVER STATE: a", "revoke VIEW SERVER STATE on i from FENNMOOR\\a")]
    [InlineData(
        "hand VIEW SERVER STATE: a",
        "not instance-permission:view server state@i: held WITH GRANT OPTION: revoking it would cascade; ask the DBA")]
    [InlineData(
        "S.user a; hand CONNECT SQL: o; S.hand EXECUTE on SCHEMA::r: a",
        "not s: held WITH GRANT OPTION: revoking it would cascade; ask the DBA")]
    [InlineData("S.user a; S.hand EXECUTE on SCHEMA::q: a; S.grant EXECUTE: a", "revoke EXECUTE in i/S from FENNMOOR\\a")]
    public void What_may_be_handed_on_is_not_taken_away_by_a_step(string facts, string first) =>
        DatabaseScene.Of("login a; " + facts).Removal("CONNECT SQL")
            .ShouldContain(first, customMessage: string.Join("; ", DatabaseScene.Of("login a; " + facts).Removal("CONNECT SQL")));

    [Theory]
    [InlineData("login n o; role sysadmin: n; grant VIEW SERVER STATE: o", "a: sysadmin on i", "o: VIEW SERVER STATE on i")]
    [InlineData(
        "login a; login g; grant VIEW SERVER STATE: a; deny CONTROL SERVER: g",
        "a: VIEW SERVER STATE on i (denied: CONTROL SERVER, by FENNMOOR\\g)")]
    [InlineData("S.user a; S.role db_datareader: a", "a: db_datareader on i/S (it holds the right, and has no login at i)")]
    [InlineData("login L; role dbcreator: L", "a: dbcreator on i")] // through the host's local group
    [InlineData("login o", "o: CONNECT SQL on i")] // a login and nothing else
    [InlineData("login o; S.owner o", "o: owner on i/S")]
    // what every domain user has stands once
    [InlineData("login u; grant VIEW SERVER STATE: u", "Domain Users: CONNECT SQL on i", "Domain Users: VIEW SERVER STATE on i")]
    [InlineData("")]
    public void Who_can_do_what_is_listed_for_accounts_by_whatever_path(string facts, params string[] holders) =>
        DatabaseScene.Of(facts).Holders().ShouldBe(holders);

    [Fact]
    public void A_list_of_holders_that_is_too_long_says_how_many_are_left_out() =>
        DatabaseScene.Of("login a o; role dbcreator: a o; role bulkadmin: a o").Holders(3)
            .ShouldBe(["a: bulkadmin on i", "a: dbcreator on i", "o: bulkadmin on i", "1 more"]);

    [Fact]
    public void What_was_not_read_is_unseen()
    {
        // who is in the local group only the host knows
        DatabaseScene.Of("login L; role sysadmin: L", hostUnread: true).Ask("role sysadmin").ShouldBe("unseen");
        DatabaseScene.Of("login a; role sysadmin: a", hostUnread: true).Ask("role sysadmin").ShouldBe("held");
        DatabaseScene.Of("login v; role sysadmin: v").Ask("role sysadmin").ShouldBe("unseen"); // it may be in that group
        // and be denied through it
        DatabaseScene.Of("login a v; grant VIEW SERVER STATE: a; deny VIEW SERVER STATE: v").Ask("VIEW SERVER STATE")
            .ShouldBe("unseen");
        // which would not matter then
        DatabaseScene.Of("login a v; role sysadmin: a; deny VIEW SERVER STATE: v").Ask("VIEW SERVER STATE")
            .ShouldBe("by sysadmin");
        var permissions = new UnreadPart(InstanceSnapshot.PermissionsPart, "the reader may not see them");
        DatabaseScene.Of("login a", false, permissions).Ask("VIEW SERVER STATE").ShouldBe("unseen");
        // a deny of CONNECT SQL may stand there
        DatabaseScene.Of("login a; role dbcreator: a", false, permissions).Ask("role dbcreator").ShouldBe("unseen");
        DatabaseScene.Of("login a; role sysadmin: a", false, permissions).Ask("role sysadmin").ShouldBe("held");
    }
}
