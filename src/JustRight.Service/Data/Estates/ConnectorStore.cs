using JustRight.Connectors;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Files;
using JustRight.Connectors.Directories.Ldap;
using JustRight.Connectors.Outbound;
using JustRight.Connectors.People;
using JustRight.Connectors.PostgreSql;
using JustRight.Connectors.SqlServer;
using JustRight.Connectors.Ssh;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.SecretUses;
using JustRight.Service.Data.Secrets;
using JustRight.Service.Data.Surveys;
using JustRight.Simulation;
using JustRight.Simulation.People;

namespace JustRight.Service.Data.Estates;

/// <summary>
/// Opens the connectors an estate asks for: the simulation, or a real directory; hosts and database instances each its own way.
/// </summary>
internal sealed class ConnectorStore(
    SimulationStore simulations, SecretGate gate, OutboundRules outbound, DirectoryFiles files, HostFactsStore facts,
    SurveyStore surveys, TimeProvider time)
{
    private readonly DirectorySchemas _schemas = new();

    /// <summary>The connectors of an estate; throws <see cref="ConnectorException"/> when they cannot even be tried.</summary>
    public Task<EstateConnectors> OpenAsync(Estate estate, CancellationToken cancel) => OpenAsync(estate, gate, cancel);

    /// <summary>The same for a renewal that is under way: with what was allowed when it began.</summary>
    /// <param name="begunWith">As <see cref="SecretGate.Key"/> names them.</param>
    public Task<EstateConnectors> OpenAsync(Estate estate, IReadOnlyCollection<string> begunWith, CancellationToken cancel) =>
        OpenAsync(estate, gate.Also(begunWith), cancel);

    private async Task<EstateConnectors> OpenAsync(Estate estate, ISecretSource secrets, CancellationToken cancel)
    {
        switch (estate.Directory.Reach)
        {
            case Reach.Simulation:
                var simulation = simulations.Open(estate);
                return new EstateConnectors(
                    new SimulationDirectory(simulation, time), await HostsAsync(estate, simulation, secrets, cancel),
                    await InstancesAsync(estate, simulation, secrets, cancel));
            case Reach.Ldaps:
                return new EstateConnectors(
                    new LdapDirectory(await ControllersAsync(estate, secrets, cancel), _schemas, time),
                    await HostsAsync(estate, null, secrets, cancel), await InstancesAsync(estate, null, secrets, cancel));
            case Reach.File:
                var (file, readAt) = await files.OpenAsync(estate, cancel);
                return new EstateConnectors(
                    new FileDirectory(file, estate.Domain, _schemas, readAt), await HostsAsync(estate, null, secrets, cancel),
                    await InstancesAsync(estate, null, secrets, cancel));
            default:
                throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(estate.Domain.DnsName));
        }
    }

    /// <summary>A directory of people, as products meet it.</summary>
    public IPeopleDirectory OpenPeople(Estate estate, PeopleDirectory directory) => directory.Reach switch
    {
        Reach.Simulation =>
            new SimulationPeopleDirectory(simulations.Open(estate), directory, estate.Domain, time),
        Reach.Ldaps => OverLdap(directory),
        _ => throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(directory.Key)),
    };

    /// <summary>A directory of people over LDAP, where the service may connect to it.</summary>
    public IPeopleDirectory OverLdap(PeopleDirectory directory) =>
        new OutboundPeopleDirectory(new LdapPeopleDirectory(directory), directory.Host, directory.Offers, outbound);

    /// <summary>A session to read the people of a directory with, as the account that the estate names for it.</summary>
    public Task<IPeopleSession> OpenPeopleForSurveyAsync(Estate estate, PeopleDirectory directory, CancellationToken cancel) =>
        OpenPeople(estate, directory) is SimulationPeopleDirectory simulation
            ? Task.FromResult<IPeopleSession>(simulation.OpenAll())
            : BindToPeopleAsync(estate.Name, directory, cancel);

    /// <summary>Binds to a directory of people over LDAP with the account and the secret that are named beside it.</summary>
    /// <param name="estate">The estate that names it; empty for the service's own settings.</param>
    public async Task<IPeopleSession> BindToPeopleAsync(string estate, PeopleDirectory directory, CancellationToken cancel)
    {
        if (directory.SignInAs is not { } account)
            throw new ConnectorException(
                ConnectorFailure.SignIn, $"no bind account is named for {directory.Key}: sign-in-as and secret.");
        var people = OverLdap(directory);
        var security = EstateSecretUses.BestOf(directory);
        var authorities = security == WireSecurity.Plain
            ? EstateSecretUses.NothingProves
            : TrustAnchors.OfFolder(directory.CaFolder);
        var password = await gate.GetAsync(
            directory.Secret!, EstateSecretUses.OfPeople(estate, directory, security, authorities), cancel);
        var look = await people.LookAsync(security, cancel);
        if (look.WhyNotTrusted(directory.PlainTextBecause) is { } trouble)
            throw new ConnectorException(ConnectorFailure.NotTrusted, $"{directory.Host}: {trouble.Words}.");

        return await people.BindAsync(security, account, password, cancel);
    }

    /// <summary>Each host the way the estate says.</summary>
    private async Task<HostRouter> HostsAsync(
        Estate estate, SimulationFile? simulation, ISecretSource secrets, CancellationToken cancel)
    {
        var ways = new Dictionary<Reach, IHostConnector>
        {
            [Reach.Ssh] = new SshHosts(estate, secrets, await SidsAsync(estate, cancel), time),
            [Reach.HandedOver] = new HandedOverHosts(facts, estate.Name),
        };
        if (simulation is not null) ways[Reach.Simulation] = new SimulationHosts(simulation, time);
        return new HostRouter(estate, ways);
    }

    /// <summary>Each database instance the way the estate says.</summary>
    private async Task<InstanceRouter> InstancesAsync(
        Estate estate, SimulationFile? simulation, ISecretSource secrets, CancellationToken cancel)
    {
        var sidOf = await SidsAsync(estate, cancel);
        return new InstanceRouter(estate, simulation is null ? null : new SimulationInstances(simulation, time), new Dictionary<string, IInstanceConnector>
        {
            ["sqlserver"] = new SqlServerInstances(estate, secrets, sidOf, time),
            ["postgresql"] = new PostgreSqlInstances(estate, secrets, time),
        });
    }

    /// <summary>The SID of a principal, as far as the latest survey knows it.</summary>
    private async Task<Func<string, Sid?>> SidsAsync(Estate estate, CancellationToken cancel)
    {
        var graph = (await surveys.LatestAsync(estate.Name, cancel))?.Graph;
        return principal => graph?.IndexOf(LogonName.WithoutDomain(principal)) is >= 0 and var node ? graph.SidOf(node) : null;
    }

    /// <summary>The controllers of an estate. One for which the secret is not allowed is named and never connected to.</summary>
    private static async Task<LdapTarget> ControllersAsync(Estate estate, ISecretSource secrets, CancellationToken cancel)
    {
        var reach = estate.Directory;
        var authorities = TrustAnchors.OfFolder(reach.CaFolder);
        var targets = new List<LdapTarget>();
        foreach (var place in EstateSecretUses.ControllersOf(reach))
        {
            var colon = place.LastIndexOf(':');
            var target = new LdapTarget(
                estate.Domain, place[..colon], int.Parse(place[(colon + 1)..], System.Globalization.CultureInfo.InvariantCulture),
                reach.CaFolder!, reach.SignInAs!, new NewPassword(""));
            try
            {
                var use = EstateSecretUses.OfController(estate, place, authorities);
                targets.Add(target with { Password = await secrets.GetAsync(reach.Secret!, use, cancel) });
            }
            catch (ConnectorException e) when (targets.Count > 0 && e.Failure == ConnectorFailure.Withheld)
            {
                targets.Add(target with { Refusal = e.Message });
            }
        }

        return targets[0] with { Others = targets[1..] };
    }
}
