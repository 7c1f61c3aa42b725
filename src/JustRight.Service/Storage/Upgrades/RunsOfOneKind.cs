using System.Text.Json.Nodes;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Fits;
using JustRight.Service.Passwords;
using JustRight.Service.Runs;
using JustRight.Service.Undo;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Storage.Upgrades;

/// <summary>
/// Renewals had a journal of their own, with its own states; now their steps are those of a job, as everything else that changes
/// an estate. Steps say what they hang on, what failed before it touched anything is told from what did, and what was undone
/// says so.
/// </summary>
internal static class RunsOfOneKind
{
    /// <summary>Brings runs up to date.</summary>
    public static async Task ApplyAsync(AppDb db, CancellationToken cancel)
    {
        await db.Database.ExecuteSqlRawAsync("UPDATE Steps SET State = 'already-so' WHERE State = 'skipped'", cancel);
        await db.Database.ExecuteSqlRawAsync(
            "UPDATE Steps SET State = 'refused' WHERE State = 'failed' AND Before IS NULL", cancel);
        foreach (var job in await db.Jobs.Include(j => j.Steps).Where(j => j.Steps.Count > 0).ToListAsync(cancel)) Link(job);
        await db.SaveChangesAsync(cancel);
        await UndoneAsync(db, cancel);
        await RenewalsAsync(db, cancel);
        await db.SaveChangesAsync(cancel);
    }

    private static void Link(JobRow job)
    {
        var rows = job.Steps.OrderBy(s => s.Number).ToList();
        foreach (var (row, step) in rows.Zip(Run.Of([.. rows.Select(s => ChangeJson.Read(s.ChangeJson!))]).Steps))
            (row.HangsOn, row.OnlySettles) = (RunRows.Links(step.HangsOn), step.OnlySettles);
    }

    private static async Task UndoneAsync(AppDb db, CancellationToken cancel)
    {
        foreach (var undo in await db.Jobs.Include(j => j.Steps).Where(j => j.Undoes != null).OrderBy(j => j.Id)
            .ToListAsync(cancel))
        {
            if (await db.Jobs.Include(j => j.Steps)
                .FirstOrDefaultAsync(j => j.Id == undo.Undoes, cancel) is not { } undone) continue;
            var steps = undo.Steps.OrderBy(s => s.Number).ToList();
            var numbers = UndoService.StepsUndone(undone, [.. steps.Select(s => ChangeJson.Read(s.ChangeJson!))]);
            foreach (var (step, number) in steps.Zip(numbers))
            {
                step.Undoes = number;
                if (number is { } n && step.State is RunStepState.Made or RunStepState.AlreadySo)
                    undone.Steps.First(s => s.Number == number).State = RunStepState.Undone;
            }
        }
    }

    /// <summary>
    /// A renewal becomes a job under its own id; those that made some of its steps each, and held nothing of them, go.
    /// </summary>
    private static async Task RenewalsAsync(AppDb db, CancellationToken cancel)
    {
        var parts = await db.Jobs.Where(j => j.Kind == JobKind.Renew).ToListAsync(cancel);
        foreach (var renewal in await db.Renewals.ToListAsync(cancel))
        {
            var book = JsonNode.Parse(renewal.BookJson!)!.AsObject();
            var job = new JobRow
            {
                Id = renewal.Id,
                Kind = JobKind.Renew,
                Subject = renewal.Estate,
                StartedBy = renewal.StartedBy,
                CreatedAt = renewal.StartedAt,
                EndedAt = renewal.EndedAt,
                State = JobState.Done,
                OrderJson = StoredJson.Write(new RenewalOrder(
                    renewal.Account, [.. Field(book, "remarks")!.AsArray().Select(r => (string)r!)],
                    renewal.OldProtected is not null, (bool?)Field(book, "goesBack") ?? false)),
            };
            job.Steps.AddRange(Field(book, "steps")!.AsArray().Select(s => StepOf(job.Id, s!.AsObject())));
            if (job.EndedAt is null)
                job.State = parts.Exists(p => p.OrderJson == job.Id && p.State is JobState.Queued or JobState.Running)
                    ? JobState.Queued
                    : StateOf(RunRows.Of(job).Next(_ => false).Wait);
            job.Message = RenewalWords.Of(RenewalRows.BookOf(job), RunRows.Of(job).Next(_ => false).Wait);
            db.Jobs.Add(job);
            renewal.BookJson = null;
        }

        db.Jobs.RemoveRange(parts);
    }

    private static JobState StateOf(RunWait wait) => wait switch
    {
        RunWait.Go => JobState.Queued,
        RunWait.Person or RunWait.Window => JobState.Waiting,
        RunWait.Decision => JobState.Failed,
        RunWait.Over => JobState.Done,
    };

    private static StepRow StepOf(string job, JsonObject step)
    {
        var act = Choice<RunBookAct>(step, "act");
        var (host, change) = ((string)Field(step, "host")!,
            Field(step, "change") is { } made ? ChangeJson.Read(made.ToJsonString()) : null);
        var (number, state) = ((int)Field(step, "number")!, Choice<FormerState>(step, "state"));
        var note = (string?)Field(step, "note") ?? "";
        return new StepRow
        {
            JobId = job,
            Number = number,
            ChangeJson = change is null ? null : ChangeJson.Write(change),
            RenewalJson = StoredJson.Write(new RenewalPart(
                act, Choice<WhichPassword>(step, "secret"), (string)Field(step, "place")!, host, (string)Field(step, "why")!)),
            HangsOn = "", // in a renewal each step waits for all before it anyway
            ByPerson = act == RunBookAct.Type,
            Window = act == RunBookAct.Restart && state == FormerState.Waiting ? host : "",
            IsTriedAgain = note == "to be tried again",
            Words = (string)Field(step, "words")!,
            Team = change is null ? "" : NextStep.TeamName(change.Team),
            Place = change?.Place ?? host,
            State = Now(state),
            After = note.Length == 0 ? null : note,
            By = (string?)Field(step, "by") is { Length: > 0 } by ? by : null,
            At = (DateTimeOffset?)Field(step, "at"),
        };
    }

    /// <summary>How far a step of a renewal had come, as it was kept.</summary>
    private enum FormerState
    {
        Waiting,
        Begun,
        Done,
        Refused,
        Failed,
        Skipped,
        Abandoned,
        Dropped,
    }

    private static RunStepState Now(FormerState state) => state switch
    {
        FormerState.Waiting => RunStepState.Waiting,
        FormerState.Begun => RunStepState.Intended,
        FormerState.Done => RunStepState.Made,
        FormerState.Refused => RunStepState.Refused,
        FormerState.Failed => RunStepState.Failed,
        FormerState.Skipped => RunStepState.Skipped,
        FormerState.Abandoned => RunStepState.Abandoned,
        FormerState.Dropped => RunStepState.Dropped,
    };

    /// <summary>A choice by its name, or by its number, as the first release wrote it.</summary>
    private static T Choice<T>(JsonObject step, string field)
        where T : struct, Enum => Field(step, field) is JsonValue value && value.TryGetValue<int>(out var number)
            ? Enum.GetValues<T>()[number]
            : Enum.Parse<T>((string)Field(step, field)!);

    /// <summary>A field, whatever case its name was written in.</summary>
    private static JsonNode? Field(JsonObject node, string name) =>
        node.FirstOrDefault(f => string.Equals(f.Key, name, StringComparison.OrdinalIgnoreCase)).Value;
}
