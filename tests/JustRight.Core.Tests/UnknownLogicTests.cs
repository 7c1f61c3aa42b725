using CsCheck;
using JustRight.Core.Conditions;
using JustRight.Core.Faults;

namespace JustRight.Core.Tests;

/// <summary>
/// What is not known is never guessed: a condition over facts of which some are unknown says yes or no just when every way of
/// filling them in says the same of each part that decides it.
/// </summary>
public sealed class UnknownLogicTests
{
    private static readonly string[] Names = ["a", "b", "c"];

    // Random conditions over three facts, and random values for them, unknown included.
    private static readonly Gen<Condition> Conditions = Gen.Recursive<Condition>((depth, inner) =>
    {
        var name = Gen.Int[0, 2].Select(i => (Condition)new Condition.Name(Names[i], Origin.None));
        if (depth > 4) return name;
        return Gen.OneOf(
            name,
            inner.Select(c => (Condition)new Condition.Not(c, Origin.None)),
            Gen.Select(inner, inner).Select((l, r) => (Condition)new Condition.And(l, r, Origin.None)),
            Gen.Select(inner, inner).Select((l, r) => (Condition)new Condition.Or(l, r, Origin.None)));
    });

    private static readonly Gen<bool?[]> Values = Gen.Int[0, 2].Select(i => i == 0 ? (bool?)null : i == 1).Array[3];

    [Fact]
    public void A_yes_or_no_stands_however_the_unknown_is_filled_in() =>
        Gen.Select(Conditions, Values).Sample((condition, values) =>
    {
        if (Evaluate(condition, values) is not { } answer) return;
        foreach (var filled in Fillings(values)) Evaluate(condition, filled).ShouldBe(answer);
    });

    [Fact]
    public void With_everything_known_there_is_always_an_answer_and_it_is_that_of_plain_logic() =>
        Gen.Select(Conditions, Values).Sample((condition, values) =>
    {
        foreach (var filled in Fillings(values)) Evaluate(condition, filled).ShouldBe(Plain(condition, filled));
    });

    [Fact]
    public void Negation_twice_is_nothing_and_the_laws_of_De_Morgan_hold() =>
        Gen.Select(Conditions, Conditions, Values).Sample((l, r, values) =>
    {
        Evaluate(new Condition.Not(new Condition.Not(l, Origin.None), Origin.None), values).ShouldBe(Evaluate(l, values));
        var notAnd = new Condition.Not(new Condition.And(l, r, Origin.None), Origin.None);
        var orNot = new Condition.Or(new Condition.Not(l, Origin.None), new Condition.Not(r, Origin.None), Origin.None);
        Evaluate(notAnd, values).ShouldBe(Evaluate(orNot, values));
    });

    private static bool? Evaluate(Condition condition, bool?[] values) =>
        ConditionEvaluator.Evaluate(
            condition, name => values[Array.IndexOf(Names, name)] is { } known ? ConditionValue.Of(known) : null);

    private static bool Plain(Condition condition, bool?[] values) => condition switch
    {
        Condition.Name n => values[Array.IndexOf(Names, n.Text)]!.Value,
        Condition.Not n => !Plain(n.Inner, values),
        Condition.And a => Plain(a.Left, values) & Plain(a.Right, values),
        Condition.Or o => Plain(o.Left, values) | Plain(o.Right, values),
        _ => throw new InvalidOperationException(),
    };

    private static IEnumerable<bool?[]> Fillings(bool?[] values)
    {
        for (var bits = 0; bits < 8; bits++)
        {
            var filled = values.Select((v, i) => v ?? ((bits >> i) & 1) == 1).Select(v => (bool?)v).ToArray();
            yield return filled;
        }
    }
}
