using JustRight.Core.Changes;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Runs;
using JustRight.Core.Surveys;

namespace JustRight.Core.Passwords;

/// <summary>What is known of a host of a place when a run-book is made.</summary>
/// <param name="Host">What was read of it, or null.</param>
/// <param name="Reached">Whether a connector changes things there.</param>
/// <param name="HasWindow">Whether its services may be restarted at certain times only.</param>
public sealed record HostForRenewal(HostSnapshot? Host, bool Reached, bool HasWindow);

/// <summary>
/// Puts the places of a password in the order in which the least stops. The directory comes first, since nothing else says
/// whether the new one is taken at all. What a machine does in a moment comes before what a person must walk to: services are
/// given theirs while they run on. Then what is refused at each use until somebody types it, then what is only read at a start,
/// then the restarts: on each host what others wait for first, each once.
/// </summary>
public static class RunBookMaker
{
    /// <summary>The run-book for one account.</summary>
    /// <param name="domain">The domain's short name.</param>
    /// <param name="account">The logon name.</param>
    /// <param name="setBefore">When the password was last set, by the directory's clock; null when that was not read.</param>
    /// <param name="places">Where it is typed.</param>
    /// <param name="hostOf">What is known of a host.</param>
    public static RunBook Make(
        string domain, string account, DateTimeOffset? setBefore, IReadOnlyList<PasswordPlace> places, Func<string,
        HostForRenewal> hostOf)
    {
        var steps = new List<RunBookStep>();
        var remarks = new List<string>();
        var machine = places.Where(p =>
            p.Kind == PasswordPlaceKind.Service && hostOf(p.Host) is { Reached: true, Host.Unread: null })
            .ToList();
        Add(
            RunBookAct.SetInDirectory, "", "", $"set a new password of {domain}\\{account} in the directory",
            "the directory must accept it first; running services are not affected", new SetPassword(domain, account, setBefore));
        foreach (var place in places.Where(p => p.Kind == PasswordPlaceKind.OwnSecret))
            Add(RunBookAct.Keep, place.Id, "", $"keep it as {place.Words}", "we sign in with it ourselves");
        foreach (var place in machine)
            Add(
                RunBookAct.Set, place.Id, place.Host, $"give it to {place.Words}",
                "this takes a moment and the service keeps running: from now on a restart succeeds",
                new GiveServicePassword(place.Host, place.Setting, AccountOf(place, hostOf(place.Host).Host!)));
        foreach (var place in places.Where(p => p.Reference is not null).DistinctBy(p => p.Reference))
            Add(
                RunBookAct.Type, $"reference|{place.Reference}", "",
                $"put it into {place.Reference}, which {string.Join(" and ", places.Where(p => p.Reference == place.Reference).Select(p => p.Words))} refer{(places.Count(p => p.Reference == place.Reference) == 1 ? "s" : "")} to",
                place.Breaks);
        foreach (var place in places.Where(p => p.BreaksAtOnce && p.Kind != PasswordPlaceKind.OwnSecret && p.Reference is null))
            Add(RunBookAct.Type, place.Id, place.Host, $"type it as {place.Words}", place.Breaks);
        foreach (var place in places.Where(p => !p.BreaksAtOnce && p.Reference is null && !machine.Contains(p)))
        {
            var restart = place.Kind == PasswordPlaceKind.Service ? $", and restart {place.Setting}"
                : place.Kind == PasswordPlaceKind.Pool ? ", and recycle it"
                : "";
            Add(RunBookAct.Type, place.Id, place.Host, $"type it as {place.Words}{restart}", place.Breaks);
            if (place.Kind == PasswordPlaceKind.Service)
                remarks.Add($"{place.Words} cannot be changed from here ({place.NotSeen ?? (hostOf(place.Host).Host?.Unread ?? "no connector changes things there")}): a person sets it.");
        }

        foreach (var host in places.Where(p => p.Host.Length > 0).Select(p => p.Host).Distinct(StringComparer.OrdinalIgnoreCase)
            .Select(h => (
            Name: h,
            Known: hostOf(h))).Where(h => h.Known is { Reached: true, Host.Unread: null }).OrderBy(h => h.Known.HasWindow).ThenBy(
            h => h.Name, StringComparer.OrdinalIgnoreCase))
            Restarts(host.Name, host.Known.Host!);
        Add(
            RunBookAct.Check, "", "", $"sign in as {domain}\\{account} with it, and check that every service runs with it",
            "a forgotten place shows as failed sign-ins");
        remarks.AddRange(places.Where(p =>
            p.Kind is PasswordPlaceKind.Service or PasswordPlaceKind.Task or PasswordPlaceKind.Pool && p.Install.Length == 0)
                .Select(p =>
            $"{p.Words} runs as {account}, and is in no sheet."));
        remarks.AddRange(places.Select(p => p.Note).OfType<string>());
        return new RunBook(account, steps, remarks);

        void Add(RunBookAct act, string place, string host, string words, string why, Change? change = null) =>
            steps.Add(new RunBookStep(
                new RunStep(steps.Count + 1, RunStepState.Waiting, HangsOn(change as RestartService))
                {
                    ByPerson = act == RunBookAct.Type,
                    Window = act == RunBookAct.Restart ? host : "",
                },
                act, WhichPassword.New, place, host, words, why)
            { Change = change });

        // everything needs the directory's; a service that reads it at its start needs it in its places as well
        IReadOnlyList<int> HangsOn(RestartService? restart)
        {
            if (steps.Count == 0) return [];
            if (restart is null) return [1];
            var read = places.Where(p =>
                string.Equals(p.Host, restart.Host, StringComparison.OrdinalIgnoreCase)
                && restart.Dependents.Prepend(restart.Service).Contains(ServiceOf(p), StringComparer.OrdinalIgnoreCase))
                .Select(p => p.Reference is { } reference ? $"reference|{reference}" : p.Id).ToHashSet();
            return [1, .. steps.Where(s => s.Puts && read.Contains(s.Place)).Select(s => s.Number)];
        }

        void Restarts(string name, HostSnapshot host)
        {
            var order = new ServiceOrder(host.Services);
            var asked = places.Where(p => string.Equals(p.Host, name, StringComparison.OrdinalIgnoreCase))
                .Select(ServiceOf).OfType<string>()
                .Distinct(StringComparer.OrdinalIgnoreCase).Select(order.Find).OfType<HostService>().Where(s => s.Running)
                .ToList();
            var covered = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
            foreach (var service in asked.OrderBy(s => asked.Count(o => Waits(s, o))).ThenBy(
                s => s.Name, StringComparer.OrdinalIgnoreCase))
            {
                if (order.RingOf(service.Name) is { } ring)
                    remarks.Add($"On {name} {string.Join(" waits for ", ring)}: a circular dependency. Fix it before the restart.");
                if (!covered.Add(service.Name)) continue;
                var dependents = host.Services.Where(s => s.Running && s != service && Waits(s, service)).Select(s => s.Name)
                    .ToList();
                covered.UnionWith(dependents);
                Add(RunBookAct.Restart, "", name,
                    $"restart {service.Name} on {name}{(dependents.Count > 0 ? $", and with it {string.Join(" and ", dependents)}" : "")}", dependents.Count > 0 ? "other services depend on it: they stop and start with it" : "it runs with the old password until then",
                    new RestartService(name, service.Name, service.Account)
                    {
                        Anew = true,
                        RanSince = service.RunsSince,
                        Dependents = dependents,
                    });
            }

            bool Waits(HostService one, HostService other) =>
                order.WaitsForAll(one.Name).Contains(other.Name, StringComparer.OrdinalIgnoreCase);
        }
    }

    /// <summary>The service that reads a place when it starts; null for none.</summary>
    private static string? ServiceOf(PasswordPlace place) =>
        place.Kind == PasswordPlaceKind.Service ? place.Setting : place.ReadByService;

    private static string AccountOf(PasswordPlace place, HostSnapshot host) =>
        host.Services.FirstOrDefault(s => string.Equals(s.Name, place.Setting, StringComparison.OrdinalIgnoreCase))?.Account
            ?? place.Account;
}
