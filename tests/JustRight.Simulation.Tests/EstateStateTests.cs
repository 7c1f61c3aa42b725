using JustRight.Connectors;
using JustRight.Core.Changes;
using JustRight.Core.Engines;
using JustRight.Core.Fit;
using JustRight.Core.Plans;
using JustRight.Core.Surveys;
using JustRight.Core.Worklists;
using JustRight.Simulation.Laying;

namespace JustRight.Simulation.Tests;

/// <summary>A state laid from an estate: of what was surveyed, of what is usual, with mistakes.</summary>
public sealed class EstateStateTests : IDisposable
{
    private static readonly string[] Installs = [.. Directory.GetFiles(Path.Combine(DemoSimulation.DemoData, "installs"))
        .Select(f => Path.GetFileNameWithoutExtension(f)).Order(StringComparer.Ordinal)];

    private readonly string _folder = Directory.CreateTempSubdirectory("justright-laid-").FullName;
    private readonly DemoSimulation _demo = new();

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    public void Dispose()
    {
        _demo.Dispose();
        Directory.Delete(_folder, true);
    }

    [Fact]
    public async Task The_demo_as_it_was_surveyed_is_judged_as_the_demo_is()
    {
        await SurveyAsync(_demo.Connectors); // what restarts is back afterwards
        var survey = await SurveyAsync(_demo.Connectors);
        survey.UnreadParts().ShouldBeEmpty();
        var plans = Plans();
        var laid = EstateState.Lay(_demo.Estate, [], survey, []);
        laid.Remarks.ShouldBeEmpty();
        var again = await SurveyAsync(Open(laid.State));
        foreach (var plan in plans) Judged(plan, plans, again).ShouldBe(Judged(plan, plans, survey), plan.Install);
    }

    [Fact]
    public async Task What_is_usual_holds_nothing_that_an_install_does_not_need()
    {
        var plans = Plans();
        var survey = await SurveyAsync(Open(EstateState.Lay(_demo.Estate, plans, null, []).State));
        survey.UnreadParts().ShouldBeEmpty();
        foreach (var plan in plans)
        {
            var fit = FitOf(plan, plans, survey);
            fit.Counts.ShouldSatisfyAllConditions(
                plan.Install, c => c.Excess.ShouldBe(0), c => c.Forbidden.ShouldBe(0), c => c.Unseen.ShouldBeLessThan(2));
            WorklistMaker.Make(fit, AllEngines.View(survey), new NeedsIndex(plans)).Give
                .ShouldAllBe(s => s.Blocked == null || s.Blocked.Contains("setup")
                    || s.Change is MapToProductRole || s.Change is DoTask);
        }
    }

    /// <summary>What is given and not blocked is given; a mistake shows before that or afterwards.</summary>
    [Theory]
    [InlineData("leftover", "Excess: book: Administrators on fm-book01")]
    [InlineData("shared-account", "Excess: fitter: log on as a service on fm-book01")]
    [InlineData("policy-takes-right-back", "Missing: jobs: log on as a batch job on fm-night01")]
    [InlineData(
        "blocked-inheritance",
        "Missing: copier: write roomNumber, wWWHomePage of user below OU=People,OU=Fennmoor,DC=fennmoor,DC=example")]
    public async Task A_mistake_is_found_where_an_install_meets_it(string word, string found)
    {
        var plans = Plans();
        var mistake = RehearsedMistakes.Find(word)!.Value;
        var laid = EstateState.Lay(_demo.Estate, plans, null, [mistake, mistake]);
        laid.State.Mistakes.Single().ShouldStartWith($"{word}: ");
        var more = (await WrongAsync(laid.State)).Except(await WrongAsync(EstateState.Lay(_demo.Estate, plans, null, []).State));
        more.ShouldContain(found);

        async Task<List<string>> WrongAsync(SimulationState state)
        {
            var connectors = Open(state);
            foreach (var plan in plans)
                for (var more = true; more;)
                {
                    var survey = await SurveyAsync(connectors);
                    var steps = WorklistMaker.Make(
                        FitOf(plan, plans, survey), AllEngines.View(survey), new NeedsIndex(plans)).Give;
                    var next = steps.FirstOrDefault(s =>
                        s.Blocked is null && s.Change is not (SetServiceAccount or RestartService or RefreshPolicy));
                    if (next is not null) await DemoSimulation.MakeAsync(connectors, next.Change);
                    more = next is not null;
                }

            var after = await SurveyAsync(connectors);
            return [.. plans.SelectMany(p => FitOf(p, plans, after).Accounts).SelectMany(a => a.Judgements)
                .Where(j => j.Verdict is not (Verdict.Met or Verdict.Pending))
                    .Select(j => $"{j.Verdict}: {j.Account}: {j.Right}")];
        }
    }

    [Fact]
    public void A_mistake_that_no_install_meets_is_refused()
    {
        foreach (var word in RehearsedMistakes.All)
            Should.Throw<MistakeException>(() =>
                EstateState.Lay(_demo.Estate, [], null, [RehearsedMistakes.Find(word)!.Value])).Message
                    .ShouldStartWith($"{word}: no install ");
        RehearsedMistakes.Find("nonsense").ShouldBeNull();
    }

    private List<Plan> Plans() => [.. Installs.Select(_demo.PlanOf)];

    private Task<Survey> SurveyAsync(EstateConnectors connectors) => EstateSurveyor.TakeAsync(
        _demo.Estate, connectors, new SurveyAims([], [])
        {
            ServiceNames = [.. Plans().SelectMany(p => p.Grants).Select(g => g.Right.ServiceNameAsked).OfType<string>()],
        }, TimeProvider.System, _ => { }, Cancel);

    private EstateConnectors Open(SimulationState state)
    {
        var path = Path.Combine(_folder, $"{Guid.NewGuid():N}.json");
        SimulationFile.Lay(path, state);
        return DemoSimulation.Connect(SimulationFile.Open(path, path));
    }

    private InstallFit FitOf(Plan plan, IReadOnlyList<Plan> plans, Survey survey) =>
        new FitJudge(
            AllEngines.View(survey), new NeedsIndex(plans), _demo.Estate.Rules, new Present(DateTimeOffset.UtcNow)).Judge(plan);

    private List<string> Judged(Plan plan, IReadOnlyList<Plan> plans, Survey survey) =>
        [.. FitOf(plan, plans, survey).Accounts.SelectMany(a => a.Judgements)
            .Select(j => $"{j.Id} {j.Verdict} {j.Reason} {string.Join('|', j.Paths)}")];
}
