using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Surveys;
using JustRight.Service.Data.Surveys;

namespace JustRight.Service.Data.Estates;

/// <summary>Hosts that their owners read and change: what they handed over is read, and nothing is changed from here.</summary>
internal sealed class HandedOverHosts(HostFactsStore hostFactsStore, string estate) : IHostConnector
{
    /// <inheritdoc/>
    public async Task<HostSnapshot> ReadAsync(string host, CancellationToken cancel) =>
        await hostFactsStore.LatestAsync(estate, host, cancel)
            ?? throw new ConnectorException(
                ConnectorFailure.NotFound, $"no facts of {host} were given yet: justright survey {estate} --facts FILE");

    /// <inheritdoc/>
    public Task<Observation> ObserveAsync(HostChange change, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, HandedOver.ByOwner);

    /// <inheritdoc/>
    public Task MakeAsync(HostChange change, NewPassword? password, CancellationToken cancel) =>
        throw new ConnectorException(ConnectorFailure.NotAllowed, HandedOver.ByOwner);
}
