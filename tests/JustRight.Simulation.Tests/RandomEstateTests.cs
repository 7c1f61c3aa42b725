using CsCheck;
using JustRight.Connectors;
using JustRight.Core.Engines;
using JustRight.Core.Engines.Directory;
using JustRight.Core.Fit;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Simulation.Laying;

namespace JustRight.Simulation.Tests;

/// <summary>What holds in every estate, whatever it looks like: checked on estates made at random.</summary>
public sealed class RandomEstateTests
{
    private const int Tries = 80;

    [Fact]
    public Task A_need_is_met_just_when_the_simpler_model_says_so() => ForAnyAsync(async (estate, simulation) =>
    {
        var (fit, _) = await simulation.JudgeAsync(estate);
        foreach (var account in fit.Accounts)
            foreach (var need in account.Judgements.Where(j => j.Grant is not null))
                (need.Verdict == Verdict.Met)
                    .ShouldBe(estate.Holds(RandomEstate.Number(account.Account.Key), need.Right), $"{need.Id} in {estate}");
    });

    [Fact]
    public Task Every_met_and_every_excess_right_has_a_path_that_starts_at_the_account() =>
        ForAnyAsync(async (estate, simulation) =>
    {
        var (fit, _) = await simulation.JudgeAsync(estate);
        foreach (var judgement in fit.Accounts.SelectMany(a => a.Judgements).Where(j =>
            j.Verdict is Verdict.Met or Verdict.Excess or Verdict.Forbidden && j.Right is not AccountRight))
        {
            judgement.Paths.ShouldNotBeEmpty($"{judgement.Id} in {estate}");
            judgement.Paths.ShouldAllBe(p => p.Steps[0].Name.EndsWith(judgement.Account, StringComparison.Ordinal));
        }
    });

    [Fact]
    public Task A_forbidden_group_is_found_just_when_the_account_is_in_it() => ForAnyAsync(async (estate, simulation) =>
    {
        var (fit, _) = await simulation.JudgeAsync(estate);
        foreach (var account in fit.Accounts)
            account.Judgements.Any(j => j.Verdict == Verdict.Forbidden)
                .ShouldBe(
                    fit.Plan.Forbidden.Count > 0 && estate.IsIn(RandomEstate.Number(account.Account.Key), 5), estate.ToString());
    });

    [Fact]
    public Task Giving_what_the_worklist_says_leaves_nothing_missing_and_nothing_to_give() =>
        ForAnyAsync(async (estate, simulation) =>
    {
        var (_, worklist) = await simulation.JudgeAsync(estate);
        await simulation.MakeAsync(worklist.Give);
        var (fit, left) = await simulation.JudgeAsync(estate);
        fit.Counts.Missing.ShouldBe(0, estate.ToString());
        left.Give.ShouldBeEmpty(estate.ToString());
    });

    [Fact]
    public Task Taking_away_what_is_offered_breaks_no_need_and_adds_nothing_too_much() =>
        ForAnyAsync(async (estate, simulation) =>
    {
        await simulation.MakeAsync((await simulation.JudgeAsync(estate)).Worklist.Give);
        var (before, worklist) = await simulation.JudgeAsync(estate);
        foreach (var step in worklist.Remove)
        {
            await simulation.MakeAsync([step]);
            var (after, _) = await simulation.JudgeAsync(estate);
            after.Counts.Missing.ShouldBe(0, $"{step.Change.Words} broke a need in {estate}");
            (after.Counts.Excess + after.Counts.Forbidden)
                .ShouldBeLessThanOrEqualTo(before.Counts.Excess + before.Counts.Forbidden, estate.ToString());
        }
    });

    [Fact]
    public Task The_same_estate_gives_the_same_fit_and_worklist() => ForAnyAsync(async (estate, simulation) =>
    {
        var (first, one) = await simulation.JudgeAsync(estate);
        var (second, two) = await simulation.JudgeAsync(estate);
        first.Accounts.SelectMany(a => a.Judgements).Select(j => $"{j.Id} {j.Verdict} {string.Join('|', j.Paths)}")
            .ShouldBe(second.Accounts.SelectMany(a => a.Judgements).Select(j =>
                $"{j.Id} {j.Verdict} {string.Join('|', j.Paths)}"));
        one.Give.Concat(one.Remove).Select(s => s.Id).ShouldBe(two.Give.Concat(two.Remove).Select(s => s.Id));
    });

    [Fact]
    public Task What_a_survey_read_is_judged_the_same_when_it_is_laid_anew() => ForAnyAsync(async (estate, simulation) =>
    {
        var laid = EstateState.Lay(RandomEstate.Estate(), [], await simulation.SurveyAsync(), []);
        using var again = new RandomSimulation(laid.State);
        var (first, one) = await simulation.JudgeAsync(estate);
        var (second, two) = await again.JudgeAsync(estate);
        second.Accounts.SelectMany(a => a.Judgements).Select(j => $"{j.Id} {j.Verdict} {string.Join('|', j.Paths)}")
            .ShouldBe(first.Accounts.SelectMany(a => a.Judgements).Select(j =>
                $"{j.Id} {j.Verdict} {string.Join('|', j.Paths)}"));
        two.Give.Concat(two.Remove).Select(s => s.Id).ShouldBe(one.Give.Concat(one.Remove).Select(s => s.Id));
    });

    private static Task ForAnyAsync(Func<RandomEstate, RandomSimulation, Task> holds) => RandomEstate.Any.SampleAsync(
        async estate =>
        {
            using var simulation = new RandomSimulation(estate);
            await holds(estate, simulation);
        },
        iter: Tries,
        threads: 1);

    /// <summary>A simulation that holds one such estate.</summary>
    private sealed class RandomSimulation : IDisposable
    {
        private readonly string _folder = Directory.CreateTempSubdirectory("justright-random-").FullName;
        private readonly EstateConnectors _connectors;

        public RandomSimulation(RandomEstate estate)
            : this(estate.State())
        {
        }

        public RandomSimulation(SimulationState state)
        {
            var file = Path.Combine(_folder, "simulation.json");
            SimulationFile.Lay(file, state);
            var simulation = SimulationFile.Open(file, file);
            _connectors = new EstateConnectors(
                new SimulationDirectory(simulation, TimeProvider.System), new SimulationHosts(simulation, TimeProvider.System),
                new SimulationInstances(simulation, TimeProvider.System));
        }

        public Task<Survey> SurveyAsync() => EstateSurveyor.TakeAsync(
            RandomEstate.Estate(), _connectors, new SurveyAims([], []), TimeProvider.System, _ => { }, default);

        public async Task<(InstallFit Fit, Worklist Worklist)> JudgeAsync(RandomEstate random)
        {
            var estate = RandomEstate.Estate();
            var view = AllEngines.View(await SurveyAsync());
            var plan = random.Plan();
            var needs = new NeedsIndex([plan]);
            var fit = new FitJudge(view, needs, estate.Rules, new Present(DateTimeOffset.UtcNow)).Judge(plan);
            return (fit, WorklistMaker.Make(fit, view, needs));
        }

        public async Task MakeAsync(IReadOnlyList<Step> steps)
        {
            foreach (var step in steps)
            {
                await _connectors.MakeAsync(step.Change, null, default);
                (await _connectors.ObserveAsync(step.Change, default)).State.ShouldBe(ObservedState.Done, step.Change.Words);
            }
        }

        public void Dispose() => Directory.Delete(_folder, true);
    }
}
