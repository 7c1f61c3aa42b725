using JustRight.Core.Directory;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Engines;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Access;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Engines;

/// <summary>
/// One place of every engine, and an account that holds nothing anywhere: a host, an instance of either family of databases, a
/// group, and a branch of the directory with one user in it.
/// </summary>
internal static class KindScene
{
    public const string Domain = "FENNMOOR";
    public const string Account = "svc-poller";
    public const string Host = "fm-temp01";
    public const string Sql = "fm-sql01";
    public const string Pg = "fm-pg01";
    public const string Group = "g-operators";
    public const string ServiceName = "HTTP/fm-temp01.fennmoor.example";
    public const string Branch = "OU=People,DC=fennmoor,DC=example";

    public static readonly Sid DomainSid = Sid.Parse("S-1-5-21-1-2-3");
    public static readonly Sid Holder = DomainSid.Append(1001);
    private static readonly DateTimeOffset At = new(2026, 11, 25, 12, 0, 0, TimeSpan.Zero);

    /// <summary>The account holds nothing.</summary>
    public static Survey Nothing { get; } = Make();

    /// <summary>The node of the account.</summary>
    public static int NodeOf(SurveyView view) => view.Graph.IndexOf(Account);

    /// <summary>A survey with another host.</summary>
    public static Survey OnHost(this Survey survey, Func<HostSnapshot, HostSnapshot> change) =>
        survey with { Hosts = [.. survey.Hosts.Select(change)] };

    /// <summary>A survey with another instance of the SQL Server family.</summary>
    public static Survey AtSql(this Survey survey, Func<InstanceSnapshot, InstanceSnapshot> change) =>
        survey with { Instances = [.. survey.Instances.Select(i => i.Name == Sql ? change(i) : i)] };

    /// <summary>A survey with another database of that instance.</summary>
    public static Survey InSql(this Survey survey, Func<DatabaseSnapshot, DatabaseSnapshot> change) =>
        survey.AtSql(i => i with { Databases = [.. i.Databases.Select(change)] });

    /// <summary>A survey in which the account has a login, and a user in the database.</summary>
    public static Survey LetIn(this Survey survey) => survey.AtSql(i => i with { Logins = [new InstanceLogin(Holder, Account)] })
        .InSql(d => d with { Users = [new InstanceLogin(Holder, Account)] });

    /// <summary>A survey with another catalog of the instance of the PostgreSQL family.</summary>
    public static Survey AtPg(this Survey survey, Func<PostgreSqlCatalog, PostgreSqlCatalog> change) =>
        survey with
        {
            Instances = [.. survey.Instances.Select(i => i.Name == Pg ? i with { PostgreSql = change(i.PostgreSql!) } : i)],
        };

    /// <summary>A survey in which the account's role is there and may sign in.</summary>
    public static Survey WithRole(this Survey survey, RoleAttributes besides = RoleAttributes.None) => survey.AtPg(c => c with
    {
        Roles = [.. c.Roles, new PostgreSqlRole(Account, RoleAttributes.Login | RoleAttributes.Inherit | besides)],
    });

    /// <summary>A survey in which an account has the service principal name; a computer where there is no such account.</summary>
    public static Survey WithServiceName(this Survey survey, string account) => survey with
    {
        Directory = survey.Directory with
        {
            Principals =
            [
                .. survey.Directory.Principals.Where(p => p.Name != account),
                (survey.Directory.Principals.FirstOrDefault(p => p.Name == account)
                    ?? new DirectoryPrincipal(
                        DomainSid.Append(1099), PrincipalKind.Computer, account, $"CN={account},DC=fennmoor,DC=example")) with
                {
                    ServicePrincipalNames = [ServiceName],
                },
            ],
        },
    };

    /// <summary>A survey with other facts of the account.</summary>
    public static Survey OfAccount(this Survey survey, Func<DirectoryPrincipal, DirectoryPrincipal> change) => survey with
    {
        Directory = survey.Directory with
        {
            Principals = [.. survey.Directory.Principals.Select(p => p.Name == Account ? change(p) : p)],
        },
    };

    /// <summary>A survey in which the group has the account as its member.</summary>
    public static Survey InGroup(this Survey survey) => survey with
    {
        Directory = survey.Directory with
        {
            Principals = [.. survey.Directory.Principals.Select(p => p.Name == Group ? p with { Members = [Holder] } : p)],
        },
    };

    /// <summary>A survey with an entry on the branch.</summary>
    public static Survey WithEntry(this Survey survey, string sddl)
    {
        var raw = survey.Directory.Access!;
        var lists = new Dictionary<int, SecurityDescriptor> { [1] = Sddl.Read(sddl, DomainSid) };
        return survey with { Directory = survey.Directory with { Access = new AccessTree(raw).With(lists).ToSnapshot() } };
    }

    /// <summary>Nothing of it could be read.</summary>
    public static Survey Unread { get; } = new("fennmoor", At, false, Nothing.Directory with { Access = null }, [], []);

    private static Survey Make()
    {
        const string user = "CN=Jory,OU=People,DC=fennmoor,DC=example";
        var own = Sddl.Read("O:DAG:DAD:(A;;GA;;;DA)", DomainSid);
        var access = new AccessSnapshot(
            BuiltInSchema.Schema, [own, own, own],
            [
                new DirectoryObject("DC=fennmoor,DC=example", "domainDNS", default, 0, false),
                new DirectoryObject(Branch, "organizationalUnit", default, 1, false),
                new DirectoryObject(user, "user", DomainSid.Append(1100), 2, false),
            ],
            ["DC=fennmoor,DC=example"], []);
        var directory = new DirectorySnapshot(
            Domain, DomainSid, "a file", At,
            [
                new DirectoryPrincipal(Holder, PrincipalKind.User, Account, $"CN={Account},OU=Services,DC=fennmoor,DC=example"),
                new DirectoryPrincipal(DomainSid.Append(1002), PrincipalKind.Group, Group, $"CN={Group},DC=fennmoor,DC=example"),
            ],
            [Branch], null)
        {
            ServiceNamesAsked = [ServiceName],
            Access = access,
        };
        return new Survey("fennmoor", At, false, directory, [HostOf()], [SqlOf(), PgOf()]);
    }

    private static HostSnapshot HostOf() => new(
        Host, At, null, [new LocalGroup("Administrators", Sid.Parse("S-1-5-32-544"), [])],
        [
            new LogonList("SeServiceLogonRight", []), new LogonList("SeDenyServiceLogonRight", []),
            new LogonList("SeIncreaseQuotaPrivilege", []),
        ],
        [])
    {
        Services = [new HostService("Poll", "LocalSystem", ServiceStart.Automatic, true, [])],
    };

    private static InstanceSnapshot SqlOf() => new(
        Sql, "sqlserver", At, null, [], [new RoleMembers("dbcreator", [], []), new RoleMembers("sysadmin", [], [])],
        [new DatabaseSnapshot("Store", default, null, [], [new RoleMembers("db_datareader", [], [])])])
    {
        Host = Host,
    };

    private static InstanceSnapshot PgOf() => new(
        Pg, "postgresql", At, null, [], [], [new DatabaseSnapshot("Store", default, null, [], [])])
    {
        Host = Host,
        PostgreSql = new PostgreSqlCatalog(
            [
                new PostgreSqlRole("postgres", RoleAttributes.Superuser | RoleAttributes.Login | RoleAttributes.Inherit),
                new PostgreSqlRole("readers", RoleAttributes.Inherit),
            ],
            [],
            [
                new PostgreSqlDatabase(
                    "Store", "postgres", [new PrivilegeEntry(null, "CONNECT", false)], null,
                    [new PostgreSqlSchema("s", "postgres", [])],
                    [new PostgreSqlObject(PostgreSqlSecurable.OfObject("s", "t"), "postgres", [])]),
            ],
            [new SignInRule("hostgssenc", ["all"], ["all"], SignInAddress.All, "gss", ["map=m", "include_realm=true"])],
            [new NameMapLine("m", @"/^(.*)@FENNMOOR\.EXAMPLE$", @"\1")]),
    };
}
