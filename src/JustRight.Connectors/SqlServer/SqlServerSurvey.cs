using System.Data.Common;
using JustRight.Core.Directory;
using JustRight.Core.Engines.SqlServer;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// Reads the catalogs of an instance of the SQL Server family into a snapshot. It changes nothing and needs no more than to see
/// definitions.
/// </summary>
internal static class SqlServerSurvey
{
    private const int Dbo = 1;
    private const int Guest = 2;
    private const string SimulatedEdition = "Simulated";

    /// <summary>Reads an instance: everything of it, and of every database the reader gets into.</summary>
    /// <exception cref="ConnectorException">It broke off, or the reader may not see every login and role: what was not shown
    /// would be taken for not there.</exception>
    public static async Task<InstanceSnapshot> ReadAsync(
        SqlServerSession session, EstateInstance instance, DateTimeOffset at, CancellationToken cancel)
    {
        var (release, edition, reader, seesAll) = await session.AskAsync(
            SqlServerCatalog.Instance,
            async r => await r.ReadAsync(cancel)
                ? (Text(r, 0), Text(r, 1), Text(r, 2), !r.IsDBNull(3) && r.GetInt32(3) == 1)
                : ("", "", "", false),
            cancel);
        if (!seesAll)
            throw new ConnectorException(
                ConnectorFailure.NotAllowed,
                $"{reader} may not see every definition of {instance.Name}, and would see only some logins and roles: GRANT VIEW ANY DEFINITION TO the reader.");
        var (snapshot, databases) = await session.AskAsync(
            SqlServerCatalog.Principals, r => InstanceAsync(r, instance, at, cancel), cancel);
        var read = new List<DatabaseSnapshot>(databases.Count);
        foreach (var database in databases)
            read.Add(database.WhyNot is { } why ? new DatabaseSnapshot(
                database.Name, database.Owner, $"{reader} {why}", [], []) : await DatabaseAsync(session, database, cancel));
        return snapshot with
        {
            Databases = read,
            Host = instance.Host,
            Release = edition.StartsWith(SimulatedEdition, StringComparison.Ordinal) ? $"{release}, simulated" : release,
            ReadBy = reader,
        };
    }

    private static async Task<(InstanceSnapshot Snapshot, IReadOnlyList<Door> Databases)> InstanceAsync(
        DbDataReader r, EstateInstance instance, DateTimeOffset at, CancellationToken cancel)
    {
        var principals = new CatalogPrincipals();
        while (await r.ReadAsync(cancel))
            principals.Add(
                r.GetInt32(0), r.GetString(1), r.GetString(2), r.IsDBNull(3) ? null : r.GetFieldValue<byte[]>(3),
                r.GetBoolean(4));
        await r.NextResultAsync(cancel);
        while (await r.ReadAsync(cancel)) principals.Join(r.GetInt32(0), r.GetInt32(1));
        await r.NextResultAsync(cancel);
        while (await r.ReadAsync(cancel))
            principals.Grant(r.GetString(0), r.GetString(1), r.GetInt32(2), null, SqlServerPermissions.ConnectSql);
        await r.NextResultAsync(cancel);
        var doors = new List<Door>();
        while (await r.ReadAsync(cancel))
        {
            var state = Text(r, 3);
            var mayEnter = !r.IsDBNull(4) && r.GetInt32(4) == 1;
            var seesAll = !r.IsDBNull(5) && r.GetInt32(5) == 1;
            doors.Add(new Door(
                r.GetString(0), SidOf(r.IsDBNull(1) ? null : r.GetFieldValue<byte[]>(1)), r.IsDBNull(2) ? null : r.GetString(2),
                state != "ONLINE" ? $"cannot read it, it is {state.ToLowerInvariant()}"
                    : !mayEnter ? "may not enter it: GRANT CONNECT ANY DATABASE TO the reader"
                    : seesAll ? null
                    : "may not see its definitions"));
        }

        if (principals.NamesThatDifferByCase() is { } pair)
            throw new ConnectorException(
                ConnectorFailure.Conflict,
                $"{instance.Name} has {pair}, which differ only by case: a need cannot say which one it means.");
        var twins = doors.GroupBy(d => d.Name, StringComparer.OrdinalIgnoreCase).Where(g => g.Count() > 1)
            .SelectMany(g => g.Select(d => d.Name)).ToHashSet(StringComparer.Ordinal);
        return (
            new InstanceSnapshot(instance.Name, instance.Engine, at, null, principals.Logins(), principals.Roles(), [])
            {
                Permissions = principals.Permissions(),
            },
            [.. doors.Select(d =>
                twins.Contains(d.Name)
                    ? d with { WhyNot = "cannot tell it from another database whose name differs only by case" }
                    : d)]);
    }

    private static async Task<DatabaseSnapshot> DatabaseAsync(SqlServerSession session, Door database, CancellationToken cancel)
    {
        try
        {
            return await session.AskAsync(SqlServerCatalog.Database(database.Name), ReadAsync, cancel);
        }
        catch (ConnectorException e) when (e.Failure is ConnectorFailure.NotFound or ConnectorFailure.NotAllowed)
        {
            // it went away, or was shut, in between
            return new DatabaseSnapshot(database.Name, database.Owner, e.Message, [], []);
        }

        async Task<DatabaseSnapshot> ReadAsync(DbDataReader r)
        {
            var principals = new CatalogPrincipals();
            while (await r.ReadAsync(cancel))
                if (r.GetInt32(0) is not Dbo and var id)
                    principals.Add(
                        id, r.GetString(1), r.GetString(2), r.IsDBNull(3) ? null : r.GetFieldValue<byte[]>(3), isDisabled: false);
            await r.NextResultAsync(cancel);
            while (await r.ReadAsync(cancel)) principals.Join(r.GetInt32(0), r.GetInt32(1));
            await r.NextResultAsync(cancel);
            var admitsGuests = false;
            while (await r.ReadAsync(cancel))
            {
                var (permission, state, grantee) = (r.GetString(0), r.GetString(1), r.GetInt32(2));
                var on = Convert.ToInt32(r.GetValue(3), System.Globalization.CultureInfo.InvariantCulture) switch
                {
                    3 when !r.IsDBNull(4) => $"SCHEMA::{r.GetString(4)}",
                    1 when !r.IsDBNull(4) && !r.IsDBNull(5) => $"OBJECT::{r.GetString(4)}.{r.GetString(5)}",
                    0 => null,
                    _ => "", // a thing that is no object of a schema: nobody can need a right on it
                };
                if (on is null && grantee == Guest && permission == SqlServerPermissions.Connect && state.Trim() is "G" or "W")
                    admitsGuests = true;
                if (on is not "") principals.Grant(permission, state, grantee, on, SqlServerPermissions.Connect);
            }

            return new DatabaseSnapshot(
                database.Name, database.Owner,
                principals.NamesThatDifferByCase() is { } pair
                    ? $"it has {pair}, which differ only by case: a need cannot say which one it means"
                    : null,
                principals.Logins(), principals.Roles())
            {
                OwnerName = database.OwnerName,
                Permissions = principals.Permissions(),
                AdmitsGuests = admitsGuests,
            };
        }
    }

    private static string Text(DbDataReader r, int column) => r.IsDBNull(column) ? "" : r.GetString(column);

    private static Sid SidOf(byte[]? bytes) => Sid.TryFromBytes(bytes, out var sid) ? sid : default;

    /// <summary>A database, and why the reader does not get in, or null.</summary>
    private sealed record Door(string Name, Sid Owner, string? OwnerName, string? WhyNot);
}
