using System.Data.Common;
using JustRight.Core.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;
using JustRight.Formats.SqlServer;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// Reads the catalogs of an instance of the SQL Server family into a snapshot. It changes nothing and needs no more than to see
/// definitions.
/// </summary>
internal static class SqlServerSurvey
{
    private const int Dbo = 1; // at the instance the first login, which owns what an instance comes with
    private const int OfInstance = 100;
    private const int OfPrincipals = 101;
    private const int OfEndpoints = 105;
    private const int OfUsersAndRoles = 4;
    private const string SimulatedEdition = "Simulated";

    /// <summary>Reads an instance: everything of it, and of every database the reader gets into.</summary>
    /// <exception cref="ConnectorException">It broke off, or the reader may not see every login and role: what was not shown
    /// would be taken for not there.</exception>
    public static async Task<InstanceSnapshot> ReadAsync(
        SqlServerSession session, EstateInstance instance, DateTimeOffset at, CancellationToken cancel)
    {
        var (release, edition, reader, seesAll, seesJobs) = await session.AskAsync(
            SqlServerCatalog.Instance,
            async r => await r.ReadAsync(cancel)
                ? (Text(r, 0), Text(r, 1), Text(r, 2), IsTrue(r, 3), IsTrue(r, 4) && IsTrue(r, 5))
                : ("", "", "", false, false),
            cancel);
        if (!seesAll)
            throw new ConnectorException(
                ConnectorFailure.NotAllowed,
                $"{reader} may not see every definition of {instance.Name}, and would see only some logins and roles: GRANT VIEW ANY DEFINITION TO the reader.");
        var parts = await session.AskAsync(SqlServerCatalog.Principals, r => InstanceAsync(r, instance, cancel), cancel);
        await NamedAsync(session, null, parts.Principals, parts.Unnamed, SqlServerThings.AtInstance, cancel);
        var read = new List<DatabaseSnapshot>(parts.Databases.Count);
        foreach (var database in parts.Databases)
            read.Add(database.WhyNot is { } why ? new DatabaseSnapshot(
                database.Name, database.Owner, $"{reader} {why}", [], []) : await DatabaseAsync(session, database, cancel));
        return new InstanceSnapshot(
            instance.Name, instance.Engine, at, null, parts.Principals.Logins(), parts.Principals.Roles(), read)
        {
            Permissions = parts.Principals.Permissions(),
            OwnLogins = parts.Principals.Own(),
            Owned = parts.Principals.Owned(),
            AdmitsContained = parts.AdmitsContained,
            Agent = seesJobs ? await AgentJobsReading.ReadAsync(session, cancel)
                : AgentJobs.NotRead($"{reader} may not read them: GRANT SELECT ON dbo.sysjobs and dbo.sysjobsteps of msdb"),
            Host = instance.Host,
            Release = edition.StartsWith(SimulatedEdition, StringComparison.Ordinal) ? $"{release}, simulated" : release,
            ReadBy = reader,
        };
    }

    /// <summary>What permissions are on that are not named beside them: the few classes that occur are asked for.</summary>
    private static async Task NamedAsync(
        SqlServerSession session, string? database, CatalogPrincipals principals, IReadOnlyList<Unnamed> entries,
        IReadOnlyList<SqlServerThings> all, CancellationToken cancel)
    {
        var classes = entries.Select(e => e.Class).ToHashSet();
        var of = all.Where(t => classes.Contains(t.Number)).ToList();
        if (of.Count == 0) return;
        var names = await session.AskAsync(SqlServerCatalog.Names(database, of), ReadAsync, cancel);
        foreach (var entry in entries)
            if (names.TryGetValue((entry.Class, entry.Id), out var thing))
                principals.Grant(entry.Permission, entry.State, entry.Grantee, thing);

        async Task<Dictionary<(int, int), SqlServerSecurable>> ReadAsync(DbDataReader r)
        {
            var found = new Dictionary<(int, int), SqlServerSecurable>();
            while (await r.ReadAsync(cancel))
                if (ThingOf(Number(r, 0), of, r.IsDBNull(2) ? null : r.GetString(2), r.GetString(3)) is { } thing)
                    found[(Number(r, 0), Number(r, 1))] = thing;
            return found;
        }
    }

    private static SqlServerSecurable? ThingOf(int number, IReadOnlyList<SqlServerThings> of, string? schema, string name) =>
        of.FirstOrDefault(t => t.Number == number) is { } known ? new SqlServerSecurable(known.Class, schema, name, null) : null;

    private static async Task<Parts> InstanceAsync(DbDataReader r, EstateInstance instance, CancellationToken cancel)
    {
        var principals = new CatalogPrincipals(SqlServerPermissions.ConnectSql);
        var owners = new List<(int Role, int Owner)>();
        while (await r.ReadAsync(cancel))
        {
            principals.Add(
                r.GetInt32(0), r.GetString(1), r.GetString(2), r.IsDBNull(3) ? null : r.GetFieldValue<byte[]>(3),
                r.GetBoolean(4));
            if (!r.IsDBNull(5) && r.GetInt32(5) != Dbo && !r.GetBoolean(6)) owners.Add((r.GetInt32(0), r.GetInt32(5)));
        }

        foreach (var (role, owner) in owners)
            if (principals.Thing(role, SqlServerClass.Login, SqlServerClass.ServerRole) is { } owned) principals.Own(owned, owner);
        await r.NextResultAsync(cancel);
        while (await r.ReadAsync(cancel)) principals.Join(r.GetInt32(0), r.GetInt32(1));
        await r.NextResultAsync(cancel);
        var unnamed = new List<Unnamed>();
        while (await r.ReadAsync(cancel))
        {
            var (permission, state, grantee, of, id) =
                (r.GetString(0), r.GetString(1), r.GetInt32(2), Number(r, 3), Number(r, 4));
            if (of == OfInstance) principals.Grant(permission, state, grantee, null);
            else if (of != OfPrincipals) unnamed.Add(new Unnamed(permission, state, grantee, of, id));
            else if (principals.Thing(id, SqlServerClass.Login, SqlServerClass.ServerRole) is { } thing)
                principals.Grant(permission, state, grantee, thing);
        }

        await r.NextResultAsync(cancel);
        var doors = new List<Door>();
        while (await r.ReadAsync(cancel)) doors.Add(DoorOf(r));
        await r.NextResultAsync(cancel);
        var admitsContained = false;
        while (await r.ReadAsync(cancel)) admitsContained = Number(r, 1) == 1;
        await r.NextResultAsync(cancel);
        while (await r.ReadAsync(cancel))
        {
            var endpoint = new SqlServerSecurable(SqlServerClass.Endpoint, null, r.GetString(1), null);
            if (!r.IsDBNull(2) && Number(r, 2) != Dbo) principals.Own(endpoint, Number(r, 2));
            foreach (var entry in unnamed.Where(u => u.Class == OfEndpoints && u.Id == Number(r, 0)))
                principals.Grant(entry.Permission, entry.State, entry.Grantee, endpoint);
        }

        unnamed.RemoveAll(u => u.Class == OfEndpoints);
        if (principals.NamesThatDifferByCase() is { } pair)
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"{instance.Name} has {pair}, which differ only by case: a need cannot say which one it means.");
        var twins = doors.GroupBy(d => d.Name, StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1)
            .SelectMany(g => g.Select(d => d.Name)).ToHashSet(StringComparer.Ordinal);
        return new Parts(
            principals, unnamed,
            [.. doors.Select(d =>
                twins.Contains(d.Name)
                    ? d with { WhyNot = "cannot tell it from another database whose name differs only by case" }
                    : d)],
            admitsContained);
    }

    private static Door DoorOf(DbDataReader r)
    {
        var state = Text(r, 3);
        var (mayEnter, seesAll) = (IsTrue(r, 4), IsTrue(r, 5));
        return new Door(
            r.GetString(0), SidOf(r.IsDBNull(1) ? null : r.GetFieldValue<byte[]>(1)), r.IsDBNull(2) ? null : r.GetString(2),
            state != "ONLINE" ? $"cannot read it, it is {state.ToLowerInvariant()}"
                : !mayEnter && IsTrue(r, 9) ? "does not get into it: a replica of an availability group, which may not be open to readers"
                : !mayEnter ? "may not enter it: GRANT CONNECT ANY DATABASE TO the reader"
                : seesAll ? null
                : "may not see its definitions")
        {
            IsContained = !r.IsDBNull(6) && Number(r, 6) != 0,
            IsTrusted = !r.IsDBNull(7) && r.GetBoolean(7),
            IsChained = !r.IsDBNull(8) && r.GetBoolean(8),
        };
    }

    private static async Task<DatabaseSnapshot> DatabaseAsync(SqlServerSession session, Door database, CancellationToken cancel)
    {
        try
        {
            var (principals, unnamed) = await session.AskAsync(SqlServerCatalog.Database(database.Name), ReadAsync, cancel);
            await NamedAsync(session, database.Name, principals, unnamed, SqlServerThings.InDatabase, cancel);
            return new DatabaseSnapshot(
                database.Name, database.Owner,
                principals.NamesThatDifferByCase() is { } pair
                    ? $"it has {pair}, which differ only by case: a need cannot say which one it means"
                    : null,
                principals.Logins(), principals.Roles())
            {
                OwnerName = database.OwnerName,
                Permissions = principals.Permissions(),
                AdmitsGuests = principals.AdmitsGuests,
                OwnUsers = principals.Own(),
                Owned = principals.Owned(),
                IsContained = database.IsContained,
                IsTrusted = database.IsTrusted,
                IsChained = database.IsChained,
            };
        }
        catch (ConnectorException e) when (e.Failure is ConnectorFailure.NotFound or ConnectorFailure.NotAllowed)
        {
            // it went away, or was shut, in between
            return new DatabaseSnapshot(database.Name, database.Owner, e.Message, [], []);
        }

        async Task<(CatalogPrincipals Principals, IReadOnlyList<Unnamed> Unnamed)> ReadAsync(DbDataReader r)
        {
            var principals = new CatalogPrincipals(SqlServerPermissions.Connect);
            while (await r.ReadAsync(cancel))
                if (r.GetInt32(0) is not Dbo and var id)
                    principals.Add(
                        id, r.GetString(1), r.GetString(2), r.IsDBNull(3) ? null : r.GetFieldValue<byte[]>(3), isDisabled: false);
            await r.NextResultAsync(cancel);
            while (await r.ReadAsync(cancel)) principals.Join(r.GetInt32(0), r.GetInt32(1));
            await r.NextResultAsync(cancel);
            var unnamed = new List<Unnamed>();
            while (await r.ReadAsync(cancel))
            {
                var (permission, state, grantee, of, id) =
                    (r.GetString(0), r.GetString(1), r.GetInt32(2), Number(r, 3), Number(r, 4));
                if (of == 0) principals.Grant(permission, state, grantee, null);
                else if (of == OfUsersAndRoles)
                {
                    var thing = id == Dbo ? new SqlServerSecurable(SqlServerClass.User, null, "dbo", null)
                        : principals.Thing(id, SqlServerClass.User, SqlServerClass.Role);
                    if (thing is not null) principals.Grant(permission, state, grantee, thing);
                }
                else if (InSchema(r, of) is { } thing) principals.Grant(permission, state, grantee, thing);
                else if (of is not (1 or 3)) unnamed.Add(new Unnamed(permission, state, grantee, of, id));
            }

            await r.NextResultAsync(cancel);
            while (await r.ReadAsync(cancel))
            {
                var (of, first, second) = (Number(r, 0), r.GetString(1), r.IsDBNull(2) ? null : r.GetString(2));
                var kind = of == OfUsersAndRoles ? SqlServerClass.Role : SqlServerThings.InDatabase.First(t => t.Number == of).Class;
                principals.Own(
                    second is null
                        ? new SqlServerSecurable(kind, null, first, null)
                        : new SqlServerSecurable(kind, first, second, null),
                    Number(r, 3));
            }

            return (principals, unnamed);
        }
    }

    /// <summary>A schema, an object of one, or a column; null for others, and for what was gone when its name was read.</summary>
    private static SqlServerSecurable? InSchema(DbDataReader r, int of)
    {
        if (r.IsDBNull(5)) return null;
        var schema = r.GetString(5);
        if (of == 3) return SqlServerSecurable.OfSchema(schema);
        if (r.IsDBNull(6)) return null;
        return r.IsDBNull(7)
            ? SqlServerSecurable.OfObject(schema, r.GetString(6))
            : new SqlServerSecurable(SqlServerClass.Column, schema, r.GetString(6), r.GetString(7));
    }

    private static string Text(DbDataReader r, int column) => r.IsDBNull(column) ? "" : r.GetString(column);

    private static bool IsTrue(DbDataReader r, int column) => !r.IsDBNull(column) && Number(r, column) == 1;

    private static int Number(DbDataReader r, int column) =>
        Convert.ToInt32(r.GetValue(column), System.Globalization.CultureInfo.InvariantCulture);

    private static Sid SidOf(byte[]? bytes) => Sid.TryFromBytes(bytes, out var sid) ? sid : default;

    /// <summary>What the questions about the instance itself answer.</summary>
    private sealed record Parts(
        CatalogPrincipals Principals, IReadOnlyList<Unnamed> Unnamed, IReadOnlyList<Door> Databases, bool AdmitsContained);

    /// <summary>A permission on something that is known by its class and number so far.</summary>
    private sealed record Unnamed(string Permission, string State, int Grantee, int Class, int Id);

    /// <summary>A database, and why the reader does not get in, or null.</summary>
    private sealed record Door(string Name, Sid Owner, string? OwnerName, string? WhyNot)
    {
        public bool IsContained { get; init; }

        public bool IsTrusted { get; init; }

        public bool IsChained { get; init; }
    }
}
