using JustRight.Contracts;
using JustRight.Core.Runs;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;
using JustRight.Service.Platform.Answers;
using Microsoft.AspNetCore.Http.HttpResults;

namespace JustRight.Service.Jobs.Runs;

/// <summary>What somebody decided about a run, or why that cannot be.</summary>
/// <param name="Run">The run from then on.</param>
/// <param name="Action">What the log calls it.</param>
/// <param name="Detail">What the log says of it.</param>
internal sealed record RunDecision(Run Run, string Action, string Detail);

/// <summary>What people can decide about a run, as it stands. Only looks.</summary>
internal static class RunDecisions
{
    /// <summary>The words that can be said of a step.</summary>
    public static readonly string[] Words = ["done", "retry", "skip", "hand-over", "restart-now"];

    /// <summary>Goes on, and tries again what failed.</summary>
    public static (RunDecision? Decision, ProblemHttpResult? Refused) Continue(JobRow job, string who, DateTimeOffset now)
    {
        if (!JobStates.CanContinue(job))
            return (null, Problems.Of(
                409, "nothing-failed", $"There is nothing to try again: this {job.Kind.Word()} is {job.State.Word()}.",
                "Only what failed or was stopped can be continued."));
        var run = RunRows.Of(job);
        var failed = run.Steps.Where(s => s.HasFailed).Select(s => s.Number).ToList();
        var again = failed.Aggregate(run, (r, n) => r.Retry(n, who, now));
        var which = failed.Count == 0 ? "what is left"
            : $"{(failed.Count == 1 ? "step" : "steps")} {string.Join(", ", failed)} again";
        return (new RunDecision(again, "continue", $"{job.Kind.Word()} {job.Id}: {which}"), null);
    }

    /// <summary>What somebody says of one step.</summary>
    public static (RunDecision? Decision, ProblemHttpResult? Refused) Of(
        JobRow job, int number, StepWord word, Func<string, bool> isOpen, string who, DateTimeOffset now)
    {
        if (!Words.Contains(word.Word))
            return (null, Problems.Bad(
                "word", "This is not a valid word.", string.Join(", ", Words), word.Word, Words));
        if (!JobStates.IsAtRest(job))
            return (null, Problems.Of(
                409, "busy", $"This run is {job.State.Word()}.",
                job.State is JobState.Queued or JobState.Running ? "Wait until it comes to rest, or stop it." : null));
        var run = RunRows.Of(job);
        if (number < 1 || number > run.Steps.Count)
            return (null, Problems.NotFound("step of this run", $"{number}", []));
        var next = run.Next(isOpen);
        if (run.IsStrict && next.Step?.Number != number)
            return (null, NotThisStep(job, number, next));
        var (step, note) = (run.Step(number), word.Note?.Trim() ?? "");
        var row = job.Steps.First(s => s.Number == number);
        if (!Can(word.Word, job, row, step, run, isOpen))
            return (null, Problems.Of(
                409, "wrong-word", $"'{word.Word}' is not possible for step {number} now.", WhatIs(run, step)));
        if (word.Word == "skip" && note.Length == 0)
            return (null, Problems.Bad("note", "Skipping a step needs a reason, shown in every report.", "a reason"));
        return (Made(word.Word, run, row, note, who, now), null);
    }

    private static bool Can(string word, JobRow job, StepRow row, RunStep step, Run run, Func<string, bool> isOpen) => word switch
    {
        "done" => step is { ByPerson: true, IsToDo: true } && !run.Held().ContainsKey(step.Number),
        "retry" => step.HasFailed,
        "skip" => !step.IsOver && !row.IsNeeded,
        "hand-over" => !step.IsOver && !step.ByPerson && row is { ChangeJson: not null, IsNeeded: false },
        "restart-now" => step is { State: RunStepState.Waiting, Window.Length: > 0 } && !isOpen(step.Window),
        _ => throw new InvalidOperationException($"'{word}' is no word for a step."),
    };

    private static RunDecision Made(string word, Run run, StepRow row, string note, string who, DateTimeOffset now)
    {
        var number = row.Number;
        var because = note.Length > 0 ? $": {note}" : "";
        switch (word)
        {
            case "done" when row.ChangeJson is null: // nobody but that person can tell
                return new RunDecision(
                    run.With(number, RunStepState.Made, note.Length > 0 ? note : "a person says it is done", who, now),
                    "make", $"{row.Words}; confirmed by a person{because}");
            case "done":
                return new RunDecision(run.Say(number, note, who, now), "confirm",
                    $"{row.Words}; a person says it is done{because}");
            case "retry":
                return new RunDecision(run.Retry(number, who, now), "retry", row.Words);
            case "hand-over":
                return new RunDecision(run.Hand(number, note, who, now), "hand to a person", $"{row.Words}{because}");
            case "restart-now":
                return new RunDecision(
                    run.Open(number, who, now), "confirm", $"{row.Words}, outside the host's restart window");
            case "skip":
                var along = run.HangingOn(number);
                return new RunDecision(
                    run.Skip(number, note, who, now), "leave out",
                    $"{row.Words}; because: {note}"
                    + (along.Count == 0 ? "" : $"; with it {(along.Count == 1 ? "step" : "steps")} {string.Join(", ", along)}"));
            default:
                throw new InvalidOperationException($"'{word}' is no word for a step.");
        }
    }

    private static ProblemHttpResult NotThisStep(JobRow job, int number, RunNext next) => Problems.Of(
        409, "not-this-step", $"Step {number} is not the one that is next.",
        next.Step is { } step
            ? $"Next is step {step.Number}: {job.Steps.First(s => s.Number == step.Number).Words}."
            : "It is over.");

    private static string WhatIs(Run run, RunStep step) => step switch
    {
        { HasFailed: true } => "It failed: retry it, skip it, or undo the run.",
        { IsOver: true } => "It is over.",
        _ when run.Held().TryGetValue(step.Number, out var by) => $"It is held back by step {by}, which failed.",
        { ByPerson: true } => "It is a manual step: done or skip.",
        _ => "It is an automatic step: skip it, or hand it over to a person.",
    };
}
