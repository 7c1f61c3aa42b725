using CsCheck;
using JustRight.Core.Passwords;
using JustRight.Core.Runs;

namespace JustRight.Core.Tests.Passwords;

/// <summary>
/// Run-books carried out in a world that fails: what the book says of where which password is, against what the world knows.
/// </summary>
public sealed class RunBookModelTests
{
    private static readonly DateTimeOffset Now = FitScene.Now;

    /// <summary>The password in the directory, under the empty name, and in each place.</summary>
    private sealed class World(int places)
    {
        public Dictionary<string, WhichPassword> Has { get; } = Enumerable.Range(0, places).Select(i => $"p{i}").Append("")
            .ToDictionary(
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
            var (wait, next) = book.Run.Next(_ => true);
            var step = next is null ? null : book.Steps[next.Number - 1];
            switch (wait)
            {
                case RunWait.Over:
                    if (clean) world.Has.Values.ShouldAllBe(w => w == (book.GoesBack ? WhichPassword.Old : WhichPassword.New));
                    if (clean) book.Divided().ShouldBeEmpty();
                    return;
                case RunWait.Decision:
                    switch (Roll(4))
                    {
                        case 0 when !book.GoesBack && book.Steps.Any(s => s.Act == RunBookAct.SetInDirectory):
                            book = book.Undo();
                            break;
                        case 1 when step!.Act != RunBookAct.SetInDirectory:
                            (book, clean) = (book.With(book.Run.Skip(step.Number, "it can wait", "kim", Now)), clean
                                && !step.Puts);
                            break;
                        default:
                            book = book.With(book.Run.Retry(step!.Number, "kim", Now));
                            break;
                    }

                    break;
                case RunWait.Person:
                    if (Roll(5) == 0)
                    {
                        (book, clean) = (book.With(book.Run.Skip(step!.Number, "not today", "kim", Now)), false);
                        break;
                    }

                    if (!book.GoesBack && Roll(6) == 0)
                    {
                        book = book.Undo();
                        break;
                    }

                    world.Put(step!);
                    book = book.With(book.Run.With(step!.Number, RunStepState.Made));
                    break;
                case RunWait.Window:
                    throw new InvalidOperationException("Every host may be restarted.");
                case RunWait.Go:
                    // A crash leaves a step begun, with or without its effect; a failure may come before it is touched, or after.
                    if (step!.State == RunStepState.Waiting)
                    {
                        if (Roll(6) == 0)
                        {
                            book = book.With(book.Run.With(step.Number, RunStepState.Refused));
                            break;
                        }

                        book = book.With(book.Run.With(step.Number, RunStepState.Intended));
                        Check(book, world);
                    }

                    var luck = Roll(6);
                    if (luck != 1) world.Put(step);
                    if (luck is 2 or 3) break; // killed here: the next turn finds it begun
                    book = book.With(book.Run.With(step.Number, luck is 1 or 4 ? RunStepState.Failed : RunStepState.Made));
                    break;
            }
        }

        Assert.Fail("The run-book never ends.");
    }, iter: 3000);

    [Fact]
    public void Going_back_touches_only_what_may_have_the_new_one_and_restarts_what_was_restarted()
    {
        var book = Book(2, 1);
        book = book.With(
            book.Run.With(1, RunStepState.Made).With(2, RunStepState.Made).With(3, RunStepState.Failed));
        book.Divided()
            .ShouldSatisfyAllConditions(d =>
                d.Select(p => (p.Place, p.Has)).ShouldBe([("p1", WhichPassword.Unknown), ("p2", WhichPassword.Old)]));
        var back = book.Undo();
        back.Steps.Skip(book.Steps.Count).Select(s => (s.Act, s.Place, s.Secret)).ShouldBe([
            (RunBookAct.SetInDirectory, "", WhichPassword.Old), (
                RunBookAct.Set, "p0",
                WhichPassword.Old), (RunBookAct.Set, "p1", WhichPassword.Old), (RunBookAct.Check, "", WhichPassword.Old)]);
        back.Steps[2].State.ShouldBe(RunStepState.Abandoned);
        back.Steps[3].State.ShouldBe(RunStepState.Dropped);
        // nothing was touched: nothing to take back
        var untouched = Book(1, 0);
        untouched.With(untouched.Run.With(1, RunStepState.Refused)).Undo().Run.Next(_ => true).Wait.ShouldBe(RunWait.Over);
    }

    [Fact]
    public void A_service_that_was_not_given_it_is_not_restarted_and_going_back_restarts_what_was()
    {
        var book = Book(1, 1);
        var skipped = book.With(
            book.Run.With(1, RunStepState.Made).With(2, RunStepState.Refused).Skip(2, "not today", "kim", Now));
        skipped.Steps[3].ShouldSatisfyAllConditions(
            s => s.Act.ShouldBe(RunBookAct.Restart), s => s.State.ShouldBe(RunStepState.Skipped),
            s => s.Step.Note.ShouldBe("it hangs on step 2"));
        skipped.Run.Next(_ => true).ShouldSatisfyAllConditions(
            n => n.Wait.ShouldBe(RunWait.Person), n => n.Step!.Number.ShouldBe(3));

        var all = book.With(new Run([.. book.Run.Steps.Select(s => s with { State = RunStepState.Made })]));
        var back = all.Undo().Steps.Skip(5).ToList();
        back.Select(s => (s.Number, s.Act, string.Join(',', s.Step.HangsOn))).ShouldBe([
            (6, RunBookAct.SetInDirectory, ""), (7, RunBookAct.Set, "6"), (8, RunBookAct.Type, "6"),
                (9, RunBookAct.Restart, "6,7"),
            (10, RunBookAct.Check, "6")]);
        back.Where(s => s.Step.ByPerson).Select(s => s.Number).ShouldBe([8]);
        back.Where(s => s.Step.Window.Length > 0).Select(s => s.Number).ShouldBe([9]);
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
        if (machine > 0)
            steps.Add(Step(
                steps.Count + 1, RunBookAct.Restart, "", "h",
                    [.. steps.Where(s => s.Act == RunBookAct.Set).Select(s => s.Number)]));
        steps.Add(Step(steps.Count + 1, RunBookAct.Check, "", ""));
        return new RunBook("svc-read", steps, []);
    }

    private static RunBookStep Step(int number, RunBookAct act, string place, string host, params int[] hangsOn) => new(
        new RunStep(number, RunStepState.Waiting, number == 1 ? [] : [1, .. hangsOn])
        {
            ByPerson = act == RunBookAct.Type,
            Window = act == RunBookAct.Restart ? host : "",
        },
        act, WhichPassword.New, place, host, $"{act} {place}", "");
}
