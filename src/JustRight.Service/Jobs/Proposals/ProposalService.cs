using System.Security.Cryptography;
using System.Text;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Documents;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Log;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Jobs.Proposals;

/// <summary>
/// Two-person approval: where the organization wants them, what changes the estate is proposed by one person and carried out
/// only after another
/// approved it. What a proposal rests on is noted with it; once that is other, the proposal and its approval are void.
/// </summary>
internal sealed class ProposalService(
    Library library, FitService fitService, JobQueue queue, SecondPerson second, LogStore log, IDbContextFactory<AppDb> databases,
    TimeProvider time)
{
    /// <summary>
    /// Lines a job up; where the organization wants two-person approval it is kept as a proposal instead, in place of the one
    /// before of that kind and subject.
    /// </summary>
    public async Task<JobRow> AddAsync(string estate, JobOrder order, CancellationToken cancel) =>
        (await AddIfAsync(estate, order, cancel))!;

    /// <summary>The same; null where it may not begin.</summary>
    public async Task<JobRow?> AddIfAsync(string estate, JobOrder order, CancellationToken cancel)
    {
        if (!await second.IsWantedAsync(estate, cancel)) return await queue.AddIfAsync(order, cancel);
        foreach (var old in await OpenAsync(j => j.Kind == order.Kind && j.Subject == order.Subject, cancel))
            await EndAsync(old, JobState.Void, $"replaced by another proposal of {order.Who}", order.Who, cancel);
        var steps = $"{order.Changes.Count} {(order.Changes.Count == 1 ? "step" : "steps")}";
        return await queue.AddIfAsync(
            order with
            {
                Basis = await BasisAsync(order.Subject, estate, cancel),
                Log = id => new LogWords("propose", $"{order.Kind.Word()} of {steps}, as proposal {id}"),
            },
            cancel);
    }

    /// <summary>The proposals that wait for an approval, or for being carried out.</summary>
    public async Task<IReadOnlyList<JobRow>> OpenAsync(CancellationToken cancel) => await OpenAsync(_ => true, cancel);

    /// <summary>Approves a proposal; returns why it cannot be approved, or null.</summary>
    public async Task<string?> ReleaseAsync(JobRow job, string who, CancellationToken cancel)
    {
        if (string.Equals(job.StartedBy, who, StringComparison.OrdinalIgnoreCase))
            return $"{who} proposed it: another person must approve it.";
        if (await WhyVoidAsync(job, cancel) is { } why) return await VoidAsync(job, why, who, cancel);
        await ChangeAsync(
            job.Id,
            row => (row.State, row.ApprovedBy, row.ApprovedAt, row.Message) = (
                JobState.Approved, who, time.GetUtcNow(),
                $"approved by {who}; {(JobKinds.Acts.Contains(job.Kind) ? "ask for the same again, and it is done" : $"carry it out: justright proposal carry-out {job.Id}")}"),
            who, "approve", job, $"proposal {job.Id} of {job.StartedBy}", cancel);
        return null;
    }

    /// <summary>Lines a approved proposal up; returns why it cannot be carried out, or null.</summary>
    public async Task<string?> CarryOutAsync(JobRow job, string who, CancellationToken cancel)
    {
        if (JobKinds.Acts.Contains(job.Kind)) return "ask for the same again as when it was proposed: it is done then.";
        if (await WhyVoidAsync(job, cancel) is { } why) return await VoidAsync(job, why, who, cancel);
        await ChangeAsync(
            job.Id, row => (row.State, row.Message) = (JobState.Queued, null), who, "carry out", job,
            $"proposal {job.Id} of {job.StartedBy}, approved by {job.ApprovedBy}", cancel);
        queue.LineUp(job.Id);
        return null;
    }

    /// <summary>Withdraws a proposal.</summary>
    public Task WithdrawAsync(JobRow job, string who, CancellationToken cancel) =>
        EndAsync(job, JobState.Withdrawn, $"withdrawn by {who}", who, cancel);

    private async Task<string> VoidAsync(JobRow job, string why, string who, CancellationToken cancel)
    {
        await EndAsync(job, JobState.Void, why, who, cancel);
        return why;
    }

    private Task EndAsync(JobRow job, JobState state, string why, string who, CancellationToken cancel) =>
        ChangeAsync(
            job.Id, row => (row.State, row.Message, row.EndedAt) = (state, why, time.GetUtcNow()), who,
            state == JobState.Void ? "void" : "withdraw", job, $"proposal {job.Id} of {job.StartedBy}: {why}", cancel);

    /// <summary>The state's change and the log's entry are kept in one transaction.</summary>
    private Task ChangeAsync(
        string id, Action<JobRow> change, string who, string action, JobRow job, string detail, CancellationToken cancel) =>
        log.AddWithAsync(db => change(db.Jobs.First(j => j.Id == id)), who, action, job.Subject, detail, cancel);

    /// <summary>
    /// Why a proposal no longer is what was seen, or null: what it rests on is other, or the worklist no longer has its steps.
    /// </summary>
    private async Task<string?> WhyVoidAsync(JobRow job, CancellationToken cancel)
    {
        if (JobKinds.Acts.Contains(job.Kind)) return null; // what it rests on is compared when it is asked for again
        var install = await library.FindAsync(Library.InstallKind, job.Subject, cancel);
        if (job.Basis != await BasisAsync(
            job.Subject, install is null ? job.Subject : Library.ReadInstall(install).Estate, cancel))
            return "the sheet, the estate or the install changed since the proposal: propose it again";
        if (job.Kind != JobKind.Grant || await fitService.JudgeAsync(job.Subject, cancel) is not { } judged) return null;
        var offered = judged.Worklist.Give.Concat(judged.Worklist.Remove).Where(s => s.Blocked is null).Select(s => s.Id)
            .ToHashSet();
        return job.Steps.OrderBy(s => s.Number)
            .FirstOrDefault(s => !offered.Contains(ChangeJson.Read(s.ChangeJson!).Key)) is { } gone
            ? $"the worklist no longer has its step {gone.Number}, {gone.Words}: propose it again"
            : null;
    }

    /// <summary>The hash of the documents that a proposal rests on.</summary>
    private async Task<string> BasisAsync(string subject, string estate, CancellationToken cancel)
    {
        var install = await library.FindAsync(Library.InstallKind, subject, cancel);
        var texts = new[] { install, install is null ? null : await library.FindAsync(
            Library.SheetKind, Library.ReadInstall(install).Sheet,
            cancel), await library.FindAsync(Library.EstateKind, estate, cancel) };
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(string.Join('\0', texts.Select(t => t?.Text)))));
    }

    private async Task<IReadOnlyList<JobRow>> OpenAsync(Func<JobRow, bool> which, CancellationToken cancel)
    {
        await using var db = await databases.CreateDbContextAsync(cancel);
        return [.. (await db.Jobs.AsNoTracking().Include(j => j.Steps).Where(j =>
            j.State == JobState.Proposed || j.State == JobState.Approved).OrderBy(j => j.Id).ToListAsync(cancel)).Where(which)];
    }
}
