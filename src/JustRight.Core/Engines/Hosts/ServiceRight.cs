using JustRight.Core.Changes;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Estates;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Sheets;
using JustRight.Core.Surveys;

namespace JustRight.Core.Engines.Hosts;

/// <summary>Something that a service of a host must be, judged like a right of the account it runs as.</summary>
/// <param name="wanted">What is wanted, in words.</param>
public sealed class ServiceRight(ServiceAsked asked, string wanted)
    : HostRight(NeedKind.Service, asked.Host, wanted, $"service:{asked.Service}/{asked.Aspect}@{asked.Host}")
{
    /// <summary>What is asked.</summary>
    public override ServiceAsked OfService { get; } = asked;

    /// <inheritdoc/>
    public override JudgedBy JudgedBy => JudgedBy.Service;

    /// <inheritdoc/>
    public override RightReach Reach => new(5, $"{OfService.Service} is a service of its host");

    /// <inheritdoc/>
    public override string? WhyUnread(SurveyView view) => OfService.Aspect switch
    {
        ServiceAspect.Order => view.WhyHostUnread(Host, HostSnapshot.ServicesPart, HostSnapshot.ServiceOrderPart),
        ServiceAspect.Identity or ServiceAspect.Restarted or ServiceAspect.Start =>
            view.WhyHostUnread(Host, HostSnapshot.ServicesPart),
    };

    /// <summary>A service gets its account after all rights are given, then is restarted.</summary>
    public override void Give(Giving giving)
    {
        if (giving.View.Host(Host) is not { } host) return;
        if (host.Services.FirstOrDefault(s => Same(s.Name, OfService.Service)) is not { } service) return; // setup makes it
        var account = $"{giving.Domain}\\{giving.Account.Name}";
        switch (OfService.Aspect)
        {
            case ServiceAspect.Identity:
                giving.Add(
                    StepOrder.ServiceAccounts, new SetServiceAccount(Host, service.Name, account, service.Account),
                    giving.Account.Purpose);
                break;
            case ServiceAspect.Restarted:
                var restart = new RestartService(Host, service.Name, account) { Dependents = Dependents(host, service.Name) };
                giving.Add(StepOrder.Restarts, restart, "a new account applies from the next start");
                break;
            case ServiceAspect.Start:
                if (OfService.Start is not { } start) break;
                giving.Add(
                    StepOrder.ServiceSettings, new SetServiceStart(Host, service.Name, start, service.Start),
                    "the sheet sets its start type");
                break;
            case ServiceAspect.Order:
                var before = new ServiceOrder(host.Services).WaitsForAll(service.Name);
                var missing = (OfService.After ?? []).Where(a => !before.Contains(a, StringComparer.OrdinalIgnoreCase)).ToList();
                if (missing.Count == 0) break;
                giving.Add(
                    StepOrder.ServiceSettings,
                    new SetServiceOrder(Host, service.Name, [.. service.WaitsFor, .. missing], service.WaitsFor),
                    "the sheet sets its dependencies");
                break;
        }
    }

    /// <inheritdoc/>
    public override Taken Take(Taking taking) => Taken.NoStep;

    /// <inheritdoc/>
    public override Drafted Draft(Estate estate, DirectorySchema? schema) => Drafted.NoWords;

    /// <summary>The running services that wait for a service, in the order in which they may start again.</summary>
    private static IReadOnlyList<string> Dependents(HostSnapshot host, string service)
    {
        var order = new ServiceOrder(host.Services);
        return
        [
            .. host.Services
                .Where(s => s.Running && order.WaitsForAll(s.Name).Contains(service, StringComparer.OrdinalIgnoreCase))
                .OrderBy(s => order.WaitsForAll(s.Name).Count).ThenBy(s => s.Name, StringComparer.OrdinalIgnoreCase)
                .Select(s => s.Name),
        ];
    }
}
