using JustRight.Core.Directory;
using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Simulation.Laying;

/// <summary>
/// Takes over into a simulation what was read of hosts and instances, in place of what is usual. A host or an instance that was
/// not read stays as usual, and is told of.
/// </summary>
internal static class SurveyedPlaces
{
    /// <summary>Takes over all that the simulation can hold.</summary>
    public static void Lay(SimulationState state, Survey survey, List<string> remarks)
    {
        var domain = Sid.Parse(state.DomainSid);
        var names = state.Principals.ToDictionary(p => domain.Append(p.Rid), p => p.Name);
        string Name(Sid sid) => names.GetValueOrDefault(sid) ?? sid.ToString();

        foreach (var host in state.Hosts)
        {
            var read = survey.Hosts.FirstOrDefault(h => Same(h.Name, host.Name));
            if (read is null or { Unread: not null })
                remarks.Add($"{host.Name} is as usual: {read?.Unread ?? "it was not surveyed"}");
            else if (read.Role == HostRole.Controller)
                remarks.Add($"{host.Name} is as usual: the groups of a domain controller are those of the domain");
            else LayHost(host, read, Name);
        }

        foreach (var instance in state.Instances)
        {
            var read = survey.Instances.FirstOrDefault(i => Same(i.Name, instance.Name));
            if (read is null or { Unread: not null })
                remarks.Add($"{instance.Name} is as usual: {read?.Unread ?? "it was not surveyed"}");
            else LayInstance(instance, read, Name, remarks);
        }
    }

    private static void LayHost(SimulationHost host, HostSnapshot read, Func<Sid, string> name)
    {
        if (read.LocalGroups.Count > 0)
            host.LocalGroups =
                [.. read.LocalGroups.Select(g =>
                    new SimulationLocalGroup { Name = g.Name, Sid = g.Sid.ToString(), Members = [.. g.Members.Select(name)] })];
        foreach (var list in read.LogonLists) host.LogonRights[list.Constant] = [.. list.Holders.Select(name)];
        if (read.Services.Count > 0) host.Services = [.. read.Services.Select(Of)];
        host.Tasks = Runners(read, RunnerKind.Task);
        host.Pools = Runners(read, RunnerKind.Pool);
    }

    private static SimulationService Of(HostService service) => new()
    {
        Name = service.Name,
        Title = service.Title,
        Account = service.Account,
        Start = ServiceWords.Of(service.Start),
        WaitsFor = [.. service.WaitsFor],
        RunsNowAs = service.Running ? service.RunsNowAs ?? service.Account : null,
        RunsSince = service.RunsSince,
    };

    private static List<SimulationRunner> Runners(HostSnapshot read, RunnerKind kind) =>
        [.. read.Runners.Where(r => r.Kind == kind && !r.IsDisabled).Select(r =>
            new SimulationRunner { Name = r.Name, Account = r.Account, KeepsPassword = r.KeepsPassword })];

    private static void LayInstance(
        SimulationInstance instance, InstanceSnapshot read, Func<Sid, string> name, List<string> remarks)
    {
        instance.Logins = [.. read.Logins.Where(l => l is { Disabled: false, MayConnect: true }).Select(l => name(l.Sid))];
        LayRoles(instance.Roles, read.Roles, name);
        LayPermissions(instance.Permissions, read.Permissions, name);
        foreach (var database in read.Databases)
        {
            if (database.Unread is { } reason)
            {
                remarks.Add($"{instance.Name}/{database.Name} is not taken over: {reason}");
                continue;
            }

            var made = UsualInstance.Database(database.Name);
            made.Owner = database.Owner.IsEmpty ? null : name(database.Owner);
            made.Users = [.. database.Users.Select(u => name(u.Sid))];
            LayRoles(made.Roles, database.Roles, name);
            LayPermissions(made.Permissions, database.Permissions, name);
            instance.Databases.RemoveAll(d => Same(d.Name, made.Name));
            instance.Databases.Add(made);
        }

        foreach (var login in read.Logins.Where(l => l.Disabled || !l.MayConnect))
            remarks.Add($"{instance.Name} is without the login {login.Name}, which is switched off");
    }

    private static void LayRoles(
        SortedDictionary<string, List<string>> roles, IEnumerable<RoleMembers> read, Func<Sid, string> name)
    {
        foreach (var role in read)
            roles[role.Role] = [.. role.Members.Select(name), .. role.MemberRoles.Select(r => SimulationNames.RolePrefix + r)];
    }

    private static void LayPermissions(
        SortedDictionary<string, List<string>> permissions, IEnumerable<PermissionEntry> read, Func<Sid, string> name)
    {
        foreach (var entry in read.Where(e => !e.Holder.IsEmpty || e.Role is not null))
        {
            var denies = entry.State == PermissionState.Deny ? "deny " : "";
            var key = $"{denies}{entry.Permission}{(entry.On is { } on ? $" on {on}" : "")}";
            if (!permissions.TryGetValue(key, out var holders)) permissions[key] = holders = [];
            var holder = entry.Role is { } role ? SimulationNames.RolePrefix + role : name(entry.Holder);
            if (!holders.Contains(holder)) holders.Add(holder);
        }
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
