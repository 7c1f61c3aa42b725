using CsCheck;
using JustRight.Core.Runs;

namespace JustRight.Core.Tests.Runs;

/// <summary>
/// Runs made at random in a world that fails, with people who decide at random: they try again, leave out, hand to a person who
/// does it or only says so, undo, and two runs go for the same places at once. Against a world that only knows what is made.
/// </summary>
public sealed class DecidedRunTests
{
    private const int Runs = 10_000, Turns = 400;
    private static readonly DateTimeOffset Now = FitScene.Now;

    private static readonly Gen<(int[] Links, int[] Dice, bool Strict, bool Two)> Drawn =
        Gen.Select(Gen.Int[0, 999].Array[1, 14], Gen.Int[0, 9999].Array[40, 90], Gen.Bool, Gen.Bool);

    [Fact]
    public void Whatever_people_decide_nothing_is_made_unasked_twice_or_unknown_and_every_run_comes_to_its_end() =>
        Drawn.Sample(drawn =>
        {
            var world = new World(drawn.Dice);
            var run = Made(drawn.Links, drawn.Strict);
            var other = drawn.Two ? run : null;
            for (var turn = 0; turn < Turns; turn++)
            {
                if (turn == Turns / 2) world.Calm();
                run = world.Turn(run, 1);
                if (other is not null) other = world.Turn(other, 2);
                world.Check(run, 1);
                if (other is not null) world.Check(other, 2);
                if (IsOver(run) && (other is null || IsOver(other))) break;
            }

            IsOver(run).ShouldBeTrue();
            foreach (var step in run.Steps.Where(s => s.State is RunStepState.Made or RunStepState.AlreadySo))
                step.HangsOn.All(world.IsThere).ShouldBeTrue($"{step}");
            // what one run made is undone as far as it was made, and nothing else
            var undone = run.Steps.Where(s => s.State == RunStepState.Made).Reverse()
                .Aggregate(run, (r, s) => r.With(s.Number, RunStepState.Undone));
            undone.Next(_ => true).Wait.ShouldBe(RunWait.Over);
            undone.Steps.ShouldNotContain(s => s.State == RunStepState.Made);
        }, iter: Runs);

    private static bool IsOver(Run run) => run.Next(_ => true).Wait == RunWait.Over;

    /// <summary>Steps that hang on up to two before them.</summary>
    private static Run Made(int[] links, bool strict) => new([.. links.Select((l, i) => new RunStep(
        i + 1, RunStepState.Waiting,
            i == 0 ? [] : [.. new[] { l % i, l / 7 % i }.Take(l % 3).Select(n => n + 1).Distinct().Order()])
    {
        ByPerson = l % 11 == 0,
    })])
    { IsStrict = strict };

    private sealed class World(int[] dice)
    {
        private readonly HashSet<int> _there = [];
        private readonly HashSet<(int Run, int Step)> _touched = [], _out = [];
        private bool _calm;
        private int _at;

        public bool IsThere(int step) => _there.Contains(step);

        /// <summary>From here on nothing fails and people only leave out what does not get done.</summary>
        public void Calm() => _calm = true;

        public Run Turn(Run run, int which)
        {
            var (wait, step) = run.Next(_ => true);
            return wait switch
            {
                RunWait.Over => run,
                RunWait.Decision => Decide(run, step!, which),
                RunWait.Person => Ask(run, step!, which),
                RunWait.Go => Make(run, step!, which),
                RunWait.Window => throw new InvalidOperationException("There are no windows here."),
            };
        }

        /// <summary>What the run says of a step against what happened.</summary>
        public void Check(Run run, int which)
        {
            foreach (var step in run.Steps)
            {
                if (step.State is RunStepState.Made or RunStepState.AlreadySo) IsThere(step.Number).ShouldBeTrue();
                if (step.State is RunStepState.Waiting or RunStepState.Refused or RunStepState.Skipped && !step.ByPerson)
                    _touched.ShouldNotContain((which, step.Number), $"{step}");
                if (step.IsLeftOut) run.HangingOn(step.Number).ShouldBeEmpty();
                if (_out.Contains((which, step.Number))) step.IsLeftOut.ShouldBeTrue();
            }

            foreach (var (held, by) in run.Held())
            {
                run.Step(by).HasFailed.ShouldBeTrue();
                Before(run, held).ShouldContain(by);
            }
        }

        private static HashSet<int> Before(Run run, int step)
        {
            var before = new HashSet<int>();
            var open = new Stack<int>(run.Step(step).HangsOn);
            while (open.TryPop(out var next))
                if (before.Add(next))
                    foreach (var further in run.Step(next).HangsOn) open.Push(further);
            return before;
        }

        private Run Decide(Run run, RunStep step, int which)
        {
            switch (Roll(_calm ? 2 : 4))
            {
                case 0:
                    return run.Retry(step.Number, "kim", Now);
                case 2:
                    return run.Hand(step.Number, "over to you", "kim", Now);
                default:
                    _out.Add((which, step.Number));
                    return run.Skip(step.Number, "it can wait", "kim", Now);
            }
        }

        private Run Ask(Run run, RunStep step, int which)
        {
            if (Roll(5) == 0)
            {
                _out.Add((which, step.Number));
                return run.Skip(step.Number, "not today", "kim", Now);
            }

            if (_calm || Roll(3) > 0) _there.Add(step.Number);
            return run.Say(step.Number, "done", "kim", Now);
        }

        private Run Make(Run run, RunStep step, int which)
        {
            step.HangsOn.All(IsThere).ShouldBeTrue("nothing is begun that must fail");
            _out.ShouldNotContain((which, step.Number));
            if (IsThere(step.Number))
                return run.With(
                    step.Number, step.State == RunStepState.Intended || step.IsSaid ? RunStepState.Made : RunStepState.AlreadySo);
            if (step.IsSaid) return run.With(step.Number, RunStepState.Refused, "not seen"); // whoever said so did not do it
            if (step.State == RunStepState.Waiting)
            {
                if (Roll(6) == 0) return run.With(step.Number, RunStepState.Refused, "unreachable");
                run = run.With(step.Number, RunStepState.Intended);
            }

            _touched.Add((which, step.Number));
            var luck = Roll(6);
            if (luck != 1) _there.Add(step.Number).ShouldBeTrue("it is made once");
            return luck is 2 or 3 ? run // killed here
                : run.With(step.Number, luck is 1 or 4 ? RunStepState.Failed : RunStepState.Made, "broke off");
        }

        private int Roll(int sides) => _calm ? (_at++ % 2 == 0 ? sides - 1 : 1) : dice[_at++ % dice.Length] % sides;
    }
}
