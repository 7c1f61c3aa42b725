using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Faults;
using JustRight.Core.Fit;
using JustRight.Core.Fit.Hosts;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Adds a step to a worklist.</summary>
internal delegate void AddStep(int order, Change change, string @for, string why, string? blocked, Origin at);

/// <summary>
/// The steps for log-on rights, privileges and services. A right that a policy governs goes into the policy, with its whole new
/// list, and counts after a refresh. A service gets its account after all rights are given, then is restarted.
/// </summary>
internal sealed class HostSteps(Plan plan, SurveyView view)
{
    private const int Policies = 4;
    private const int Rights = 4;
    private const int Refreshes = 8;
    private const int Settings = 9;
    private const int Accounts = 10;
    private const int Restarts = 11;

    private readonly Dictionary<(string Policy, string Constant), (GovernedRight Governed, List<(string Principal, Judgement For, string Why)> Added)> _lists = [];
    private readonly SortedDictionary<string, (List<ExpectedHolder> Expect, List<Judgement> For)> _refreshes = new(StringComparer.OrdinalIgnoreCase);

    /// <summary>The steps that give what one judgement lacks.</summary>
    public void Grant(PlannedAccount account, Judgement judgement, string principal, string why, string? blocked, AddStep add)
    {
        if (judgement.Right is ServiceRight service)
        {
            Service(account, service, judgement, blocked, add);
            return;
        }

        if (ComesAlong(judgement) is { } group)
        {
            Along.Add((judgement.Id, group));
            return;
        }

        if (judgement.Governed is not { } governed)
        {
            Change change = judgement.Right is LogonRight logon ? new GrantLogonRight(logon.Host, logon.Type, principal) : new GrantPrivilege(judgement.Right.Place, ((PrivilegeRight)judgement.Right).Constant, principal);
            add(Rights, change, judgement.Id, why, blocked, judgement.Grant!.At);
            return;
        }

        var constant = LogonRights.ConstantOf(judgement.Right)!;
        if (governed.Gives != true)
        {
            var key = (governed.Policy.ToUpperInvariant(), constant);
            if (!_lists.TryGetValue(key, out var list)) _lists[key] = list = (governed, []);
            list.Added.Add((principal, judgement, why));
        }

        if (!_refreshes.TryGetValue(judgement.Right.Place, out var refresh)) _refreshes[judgement.Right.Place] = refresh = ([], []);
        if (!refresh.Expect.Contains(new ExpectedHolder(constant, principal, true))) refresh.Expect.Add(new ExpectedHolder(constant, principal, true));
        refresh.For.Add(judgement);
    }

    /// <summary>What comes with a local group that is given, by the need's id.</summary>
    public List<(string For, LocalGroupRight Group)> Along { get; } = [];

    /// <summary>
    /// The local group of the same host that the account is given and with which a right comes: then it is not given a second
    /// time. Null when there is none.
    /// </summary>
    private LocalGroupRight? ComesAlong(Judgement judgement)
    {
        if (judgement.Verdict != Verdict.Missing || view.Host(judgement.Right.Place) is not { } host) return null;
        var constant = LogonRights.ConstantOf(judgement.Right);
        var holders = judgement.Governed?.Entries?.Select(e => PolicyEntries.SidOf(e, view.Graph)).OfType<Sid>().ToList()
            ?? host.LogonLists.FirstOrDefault(l => string.Equals(l.Constant, constant, StringComparison.OrdinalIgnoreCase))?.Holders ?? [];
        return plan.GrantsOf(judgement.Account).Select(g => g.Right).OfType<LocalGroupRight>()
            .FirstOrDefault(g => Same(g.Host, host.Name) && host.LocalGroups.FirstOrDefault(l => Same(l.Name, g.Group)) is { } group && holders.Contains(group.Sid));
    }

    /// <summary>Adds what many judgements share: one change of each policy's list, one refresh of each host.</summary>
    public void Finish(AddStep add)
    {
        foreach (var ((policy, constant), (governed, added)) in _lists)
        {
            var principals = added.Select(a => a.Principal).Distinct(StringComparer.OrdinalIgnoreCase).ToList();
            var old = governed.Entries ?? [];
            var change = new ChangePolicyList(
                plan.Domain, governed.Policy, governed.Name, constant, [.. old, .. principals.Select(p => PolicyEntries.EntryFor(p, view.Graph))], old,
                string.Join(" and ", principals), view.Policies.HostsOf(policy, constant));
            var blocked = governed.Entries is null ? $"the list of {constant} in policy {governed.Name} could not be read, and a new list would replace it"
                : view.Survey.Simulated ? null : "the owners of the policy change it: its template is on the domain controllers' file share, to which this release does not write";
            foreach (var (_, judgement, why) in added) add(Policies, change, judgement.Id, why, blocked, judgement.Grant!.At);
        }

        foreach (var (host, (expect, @for)) in _refreshes)
            foreach (var judgement in @for)
                add(Refreshes, new RefreshPolicy(host) { Expect = expect }, judgement.Id, "a policy's right applies only after a policy refresh", view.WhyUnread(judgement.Right), judgement.Grant!.At);
    }

    private void Service(PlannedAccount account, ServiceRight right, Judgement judgement, string? blocked, AddStep add)
    {
        if (view.Host(right.Host)?.Services.FirstOrDefault(s => Same(s.Name, right.Service)) is not { } service) return; // setup makes it
        var asked = plan.Services.First(s => s.Name == right.Service && Same(s.Host, right.Host));
        var at = judgement.Grant!.At;
        var name = $"{plan.Domain}\\{account.Name}";
        switch (right.Aspect)
        {
            case ServiceAspect.Identity:
                add(Accounts, new SetServiceAccount(right.Host, service.Name, name, service.Account), judgement.Id, account.Purpose, blocked, at);
                break;
            case ServiceAspect.Restarted:
                add(Restarts, new RestartService(right.Host, service.Name, name) { Dependents = Dependents(right.Host, service.Name) }, judgement.Id, "a new account applies from the next start", blocked, at);
                break;
            case ServiceAspect.Start when asked.Start is { } start:
                add(Settings, new SetServiceStart(right.Host, service.Name, start, service.Start), judgement.Id, "the sheet sets its start type", blocked, at);
                break;
            case ServiceAspect.Order:
                var missing = asked.After.Where(a => !new ServiceOrder(view.Host(right.Host)!.Services).WaitsForAll(service.Name).Contains(a, StringComparer.OrdinalIgnoreCase)).ToList();
                if (missing.Count > 0) add(Settings, new SetServiceOrder(right.Host, service.Name, [.. service.WaitsFor, .. missing], service.WaitsFor), judgement.Id, "the sheet sets its dependencies", blocked, at);
                break;
        }
    }

    /// <summary>The running services that wait for a service, in the order in which they may start again.</summary>
    private IReadOnlyList<string> Dependents(string host, string service)
    {
        var services = view.Host(host)!.Services;
        var order = new ServiceOrder(services);
        return [.. services.Where(s => s.Running && order.WaitsForAll(s.Name).Contains(service, StringComparer.OrdinalIgnoreCase)).OrderBy(s => order.WaitsForAll(s.Name).Count).ThenBy(s => s.Name, StringComparer.OrdinalIgnoreCase).Select(s => s.Name)];
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
