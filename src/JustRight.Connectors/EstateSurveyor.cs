using JustRight.Connectors.Directories.Files;
using JustRight.Core.Directory;
using JustRight.Core.Estates;
using JustRight.Core.Surveys;

namespace JustRight.Connectors;

/// <summary>How far a survey has come.</summary>
/// <param name="Done">Places read.</param>
/// <param name="Total">Places to read.</param>
/// <param name="Place">The place being read.</param>
public sealed record SurveyProgress(int Done, int Total, string Place);

/// <summary>What the installs of an estate are about, beyond what the estate itself names.</summary>
/// <param name="Names">Logon names that matter wherever they are in the directory.</param>
/// <param name="AccessBranches">Branches below which rights are needed: every object there is read.</param>
public sealed record SurveyAims(IReadOnlyList<string> Names, IReadOnlyList<string> AccessBranches)
{
    /// <summary>Service principal names whose holders matter, whoever they are.</summary>
    public IReadOnlyList<string> ServiceNames { get; init; } = [];
}

/// <summary>Takes surveys: reads every part of an estate, and notes with its reason each part that could not be read.</summary>
public static class EstateSurveyor
{
    /// <summary>Reads an estate.</summary>
    /// <param name="aims">What the installs of the estate are about.</param>
    public static async Task<Survey> TakeAsync(
        Estate estate, EstateConnectors connectors, SurveyAims aims, TimeProvider time, Action<SurveyProgress> progress,
        CancellationToken cancel)
    {
        var total = 1 + estate.Hosts.Count + estate.Instances.Count;
        var done = 0;
        Report(estate.Domain.DnsName);
        var scope = new DirectoryScope(
            [.. estate.Branches.Select(b => b.Name.Text)],
            [.. aims.Names.Concat(estate.Rules.Forbidden.Select(b => b.Group).OfType<string>()).Distinct(
                StringComparer.OrdinalIgnoreCase)])
        {
            Access = new AccessScope(aims.AccessBranches, [], AllContainers: true),
            Policies = estate.Hosts.Count > 0,
            ServiceNames = [.. aims.ServiceNames.Distinct(StringComparer.OrdinalIgnoreCase)],
        };
        var directory = await ReadDirectoryAsync(estate, connectors, scope, time, cancel);

        if (directory.Unread is null) directory = directory with { AskedFor = scope.Names };
        if (directory.Policies is { } policies && estate.Directory.PolicyFolder is { } folder)
            directory = directory with { Policies = PolicyFolder.Fill(policies, folder) };

        // Several places at a time: one that is slow, or never answers, holds up nobody else.
        var hosts = new HostSnapshot[estate.Hosts.Count];
        await Parallel.ForAsync(0, hosts.Length, new ParallelOptions { MaxDegreeOfParallelism = estate.HostsSideBySide, CancellationToken = cancel }, async (at, stop) =>
        {
            var host = estate.Hosts[at];
            Report(host.Name);
            hosts[at] = await ReadAsync(
                connectors.Hosts, c => c.ReadAsync(host.Name, stop),
                reason => HostSnapshot.NotRead(host.Name, time.GetUtcNow(), reason));
        });

        var instances = new InstanceSnapshot[estate.Instances.Count];
        await Parallel.ForAsync(0, instances.Length, new ParallelOptions { MaxDegreeOfParallelism = estate.HostsSideBySide, CancellationToken = cancel }, async (at, stop) =>
        {
            var instance = estate.Instances[at];
            Report(instance.Name);
            instances[at] = await ReadAsync(
                connectors.Instances, c => c.ReadAsync(instance, stop),
                reason => InstanceSnapshot.NotRead(instance.Name, instance.Engine, time.GetUtcNow(), reason));
        });

        return new Survey(estate.Name, time.GetUtcNow(), estate.IsSimulated, directory, hosts, instances);

        void Report(string place) => progress(new SurveyProgress(Interlocked.Increment(ref done) - 1, total, place));
    }

    /// <summary>The reason given for a place that nothing reaches.</summary>
    public static string NoReach(string place) => $"the estate says that {place} is not reached (reach: none)";

    private static async Task<DirectorySnapshot> ReadDirectoryAsync(
        Estate estate, EstateConnectors connectors, DirectoryScope scope, TimeProvider time, CancellationToken cancel)
    {
        try
        {
            return await connectors.Directory.ReadAsync(scope, cancel);
        }
        catch (ConnectorException e)
        {
            return new DirectorySnapshot(estate.Domain.ShortName, default(Sid), "", time.GetUtcNow(), [], [], e.Message);
        }
    }

    private static async Task<TSnapshot> ReadAsync<TConnector, TSnapshot>(
        TConnector connector, Func<TConnector, Task<TSnapshot>> read, Func<string, TSnapshot> notRead)
    {
        try
        {
            return await read(connector);
        }
        catch (ConnectorException e)
        {
            return notRead(e.Message);
        }
    }
}
