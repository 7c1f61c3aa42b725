using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Connectors;

/// <summary>Sends each database instance to the connector that reaches it, by the estate's reach and the instance's engine.</summary>
/// <param name="simulation">The simulated instances, or null when the estate is real.</param>
/// <param name="engines">The connectors over TLS by engine.</param>
public sealed class InstanceRouter(
    Estate estate, IInstanceConnector? simulation, IReadOnlyDictionary<string, IInstanceConnector> engines)
    : IInstanceConnector
{
    /// <inheritdoc/>
    public Task<InstanceSnapshot> ReadAsync(EstateInstance instance, CancellationToken cancel) =>
        Way(instance.Name).ReadAsync(instance, cancel);

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(InstanceChange change, CancellationToken cancel) =>
        Way(change.Instance).ObserveAsync(change, cancel);

    /// <inheritdoc/>
    public Task MakeAsync(InstanceChange change, NewPassword? password, CancellationToken cancel) =>
        Way(change.Instance).MakeAsync(change, password, cancel);

    private IInstanceConnector Way(string name) => estate.Instance(name) switch
    {
        { Reach: Reach.Simulation } when simulation is not null => simulation,
        { Reach: Reach.Tls, Engine: var engine } when engines.TryGetValue(engine, out var way) => way,
        _ => throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(name)),
    };
}
