using JustRight.Core.Changes;
using JustRight.Core.Directory;

namespace JustRight.Connectors.SqlServer;

/// <summary>
/// Settles what an instance itself calls the principal and the role of a change. A login keeps the name it was made with though
/// the
/// account or its domain was renamed, and keeps its SID though the account was deleted and another made by the same name.
/// </summary>
internal sealed class SqlServerNames(SqlServerSession session, Func<string, Sid?> sidOf)
{
    /// <summary>The change in the instance's own names.</summary>
    /// <returns>The change, or why it cannot be made: the name is taken by a login or user with another SID.</returns>
    public async Task<(InstanceChange Change, string? Clash)> SettleAsync(InstanceChange change, CancellationToken cancel)
    {
        change = await WithRoleAsync(change, cancel);
        if (sidOf(change.Principal) is not { } sid) return (change, null);
        var database = DatabaseOf(change);
        if (await session.ListAsync<string>(SqlServerCatalog.NameOf(database, sid.ToBytes()), cancel) is [var named, ..])
            return (await WithLoginAsync(Named(change, named), sid, cancel), null);
        if (await session.ListAsync<byte[]>(SqlServerCatalog.SidOf(database, change.Principal), cancel) is not [var other, ..])
            return (await WithLoginAsync(change, sid, cancel), null);
        var what = database is null ? "login" : "user";
        return (
            change,
            $"there is a {what} {change.Principal} {(database is null ? $"on {change.Instance}" : $"in {change.Instance}/{database}")}, but it belongs to another account ({(Sid.TryFromBytes(other, out var old) ? old.ToString() : "no SID of a domain")}) that was deleted or renamed since: drop that {what} first.");
    }

    /// <summary>A new user of a database is made for the login, which may have another name than the account has now.</summary>
    private async Task<InstanceChange> WithLoginAsync(InstanceChange change, Sid sid, CancellationToken cancel) =>
        change is CreateDatabaseUser create
            && await session.ListAsync<string>(SqlServerCatalog.NameOf(null, sid.ToBytes()), cancel) is [var login, ..]
            ? create with { Principal = login }
            : change;

    private async Task<InstanceChange> WithRoleAsync(InstanceChange change, CancellationToken cancel)
    {
        if (RoleOf(change) is not { } role) return change;
        var names = await session.ListAsync<string>(SqlServerCatalog.Roles(DatabaseOf(change)), cancel);
        if (names.Contains(role, StringComparer.Ordinal)
            || names.Where(n => string.Equals(n, role, StringComparison.OrdinalIgnoreCase)).ToList() is not [var only])
            return change;
        return change switch
        {
            AddInstanceRoleMember c => c with { Role = only },
            RemoveInstanceRoleMember c => c with { Role = only },
            AddDatabaseRoleMember c => c with { Role = only },
            RemoveDatabaseRoleMember c => c with { Role = only },
            _ => change,
        };
    }

    private static InstanceChange Named(InstanceChange change, string name) => change with { Principal = name };

    private static string? RoleOf(InstanceChange change) => change switch
    {
        AddInstanceRoleMember c => c.Role,
        RemoveInstanceRoleMember c => c.Role,
        AddDatabaseRoleMember c => c.Role,
        RemoveDatabaseRoleMember c => c.Role,
        _ => null,
    };

    private static string? DatabaseOf(InstanceChange change) => change switch
    {
        CreateDatabaseUser c => c.Database, // a new owner is a login, not a user
        DropDatabaseUser c => c.Database,
        AddDatabaseRoleMember c => c.Database,
        RemoveDatabaseRoleMember c => c.Database,
        GrantDatabasePermission c => c.Database,
        RevokeDatabasePermission c => c.Database,
        _ => null,
    };
}
