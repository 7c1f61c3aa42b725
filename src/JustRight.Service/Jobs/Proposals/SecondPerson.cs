using JustRight.Core.Estates;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Proposals;

/// <summary>
/// Two-person approval of what is done at once. The first time it is asked for, it is kept as a proposal and refused; once
/// another person approved it, asking for just the same again does it, one time.
/// </summary>
internal sealed class SecondPerson(
    Library library, JobQueue queue, LogStore log, IDbContextFactory<AppDb> databases, TimeProvider time)
    : IDisposable
{
    private readonly SemaphoreSlim _one = new(1);

    /// <summary>Why an act cannot be done yet, or null when it may be done now.</summary>
    /// <param name="estates">The estates that it concerns: where one of them wants two-person approval, two must agree.</param>
    public async Task<ProblemHttpResult?> AskAsync(
        IEnumerable<string> estates, ProposedAct act, string who, CancellationToken cancel)
    {
        foreach (var estate in estates.Distinct(StringComparer.Ordinal))
            if (await IsWantedAsync(estate, cancel)) return await AskAsync(act, who, cancel);
        return null;
    }

    /// <summary>
    /// Whether two must agree on what is done in an estate: it wants that itself, or is about systems of one that does. An estate
    /// that can no longer be read may want it.
    /// </summary>
    public async Task<bool> IsWantedAsync(string estate, CancellationToken cancel)
    {
        if (await library.FindAsync(Library.EstateKind, estate, cancel) is not { } row) return false;
        return IsWanted(row) || (await SharingAsync(Library.ReadEstate(row), cancel)).Count > 0;
    }

    private static bool IsWanted(DocumentRow estate) =>
        Library.OpenEstate(estate) is not ({ } read, _) || read.Rules.TwoPersonApproval;

    /// <summary>The other estates that want it and are about systems that an estate names too.</summary>
    public async Task<IReadOnlyList<(string Estate, string Shared)>> SharingAsync(Estate estate, CancellationToken cancel)
    {
        var sharing = new List<(string, string)>();
        foreach (var row in await library.ListAsync(Library.EstateKind, cancel))
        {
            if (row.Name == estate.Name || !IsWanted(row)) continue;
            if (Library.OpenEstate(row) is not ({ } other, _)) sharing.Add((row.Name, "what cannot be read"));
            else if (SharedSystems.Of(other, estate) is { } shared) sharing.Add((row.Name, shared));
        }

        return sharing;
    }

    /// <inheritdoc/>
    public void Dispose() => _one.Dispose();

    private async Task<ProblemHttpResult?> AskAsync(ProposedAct act, string who, CancellationToken cancel)
    {
        await _one.WaitAsync(cancel); // an approval is used once, whoever asks at the same moment
        try
        {
            await using var db = await databases.CreateDbContextAsync(cancel);
            var open = await db.Jobs.AsNoTracking().Where(
                j => j.Kind == act.Kind && j.Subject == act.Subject && (
                j.State == JobState.Proposed || j.State == JobState.Approved)).ToListAsync(cancel);
            var same = open.Find(j => j.Basis == act.Basis);
            if (same is { State: JobState.Approved })
            {
                await log.AddWithAsync(
                    kept =>
                    {
                        var row = kept.Jobs.First(j => j.Id == same.Id);
                        (row.State, row.EndedAt, row.Message) = (
                            JobState.Done, time.GetUtcNow(), $"done by {who}, approved by {row.ApprovedBy}");
                    },
                    who, "carry out", act.Subject, $"proposal {same.Id} of {same.StartedBy}, approved by {same.ApprovedBy}",
                        cancel);
                return null;
            }

            if (same is null)
            {
                same = await queue.AddAsync(
                    new JobOrder(act.Kind, act.Subject, who) { Basis = act.Basis, Words = act.Words }, cancel);
                await log.AddAsync(who, "propose", act.Subject, $"{string.Join("; ", act.Words)}, as proposal {same.Id}", cancel);
            }

            return Problems.Of(
                409, "two-person-approval", "This waits for a second person.",
                $"It is proposal {same.Id}: a granter other than {same.StartedBy} approves it "
                + $"(justright proposal approve {same.Id}). Then ask for the same again, and it is done.");
        }
        finally
        {
            _one.Release();
        }
    }
}
