using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Engines.Hosts;
using JustRight.Core.Engines.Person;
using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Faults;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Engines;

/// <summary>A kind of right, with what is true of it.</summary>
/// <param name="Right">One of the kind.</param>
internal sealed record KindRow(Right Right)
{
    /// <summary>The need of a sheet that asks for it, and where; null for what no need asks for.</summary>
    public (Need Need, Spot? Spot)? Asked { get; init; }

    /// <summary>What makes the account hold it.</summary>
    public Func<Survey, Survey>? Held { get; init; }

    /// <summary>What is held through, the right at the end; in a survey in which it is held.</summary>
    public string Path { get; init; } = "";

    /// <summary>What shuts it though it is held, and how that is told.</summary>
    public (Func<Survey, Survey> Also, string Why)? Shut { get; init; }

    /// <summary>What brings it along, by their keys.</summary>
    public string[] Above { get; init; } = [];

    /// <summary>The steps that give it where nothing is there.</summary>
    public Change[] Gives { get; init; } = [];

    /// <summary>What a person is told where no step gives it.</summary>
    public string? LeftToPerson { get; init; }

    /// <summary>The step that takes it away.</summary>
    public Change? Takes { get; init; }

    /// <summary>Why no step does.</summary>
    public string? NotTaken { get; init; }

    /// <summary>What it is not there in, where its place was read and lacks that.</summary>
    public (Func<Survey, Survey> Without, string What)? Absent { get; init; }

    /// <summary>Whether a survey that read nothing leaves it unseen.</summary>
    public bool IsUnreadWithoutSurvey { get; init; } = true;

    /// <summary>What it is at a partner of its instance.</summary>
    public string? AtPartner { get; init; }
}

/// <summary>A row for each kind.</summary>
internal static class KindRows
{
    private const string Principal = $@"{KindScene.Domain}\{KindScene.Account}";
    private const string NoStep = "Just Right has no step that removes it";
    private static readonly Spot HostSpot = new(KindScene.Host, null, null);
    private static readonly Spot SqlSpot = new(KindScene.Host, KindScene.Sql, "Store") { Engine = "sqlserver" };
    private static readonly Spot PgSpot = new(KindScene.Host, KindScene.Pg, "Store") { Engine = "postgresql" };
    private static readonly Spot BranchSpot = new("", null, null) { Branch = KindScene.Branch };
    private static readonly BranchAsked WriteMail = new(DirectoryAct.WriteAttributes, ["mail"], "user", KindScene.Branch);
    private static readonly InsideProduct Clerk =
        new("Thermograph", "Tanker clerk", ["hand in weighings"], TimeSpan.FromDays(100));
    private static readonly TaskAsked Chore = new(
        "Thermograph", "first-administrator", "Change its name and password", "the old name is refused", TimeSpan.FromDays(100),
        Team.Host, []);


    /// <summary>All rows, by the name of the kind.</summary>
    public static IReadOnlyDictionary<string, KindRow> All { get; } =
        new[] { Hosts(), Directory(), SqlServer(), PostgreSql(), Others() }.SelectMany(rows => rows)
            .ToDictionary(r => r.Right.GetType().Name);

    private static IEnumerable<KindRow> Hosts()
    {
        yield return new KindRow(new LogonRight(KindScene.Host, "service"))
        {
            Asked = (Need(NeedKind.Logon, "service"), HostSpot),
            Held = s => s.OnHost(h => h with { LogonLists = [On("SeServiceLogonRight"), .. h.LogonLists.Skip(1)] }),
            Path = $"{Principal} -> log on as a service on fm-temp01",
            Shut = (s => s.OnHost(h => h with { LogonLists = [.. h.LogonLists, On("SeDenyServiceLogonRight")] }), "denied"),
            Gives = [new GrantLogonRight(KindScene.Host, "service", Principal)],
            Takes = new RevokeLogonRight(KindScene.Host, "service", Principal),
        };
        yield return new KindRow(new KeptOutRight(KindScene.Host, "interactive"))
        {
            Asked = (Need(NeedKind.KeptOut, "interactive"), HostSpot),
            Held = s => s.OnHost(h => h with { LogonLists = [.. h.LogonLists, On("SeDenyInteractiveLogonRight")] }),
            Path = $"{Principal} -> deny log on locally on fm-temp01",
            Gives = [new DenyLogon(KindScene.Host, "interactive", Principal)],
            Takes = new LiftLogonDenial(KindScene.Host, "interactive", Principal),
        };
        yield return new KindRow(new PrivilegeRight(KindScene.Host, "SeIncreaseQuotaPrivilege"))
        {
            Asked = (Need(NeedKind.Privilege, "SeIncreaseQuotaPrivilege"), HostSpot),
            Held = s => s.OnHost(h => h with { LogonLists = [On("SeIncreaseQuotaPrivilege")] }),
            Path = $"{Principal} -> set the memory quota of processes on fm-temp01",
            Gives = [new GrantPrivilege(KindScene.Host, "SeIncreaseQuotaPrivilege", Principal)],
            Takes = new RevokePrivilege(KindScene.Host, "SeIncreaseQuotaPrivilege", Principal),
        };
        yield return new KindRow(new LocalGroupRight(KindScene.Host, "Administrators"))
        {
            Asked = (Need(NeedKind.LocalGroup, "Administrators"), HostSpot),
            Held = s => s.OnHost(h => h with { LocalGroups = [h.LocalGroups[0] with { Members = [KindScene.Holder] }] }),
            Path = $@"{Principal} -> fm-temp01\Administrators",
            Gives = [new AddLocalGroupMember(KindScene.Host, "Administrators", Principal)],
            Takes = new RemoveLocalGroupMember(KindScene.Host, "Administrators", Principal),
            Absent = (s => s.OnHost(h => h with { LocalGroups = [] }), "local group Administrators on fm-temp01"),
        };
        var poll = new ServiceAsked(KindScene.Host, "Poll", ServiceAspect.Identity);
        yield return new KindRow(new ServiceRight(poll, "Poll runs as it"))
        {
            Gives = [new SetServiceAccount(KindScene.Host, "Poll", Principal, "LocalSystem")],
            NotTaken = NoStep,
        };
    }

    private static IEnumerable<KindRow> Directory()
    {
        yield return new KindRow(new SpnRight(KindScene.Domain, KindScene.ServiceName))
        {
            Asked = (Need(NeedKind.Spn, KindScene.ServiceName), null),
            Held = s => s.WithServiceName(KindScene.Account),
            Path = $"{Principal} -> {KindScene.ServiceName}",
            Shut = (s => s.WithServiceName("fm-temp01$"), @"FENNMOOR\fm-temp01$ has it too: Kerberos sign-in fails for both"),
            Gives = [new AddServiceName(KindScene.Domain, KindScene.Account, KindScene.ServiceName)],
            Takes = new RemoveServiceName(KindScene.Domain, KindScene.Account, KindScene.ServiceName),
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new DelegationRight(KindScene.Domain, "MSSQLSvc/fm-sql01"))
        {
            Asked = (Need(NeedKind.Delegation, "MSSQLSvc/fm-sql01"), null),
            Held = s => s.OfAccount(p => p with { DelegatesTo = ["mssqlsvc/FM-SQL01"] }),
            Path = $"{Principal} -> delegation to mssqlsvc/FM-SQL01",
            Above = [$"any-delegation@{KindScene.Domain}".ToLowerInvariant()],
            Gives = [new AllowDelegation(KindScene.Domain, KindScene.Account, "MSSQLSvc/fm-sql01")],
            Takes = new EndDelegation(KindScene.Domain, KindScene.Account, "MSSQLSvc/fm-sql01"),
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new AnyDelegationRight(KindScene.Domain))
        {
            Held = s => s.OfAccount(p => p with { IsTrustedForDelegation = true }),
            Path = $"{Principal} -> delegation to any service",
            LeftToPerson = "nothing gives it: name the services instead",
            Takes = new EndDelegationTrust(KindScene.Domain, KindScene.Account),
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new DomainGroupRight(KindScene.Domain, KindScene.Group))
        {
            Asked = (Need(NeedKind.DomainGroup, KindScene.Group), null),
            Held = s => s.InGroup(),
            Path = $@"{Principal} -> FENNMOOR\g-operators",
            Gives = [new AddMember(KindScene.Domain, KindScene.Group, KindScene.Account)],
            NotTaken = NoStep,
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new DirectoryRight(WriteMail))
        {
            Asked = (Need(NeedKind.Directory, "write attributes") with { Attributes = ["mail"], Of = "user" }, BranchSpot),
            Held = s => s.WithEntry($"O:DAG:DAD:(A;;GA;;;DA)(OA;CIIO;WP;{Mail};{User};{KindScene.Holder})"),
            Path = $"{Principal} -> access list of CN=Jory,OU=People,DC=fennmoor,DC=example -> write mail of user",
            Gives = [new AddAccessRule(KindScene.Domain, KindScene.Branch, MailRule(Principal), "write mail of user")],
            NotTaken = NoStep,
        };
        yield return new KindRow(new EntryRight("write mail of user", KindScene.Branch, MailRule(Principal), 1))
        {
            Held = s => s.WithEntry($"O:DAG:DAD:(A;;GA;;;DA)(OA;CIIO;WP;{Mail};{User};{KindScene.Holder})"),
            Path = $"{Principal} -> entry on {KindScene.Branch} -> write mail of user",
            Takes = new RemoveAccessRule(
                KindScene.Domain, KindScene.Branch, MailRule(Principal), "write mail of user", 1),
        };
        yield return new KindRow(new OwnerRight(KindScene.Branch, 1))
        {
            Held = s => s.WithEntry($"O:{KindScene.Holder}G:DAD:(A;;GA;;;DA)"),
            Path = $"{Principal} -> owner of {KindScene.Branch} -> change its access list, as its owner on {KindScene.Branch}",
            NotTaken = "give the objects another owner",
        };
        yield return new KindRow(new AccountRight(KindScene.Domain, AccountAspect.Usable))
        {
            NotTaken = NoStep,
            IsUnreadWithoutSurvey = false,
        };
    }

    private static IEnumerable<KindRow> SqlServer()
    {
        var login = new CreateLogin(KindScene.Sql, Principal);
        var user = new CreateDatabaseUser(KindScene.Sql, "Store", Principal);
        const string all = "instance-role:sysadmin@fm-sql01";
        yield return new KindRow(new InstanceRoleRight(KindScene.Sql, "dbcreator"))
        {
            Asked = (Need(NeedKind.InstanceRole, "dbcreator"), SqlSpot),
            Held = s => s.LetIn().AtSql(i => i with { Roles = [In("dbcreator"), In("sysadmin", [])] }),
            Path = $"{Principal} -> fm-sql01 login svc-poller -> dbcreator on fm-sql01",
            Shut = (s => s.AtSql(i => i with { Permissions = [Denied("CONNECT SQL")] }), "denied"),
            Above = [all],
            Gives = [login, new AddInstanceRoleMember(KindScene.Sql, "dbcreator", Principal)],
            Takes = new RemoveInstanceRoleMember(KindScene.Sql, "dbcreator", Principal),
            AtPartner = "instance-role:dbcreator@fm-sql02",
        };
        yield return new KindRow(new InstancePermissionRight(KindScene.Sql, "VIEW ANY DEFINITION"))
        {
            Asked = (Need(NeedKind.InstancePermission, "VIEW ANY DEFINITION"), SqlSpot),
            Held = s => s.LetIn().AtSql(i => i with { Permissions = [Granted("VIEW ANY DEFINITION")] }),
            Path = $"{Principal} -> fm-sql01 login svc-poller -> VIEW ANY DEFINITION on fm-sql01",
            Shut = (s => s.AtSql(i => i with { Permissions = [.. i.Permissions, Denied("CONTROL SERVER")] }), "denied"),
            Above = ["instance-permission:control server@fm-sql01", "instance-role:##ms_definitionreader##@fm-sql01", all],
            Gives = [login, new GrantInstancePermission(KindScene.Sql, "VIEW ANY DEFINITION", Principal)],
            Takes = new RevokeInstancePermission(KindScene.Sql, "VIEW ANY DEFINITION", Principal),
            AtPartner = "instance-permission:view any definition@fm-sql02",
        };
        yield return new KindRow(new DatabaseRoleRight(KindScene.Sql, "Store", "db_datareader"))
        {
            Asked = (Need(NeedKind.DatabaseRole, "db_datareader"), SqlSpot),
            Held = s => s.LetIn().InSql(d => d with { Roles = [In("db_datareader")] }),
            Path = $"{Principal} -> fm-sql01/Store user svc-poller -> db_datareader on fm-sql01/Store",
            Shut = (s => s.InSql(d => d with { Permissions = [Denied("CONNECT")] }), "denied"),
            Above = ["database-role:db_owner@fm-sql01/store", all],
            Gives = [login, user, new AddDatabaseRoleMember(KindScene.Sql, "Store", "db_datareader", Principal)],
            Takes = new RemoveDatabaseRoleMember(KindScene.Sql, "Store", "db_datareader", Principal),
            Absent = (NoSqlDatabase, "database fm-sql01/Store"),
            AtPartner = "instance-permission:connect sql@fm-sql02",
        };
        yield return new KindRow(new DatabasePermissionRight(KindScene.Sql, "Store", "EXECUTE", "SCHEMA::reports"))
        {
            Asked = (Need(NeedKind.DatabasePermission, "EXECUTE on SCHEMA::reports"), SqlSpot),
            Held = s => s.LetIn().InSql(d => d with { Permissions = [Granted("EXECUTE") with { On = "SCHEMA::reports" }] }),
            Path = $"{Principal} -> fm-sql01/Store user svc-poller -> EXECUTE on SCHEMA::reports on fm-sql01/Store",
            Shut = (s => s.InSql(d => d with { Permissions = [.. d.Permissions, Denied("EXECUTE")] }), "denied"),
            Above =
            [
                "database-permission:control on schema::reports@fm-sql01/store", "database-permission:execute@fm-sql01/store",
                "database-permission:control@fm-sql01/store", "instance-permission:control server@fm-sql01",
                "database-role:db_owner@fm-sql01/store", all,
            ],
            Gives = [login, user, new GrantDatabasePermission(KindScene.Sql, "Store", "EXECUTE", "SCHEMA::reports", Principal)],
            Takes = new RevokeDatabasePermission(KindScene.Sql, "Store", "EXECUTE", "SCHEMA::reports", Principal),
            Absent = (NoSqlDatabase, "database fm-sql01/Store"),
            AtPartner = "instance-permission:connect sql@fm-sql02",
        };
        yield return new KindRow(new DatabaseOwnerRight(KindScene.Sql, "Store"))
        {
            Asked = (Need(NeedKind.DatabaseOwner, "yes"), SqlSpot),
            Held = s => s.LetIn().InSql(d => d with { Users = [], Owner = KindScene.Holder }),
            Path = $"{Principal} -> owner on fm-sql01/Store",
            Shut = (s => s.AtSql(i => i with { Logins = [] }), "it holds the right, and has no login at fm-sql01"),
            Gives = [login, new ChangeDatabaseOwner(KindScene.Sql, "Store", Principal, null)],
            NotTaken = "only the organization can choose another owner: name one under rules: new-owners: { fm-sql01: … }",
            Absent = (NoSqlDatabase, "database fm-sql01/Store"),
            AtPartner = "instance-permission:connect sql@fm-sql02",
        };
    }

    private static IEnumerable<KindRow> PostgreSql()
    {
        var role = new CreateLogin(KindScene.Pg, KindScene.Account);
        const string all = "instance-permission:superuser@fm-pg01";
        const string noLogin = "it holds the right, and its role at fm-pg01 lacks LOGIN";
        const string moves = "instance-permission:login@fm-sql02";
        Func<Survey, Survey> shutOut = s => s.AtPg(c => c with
        {
            Roles = [.. c.Roles.Select(r => r with { Attributes = r.Attributes & ~RoleAttributes.Login })],
        });
        yield return new KindRow(new RoleMembershipRight(KindScene.Pg, "readers"))
        {
            Asked = (Need(NeedKind.InstanceRole, "readers"), PgSpot),
            Held = s => s.WithRole().AtPg(c => c with { Memberships = [new(KindScene.Account, "readers", true, true, false)] }),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> readers on fm-pg01",
            Shut = (shutOut, noLogin),
            Above = [all],
            Gives = [role, new AddInstanceRoleMember(KindScene.Pg, "readers", KindScene.Account)],
            Takes = new RemoveInstanceRoleMember(KindScene.Pg, "readers", KindScene.Account),
            AtPartner = "instance-role:readers@fm-sql02",
        };
        yield return new KindRow(new RoleAttributeRight(KindScene.Pg, "CREATEDB"))
        {
            Asked = (Need(NeedKind.InstancePermission, "CREATEDB"), PgSpot),
            Held = s => s.WithRole(RoleAttributes.CreateDatabase),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> CREATEDB on fm-pg01",
            Shut = (shutOut, noLogin),
            Above = [all],
            Gives = [role, new GrantInstancePermission(KindScene.Pg, "CREATEDB", KindScene.Account)],
            Takes = new RevokeInstancePermission(KindScene.Pg, "CREATEDB", KindScene.Account),
            AtPartner = "instance-permission:createdb@fm-sql02",
        };
        yield return new KindRow(new DatabasePrivilegeRight(KindScene.Pg, "Store", "SELECT", "OBJECT::s.t"))
        {
            Asked = (Need(NeedKind.DatabasePermission, "SELECT on OBJECT::s.t"), PgSpot),
            Held = s => s.WithRole().AtPg(c => c with { Databases = [Opened(c.Databases[0])] }),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> SELECT on OBJECT::s.t on fm-pg01/Store",
            Shut = (
                s => s.AtPg(c => c with { Databases = [c.Databases[0] with { Schemas = [new("s", "postgres", [])] }] }),
                "it holds the right, and lacks USAGE on the schema s"),
            Above = ["instance-role:pg_read_all_data@fm-pg01", all],
            Gives =
            [
                role, new GrantDatabasePermission(KindScene.Pg, "Store", "USAGE", "SCHEMA::s", KindScene.Account),
                new GrantDatabasePermission(KindScene.Pg, "Store", "SELECT", "OBJECT::s.t", KindScene.Account),
            ],
            Takes = new RevokeDatabasePermission(KindScene.Pg, "Store", "SELECT", "OBJECT::s.t", KindScene.Account),
            Absent = (NoPgDatabase, "database fm-pg01/Store"),
            AtPartner = moves,
        };
        yield return new KindRow(new ParameterRight(KindScene.Pg, new ParameterPrivilege("SET", "log_statement")))
        {
            Asked = (Need(NeedKind.InstancePermission, "SET on PARAMETER::log_statement"), PgSpot),
            Held = s => s.WithRole().AtPg(c => c with
            {
                Parameters = [new PostgreSqlParameter("log_statement", [new PrivilegeEntry(KindScene.Account, "SET", false)])],
            }),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> SET on PARAMETER::log_statement on fm-pg01",
            Shut = (shutOut, noLogin),
            Above = [all],
            Gives =
            [
                role, new GrantInstancePermission(KindScene.Pg, "SET on PARAMETER::log_statement", KindScene.Account),
            ],
            Takes = new RevokeInstancePermission(KindScene.Pg, "SET on PARAMETER::log_statement", KindScene.Account),
            AtPartner = "instance-permission:set on parameter::log_statement@fm-sql02",
        };
        yield return new KindRow(new ObjectOwnershipRight(KindScene.Pg, "Store", PostgreSqlSecurable.OfSchema("s")))
        {
            Asked = (Need(NeedKind.DatabasePermission, "OWNER on SCHEMA::s"), PgSpot),
            Held = s => s.WithRole().AtPg(c => c with
            {
                Databases = [c.Databases[0] with { Schemas = [new PostgreSqlSchema("s", KindScene.Account, [])] }],
            }),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> OWNER on SCHEMA::s on fm-pg01/Store",
            Shut = (
                s => s.AtPg(c => c with { Databases = [c.Databases[0] with { Entries = [] }] }),
                "it holds the right, and lacks CONNECT on fm-pg01/Store"),
            Above = [all],
            Gives = [role],
            LeftToPerson = "whoever owns SCHEMA::s now, or a superuser, gives it away: ALTER … OWNER TO svc-poller",
            NotTaken = "only the organization can choose another owner of SCHEMA::s",
            Absent = (NoPgDatabase, "database fm-pg01/Store"),
            AtPartner = moves,
        };
        yield return new KindRow(new DatabaseOwnershipRight(KindScene.Pg, "Store"))
        {
            Asked = (Need(NeedKind.DatabaseOwner, "yes"), PgSpot),
            Held = s => s.WithRole().AtPg(c => c with { Databases = [c.Databases[0] with { Owner = KindScene.Account }] }),
            Path = $"{Principal} -> fm-pg01 role svc-poller -> owner on fm-pg01/Store",
            Shut = (
                s => s.AtPg(c => c with { Databases = [c.Databases[0] with { Entries = [] }] }),
                "it holds the right, and lacks CONNECT on fm-pg01/Store"),
            Above = [all],
            Gives = [role, new ChangeDatabaseOwner(KindScene.Pg, "Store", KindScene.Account, "postgres")],
            NotTaken = "only the organization can choose another owner: name one under rules: new-owners: { fm-pg01: … }",
            Absent = (NoPgDatabase, "database fm-pg01/Store"),
            AtPartner = moves,
        };
    }

    private static IEnumerable<KindRow> Others()
    {
        yield return new KindRow(new ProductRoleRight(Clerk))
        {
            Asked = (Need(NeedKind.ProductRole, "Tanker clerk") with { Lets = Clerk.Lets, ConfirmedForDays = 100 }, null),
            Gives = [new MapToProductRole("Thermograph", "Tanker clerk", Principal, Clerk.Lets)],
            NotTaken = NoStep,
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new TaskRight(Chore, "fm-temp01"))
        {
            Asked = (
                Need(NeedKind.Task, Chore.Task) with
                {
                    Task = new TaskNeed(Chore.Work, Chore.DoneWhen, Chore.Team, []),
                    ConfirmedForDays = 100,
                },
                new Spot("fm-temp01", null, null)),
            Gives = [new DoTask(Team.Host, "fm-temp01", Chore.Task, Chore.Work, Chore.DoneWhen)],
            NotTaken = NoStep,
            IsUnreadWithoutSurvey = false,
        };
        yield return new KindRow(new UnjudgedRight(NeedKind.DatabaseRole, "readers", KindScene.Pg))
        {
            Asked = (Need(NeedKind.DatabaseRole, "readers"), PgSpot),
            LeftToPerson = "this release does not know what it is",
            NotTaken = NoStep,
            IsUnreadWithoutSurvey = false,
        };
    }

    private const string Mail = "bf967961-0de6-11d0-a285-00aa003049e2";
    private const string User = "bf967aba-0de6-11d0-a285-00aa003049e2";

    private static Core.Directory.Descriptors.AccessRule MailRule(string principal) => new(
        principal, false, Core.Directory.Descriptors.AccessRights.WriteProperty, Guid.Parse(Mail), Guid.Parse(User),
        Core.Directory.Descriptors.AceFlags.ContainerInherit | Core.Directory.Descriptors.AceFlags.InheritOnly);

    private static PostgreSqlDatabase Opened(PostgreSqlDatabase database) => database with
    {
        Schemas = [new PostgreSqlSchema("s", "postgres", [new PrivilegeEntry(KindScene.Account, "USAGE", false)])],
        Objects = [new PostgreSqlObject(
            PostgreSqlSecurable.OfObject("s", "t"), "postgres", [new PrivilegeEntry(KindScene.Account, "SELECT", false)])],
    };

    private static Survey NoSqlDatabase(Survey survey) => survey.AtSql(i => i with { Databases = [] });

    private static Survey NoPgDatabase(Survey survey) =>
        survey.AtPg(c => c with { Databases = [] });

    private static LogonList On(string constant) => new(constant, [KindScene.Holder]);

    private static RoleMembers In(string role, Core.Directory.Sid[]? members = null) =>
        new(role, members ?? [KindScene.Holder], []);

    private static PermissionEntry Granted(string permission) => new(permission, PermissionState.Grant, KindScene.Holder, null);

    private static PermissionEntry Denied(string permission) => new(permission, PermissionState.Deny, KindScene.Holder, null);

    private static Need Need(NeedKind kind, string value) => new(
        kind, value, "place", null, null, GivenBy.Us, Until.Always, null, null, null, new Origin("sheet.yaml", 7, 9));
}
