using System.Globalization;
using JustRight.Core.Changes;
using JustRight.Core.Runs;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;

namespace JustRight.Service.Jobs.Queue;

/// <summary>The run that a job's steps are, as the journal has it.</summary>
internal static class RunRows
{
    /// <summary>The run.</summary>
    public static Run Of(JobRow job) =>
        new([.. job.Steps.OrderBy(s => s.Number).Select(Of)]) { IsStrict = job.Kind == JobKind.Renew };

    /// <summary>A step of it.</summary>
    public static RunStep Of(StepRow row) => new(row.Number, row.State, LinksOf(row.HangsOn))
    {
        OnlySettles = row.OnlySettles,
        ByPerson = row.ByPerson,
        IsSaid = row.IsSaid,
        Window = row.Window,
        IsTriedAgain = row.IsTriedAgain,
        Note = row.After ?? row.Before ?? "",
        By = row.By ?? "",
        At = row.At,
    };

    /// <summary>Writes what was decided about a run into its journal.</summary>
    public static void Write(JobRow job, Run run)
    {
        foreach (var (row, step) in job.Steps.OrderBy(s => s.Number).Zip(run.Steps))
            if (Of(row) with { HangsOn = step.HangsOn } != step) Write(row, step);
    }

    /// <summary>Writes how far a step has come.</summary>
    public static void Write(StepRow row, RunStep step) =>
        (row.State, row.ByPerson, row.IsSaid, row.Window, row.IsTriedAgain, row.After, row.By, row.At) = (
            step.State, step.ByPerson, step.IsSaid, step.Window, step.IsTriedAgain, step.Note, step.By, step.At);

    /// <summary>The rows of the changes of a run that begins.</summary>
    /// <param name="undoes">For each change, the number of the step that it undoes; empty where the run undoes nothing.</param>
    public static IEnumerable<StepRow> Of(string job, IReadOnlyList<Change> changes, IReadOnlyList<int?> undoes) =>
        Run.Of(changes).Steps.Zip(changes, (step, change) => new StepRow
        {
            JobId = job,
            Number = step.Number,
            ChangeJson = ChangeJson.Write(change),
            HangsOn = Links(step.HangsOn),
            OnlySettles = step.OnlySettles,
            Undoes = undoes.Count == 0 ? null : undoes[step.Number - 1],
            Words = change.Words,
            Team = NextStep.TeamName(change.Team),
            Place = change.Place,
            State = RunStepState.Waiting,
        });

    /// <summary>What steps hang on, as it is kept.</summary>
    public static string Links(IReadOnlyList<int> hangsOn) => string.Join(',', hangsOn);

    private static int[] LinksOf(string kept) => kept.Length == 0 ? []
        : [.. kept.Split(',').Select(n => int.Parse(n, CultureInfo.InvariantCulture))];
}
