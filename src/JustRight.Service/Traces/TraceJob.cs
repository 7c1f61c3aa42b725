using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Rights.Access;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Rights.Memberships;
using JustRight.Core.Surveys;
using JustRight.Core.Traces;
using JustRight.Formats.Changes;
using JustRight.Service.Documents;
using JustRight.Service.Estates;
using JustRight.Service.Jobs;
using JustRight.Service.Log;
using JustRight.Service.Settings;
using JustRight.Service.Storage;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Traces;

/// <summary>A trace as it is kept: what is shown, and the changes of each remedy by its id.</summary>
internal sealed record KeptTrace(TraceView View, Dictionary<string, List<string>> Changes);

/// <summary>Reads the directory as it is now and traces an account through its access lists.</summary>
internal sealed class TraceJob(
    Library library, ConnectorStore connectorStore, JobFeed feed, LogStore log, IDbContextFactory<AppDb> databases,
    IOptions<ServiceSettings> settings)
{
    /// <summary>Runs the job and returns its closing words.</summary>
    public async Task<string> RunAsync(JobRow job, CancellationToken cancel)
    {
        var settled = StoredJson.Read<SettledTrace>(job.OrderJson!);
        var kept = await TraceAsync(job.Id, job.Subject, settled, cancel);
        job.ResultJson = StoredJson.Write(kept);
        await log.AddAsync(
            job.StartedBy, "trace", job.Subject, $"{kept.View.Account}: {kept.View.Asked}; {kept.View.Words}", cancel);
        await TidyAsync(job.Subject, cancel);
        return kept.View.Words;
    }

    /// <summary>An answer names every object that fails: only the latest are kept, this one not yet counted.</summary>
    private async Task TidyAsync(string estate, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        var old = await db.Jobs.Where(j => j.Subject == estate && j.Kind == JobKind.Trace && j.ResultJson != null)
            .OrderByDescending(j => j.Id).Skip(Math.Max(1, settings.Value.TracesKept) - 1).Select(j => j.Id).ToListAsync(cancel);
        await db.Jobs.Where(j => old.Contains(j.Id))
            .ExecuteUpdateAsync(set => set.SetProperty(j => j.ResultJson, (string?)null), cancel);
    }

    /// <summary>Traces.</summary>
    public async Task<KeptTrace> TraceAsync(string id, string estateName, SettledTrace settled, CancellationToken cancel)
    {
        var estate = Library.ReadEstate((await library.FindAsync(Library.EstateKind, estateName, cancel))!);
        var connectors = await connectorStore.OpenAsync(estate, cancel);
        feed.Tell(id, new JobEvent(JobState.Running.Word(), 0, 2, $"reading the ACLs of {estate.Domain.DnsName}", null));
        var (read, objects) = await ReadAsync(connectors.Directory, settled, cancel);
        var access = read.Access
            ?? throw new ConnectorException(ConnectorFailure.NotAllowed, "the ACLs of the directory could not be read.");
        var graph = new MembershipGraph(read);
        var node = graph.IndexOf(settled.Account);
        if (node < 0)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no account {settled.Account} in {estate.Domain.ShortName}.");
        var (demands, lacking) = Demands.Of(settled.Right, access.Schema);
        if (demands is null) throw new ConnectorException(ConnectorFailure.NotFound, $"the directory's schema has no {lacking}.");
        var tree = new AccessTree(access);
        if (settled.Below is { } below && tree.IndexOf(below) < 0)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no {below} in the directory, or the bind account may not see it.");
        if (settled.IfMemberOf.FirstOrDefault(g => graph.IndexOf(g) < 0) is { } group)
            throw new ConnectorException(ConnectorFailure.NotFound, $"there is no group {group} in {estate.Domain.ShortName}.");
        feed.Tell(id, new JobEvent(JobState.Running.Word(), 1, 2, $"judging {tree.Count} objects", null));
        var trace = AccessTrace.Make(
            new TraceQuestion(
                graph.NameOf(node), node, demands, settled.Of, settled.Below, objects, settled.IfMemberOf, settled.IfInheriting),
            tree, graph);
        var asked = $"{string.Join(" and ", demands.Select(d => d.Words))}{(settled.Below is null ? $" of {(settled.Objects.Count == 1 ? "one given object" : $"{settled.Objects.Count} given objects")}" : $" of every {settled.Of} below {settled.Below}")}";
        return new KeptTrace(
            TraceViews.Of(trace, id, estate.Name, estate.IsSimulated, asked, read),
            trace.Remedies.SelectMany(r => r).ToDictionary(r => r.Id, r => r.Changes.Select(ChangeJson.Write).ToList()));
    }

    /// <summary>Objects given by logon name are found first; then their lists are read.</summary>
    private static async Task<(DirectorySnapshot Read, IReadOnlyList<string> Objects)> ReadAsync(
        IDirectoryConnector directory, SettledTrace settled, CancellationToken cancel)
    {
        string[] names = [settled.Account, .. settled.IfMemberOf];
        var byName = settled.Objects.Where(o => !o.Contains('=', StringComparison.Ordinal)).ToList();
        var objects = settled.Objects;
        if (byName.Count > 0)
        {
            var found = (await directory.ReadAsync(new DirectoryScope([], byName), cancel)).Principals.GroupBy(
                p => p.Name, StringComparer.OrdinalIgnoreCase)
                .ToDictionary(p => p.Key, p => p.First().Dn, StringComparer.OrdinalIgnoreCase);
            objects = [.. objects.Select(o => found.GetValueOrDefault(o, o))];
        }

        var access = new AccessScope(
            settled.Below is null ? [] : [settled.Below],
            [.. objects.Where(o => o.Contains('=', StringComparison.Ordinal)), .. settled.IfInheriting], AllContainers: false);
        return (await directory.ReadAsync(new DirectoryScope([], names) { Access = access }, cancel), objects);
    }
}
