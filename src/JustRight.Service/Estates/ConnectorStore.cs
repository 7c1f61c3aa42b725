using System.Collections.Concurrent;
using JustRight.Connectors;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Files;
using JustRight.Connectors.Ldap;
using JustRight.Connectors.People;
using JustRight.Connectors.PostgreSql;
using JustRight.Connectors.SqlServer;
using JustRight.Connectors.Ssh;
using JustRight.Core.Estates;
using JustRight.Core.Rights.Directory;
using JustRight.Service.Fits;
using JustRight.Service.Hosting;
using JustRight.Service.Secrets;
using JustRight.Simulation;
using JustRight.Simulation.People;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Estates;

/// <summary>Opens the connectors an estate asks for: the simulation, or a real directory; hosts and database instances each its own way.</summary>
internal sealed class ConnectorStore(IOptions<ServiceSettings> settings, SecretStore secrets, DirectoryFiles files, HostFactsStore facts, SurveyStore surveys, TimeProvider time)
{
    private readonly DirectorySchemas _schemas = new();
    private readonly ConcurrentDictionary<string, SimulationFile> _simulations = new(StringComparer.Ordinal);

    /// <summary>The connectors of an estate; throws <see cref="ConnectorException"/> when they cannot even be tried.</summary>
    public async Task<EstateConnectors> OpenAsync(Estate estate, CancellationToken cancel)
    {
        switch (estate.Directory.Reach)
        {
            case Reach.Simulation:
                var simulation = _simulations.GetOrAdd(estate.Name, OpenSimulation);
                return new EstateConnectors(new SimulationDirectory(simulation, time), await HostsAsync(estate, simulation, cancel), await InstancesAsync(estate, simulation, cancel));
            case Reach.Ldaps:
                var reach = estate.Directory;
                var password = await secrets.GetAsync(reach.Secret!, cancel)
                    ?? throw new ConnectorException(ConnectorFailure.SignIn, $"there is no secret '{reach.Secret}', which {reach.At} names: set it with justright secret set {reach.Secret}.");
                var first = new LdapTarget(estate.Domain, reach.Controller!, reach.Port, reach.CaFolder!, reach.SignInAs!, password);
                return new EstateConnectors(new LdapDirectory(first with { Others = [.. reach.MoreControllers.Select(c => At(first, c))] }, _schemas, time), await HostsAsync(estate, null, cancel), await InstancesAsync(estate, null, cancel));
            case Reach.File:
                var (file, readAt) = await files.OpenAsync(estate, cancel);
                return new EstateConnectors(new FileDirectory(file, estate.Domain, _schemas, readAt), await HostsAsync(estate, null, cancel), await InstancesAsync(estate, null, cancel));
            default:
                throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(estate.Domain.DnsName));
        }
    }

    /// <summary>A directory of people, as products meet it.</summary>
    public IPeopleDirectory OpenPeople(Estate estate, PeopleDirectory directory) => directory.Reach switch
    {
        Reach.Simulation => new SimulationPeopleDirectory(_simulations.GetOrAdd(estate.Name, OpenSimulation), directory, estate.Domain, time),
        Reach.Ldaps => new LdapPeopleDirectory(directory),
        _ => throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(directory.Key)),
    };

    /// <summary>A session to read the people of a directory with, as the account that the estate names for it.</summary>
    public async Task<IPeopleSession> OpenPeopleForSurveyAsync(Estate estate, PeopleDirectory directory, CancellationToken cancel)
    {
        var people = OpenPeople(estate, directory);
        if (people is SimulationPeopleDirectory simulation) return simulation.OpenAll();
        if (directory.SignInAs is not { } account) throw new ConnectorException(ConnectorFailure.SignIn, $"the estate names no bind account for {directory.Key}: sign-in-as and secret.");
        var security = directory.Offers.Keys.Order().First();
        var look = await people.LookAsync(security, cancel);
        if (!look.IsTrusted) throw new ConnectorException(ConnectorFailure.NotTrusted, $"{directory.Host}: {look.Failure ?? look.Tls?.Certificate.Problem ?? "it does not answer"}.");
        return await people.BindAsync(security, account, await EstateSecret.OfAsync(secrets.GetAsync, directory.Secret!, $"the directory {directory.Key}", cancel), cancel);
    }

    /// <summary>Each host the way the estate says.</summary>
    private async Task<HostRouter> HostsAsync(Estate estate, SimulationFile? simulation, CancellationToken cancel)
    {
        var ways = new Dictionary<Reach, IHostConnector>
        {
            [Reach.Ssh] = new SshHosts(estate, secrets.GetAsync, await SidsAsync(estate, cancel), time),
            [Reach.HandedOver] = new HandedOverHosts(facts, estate.Name),
        };
        if (simulation is not null) ways[Reach.Simulation] = new SimulationHosts(simulation, time);
        return new HostRouter(estate, ways);
    }

    /// <summary>Each database instance the way the estate says.</summary>
    private async Task<InstanceRouter> InstancesAsync(Estate estate, SimulationFile? simulation, CancellationToken cancel)
    {
        var sidOf = await SidsAsync(estate, cancel);
        return new InstanceRouter(estate, simulation is null ? null : new SimulationInstances(simulation, time), new Dictionary<string, IInstanceConnector>
        {
            ["sqlserver"] = new SqlServerInstances(estate, secrets.GetAsync, sidOf, time),
            ["postgresql"] = new PostgreSqlInstances(estate, secrets.GetAsync, time),
        });
    }

    /// <summary>The SID of a principal, as far as the latest survey knows it.</summary>
    private async Task<Func<string, Sid?>> SidsAsync(Estate estate, CancellationToken cancel)
    {
        var graph = (await surveys.LatestAsync(estate.Name, cancel))?.Graph;
        return principal => graph?.IndexOf(LogonName.WithoutDomain(principal)) is >= 0 and var node ? graph.SidOf(node) : null;
    }

    private static LdapTarget At(LdapTarget like, string place) => place.Split(':') is [var host, var port]
        ? like with { Controller = host, Port = int.Parse(port, System.Globalization.CultureInfo.InvariantCulture) }
        : like with { Controller = place };

    private SimulationFile OpenSimulation(string estate)
    {
        var first = Path.Combine(settings.Value.SimulationStates, estate + ".json");
        if (File.Exists(first)) return SimulationFile.Open(Path.Combine(settings.Value.Data, "simulation", estate + ".json"), first);
        IEnumerable<string?> known = Directory.Exists(settings.Value.SimulationStates) ? Directory.EnumerateFiles(settings.Value.SimulationStates, "*.json").Select(Path.GetFileNameWithoutExtension).Order() : [];
        throw new ConnectorException(ConnectorFailure.NotFound, $"the simulation has no simulated estate called {estate}; it ships with: {string.Join(", ", known)}.");
    }
}
