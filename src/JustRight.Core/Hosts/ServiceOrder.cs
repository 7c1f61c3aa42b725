using JustRight.Core.Surveys;

namespace JustRight.Core.Hosts;

/// <summary>Something that keeps a service from starting.</summary>
/// <param name="Service">The service that stands in the way.</param>
/// <param name="Words">One sentence.</param>
public sealed record StartObstacle(string Service, string Words);

/// <summary>
/// What starts before what on one host [MS-SCMR 3.1.4.11, dependencies]. A service that others wait for starts no later than
/// they do, whatever its own start type; groups of services (<c>+name</c>) are noted and not followed.
/// </summary>
public sealed class ServiceOrder
{
    private readonly Dictionary<string, HostService> _services;
    private readonly Lazy<IReadOnlyDictionary<string, StartOrder>> _orders;

    /// <summary>Reads the services of a host.</summary>
    public ServiceOrder(IReadOnlyList<HostService> services)
    {
        _services = new Dictionary<string, HostService>(StringComparer.OrdinalIgnoreCase);
        foreach (var service in services) _services.TryAdd(service.Name, service);
        _orders = new Lazy<IReadOnlyDictionary<string, StartOrder>>(StartOrders);
    }

    /// <summary>A service by name, without regard to case, or null.</summary>
    public HostService? Find(string name) => _services.GetValueOrDefault(name);

    /// <summary>Everything a service waits for, nearest first, itself not included unless it is in a ring.</summary>
    public IReadOnlyList<string> WaitsForAll(string name)
    {
        var seen = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        var found = new List<string>();
        var queue = new Queue<string>([name]);
        while (queue.TryDequeue(out var at))
            foreach (var next in (Find(at)?.WaitsFor ?? []).Where(w => !w.StartsWith('+') && seen.Add(w)))
            {
                found.Add(next);
                queue.Enqueue(next);
            }

        return found;
    }

    /// <summary>A way from a service back to itself, or null.</summary>
    public IReadOnlyList<string>? RingOf(string name)
    {
        var path = new List<string> { name };
        return Walk(name, new HashSet<string>(StringComparer.OrdinalIgnoreCase)) ? path : null;

        bool Walk(string at, HashSet<string> seen)
        {
            foreach (var next in (Find(at)?.WaitsFor ?? []).Where(w => !w.StartsWith('+')))
            {
                path.Add(next);
                if (string.Equals(next, name, StringComparison.OrdinalIgnoreCase)) return true;
                if (seen.Add(next) && Walk(next, seen)) return true;
                path.RemoveAt(path.Count - 1);
            }

            return false;
        }
    }

    /// <summary>What keeps a service from starting: a ring, something disabled, something that is not there.</summary>
    public IReadOnlyList<StartObstacle> ObstaclesOf(string name)
    {
        var found = new List<StartObstacle>();
        foreach (var at in WaitsForAll(name).Append(name))
            if (RingOf(at) is { } ring)
            {
                found.Add(new StartObstacle(at, $"{string.Join(" waits for ", ring)}: a circular dependency"));
                break;
            }

        foreach (var wanted in WaitsForAll(name))
        {
            if (Find(wanted) is not { } service)
                found.Add(new StartObstacle(wanted, $"it waits for {wanted}, which is not on this host"));
            else if (service.Start == ServiceStart.Disabled)
                found.Add(new StartObstacle(wanted, $"it waits for {wanted}, which is disabled"));
        }

        return found;
    }

    /// <summary>
    /// When a service starts; null for one that is disabled or not there. What others wait for starts no later than they do.
    /// </summary>
    public StartOrder? OrderOf(string name) => _orders.Value.TryGetValue(name, out var order) ? order : null;

    private Dictionary<string, StartOrder> StartOrders()
    {
        var orders = new Dictionary<string, StartOrder>(StringComparer.OrdinalIgnoreCase);
        foreach (var service in _services.Values)
            if (OwnOrder(service.Start) is { } order)
                orders[service.Name] = order;
        foreach (var service in _services.Values.Where(s => orders.ContainsKey(s.Name)).OrderBy(s => orders[s.Name]).ToList())
            foreach (var wanted in WaitsForAll(service.Name).Where(orders.ContainsKey))
                if (orders[service.Name] < orders[wanted])
                    orders[wanted] = orders[service.Name];
        return orders;
    }

    private static StartOrder? OwnOrder(ServiceStart start) => start switch
    {
        ServiceStart.Boot or ServiceStart.System => StartOrder.WithTheSystem,
        ServiceStart.Automatic => StartOrder.Automatic,
        ServiceStart.AutomaticDelayed => StartOrder.AutomaticDelayed,
        ServiceStart.Manual => StartOrder.Manual,
        ServiceStart.Disabled => null,
    };
}
