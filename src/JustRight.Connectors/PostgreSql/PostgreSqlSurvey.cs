using System.Data.Common;
using System.Net;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.PostgreSql;

/// <summary>
/// Reads the catalogs of an instance of the PostgreSQL family: once for the instance, and once in each database that lets the
/// reader in.
/// </summary>
internal static class PostgreSqlSurvey
{
    /// <summary>Reads an instance.</summary>
    /// <param name="open">Opens a session in a database.</param>
    public static async Task<InstanceSnapshot> ReadAsync(
        Func<string, Task<PostgreSqlSession>> open, EstateInstance instance, string first, DateTimeOffset at,
        CancellationToken cancel)
    {
        await using var session = await open(first);
        var (number, release, reader, ignoresCase) = (
            await session.ListAsync(
                PostgreSqlQuestions.Instance, r => (r.GetInt32(0), r.GetString(1), r.GetString(2), r.GetBoolean(3)), cancel))[0];
        var roles = await session.ListAsync(PostgreSqlQuestions.Roles, Role, cancel);
        var memberships = await session.ListAsync(
            PostgreSqlQuestions.Memberships(number),
            r => new PostgreSqlMembership(r.GetString(0), r.GetString(1), r.GetBoolean(2), r.GetBoolean(3), r.GetBoolean(4)),
            cancel);
        var doors = await session.ListAsync(
            PostgreSqlQuestions.Databases,
            r => (Name: r.GetString(0), Owner: r.GetString(1), MayEnter: r.GetBoolean(2), Door: Door(r, 3), Entry: Entry(r, 5)),
            cancel);
        var parameters = number < PostgreSqlQuestions.ParametersAreGiven ? [] : await session.ListAsync(
            PostgreSqlQuestions.Parameters, r => (Name: r.GetString(0), Entry: Entry(r, 1)), cancel);
        var (rules, names, unread) = await SignInAsync(session, number, reader, cancel);
        var databases = new List<PostgreSqlDatabase>();
        foreach (var door in doors.GroupBy(d => (d.Name, d.Owner, d.MayEnter, d.Door)))
        {
            var bare = new PostgreSqlDatabase(
                door.Key.Name, door.Key.Owner, Entries(door.Select(d => d.Entry)),
                door.Key.MayEnter ? null
                    : door.Key.Door == DatabaseDoor.Shut ? "it takes no connections"
                    : $"{reader} may not enter it: GRANT CONNECT ON DATABASE … TO the reader", [], [])
            {
                Door = door.Key.Door,
            };
            databases.Add(door.Key.MayEnter ? await InsideAsync(open, bare, cancel) : bare);
        }

        return new InstanceSnapshot(
            instance.Name, instance.Engine, at, null, [], [],
            [.. databases.Select(d => new DatabaseSnapshot(d.Name, default, d.Unread, [], []))])
        {
            Host = instance.Host,
            Release = release,
            ReadBy = reader,
            PostgreSql = new PostgreSqlCatalog(roles, memberships, databases, rules, names)
            {
                SignInUnread = unread,
                KerberosIgnoresCase = ignoresCase,
                Parameters = [.. parameters.GroupBy(p => p.Name).Select(g =>
                    new PostgreSqlParameter(g.Key, Entries(g.Select(p => p.Entry))))],
            },
        };
    }

    private static async Task<PostgreSqlDatabase> InsideAsync(
        Func<string, Task<PostgreSqlSession>> open, PostgreSqlDatabase database, CancellationToken cancel)
    {
        try
        {
            await using var session = await open(database.Name);
            var schemas = await session.ListAsync(
                PostgreSqlQuestions.Schemas, r => (Name: r.GetString(0), Owner: r.GetString(1), Entry: Entry(r, 2)), cancel);
            var objects = await session.ListAsync(
                PostgreSqlQuestions.Objects,
                r => (
                    Is: new PostgreSqlObject(Thing(r), r.GetString(4), [])
                    {
                        RunsAsOwner = r.GetBoolean(5),
                        HidesRows = r.GetBoolean(6),
                        IsView = r.GetBoolean(7),
                    },
                    Entry: Entry(r, 8)),
                cancel);
            return database with
            {
                Schemas = [.. schemas.GroupBy(s => (s.Name, s.Owner)).Select(g =>
                    new PostgreSqlSchema(g.Key.Name, g.Key.Owner, Entries(g.Select(s => s.Entry))))],
                Objects = [.. objects.GroupBy(o => o.Is.Thing).Select(g =>
                    g.First().Is with { Entries = Entries(g.Select(o => o.Entry)) })],
            };
        }
        catch (ConnectorException e) when (e.Failure is not ConnectorFailure.Unreachable)
        {
            return database with { Unread = e.Message };
        }
    }

    /// <summary>
    /// The rules of sign-in and the name map lie in files of the server: a reader sees them only when it was let.
    /// </summary>
    private static async Task<(IReadOnlyList<SignInRule> Rules, IReadOnlyList<NameMapLine> Names, string? Unread)> SignInAsync(
        PostgreSqlSession session, int number, string reader, CancellationToken cancel)
    {
        if (number < PostgreSqlQuestions.NameMapCanBeAsked) return ([], [], "this release does not show its name map");
        try
        {
            var rules = await session.ListAsync(PostgreSqlQuestions.SignInRules, Rule, cancel);
            var names = await session.ListAsync(
                PostgreSqlQuestions.NameMap, r => new NameMapLine(r.GetString(0), r.GetString(1), r.GetString(2)), cancel);
            var faults = await session.ListAsync(
                PostgreSqlQuestions.SignInFaults,
                r => $"{r.GetString(0)} has a fault in line {r.GetInt32(1)}: {r.GetString(2)}", cancel);
            return (rules, names, faults.Count == 0 ? null : $"{faults[0]}; the server goes by what it read before");
        }
        catch (ConnectorException e) when (e.Failure == ConnectorFailure.NotAllowed)
        {
            return (
                [], [],
                $"{reader} may not read the sign-in rules and the name map: GRANT SELECT ON pg_hba_file_rules, pg_ident_file_mappings "
                + "and EXECUTE ON the functions of the same names TO the reader");
        }
    }

    private static SignInRule Rule(DbDataReader r)
    {
        var (address, mask) = (r.GetString(3), r.GetString(4));
        return new SignInRule(
            r.GetString(0), r.GetFieldValue<string[]>(1), r.GetFieldValue<string[]>(2), Address(address, mask), r.GetString(5),
            r.GetFieldValue<string[]>(6))
        {
            AddressWords = mask.Length == 0 ? address : $"{address} {mask}",
        };
    }

    /// <summary>The machine's own names are read as some addresses: its network is not known.</summary>
    private static SignInAddress Address(string address, string mask) => (address, mask) switch
    {
        ("all", _) or ("", _) => SignInAddress.All,
        (_, "0.0.0.0") => SignInAddress.AllOfV4,
        (_, "::") => SignInAddress.AllOfV6,
        _ => IPAddress.TryParse(address, out var one) && IPAddress.IsLoopback(one) ? SignInAddress.Loopback : SignInAddress.Some,
    };

    private static DatabaseDoor Door(DbDataReader r, int at) =>
        !r.GetBoolean(at) ? DatabaseDoor.Shut : r.GetBoolean(at + 1) ? DatabaseDoor.ForSuperusers : DatabaseDoor.Open;

    private static PostgreSqlSecurable Thing(DbDataReader r) => new(
        PostgreSqlSecurable.ClassOf(r.GetString(0)), r.IsDBNull(1) ? null : r.GetString(1), r.GetString(2),
        r.IsDBNull(3) ? null : r.GetString(3));

    private static PostgreSqlRole Role(DbDataReader r)
    {
        var attributes = new[]
        {
            RoleAttributes.Superuser, RoleAttributes.Inherit, RoleAttributes.CreateRole, RoleAttributes.CreateDatabase,
            RoleAttributes.Login, RoleAttributes.Replication, RoleAttributes.BypassRowSecurity,
        };
        return new PostgreSqlRole(
            r.GetString(0),
            attributes.Where((_, i) => r.GetBoolean(i + 1)).Aggregate(RoleAttributes.None, (all, one) => all | one),
            r.GetBoolean(attributes.Length + 1));
    }

    private static PrivilegeEntry? Entry(DbDataReader r, int at) =>
        r.IsDBNull(at + 1)
            ? null
            : new PrivilegeEntry(r.IsDBNull(at) ? null : r.GetString(at), r.GetString(at + 1), r.GetBoolean(at + 2));

    private static IReadOnlyList<PrivilegeEntry> Entries(IEnumerable<PrivilegeEntry?> entries) =>
        [.. entries.OfType<PrivilegeEntry>()];
}
