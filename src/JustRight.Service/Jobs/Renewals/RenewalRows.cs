using JustRight.Core.Changes;
using JustRight.Core.Passwords;
using JustRight.Formats.Changes;
using JustRight.Service.Data.Fits;
using JustRight.Service.Data.Storage;
using JustRight.Service.Jobs.Queue;

namespace JustRight.Service.Jobs.Renewals;

/// <summary>What a renewal is of, as its job keeps it.</summary>
/// <param name="Account">The logon name.</param>
/// <param name="Remarks">What a person should know.</param>
/// <param name="GoesBack">Whether it goes back to the old password.</param>
public sealed record RenewalOrder(string Account, IReadOnlyList<string> Remarks, bool GoesBack);

/// <summary>What a step of a renewal is there for, as the step keeps it.</summary>
/// <param name="Secret">Which password it sets, or works with.</param>
/// <param name="Place">The place it is about; empty for the directory and for the check.</param>
/// <param name="Host">The host it is made on; empty where there is none.</param>
/// <param name="Why">Why here in the order.</param>
public sealed record RenewalPart(RunBookAct Act, WhichPassword Secret, string Place, string Host, string Why);

/// <summary>Run-books as the steps of a job.</summary>
internal static class RenewalRows
{
    /// <summary>What a renewal is of.</summary>
    public static RenewalOrder OrderOf(JobRow job) => StoredJson.Read<RenewalOrder>(job.OrderJson!);

    /// <summary>What a step is there for.</summary>
    public static RenewalPart PartOf(StepRow step) => StoredJson.Read<RenewalPart>(step.RenewalJson!);

    /// <summary>The change of a step; null for what no connector makes.</summary>
    public static Change? ChangeOf(StepRow step) => step.ChangeJson is { } json ? ChangeJson.Read(json) : null;

    /// <summary>The run-book that a job is.</summary>
    public static RunBook BookOf(JobRow job)
    {
        var order = OrderOf(job);
        return new RunBook(order.Account, [.. job.Steps.OrderBy(s => s.Number).Select(StepOf)], order.Remarks)
        {
            GoesBack = order.GoesBack,
        };
    }

    /// <summary>The rows of steps.</summary>
    public static IEnumerable<StepRow> Of(string job, IEnumerable<RunBookStep> steps) => steps.Select(step =>
    {
        var row = new StepRow
        {
            JobId = job,
            Number = step.Number,
            ChangeJson = step.Change is { } change ? ChangeJson.Write(change) : null,
            RenewalJson = StoredJson.Write(new RenewalPart(step.Act, step.Secret, step.Place, step.Host, step.Why)),
            HangsOn = RunRows.Links(step.Step.HangsOn),
            IsNeeded = step.Act == RunBookAct.SetInDirectory,
            Words = step.Words,
            Team = step.Change is { } made ? NextStep.TeamName(made.Team) : "",
            Place = step.Change?.Place ?? step.Host,
            State = step.State,
        };
        RunRows.Write(row, step.Step);
        return row;
    });

    private static RunBookStep StepOf(StepRow row)
    {
        var part = PartOf(row);
        return new RunBookStep(RunRows.Of(row), part.Act, part.Secret, part.Place, part.Host, row.Words, part.Why)
        {
            Change = ChangeOf(row),
        };
    }
}
