using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Installs;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Hosts;

/// <summary>Judges what is asked of the services of a plan: identity, pending restart, start, order.</summary>
internal sealed class ServiceJudge(SurveyView view, Plan plan)
{
    private readonly Dictionary<string, ServiceOrder> _orders = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, PlannedService> _asked = plan.Services.DistinctBy(KeyOf).ToDictionary(KeyOf);

    /// <summary>
    /// Whether there is something to say: of a service that is not there or was not read, one line says it all.
    /// </summary>
    public bool Says(PlannedGrant grant)
    {
        if (grant.Right.OfService is not { Aspect: not ServiceAspect.Identity } asked) return true;
        var identity = AllEngines.OfService(asked with { Aspect = ServiceAspect.Identity });
        return identity.WhyUnread(view) is null && OrderOf(view.Host(asked.Host)!).Find(asked.Service) is not null;
    }

    /// <summary>The verdict on one thing asked of one service.</summary>
    public Judgement Judge(PlannedAccount account, PlannedGrant grant)
    {
        var right = grant.Right.OfService!;
        var asked = _asked[KeyOf(right.Service, right.Host)];
        if (grant.Right.WhyUnread(view) is { } unread) return Say(Verdict.Unseen, unread);
        var host = view.Host(right.Host)!;
        if (OrderOf(host).Find(right.Service) is not { } service)
            return plan.Stage == Stage.Planned
                ? Say(Verdict.Pending, "setup creates the service")
                : Say(Verdict.Missing, $"there is no service {right.Service} on {host.Name}; setup should have created it");

        var (fits, reason) = right.Aspect switch
        {
            ServiceAspect.Identity => Identity(service, host, account),
            ServiceAspect.Restarted => Restarted(service, host, account),
            ServiceAspect.Start => (service.Start == asked.Start, $"it starts {ServiceWords.Of(service.Start)}"),
            ServiceAspect.Order => Order(service, host, asked),
        };
        return fits switch
        {
            true => Say(Verdict.Met, reason),
            null => Say(Verdict.Unseen, reason),
            _ when asked.GivenBy == GivenBy.Setup && plan.Stage == Stage.Planned =>
                Say(Verdict.Pending, $"setup sets it; now {reason}"),
            _ => Say(Verdict.Missing, reason),
        };

        Judgement Say(Verdict verdict, string text) => new(grant.Id, grant.Account, grant.Right, verdict, text, [])
        {
            Grant = grant,
        };
    }

    /// <summary>The order of a host's services, read once.</summary>
    public ServiceOrder OrderOf(HostSnapshot host) =>
        _orders.TryGetValue(host.Name, out var order) ? order : _orders[host.Name] = new ServiceOrder(host.Services);

    /// <summary>
    /// Whether a name that a host gives an account of a service means an account of the plan: same domain, same logon name.
    /// </summary>
    public static bool IsAccount(string text, string host, string account, Plan plan) =>
        IsAccount(text, host, account, plan.Domain, plan.UpnSuffix);

    /// <summary>Whether a name that a host gives an account of a service means an account of a domain.</summary>
    /// <param name="domain">The domain's short name.</param>
    /// <param name="upnSuffix">What its user principal names end with.</param>
    public static bool IsAccount(string text, string host, string account, string domain, string upnSuffix)
    {
        // most services run as something else, and reading a name takes longer
        if (!text.Contains(account, StringComparison.OrdinalIgnoreCase)) return false;
        var identity = ServiceIdentity.Parse(text, host);
        if (!identity.IsOfDomain || !Same(identity.Name, account)) return false;
        var slash = text.IndexOf('\\', StringComparison.Ordinal);
        var named = slash >= 0 ? text[..slash] : text.Contains('@', StringComparison.Ordinal) ? text.Split('@')[1] : domain;
        return Same(named, domain) || Same(named, upnSuffix);
    }

    /// <summary>Whether a task or pool runs as an account: by SID where the host told it, else by name.</summary>
    public static bool IsAccount(HostRunner runner, string host, string account, Plan plan, SurveyView view) =>
        runner.AccountSid.IsEmpty
            ? IsAccount(runner.Account, host, account, plan)
            : view.Graph.IndexOf(account) is >= 0 and var node && view.Graph.SidOf(node) == runner.AccountSid;

    /// <summary>Whether a service was seen to run as an account now: by SID where the host told it, else by name.</summary>
    public static bool RunsNowAs(HostService service, string host, string account, Plan plan, SurveyView view)
    {
        if (service.RunsNowAsSid.IsEmpty) return service.RunsNowAs is { } text && IsAccount(text, host, account, plan);
        return view.Graph.IndexOf(account) is >= 0 and var node && view.Graph.SidOf(node) == service.RunsNowAsSid;
    }

    private static string KeyOf(PlannedService service) => KeyOf(service.Name, service.Host);

    private static string KeyOf(string service, string host) => $"{service}@{host}".ToUpperInvariant();

    private (bool? Fits, string Reason) Identity(HostService service, HostSnapshot host, PlannedAccount account)
    {
        var isSet = IsAccount(service.Account, host.Name, account.Name, plan);
        if (isSet && IsGone(account)) return (false, $"it is set to run as {service.Account}, which does not exist");
        if (isSet) return (true, $"set to run as {service.Account}");
        var identity = ServiceIdentity.Parse(service.Account, host.Name);
        return (false, $"it is set to run as {identity}{Beyond(identity, host.Name)}");
    }

    /// <summary>A new account counts from the next start only [MS-SCMR 3.1.4.11].</summary>
    private (bool? Fits, string Reason) Restarted(HostService service, HostSnapshot host, PlannedAccount account)
    {
        var since = service.RunsSince is { } time ? $" since {time.UtcDateTime:yyyy-MM-dd HH:mm} UTC" : "";
        if (!service.Running)
        {
            return IsGone(account) ? (false, $"it is not running, and cannot start: {account.Name} does not exist")
                : (true, "it is not running: its next start uses the account it is set to");
        }

        if (service.RunsNowAs is null && service.RunsNowAsSid.IsEmpty)
            return (
                null,
                $"its running account could not be read{(host.UnreadParts.FirstOrDefault(p => p.Part == HostSnapshot.RunningIdentitiesPart) is { } part ? $": {part.Reason}" : "")}");
        if (IsGone(account)) return (false, $"{account.Name} does not exist");
        if (RunsNowAs(service, host.Name, account.Name, plan, view)) return (true, $"it runs as {account.Name}{since}");
        var now = service.RunsNowAs is { } text
            ? ServiceIdentity.Parse(text, host.Name).ToString()
            : service.RunsNowAsSid.ToString();
        return (
            false,
            IsAccount(service.Account, host.Name, account.Name, plan)
                ? $"it still runs as {now}{since}: restart it"
                : $"it runs as {now}{since}");
    }

    private (bool? Fits, string Reason) Order(HostService service, HostSnapshot host, PlannedService asked)
    {
        var order = OrderOf(host);
        var all = order.WaitsForAll(service.Name);
        var missing = asked.After.Where(a => !all.Contains(a, StringComparer.OrdinalIgnoreCase)).ToList();
        if (missing.Count > 0)
            return (
                false,
                $"it does not wait for {string.Join(" and ", missing)}{(service.WaitsFor.Count > 0 ? $", only for {string.Join(", ", service.WaitsFor)}" : "")}");
        return order.ObstaclesOf(service.Name) is [var first, ..]
            ? (false, first.Words)
            : (true, $"it waits for {string.Join(", ", service.WaitsFor)}");
    }

    /// <summary>A service goes on with an account that was deleted until it is to start again.</summary>
    private bool IsGone(PlannedAccount account) =>
        view.Survey.Directory.Unread is null && view.Graph.IndexOf(account.Name) is var node
            && (node < 0 || view.Graph.PrincipalOf(node) is null);

    private string Beyond(ServiceIdentity identity, string host) =>
        identity.IsOfDomain ? ""
            : identity.OnNetwork(host) is { } name ? $", to other hosts {plan.Domain}\\{name}"
            : ", anonymous to other hosts";

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
