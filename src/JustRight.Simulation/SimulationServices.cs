using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Hosts;
using JustRight.Core.Rights;
using JustRight.Core.Surveys;

namespace JustRight.Simulation;

/// <summary>A service of a simulated host.</summary>
public sealed class SimulationService
{
    /// <summary>Short name.</summary>
    public required string Name { get; set; }

    /// <summary>Title.</summary>
    public string Title { get; set; } = "";

    /// <summary>What it runs as from its next start.</summary>
    public string Account { get; set; } = "LocalSystem";

    /// <summary>Proof of the password that was given with the account; null for the one that the account came with.</summary>
    public string? PasswordProof { get; set; }

    /// <summary>When it starts, in the word of sheets.</summary>
    public string Start { get; set; } = "automatic";

    /// <summary>What must run before it.</summary>
    public List<string> WaitsFor { get; set; } = [];

    /// <summary>What it runs as now, or null when it does not run.</summary>
    public string? RunsNowAs { get; set; }

    /// <summary>Since when.</summary>
    public DateTimeOffset? RunsSince { get; set; }
}

/// <summary>The simulated services. A service starts only when its account may log on as a service and everything it waits for can start, as a real one.</summary>
internal static class SimulationServices
{
    /// <summary>The services as a survey holds them.</summary>
    public static IReadOnlyList<HostService> Read(SimulationState state, SimulationHost host) =>
    [
        .. host.Services.Select(s => new HostService(
            s.Name, s.Account, ServiceWords.StartOf(s.Start) ?? throw new InvalidDataException($"'{s.Start}' is no start type."),
            s.RunsNowAs is not null, s.WaitsFor)
        {
            Title = s.Title,
            RunsNowAs = s.RunsNowAs,
            RunsNowAsSid = s.RunsNowAs is { } now
                && ServiceIdentity.Parse(now, host.Name) is { IsOfDomain: true, Name: var name } && state.Find(name) is not null
                ? state.SidOf(name)
                : default,
            RunsSince = s.RunsSince,
        }),
    ];

    /// <summary>Whether a change of a service is true already.</summary>
    public static Observation Observe(SimulationHost host, ServiceChange change)
    {
        if (host.Services.Find(s => Same(s.Name, change.Service)) is not { } service)
            return new Observation(ObservedState.Impossible, $"there is no service {change.Service} on {host.Name}");
        return change switch
        {
            SetServiceAccount c => Is(Same(service.Account, c.Account), $"{service.Name} is set to run as {service.Account}"),
            SetServiceStart c => Is(service.Start == ServiceWords.Of(c.Start), $"{service.Name} starts {service.Start}"),
            SetServiceOrder c =>
                Is(
                    service.WaitsFor.SequenceEqual(c.WaitsFor, StringComparer.OrdinalIgnoreCase),
                    $"{service.Name} waits for {(service.WaitsFor.Count == 0 ? "nothing" : string.Join(", ", service.WaitsFor))}"),
            GiveServicePassword c =>
                Same(service.Account, c.Account)
                    ? Is(false, $"{service.Name} is set to run as {service.Account}; its password cannot be read back")
                    : new Observation(
                        ObservedState.Impossible, $"{service.Name} is set to run as {service.Account}, not as {c.Account}"),
            RestartService { Anew: true } c =>
                Is(
                    Same(service.RunsNowAs ?? "", c.Account) && service.RunsSince != c.RanSince,
                    service.RunsNowAs is null
                        ? $"{service.Name} does not run"
                        : $"{service.Name} runs as {service.RunsNowAs} since {service.RunsSince:u}"),
            RestartService c =>
                Is(
                    Same(service.RunsNowAs ?? "", c.Account),
                    service.RunsNowAs is null ? $"{service.Name} does not run" : $"{service.Name} runs as {service.RunsNowAs}"),
            _ => throw new InvalidOperationException($"Unknown change {change.GetType().Name}."),
        };

        static Observation Is(bool done, string seen) => new(done ? ObservedState.Done : ObservedState.NotDone, seen);
    }

    /// <summary>Makes a change of a service.</summary>
    /// <param name="view">What can be read of the simulation now: who may log on.</param>
    public static void Make(
        SimulationState state, SimulationHost host, ServiceChange change, NewPassword? password, SurveyView view,
        DateTimeOffset now)
    {
        var service = host.Services.Find(s => Same(s.Name, change.Service))
            ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no service {change.Service} on {host.Name}.");
        switch (change)
        {
            case SetServiceAccount c:
                var identity = ServiceIdentity.Parse(c.Account, host.Name);
                if (identity.IsOfDomain && state.Find(identity.Name) is null)
                    throw new ConnectorException(ConnectorFailure.NotFound, $"there is no account {c.Account}.");
                if (c.NeedsPassword && password is null)
                    throw new ConnectorException(
                        ConnectorFailure.SignIn, $"the password of {c.Account} is needed to set {c.Service}.");
                service.Account = c.Account;
                service.PasswordProof = password is null ? null : SimulationPasswords.ProofOf(identity.Name, password);
                break;
            case GiveServicePassword c:
                if (!Same(service.Account, c.Account))
                    throw new ConnectorException(
                        ConnectorFailure.Conflict, $"{c.Service} is set to run as {service.Account}, not as {c.Account}.");
                service.PasswordProof = SimulationPasswords.ProofOf(
                    ServiceIdentity.Parse(c.Account, host.Name).Name,
                    password ?? throw new ConnectorException(ConnectorFailure.SignIn, $"the password of {c.Account} is needed."));
                break;
            case SetServiceStart c:
                service.Start = ServiceWords.Of(c.Start);
                break;
            case SetServiceOrder c:
                service.WaitsFor = [.. c.WaitsFor];
                break;
            case RestartService c:
                foreach (var name in new[] { c.Service }.Concat(c.Dependents))
                {
                    var one = host.Services.Find(s => Same(s.Name, name))
                        ?? throw new ConnectorException(ConnectorFailure.NotFound, $"there is no service {name} on {host.Name}.");
                    CheckStart(state, host, one, view);
                    (one.RunsNowAs, one.RunsSince) = (one.Account, now);
                    if (ServiceIdentity.Parse(one.Account, host.Name).IsOfDomain && state.Find(one.Account) is { } account)
                        account.LastLogon = now;
                }

                break;
        }
    }

    /// <summary>What a real host refuses: a start that nothing can come before, and a log-on that no list allows.</summary>
    private static void CheckStart(SimulationState state, SimulationHost host, SimulationService service, SurveyView view)
    {
        if (new ServiceOrder(view.Host(host.Name)!.Services).ObstaclesOf(service.Name) is [var first, ..])
            throw new ConnectorException(ConnectorFailure.Conflict, $"{service.Name} cannot start: {first.Words}.");
        var identity = ServiceIdentity.Parse(service.Account, host.Name);
        if (!identity.IsOfDomain) return;
        if (identity.Kind == IdentityKind.DomainUser && state.Find(identity.Name) is { } account && service.PasswordProof is var given && (given is not null
            || account.PasswordProof is not null)
            && (given ?? SimulationPasswords.ProofOf(account.Name, SimulationPasswords.FirstOf(state, account.Name)))
                != SimulationPasswords.ProofOf(state, account))
            throw new ConnectorException(
                ConnectorFailure.SignIn,
                $"{service.Name} did not start: the password that was given with {service.Account} is wrong.");
        var node = view.Graph.IndexOf(identity.Name);
        var right = AllEngines.OnList(LogonRights.Constant("service"), host.Name)!.Value.Right;
        var holdings = node < 0 ? null : view.HoldingsOf(node);
        var denied = holdings is not null
            && view.Index.DeniedFor(right).Select(t => view.Graph.IndexOf(t.Holder))
                .Any(n => n == node || holdings.Groups.Contains(n));
        if (holdings?.Of(right) is null || denied)
            throw new ConnectorException(
                ConnectorFailure.NotAllowed,
                $"{service.Name} did not start: {service.Account} may not log on as a service on {host.Name}.");
    }

    private static bool Same(string a, string b) => string.Equals(a, b, StringComparison.OrdinalIgnoreCase);
}
