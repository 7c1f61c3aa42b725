using JustRight.Core.Changes;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Connectors;

/// <summary>Sends each host to the connector that reaches it, as the estate says.</summary>
/// <param name="ways">The connectors by reach.</param>
public sealed class HostRouter(Estate estate, IReadOnlyDictionary<Reach, IHostConnector> ways) : IHostConnector
{
    /// <inheritdoc/>
    public Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel) => Way(host).ReadAsync(host, cancel);

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(HostChange change, CancellationToken cancel) =>
        Way(change.Host).ObserveAsync(change, cancel);

    /// <inheritdoc/>
    public Task MakeAsync(HostChange change, NewPassword? password, CancellationToken cancel) =>
        Way(change.Host).MakeAsync(change, password, cancel);

    private IHostConnector Way(string host) =>
        estate.Host(host) is { } known && ways.TryGetValue(known.Reach, out var way)
            ? way
            : throw new ConnectorException(ConnectorFailure.Unreachable, EstateSurveyor.NoReach(host));
}
