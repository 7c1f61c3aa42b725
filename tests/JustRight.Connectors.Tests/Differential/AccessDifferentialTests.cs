using System.Globalization;
using JustRight.Core.Directory.Descriptors;
using JustRight.Core.Rights.Access;

namespace JustRight.Connectors.Tests.Differential;

/// <summary>
/// What Just Right predicts of random descriptors, held against what a real controller then lets accounts do. Where the two
/// differ, a known deviation of the controller must say so; and where a deviation says so, they must differ.
/// </summary>
public sealed class AccessDifferentialTests(Controller controller, ITestOutputHelper output)
{
    private const int AskedInAnyCase = 3000;
    private readonly Random _random = new(
        int.Parse(Environment.GetEnvironmentVariable("JUSTRIGHT_SEED") ?? "3", CultureInfo.InvariantCulture));
    private readonly Dictionary<string, int> _explained = [];
    private readonly List<string> _unexplained = [];
    private int _judged;
    private int _allowed;

    [Fact]
    public async Task Every_prediction_holds_or_is_a_known_deviation()
    {
        var wanted = int.Parse(
            Environment.GetEnvironmentVariable("JUSTRIGHT_JUDGEMENTS") ?? "3000", CultureInfo.InvariantCulture);
        using var scene = await AccessScene.BuildAsync(controller, "diff", TestContext.Current.CancellationToken);
        var lists = new RandomDescriptors(_random, scene);
        while (_judged < Math.Max(wanted, AskedInAnyCase))
        {
            var target = scene.Objects[_random.Next(1, scene.Objects.Count)];
            scene.Admin.Protect(target.Dn, lists.Next(inheritable: false));
            var place = new TrialPlace(
                target, scene.Admin.Descriptor(target.Dn),
                scene.Admin.Descriptor(target.Dn[(target.Dn.IndexOf(',', StringComparison.Ordinal) + 1)..]));
            foreach (var (account, client, token) in scene.Accounts)
                foreach (var trial in Trials.For(target, scene.Schema, account))
                    Try(scene, place, account, client, token, trial);
        }

        output.WriteLine($"{_judged} judged, {_allowed} allowed by the controller; explained differences: {string.Join(", ", _explained.OrderBy(e => e.Key).Select(e => $"{e.Key} {e.Value}"))}");
        _unexplained.ShouldBeEmpty();
        _allowed.ShouldBeGreaterThan(_judged / 20); // both answers were met, often
    }

    private void Try(AccessScene scene, TrialPlace place, SceneObject account, RawClient client, AccessToken token, Trial trial)
    {
        _judged++;
        var predicted = trial.Predict(place, (d, q, o) => AccessCheck.Judge(d, token, q, o.Sid).Answer == AccessAnswer.Yes);
        Model(Deviations.None).ShouldBe(predicted); // two ways of judging, one answer
        var expected = Model(Deviations.All);
        var real = trial.Attempt(scene, client, place.Target);
        if (real) _allowed++;
        if (real != expected)
        {
            _unexplained.Add($"{trial.Name} of {place.Target.Class}: predicted {predicted}, with deviations {expected}, was {real}; own {Sddl.Write(place.Own)}; parent {Sddl.Write(place.Parent)}; self {place.Target.Sid}; account {account.Sid}");
        }
        else if (real != predicted)
        {
            var cause = Enum.GetValues<Deviations>()
                .FirstOrDefault(d => d is not Deviations.None and not Deviations.All && Model(d) == real).ToString();
            if (cause == nameof(Deviations.None)) cause = "several together";
            _explained[cause] = _explained.GetValueOrDefault(cause) + 1;
        }

        bool Model(Deviations deviations) =>
            trial.Predict(place, (d, q, o) => ControllerModel.Judge(d, token, q, o, scene.Schema, deviations));
    }
}
