using CsCheck;
using JustRight.Core.Changes;
using JustRight.Core.Directory;
using JustRight.Core.Runs;

namespace JustRight.Core.Tests.Runs;

/// <summary>
/// Runs made at random, with steps that fail, are killed in the middle and are tried again, against a simpler model that knows of
/// each change only what must be there before.
/// </summary>
public sealed class RunTests
{
    private const int Runs = 10_000;

    private static readonly Gen<(int Kind, int Account, int Group)[]> Lists =
        Gen.Select(Gen.Int[0, 6], Gen.Int[0, 2], Gen.Int[0, 1]).Array[1, 24];

    [Fact]
    public void What_can_be_made_is_made_what_hangs_on_a_failure_is_not_and_tried_again_all_is() =>
        Gen.Select(Lists, Gen.Int[0, 23].Array[0, 5], Gen.Int[0, 23].Array[0, 4]).Sample((drawn, fail, kill) =>
        {
            var changes = drawn.Select(d => Made(d.Kind, $"a{d.Account}", $"g{d.Group}")).OrderBy(c => c.Order)
                .DistinctBy(c => c.Change.Key).ToList();
            var world = new World(changes, [.. fail]);
            var run = CarryOut(Run.Of([.. changes.Select(c => c.Change)]), world, [.. kill]);

            foreach (var step in run.Steps)
                step.State.ShouldBe(
                    world.CanBe(step.Number - 1) ? RunStepState.Made
                    : world.Fails(step.Number - 1) && world.IsReached(step.Number - 1) ? RunStepState.Failed
                    : RunStepState.Waiting,
                    $"{step.Number} of {string.Join("; ", changes.Select(c => c.Change.Words))}");
            run.Held().Keys.ShouldBe(run.Steps.Where(s => s.IsToDo).Select(s => s.Number), ignoreOrder: true);
            foreach (var (_, by) in run.Held()) run.Step(by).State.ShouldBe(RunStepState.Failed);

            // whoever mends what made them fail tries again: nothing is made twice
            world.Mend();
            var again = run.Steps.Where(s => s.HasFailed).Aggregate(run, (r, s) => r.Retry(s.Number, "kim", default));
            CarryOut(again, world, []).Steps.ShouldAllBe(s => s.State == RunStepState.Made);
            world.MadeTwice.ShouldBeEmpty();
        }, iter: Runs);

    [Fact]
    public void What_came_of_it_is_said_in_one_line()
    {
        var run = Run.Of(
        [
            new CreateGroup("F", "g", "CN=g", GroupScope.Global, ""), new AddMember("F", "g", "a"),
            new GrantLogonRight("h", "batch", @"F\a"), new GrantLogonRight("i", "batch", @"F\a"),
            new GrantLogonRight("k", "batch", @"F\a"),
        ]).With(1, RunStepState.Failed, "why 1").With(3, RunStepState.Made).With(4, RunStepState.AlreadySo)
            .Skip(5, "not needed", "kim", default);
        run.Words().ShouldBe(
            "1 made, 1 already true, 1 left out, 1 failed: step 1: why 1, 1 not made, for it hangs on what failed");
        run.Next(_ => true).Wait.ShouldBe(RunWait.Decision);
        run.With(1, RunStepState.Made).Next(_ => true).Step!.Number.ShouldBe(2);
    }

    /// <summary>A refresh makes count what was made; it is held only when nothing was.</summary>
    [Theory]
    [InlineData(RunStepState.Failed, RunStepState.Made, false)]
    [InlineData(RunStepState.Failed, RunStepState.Failed, true)]
    [InlineData(RunStepState.Made, RunStepState.Made, false)]
    public void What_only_makes_others_count_goes_on_when_one_of_them_was_made(RunStepState one, RunStepState other, bool held)
    {
        var run = Run.Of(
        [
            List("SeBatchLogonRight"), List("SeServiceLogonRight"),
            new RefreshPolicy("h")
            {
                Expect =
                [
                    new ExpectedHolder("SeBatchLogonRight", @"F\a", true),
                    new ExpectedHolder("SeServiceLogonRight", @"F\a", true),
                ],
            },
        ]).With(1, one).With(2, other);
        run.Held().ContainsKey(3).ShouldBe(held);
        run.HangingOn(1).ShouldBeEmpty("the other one is still made");

        static ChangePolicyList List(string constant) => new("F", "{1}", "p", constant, ["*S-1-5-32-544"], [], @"F\a", ["h"]);
    }

    [Fact]
    public void A_restart_that_waits_for_its_host_lets_others_go_before_it_and_a_strict_run_only_restarts()
    {
        var run = new Run([Step(1, "a"), Step(2, "b"), Step(3)]);
        run.Next(_ => false).ShouldBe(new RunNext(RunWait.Go, run.Step(3)));
        var strict = run with { IsStrict = true };
        strict.Next(_ => false).ShouldBe(new RunNext(RunWait.Window, run.Step(1)));
        strict.Next(h => h == "b").ShouldBe(new RunNext(RunWait.Go, run.Step(2)));
        strict.With(2, RunStepState.Made).Next(h => h == "b").Wait.ShouldBe(RunWait.Window);
        strict.Open(1, "kim", default).Next(_ => false).Step!.Number.ShouldBe(1);

        static RunStep Step(int number, string window = "") => new(number, RunStepState.Waiting, []) { Window = window };
    }

    [Fact]
    public void What_is_over_is_not_decided_about_and_what_did_not_fail_is_not_tried_again()
    {
        var run = Run.Of([new AddMember("F", "g", "a"), new AddMember("F", "h", "a")]).With(1, RunStepState.Made);
        Should.Throw<InvalidOperationException>(() => run.Skip(1, "why", "kim", default));
        Should.Throw<InvalidOperationException>(() => run.Hand(1, "why", "kim", default));
        Should.Throw<InvalidOperationException>(() => run.Retry(2, "kim", default));
        run.Drop().Steps.Select(s => s.State).ShouldBe([RunStepState.Made, RunStepState.Dropped]);
    }

    /// <summary>Carries out as the service does; killed after making a step, it finds that step intended, and made.</summary>
    private static Run CarryOut(Run run, World world, HashSet<int> kills)
    {
        while (run.Next(_ => true) is { Wait: RunWait.Go, Step: { } next })
        {
            var at = next.Number - 1;
            if (next.State == RunStepState.Intended && world.IsThere(at))
            {
                run = run.With(next.Number, RunStepState.Made);
                continue;
            }

            var fine = world.Make(at);
            run = run.With(
                next.Number, kills.Remove(at) ? RunStepState.Intended : fine ? RunStepState.Made : RunStepState.Failed);
        }

        return run;
    }

    /// <summary>A change with the place that the worklist gives it, and what must be there before, told without the
    /// core.</summary>
    private static (int Order, Change Change, string[] Needs, string? Makes) Made(int kind, string account, string group) =>
        kind switch
        {
            0 => (0, new CreateGroup("F", group, $"CN={group},OU=x", GroupScope.Global, ""), [], group),
            1 => (1, new CreateAccount("F", account, $"CN={account},OU=x", "", "", false), [], account),
            2 => (2, new AddMember("F", group, account), [group, account], null),
            3 => (3, new GrantLogonRight("h", "service", $@"F\{account}"), [account], null),
            4 => (4, new CreateLogin("i", $@"F\{account}"), [account], $"login {account}"),
            5 => (5, new CreateDatabaseUser("i", "d", $@"F\{account}"), [$"login {account}"], $"user {account}"),
            _ => (6, new AddDatabaseRoleMember("i", "d", "r", $@"F\{account}"), [$"user {account}"], null),
        };

    private sealed class World(
        List<(int Order, Change Change, string[] Needs, string? Makes)> changes, HashSet<int> fails)
    {
        private readonly HashSet<int> _made = [];

        public List<int> MadeTwice { get; } = [];

        public bool Fails(int at) => fails.Contains(at);

        public bool IsThere(int at) => _made.Contains(at);

        /// <summary>Whether all that it needs can be there, where a step makes it.</summary>
        public bool IsReached(int at) => changes[at].Needs.All(n =>
            changes.FindIndex(c => c.Makes == n) is var maker && (maker < 0 || CanBe(maker)));

        public bool CanBe(int at) => !Fails(at) && IsReached(at);

        public void Mend() => fails.Clear();

        public bool Make(int at)
        {
            IsReached(at).ShouldBeTrue("nothing is begun that must fail");
            if (Fails(at)) return false;
            if (!_made.Add(at)) MadeTwice.Add(at);
            return true;
        }
    }
}
