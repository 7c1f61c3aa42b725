using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Fit.Hosts;

/// <summary>
/// What was seen of services and of the lists of rights on the hosts of an install that decides no verdict of a need and will
/// matter.
/// </summary>
internal sealed class ServiceFindings(Plan plan, SurveyView view)
{
    private static readonly Directory.Sid Service = LogonKind.GroupsOf("service")[0];
    private readonly ILookup<string, PlannedService> _asked = plan.Services.ToLookup(
        s => s.Host, StringComparer.OrdinalIgnoreCase);
    private readonly ILookup<string, string> _constants = plan.Grants.Where(g => g.Right.OnList is not null).ToLookup(
        g => g.Right.Place, g => g.Right.OnList!, StringComparer.OrdinalIgnoreCase);

    /// <summary>The findings of one host.</summary>
    public IEnumerable<Finding> Of(HostSnapshot host)
    {
        var order = new ServiceOrder(host.Services);
        foreach (var account in plan.Accounts)
        {
            if (view.Graph.IndexOf(account.Name) is not (>= 0 and var node) || view.Graph.PrincipalOf(node) is not { } found)
                continue;
            foreach (var service in host.Services.Where(s => ServiceJudge.IsAccount(s.Account, host.Name, account.Name, plan)))
            {
                if (ServiceJudge.RunsNowAs(service, host.Name, account.Name, plan, view) && service.RunsSince is { } since
                    && found.PasswordSetAt is { } set && set > since && service.Running)
                    yield return Say($"{service.Name} runs since {Time(since)} and the password of {account.Name} was renewed after that, at {Time(set)}: its next start fails unless the new password was set there too.");
                if (account.WorksAs == WorksAs.Person) yield return Say(RunsAsPerson(service, account));
                else if (_asked[host.Name].All(s => !Same(s.Name, service.Name)))
                    yield return Say($"{service.Name} runs as {account.Name} too, and is not in the sheet.");
            }

            foreach (var runner in host.Runners.Where(r => ServiceJudge.IsAccount(r, host.Name, account.Name, plan, view)))
                yield return Say(RunsAs(runner, account));
        }

        foreach (var asked in _asked[host.Name])
        {
            if (order.Find(asked.Name) is not { } service) continue;
            if (service is { Running: false, Start: ServiceStart.Automatic or ServiceStart.AutomaticDelayed })
                yield return Say($"{service.Name} starts {ServiceWords.Of(service.Start)} and does not run.");
            if (asked.After.Count == 0 && order.ObstaclesOf(service.Name) is [var first, ..])
                yield return Say($"{service.Name} cannot start: {first.Words}.");
            foreach (var text in Swap(asked, service, host).Concat(NotApart(asked, service, host))) yield return Say(text);
        }

        foreach (var text in LeftOut(host)) yield return Say(text);

        Finding Say(string text) => new(host.Name, text, false);
    }

    /// <summary>The services of a host that run as a person: they stop when the person changes the password, or leaves.</summary>
    public IEnumerable<Finding> RunningAsPersons(HostSnapshot host) =>
        from account in plan.Accounts
        where account.WorksAs == WorksAs.Person
        from service in host.Services
        where ServiceJudge.IsAccount(service.Account, host.Name, account.Name, plan)
        select new Finding(host.Name, RunsAsPerson(service, account), false);

    private static string RunsAs(HostRunner runner, PlannedAccount account) =>
        $"{runner.Head} runs as {account.Name}{(runner.KeepsPassword ? ", and keeps its password" : "")}.";

    private static string RunsAsPerson(HostService service, PlannedAccount account) =>
        $"{service.Name} runs as {account.Name}, who is a person: it stops when they change their password or leave. "
        + "Give it an account of its own.";

    /// <summary>
    /// A service that was never given an account of its own and runs as one that the sheet keeps apart from it.
    /// </summary>
    private IEnumerable<string> NotApart(PlannedService asked, HostService service, HostSnapshot host)
    {
        foreach (var other in plan.Accounts.Where(a =>
            a.Key != asked.Account && ServiceJudge.IsAccount(service.Account, host.Name, a.Name, plan)))
            if (plan.Separate.FirstOrDefault(s =>
                s.Accounts.Contains(other.Key) && s.Accounts.Contains(asked.Account)) is { } apart)
                yield return $"{service.Name} runs as {other.Name}, the account of {other.Key}, and the sheet keeps {asked.Account} apart from it ({apart.At}): {apart.Why}.";
    }

    /// <summary>What a service that runs as a built-in identity loses and gains when it runs as the planned account.</summary>
    private IEnumerable<string> Swap(PlannedService asked, HostService service, HostSnapshot host)
    {
        var now = ServiceIdentity.Parse(service.Account, host.Name);
        if (now.IsOfDomain
            || AllEngines.OfService(new ServiceAsked(host.Name, service.Name, ServiceAspect.Identity))
                .WhyUnread(view) is not null)
            yield break;
        var account = plan.Accounts.First(a => a.Key == asked.Account);
        var node = view.Graph.IndexOf(account.Name);
        var then = node < 0 ? null : view.HoldingsOf(node);
        var loses = now.Kind == IdentityKind.LocalSystem
            ? "it may do anything on this host now, and then only what the account holds here"
            : Lost(host, now, then) is { Count: > 0 } lost ? $"on this host it loses: {string.Join(", ", lost)}" : "on this host it loses no right";
        var network = now.OnNetwork(host.Name) is { } computer
            ? $"other hosts see it as {plan.Domain}\\{computer} now, and as {plan.Domain}\\{account.Name} then"
            : $"other hosts see it as anonymous now, and as {plan.Domain}\\{account.Name} then";
        yield return $"{service.Name} runs as {now} and should run as {account.Name}: {loses}; {network}.";
    }

    private List<string> Lost(HostSnapshot host, ServiceIdentity now, Holdings? then)
    {
        var lost = new List<string>();
        foreach (var list in host.LogonLists.Where(l => Privileges.Find(l.Constant) is not null))
        {
            var right = AllEngines.OnList(list.Constant, host.Name)!.Value.Right;
            if (list.Holders.Any(now.LocalSids.Contains) && then?.Of(right, ["service"]) is null
                && !view.Index.Gives(Service, right) && view.Baseline.Of(right).Count == 0)
                lost.Add(right.Words);
        }

        return lost;
    }

    /// <summary>A policy's list replaces the host's whole: what a new server gives and the policy leaves out is gone.</summary>
    private IEnumerable<string> LeftOut(HostSnapshot host)
    {
        foreach (var constant in _constants[host.Name].Distinct(StringComparer.Ordinal).Order(StringComparer.Ordinal))
        {
            if (view.Policies.Of(host.Name, constant) is not { Policy: { } policy, List: { } list }
                || DefaultUserRights.Of(constant) is not { } born)
                continue;
            var left = born.Where(s => list.Entries.All(e => PolicyEntries.SidOf(e, view.Graph, host) != s))
                .Select(s => BuiltInGroups.NameOf(s) ?? Directory.WellKnownSids.NameOf(s) ?? s.ToString()).ToList();
            if (left.Count > 0)
                yield return $"Policy {policy.Name} decides who holds {constant} here, and its list lacks {string.Join(", ", left)}, which a new server has on its list.";
        }
    }

    private static string Time(DateTimeOffset time) => $"{time.UtcDateTime:yyyy-MM-dd HH:mm} UTC";

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
