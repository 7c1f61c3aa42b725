using System.Text;
using JustRight.Connectors;
using JustRight.Formats.SqlServer;
using JustRight.SimulatedInstance.Engine;
using JustRight.Simulation;

namespace JustRight.SimulatedInstance;

/// <summary>Gives a simulated instance what the simulation's file holds for it.</summary>
public static class SimulationSeed
{
    private const string RolePrefix = "role:";

    /// <summary>Fills a new instance from the simulation's: logins, databases, roles with their members, permissions.</summary>
    /// <exception cref="ConnectorException">The simulation has no instance of that name.</exception>
    public static void Fill(SimulatedEngine engine, SimulationFile file)
    {
        var (instance, domain) = file.Read(state =>
            (
                state.Instances.Find(i => string.Equals(i.Name, engine.Birth.Name, StringComparison.OrdinalIgnoreCase)),
                state.Domain));
        if (instance is null)
            throw new ConnectorException(ConnectorFailure.NotFound, $"the simulation has no instance {engine.Birth.Name}.");
        string Name(string entry) =>
            TransactSql.Name(entry.StartsWith(RolePrefix, StringComparison.Ordinal) ? entry[RolePrefix.Length..] : entry.Contains(
                '\\', StringComparison.Ordinal) ? entry : $@"{domain}\{entry}");
        var script = new StringBuilder();
        foreach (var login in instance.Logins) script.Append("CREATE LOGIN ").Append(Name(login)).AppendLine(" FROM WINDOWS;");
        foreach (var (role, members) in instance.Roles)
        {
            if (engine.Catalog.ServerPrincipal(role, "'R'") is null)
                script.Append("CREATE SERVER ROLE ").Append(TransactSql.Name(role)).AppendLine(";");
            foreach (var member in members)
                script.Append("ALTER SERVER ROLE ").Append(TransactSql.Name(role)).Append(" ADD MEMBER ").Append(Name(member))
                    .AppendLine(";");
        }

        foreach (var (entry, holders) in instance.Permissions) Permission(script, entry, holders.Select(Name));
        foreach (var database in instance.Databases)
        {
            if (engine.Catalog.Database(database.Name) is not { } known)
            {
                known = -1;
                script.Append("CREATE DATABASE ").Append(TransactSql.Name(database.Name)).AppendLine(";");
            }

            script.Append("USE ").Append(TransactSql.Name(database.Name)).AppendLine(";");
            foreach (var user in database.Users)
                script.Append("CREATE USER ").Append(Name(user)).Append(" FOR LOGIN ").Append(Name(user)).AppendLine(";");
            foreach (var role in database.Roles.Keys.Where(r =>
                !r.StartsWith("db_", StringComparison.Ordinal)
                    && (known < 0 || engine.Catalog.DatabasePrincipal(known, r, "'R'") is null)))
                script.Append("CREATE ROLE ").Append(TransactSql.Name(role)).AppendLine(";");
            foreach (var (role, members) in database.Roles)
                foreach (var member in members)
                    script.Append("ALTER ROLE ").Append(TransactSql.Name(role)).Append(" ADD MEMBER ").Append(Name(member))
                        .AppendLine(";");
            foreach (var (entry, holders) in database.Permissions.Where(p => !p.Key.Contains(" on ", StringComparison.Ordinal)))
                Permission(script, entry, holders.Select(Name));
            script.AppendLine("USE [master];");
            if (database.Owner is { } owner)
                script.Append("ALTER AUTHORIZATION ON DATABASE::").Append(TransactSql.Name(database.Name)).Append(" TO ")
                    .Append(Name(owner)).AppendLine(";");
        }

        engine.Run(script.ToString());
    }

    private static void Permission(StringBuilder script, string entry, IEnumerable<string> holders)
    {
        const string deny = "deny ";
        var denied = entry.StartsWith(deny, StringComparison.OrdinalIgnoreCase);
        foreach (var holder in holders.Where(h => h != "[public]"))
            script.Append(denied ? "DENY " : "GRANT ").Append(denied ? entry[deny.Length..] : entry).Append(" TO ")
                .Append(holder).AppendLine(";");
    }
}
