using System.Globalization;
using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Worklists.Undo;

namespace JustRight.Tests.Shared;

/// <summary>
/// Undoing restores what was, and no more: random changes are made on random states that had part of them already, are undone,
/// and the whole state is as before.
/// </summary>
/// <param name="observe">Reads whether a change is true already.</param>
/// <param name="make">Makes a change.</param>
/// <param name="stateAsync">The whole state, a line each.</param>
public sealed class RandomUndoing(
    Func<Change, Task<Observation>> observe, Func<Change, Task> make, Func<Task<IReadOnlySet<string>>> stateAsync)
{
    private static readonly int Times = int.Parse(
        Environment.GetEnvironmentVariable("JUSTRIGHT_ROUNDS") ?? "1", CultureInfo.InvariantCulture);

    /// <summary>How many rounds there are: the usual ones, or as many times that as <c>JUSTRIGHT_ROUNDS</c> says.</summary>
    public static int Rounds(int usual) => usual * Times;

    /// <summary>How often each kind of change was made in a job and undone.</summary>
    public Dictionary<string, int> Made { get; } = [];

    /// <summary>How many changes a job met already true, and left alone.</summary>
    public int Skipped { get; private set; }

    /// <summary>Makes a state, does a job on it and undoes the job.</summary>
    /// <param name="any">Any change, given what is there.</param>
    /// <param name="disturbances">How many changes are tried before the job.</param>
    /// <param name="steps">How many the job tries.</param>
    /// <param name="round">Which round this is, for what is said when it fails.</param>
    public async Task RoundAsync(Func<Task<Change>> any, int disturbances, int steps, int round)
    {
        _ = await JobAsync(any, disturbances); // some of what the job will want is there already
        var before = await stateAsync();
        var (job, met) = await JobAsync(any, steps);
        Skipped += met;
        foreach (var change in job) Made[change.GetType().Name] = Made.GetValueOrDefault(change.GetType().Name) + 1;
        foreach (var change in Undoing.Of(job))
        {
            await make(change);
            (await observe(change)).State.ShouldBe(ObservedState.Done, change.Words);
        }

        var after = await stateAsync();
        after.Except(before).Select(l => $"now: {l}").Concat(before.Except(after).Select(l => $"was: {l}")).ShouldBeEmpty(
            $"round {round}: {string.Join("; ", job)}");
    }

    /// <summary>Makes changes as a grant does: what is true already is met, what is refused is passed over.</summary>
    private async Task<(List<Change> Made, int Met)> JobAsync(Func<Task<Change>> any, int count)
    {
        var (made, met) = (new List<Change>(), 0);
        for (var i = 0; i < count; i++)
        {
            var change = await any();
            try
            {
                var state = (await observe(change)).State;
                if (state == ObservedState.Done) met++;
                if (state != ObservedState.NotDone) continue;
                await make(change);
                made.Add(change);
            }
            catch (ConnectorException)
            {
                // Refused, as the real thing would refuse it: nothing was changed.
            }
        }

        return (made, met);
    }
}
