using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>What every member server comes with.</summary>
internal static class UsualHost
{
    private const string Administrators = "Administrators", Users = "Users";

    /// <summary>Groups that only controllers of a domain have.</summary>
    private static readonly string[] OfControllers =
        ["Account Operators", "Server Operators", "Pre-Windows 2000 Compatible Access"];

    private static readonly (string Name, string Title, string Account)[] Services =
    [
        ("EventLog", "Windows Event Log", "NT AUTHORITY\\LocalService"),
        ("RpcSs", "Remote Procedure Call (RPC)", "NT AUTHORITY\\NetworkService"),
        ("LanmanServer", "Server", "LocalSystem"), ("LanmanWorkstation", "Workstation", "NT AUTHORITY\\NetworkService"),
        ("Schedule", "Task Scheduler", "LocalSystem"), ("W32Time", "Windows Time", "NT AUTHORITY\\LocalService"),
    ];

    /// <summary>A host with the groups, lists of rights and services that it is born with.</summary>
    public static SimulationHost Make(SimulationState state, string name)
    {
        var host = new SimulationHost { Name = name };
        foreach (var group in BuiltInGroups.AllNames.Except(OfControllers).Order(StringComparer.Ordinal))
            host.LocalGroups.Add(new SimulationLocalGroup
            {
                Name = group,
                Sid = BuiltInGroups.Find(group)!.Value.ToString(),
                Members = group switch
                {
                    Administrators => [UsualDomain.Administrators(state)],
                    Users => [UsualDomain.Users(state)],
                    _ => [],
                },
            });
        foreach (var constant in DefaultUserRights.Constants)
            host.LogonRights[constant] = [.. DefaultUserRights.Of(constant)!.Select(s => s.ToString())];
        foreach (var (service, title, account) in Services) host.Services.Add(Service(service, title, account));
        return host;
    }

    /// <summary>A service that runs since the host started.</summary>
    public static SimulationService Service(string name, string title, string account) => new()
    {
        Name = name,
        Title = title,
        Account = account,
        Start = ServiceWords.Of(ServiceStart.Automatic),
        RunsNowAs = account,
    };
}
