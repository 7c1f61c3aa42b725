using System.Text.Json.Nodes;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using Microsoft.EntityFrameworkCore;

namespace JustRight.Service.Data.Storage.Upgrades;

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
            (row.HangsOn, row.OnlySettles) = (string.Join(',', step.HangsOn), step.OnlySettles);
    }

    private static async Task UndoneAsync(AppDb db, CancellationToken cancel)
    {
        foreach (var undo in await db.Jobs.Include(j => j.Steps).Where(j => j.Undoes != null).OrderBy(j => j.Id)
            .ToListAsync(cancel))
        {
            if (await db.Jobs.Include(j => j.Steps)
                .FirstOrDefaultAsync(j => j.Id == undo.Undoes, cancel) is not { } undone) continue;
            var made = undone.Steps.Where(s => s.State == RunStepState.Made).OrderBy(s => s.Number)
                .Select(s => (s.Number, Change: ChangeJson.Read(s.ChangeJson!))).Where(s => s.Change.Inverse is not null)
                .ToLookup(s => s.Change.Inverse!.Key, s => s.Number);
            foreach (var step in undo.Steps)
            {
                int? number = made[ChangeJson.Read(step.ChangeJson!).Key].Select(n => (int?)n).LastOrDefault();
                step.Undoes = number;
                if (number is not null && step.State is RunStepState.Made or RunStepState.AlreadySo)
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
            var goesBack = (bool?)Field(book, "goesBack") ?? false;
            var job = new JobRow
            {
                Id = renewal.Id,
                Kind = JobKind.Renew,
                Subject = renewal.Estate,
                StartedBy = renewal.StartedBy,
                CreatedAt = renewal.StartedAt,
                EndedAt = renewal.EndedAt,
                State = JobState.Done,
                OrderJson = StoredJson.Write(new
                {
                    renewal.Account,
                    Remarks = Field(book, "remarks")!.AsArray().Select(r => (string)r!),
                    GoesBack = goesBack,
                }),
                CanGoBack = renewal is { EndedAt: null, OldProtected: not null } && !goesBack,
                Message = renewal.EndedAt is null ? null : goesBack ? "undone" : "renewed",
            };
            job.Steps.AddRange(Field(book, "steps")!.AsArray().Select(s => StepOf(job.Id, s!.AsObject())));
            if (job.EndedAt is null)
                job.State = parts.Exists(p => p.OrderJson == job.Id && p.State is JobState.Queued or JobState.Running)
                    ? JobState.Queued
                    : StateOf(job.Steps.OrderBy(s => s.Number).FirstOrDefault(s => !IsOver(s)));
            db.Jobs.Add(job);
            renewal.BookJson = null;
        }

        db.Jobs.RemoveRange(parts);
    }

    private static bool IsOver(StepRow step) => new RunStep(step.Number, step.State, []).IsOver;

    /// <summary>The state of a renewal, by the first of its steps that is not over.</summary>
    private static JobState StateOf(StepRow? next) => next switch
    {
        null => JobState.Queued, // only its end is left
        { State: RunStepState.Refused or RunStepState.Failed } => JobState.Failed,
        { ByPerson: true } or { Window.Length: > 0 } => JobState.Waiting,
        _ => JobState.Queued,
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
            RenewalJson = StoredJson.Write(new
            {
                Act = act,
                Secret = Choice<WhichPassword>(step, "secret"),
                Place = (string)Field(step, "place")!,
                Host = host,
                Why = (string)Field(step, "why")!,
            }),
            IsNeeded = act == RunBookAct.SetInDirectory,
            HangsOn = "", // in a renewal each step waits for all before it anyway
            ByPerson = act == RunBookAct.Type,
            Window = act == RunBookAct.Restart && state == FormerState.Waiting ? host : "",
            IsTriedAgain = note == "to be tried again",
            Words = (string)Field(step, "words")!,
            Team = change is null ? "" : change.Team.ToString().ToLowerInvariant(),
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
