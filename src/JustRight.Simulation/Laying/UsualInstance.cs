using JustRight.Core.Estates;

namespace JustRight.Simulation.Laying;

/// <summary>What every instance of the SQL Server family comes with.</summary>
internal static class UsualInstance
{
    private const string Service = "MSSQLSERVER", Jobs = "msdb";

    private static readonly string[] Roles =
        ["sysadmin", "securityadmin", "serveradmin", "setupadmin", "processadmin", "diskadmin", "dbcreator", "bulkadmin"];

    private static readonly string[] DatabaseRoles =
    [
        "db_owner", "db_securityadmin", "db_accessadmin", "db_backupoperator", "db_ddladmin", "db_datareader", "db_datawriter",
        "db_denydatareader", "db_denydatawriter",
    ];

    /// <summary>An instance with its roles and the database of its jobs; its service is laid on its host.</summary>
    public static SimulationInstance Make(SimulationState state, EstateInstance instance)
    {
        var made = new SimulationInstance { Name = instance.Name };
        foreach (var role in Roles) made.Roles[role] = [];
        made.Permissions["VIEW ANY DATABASE"] = ["role:public"];
        var jobs = Database(Jobs);
        jobs.Roles["SQLAgentOperatorRole"] = [];
        jobs.Roles["SQLAgentReaderRole"] = ["role:SQLAgentOperatorRole"];
        jobs.Roles["SQLAgentUserRole"] = ["role:SQLAgentReaderRole"];
        made.Databases.Add(jobs);
        if (state.Hosts.Find(h => Same(h.Name, instance.Host)) is { } host && !host.Services.Exists(s => Same(s.Name, Service)))
            host.Services.Add(UsualHost.Service(Service, "SQL Server", $"NT SERVICE\\{Service}"));
        return made;
    }

    /// <summary>A database with the roles that every one has, owned by the instance's own administrator.</summary>
    public static SimulationDatabase Database(string name)
    {
        var made = new SimulationDatabase { Name = name };
        foreach (var role in DatabaseRoles) made.Roles[role] = [];
        return made;
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
