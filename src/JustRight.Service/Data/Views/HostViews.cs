using JustRight.Contracts;
using JustRight.Core.Directory;
using JustRight.Core.Engines;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Plans;
using JustRight.Core.Rights;
using JustRight.Core.Rights.Policies;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Storage;
using SurveyView = JustRight.Core.Rights.SurveyView;

namespace JustRight.Service.Data.Views;

/// <summary>Hosts for the wire.</summary>
internal static class HostViews
{
    public static HostView Of(Estate estate, EstateHost known, HostSnapshot host, SurveyView view, IReadOnlyList<Plan> plans)
    {
        var order = new ServiceOrder(host.Services);
        var (policies, unseen) = view.Policies.OrderOf(host.Name);
        return new HostView(
            estate.Name, host.Name, estate.IsSimulated, ReachWords.Of(known.Reach), host.Role.Word(),
            host.System, host.ReadAt, host.ReadBy, host.Unread,
            [.. host.UnreadParts.Select(p => new UnreadPartView(p.Part, p.Reason, host.ReadAt))],
            [.. host.LocalGroups.Select(g =>
                new HostGroupView(g.Name, g.Sid.ToString(), [.. g.Members.Select(m => Holder(m, host, view))]))],
            [.. host.LogonLists.OrderBy(l => l.Constant, StringComparer.OrdinalIgnoreCase).Select(l => Right(l, host, view))],
            [.. host.Services.OrderBy(s => order.OrderOf(s.Name) is null).ThenBy(s => order.OrderOf(s.Name)).ThenBy(
                s => s.Name, StringComparer.OrdinalIgnoreCase).Select(s => Service(s, host, order, plans, view))],
            [.. policies.Select(p =>
                new HostPolicyView(
                    p.Policy, p.Name, p.Container, p.Number, p.IsEnforced,
                    p.Fate.Word(), p.Why))], unseen,
            [.. plans.Where(p => p.Grants.Any(g => Same(g.Right.OnHost, host.Name))).Select(p => p.Install)])
        {
            Runners =
            [
                .. host.Runners.Select(r => new HostRunnerView(
                    r.Kind.Word(), r.Name, r.Account,
                    ServiceIdentity.Parse(r.Account, host.Name).Explained(host.Name, view.Graph.Domain), r.KeepsPassword,
                    r.IsDisabled)),
            ],
        };
    }

    private static HostRightView Right(LogonList list, HostSnapshot host, SurveyView view)
    {
        var right = AllEngines.OnList(list.Constant, host.Name);
        var governance = view.Policies.Of(host.Name, list.Constant);
        var sids = list.Holders.ToList();
        var given = governance.List?.Entries.Select(e => PolicyEntries.SidOf(e, view.Graph, host)).OfType<Sid>().ToHashSet();
        return new HostRightView(
            list.Constant, right?.Right.Words ?? list.Constant, right?.Denies
                ?? list.Constant.StartsWith("SeDeny", StringComparison.OrdinalIgnoreCase),
            [
                .. sids.Select(s => Holder(s, host, view)),
                .. list.Named.Select(n => new HostHolderView(n, "", true, n.EndsWith('$')))],
            governance.Policy?.Name, governance.Unseen, given is null
                ? []
                : [.. sids.Where(s => !given.Contains(s)).Select(s => Holder(s, host, view).Name)]);
    }

    private static HostServiceView Service(
        HostService service, HostSnapshot host, ServiceOrder order, IReadOnlyList<Plan> plans, SurveyView view)
    {
        var identity = ServiceIdentity.Parse(service.Account, host.Name);
        var asked = plans.SelectMany(p => p.Grants.Where(g => AsksFor(g.Right.OfService, service, host)).Select(
            g => new HostServiceAskedView(p.Install, g.Account, p.Accounts.First(a => a.Key == g.Account).Name, g.Id)))
            .FirstOrDefault();
        var pending = service.Running && service.RunsNowAs is { } now
            && !Same(
                ServiceIdentity.Parse(now, host.Name).ToString(), ServiceIdentity.Parse(service.Account, host.Name).ToString());
        return new HostServiceView(
            service.Name, service.Title, service.Account, service.Running, service.RunsNowAs, service.RunsSince, pending,
            ServiceWords.Of(service.Start), ServiceWords.Of(order.OrderOf(service.Name)), service.WaitsFor,
            order.ObstaclesOf(service.Name) is [var first, ..] ? first.Words : null,
            asked is null ? null : $"{asked.Install}: {asked.Account}")
        {
            Asked = asked,
            Identity = identity.Explained(host.Name, view.Graph.Domain),
            IdentityRights = identity.Kind is IdentityKind.LocalService or IdentityKind.NetworkService or IdentityKind.Virtual
                ? [.. host.LogonLists.Where(l => l.Holders.Any(h => identity.LocalSids.Contains(h) || IsEverybody(h)))
                    .Select(l => AllEngines.OnList(l.Constant, host.Name)?.Right.Words ?? l.Constant)
                    .Order(StringComparer.OrdinalIgnoreCase)]
                : [],
        };
    }

    private static bool AsksFor(ServiceAsked? asked, HostService service, HostSnapshot host) =>
        asked is { Aspect: ServiceAspect.Identity } && Same(asked.Host, host.Name) && Same(asked.Service, service.Name);

    private static bool IsEverybody(Sid sid) => sid == Sid.Everyone || sid == Sid.AuthenticatedUsers;

    private static HostHolderView Holder(Sid sid, HostSnapshot host, SurveyView view)
    {
        if (host.LocalGroups.FirstOrDefault(g => g.Sid == sid) is { } local)
            return new HostHolderView(local.Name, sid.ToString(), true, false);
        if ((BuiltInGroups.NameOf(sid) ?? WellKnownSids.NameOf(sid)) is { } name)
            return new HostHolderView(name, sid.ToString(), true, false);
        if (view.Graph.IndexOf(sid) is >= 0 and var node && view.Graph.PrincipalOf(node) is { } principal)
            return new HostHolderView(view.Graph.NameOf(node), sid.ToString(), true, principal.Kind == PrincipalKind.Computer);
        return new HostHolderView(sid.ToString(), sid.ToString(), false, false);
    }

    private static bool Same(string? a, string? b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
