using CsCheck;
using JustRight.Core.Passwords;

namespace JustRight.Core.Tests.Passwords;

/// <summary>Run-books carried out in a world that fails: what the book says of where which password is, against what the world knows.</summary>
public sealed class RunBookModelTests
{
    private static readonly DateTimeOffset Now = FitScene.Now;

    /// <summary>The password in the directory, under the empty name, and in each place.</summary>
    private sealed class World(int places)
    {
        public Dictionary<string, WhichPassword> Has { get; } = Enumerable.Range(0, places).Select(i => $"p{i}").Append("").ToDictionary(
            p => p, _ => WhichPassword.Old);

        public void Put(RunBookStep step)
        {
            if (step.Puts) Has[step.Place] = step.Secret;
        }
    }

    [Fact]
    public void Whatever_fails_no_two_places_differ_unmentioned() =>
        Gen.Select(Gen.Int[0, 4], Gen.Int[0, 3], Gen.Int[0, 99].Array[80]).Sample((machine, person, dice) =>
    {
        var book = Book(machine, person);
        var world = new World(machine + person);
        var (at, clean) = (0, true);
        int Roll(int sides) => dice[at++ % dice.Length] % sides;
        for (var turn = 0; turn < 200; turn++)
        {
            Check(book, world);
            var step = book.Current(_ => true);
            switch (book.Next(_ => true))
            {
                case RunBookNext.Over:
                    if (clean) world.Has.Values.ShouldAllBe(w => w == (book.GoesBack ? WhichPassword.Old : WhichPassword.New));
                    if (clean) book.Divided().ShouldBeEmpty();
                    return;
                case RunBookNext.Decision:
                    switch (Roll(4))
                    {
                        case 0 when !book.GoesBack && book.Steps.Any(s => s.Act == RunBookAct.SetInDirectory):
                            book = book.Undo();
                            break;
                        case 1 when step!.Act != RunBookAct.SetInDirectory:
                            (book, clean) = (book.Skip(step.Number, "it can wait", "kim", Now), clean && !step.Puts);
                            break;
                        default:
                            book = book.Retry(step!.Number, "kim", Now);
                            break;
                    }

                    break;
                case RunBookNext.Person:
                    if (Roll(5) == 0)
                    {
                        (book, clean) = (book.Skip(step!.Number, "not today", "kim", Now), false);
                        break;
                    }

                    if (!book.GoesBack && Roll(6) == 0)
                    {
                        book = book.Undo();
                        break;
                    }

                    world.Put(step!);
                    book = book.With(step!.Number, RunBookState.Done, "", "kim", Now);
                    break;
                default:
                    // A crash leaves a step begun, with or without its effect; a failure may come before it is touched, or after.
                    if (step!.State == RunBookState.Waiting)
                    {
                        if (Roll(6) == 0)
                        {
                            book = book.With(step.Number, RunBookState.Refused, "unreachable", "us", Now);
                            break;
                        }

                        book = book.Begin(step.Number, null, "", "us", Now);
                        Check(book, world);
                    }

                    var luck = Roll(6);
                    if (luck != 1) world.Put(step);
                    if (luck is 2 or 3) break; // killed here: the next turn finds it begun
                    book = luck is 1 or 4
                        ? book.With(step.Number, RunBookState.Failed, "broke off", "us", Now)
                        : book.With(step.Number, RunBookState.Done, "", "us", Now);
                    break;
            }
        }

        Assert.Fail("The run-book never ends.");
    }, iter: 3000);

    [Fact]
    public void Going_back_touches_only_what_may_have_the_new_one_and_restarts_what_was_restarted()
    {
        var book = Book(2, 1);
        for (var i = 1; i <= 2; i++) book = book.With(i, RunBookState.Done, "", "us", Now);
        book = book.With(3, RunBookState.Failed, "broke off", "us", Now);
        book.Divided()
            .ShouldSatisfyAllConditions(d =>
                d.Select(p => (p.Place, p.Has)).ShouldBe([("p1", WhichPassword.Unknown), ("p2", WhichPassword.Old)]));
        var back = book.Undo();
        back.Steps.Skip(book.Steps.Count).Select(s => (s.Act, s.Place, s.Secret)).ShouldBe([
            (RunBookAct.SetInDirectory, "", WhichPassword.Old), (
                RunBookAct.Set, "p0",
                WhichPassword.Old), (RunBookAct.Set, "p1", WhichPassword.Old), (RunBookAct.Check, "", WhichPassword.Old)]);
        back.Steps[2].State.ShouldBe(RunBookState.Abandoned);
        back.Steps[3].State.ShouldBe(RunBookState.Dropped);
        // nothing was touched: nothing to take back
        Book(1, 0).With(1, RunBookState.Refused, "no", "us", Now).Undo().Next(_ => true).ShouldBe(RunBookNext.Over);
        Should.Throw<InvalidOperationException>(() => book.Retry(1, "kim", Now));
    }

    [Fact]
    public void A_restart_waits_for_its_host_and_lets_another_go_before_it()
    {
        var book = Book(0, 0) with
        {
            Steps = [
                Step(1, RunBookAct.Restart, "", "a"), Step(2, RunBookAct.Restart, "", "b"), Step(3, RunBookAct.Check, "", "")],
        };
        book.Next(_ => false).ShouldBe(RunBookNext.Window);
        book.Current(h => h == "b")!.Number.ShouldBe(2);
        book = book.With(2, RunBookState.Done, "", "us", Now);
        book.Next(h => h == "b").ShouldBe(RunBookNext.Window);
        book.Current(_ => true)!.Number.ShouldBe(1);
    }

    /// <summary>The book's word against the world: what it is sure of is so, and every place that differs is mentioned.</summary>
    private static void Check(RunBook book, World world)
    {
        if (book.InDirectory != WhichPassword.Unknown) world.Has[""].ShouldBe(book.InDirectory);
        var mentioned = book.Divided().Select(d => d.Place).ToHashSet();
        foreach (var (place, has) in world.Has.Where(p => p.Key.Length > 0))
        {
            if (book.At(place) != WhichPassword.Unknown) has.ShouldBe(book.At(place));
            if (has != world.Has[""]) mentioned.ShouldContain(place);
        }
    }

    private static RunBook Book(int machine, int person)
    {
        var steps = new List<RunBookStep> { Step(1, RunBookAct.SetInDirectory, "", "") };
        for (var i = 0; i < machine + person; i++)
            steps.Add(Step(steps.Count + 1, i < machine ? RunBookAct.Set : RunBookAct.Type, $"p{i}", "h"));
        if (machine > 0) steps.Add(Step(steps.Count + 1, RunBookAct.Restart, "", "h"));
        steps.Add(Step(steps.Count + 1, RunBookAct.Check, "", ""));
        return new RunBook("svc-read", steps, []);
    }

    private static RunBookStep Step(int number, RunBookAct act, string place, string host) =>
        new(number, act, WhichPassword.New, place, host, $"{act} {place}", "");
}
