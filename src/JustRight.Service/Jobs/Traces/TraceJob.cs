using JustRight.Connectors;
using JustRight.Contracts;
using JustRight.Core.Directory.Schema;
using JustRight.Core.Rights.Branches;
using JustRight.Core.Sheets;
using JustRight.Core.Traces;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Estates;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Settings;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace JustRight.Service.Jobs.Traces;

/// <summary>A trace as it is kept: what is shown, and the changes of each remedy by its id.</summary>
internal sealed record KeptTrace(TraceView View, Dictionary<string, List<string>> Changes);

/// <summary>Reads the directory as it is now and traces an account through its access lists.</summary>
internal sealed class TraceJob(
    Library library, ConnectorStore connectorStore, JobFeed feed, LogStore log, IDbContextFactory<AppDb> databases,
    IOptions<ServiceSettings> settings) : IJobHandler
{
    /// <inheritdoc/>
    public IReadOnlyList<JobKind> Kinds => [JobKind.Trace];

    /// <inheritdoc/>
    public async Task<JobOutcome> RunAsync(AppDb db, JobRow job, CancellationToken cancel)
    {
        var settled = StoredJson.Read<SettledTrace>(job.OrderJson!);
        var kept = await TraceAsync(job.Id, job.Subject, settled, cancel);
        job.ResultJson = StoredJson.Write(kept);
        await log.AddAsync(
            job.StartedBy, "trace", job.Subject, $"{kept.View.Account}: {kept.View.Asked}; {kept.View.Words}", cancel);
        await TidyAsync(job.Subject, cancel);
        return JobOutcome.Done(kept.View.Words);
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
        var reading = await DirectoryReading.TakeAsync(
            connectors.Directory, [settled.Account, .. settled.IfMemberOf], settled.Below is null ? [] : [settled.Below],
            [.. settled.Objects, .. settled.IfInheriting], cancel);
        var (graph, tree) = (reading.Graph, reading.Tree);
        var node = reading.NodeOf(settled.Account, estate);
        if (settled.Of.Length > 0 && Demands.Of(settled.Right, tree.Schema).Lacking is { } lacking)
            throw new ConnectorException(ConnectorFailure.NotFound, $"the directory's schema has no {lacking}.");
        if (settled.Below is { } below && tree.IndexOf(below) < 0)
            throw new ConnectorException(
                ConnectorFailure.NotFound, $"there is no {below} in the directory, or the bind account may not see it.");
        if (settled.IfMemberOf.FirstOrDefault(g => graph.IndexOf(g) < 0) is { } group)
            throw new ConnectorException(ConnectorFailure.NotFound, $"there is no group {group} in {estate.Domain.ShortName}.");
        feed.Tell(id, new JobEvent(JobState.Running.Word(), 1, 2, $"judging {tree.Count} objects", null));
        var trace = AccessTrace.Make(
            new TraceQuestion(
                graph.NameOf(node), node, settled.Right, [.. reading.Objects.Take(settled.Objects.Count)], settled.IfMemberOf,
                settled.IfInheriting),
            tree, graph);
        return new KeptTrace(
            TraceViews.Of(trace, id, estate.Name, estate.IsSimulated, Words(settled, tree.Schema), reading.Read),
            trace.Remedies.SelectMany(r => r).ToDictionary(r => r.Id, r => r.Changes.Select(ChangeJson.Write).ToList()));
    }

    /// <summary>The question in words.</summary>
    private static string Words(SettledTrace settled, DirectorySchema schema)
    {
        var asked = settled.Right;
        if (settled.Below is { } below)
        {
            var demands = Demands.Of(asked, schema).Demands!.Select(d => d.Words);
            return $"{string.Join(" and ", demands)} of every {asked.Of} below {below}";
        }

        var given = settled.Objects.Count == 1 ? "one given object" : $"{settled.Objects.Count} given objects";
        return asked.Act == DirectoryAct.Create ? $"create a {asked.Of} in {given}" : $"{asked.What} of {given}";
    }
}
