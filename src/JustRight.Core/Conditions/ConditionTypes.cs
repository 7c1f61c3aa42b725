using JustRight.Core.Faults;

namespace JustRight.Core.Conditions;

/// <summary>Checks that a condition is well typed: every name is declared, and comparisons compare like with like.</summary>
public static class ConditionTypes
{
    /// <summary>
    /// The type of a condition; faults are added to <paramref name="faults"/>, and null is returned for what has none.
    /// </summary>
    /// <param name="condition">What to check.</param>
    /// <param name="names">Every declared name with its type.</param>
    /// <param name="field">The path of keys, for faults.</param>
    /// <param name="faults">Where faults go.</param>
    public static ValueType? Check(
        Condition condition, IReadOnlyDictionary<string, ValueType> names, string field, ICollection<Fault> faults)
    {
        switch (condition)
        {
            case Condition.Literal literal:
                return literal.Value.Type;
            case Condition.Name name:
                if (names.TryGetValue(name.Text, out var type)) return type;
                faults.Add(new Fault(
                    "undeclared-name", name.At, field, $"'{name.Text}' is not a fact, a question or a place of this sheet.")
                {
                    Expected = "a declared fact, question or place, or a place's host, release or engine",
                    Nearest = Spelling.Nearest(name.Text, names.Keys),
                });
                return null;
            case Condition.Not not:
                Expect(not.Inner, ValueType.YesNo);
                return ValueType.YesNo;
            case Condition.And and:
                Expect(and.Left, ValueType.YesNo);
                Expect(and.Right, ValueType.YesNo);
                return ValueType.YesNo;
            case Condition.Or or:
                Expect(or.Left, ValueType.YesNo);
                Expect(or.Right, ValueType.YesNo);
                return ValueType.YesNo;
            case Condition.Compare compare:
                var left = Check(compare.Left, names, field, faults);
                var right = Check(compare.Right, names, field, faults);
                if (left is null || right is null) return ValueType.YesNo;
                var fits = compare.Operator switch
                {
                    "in" => right is ValueType.Hosts && left is ValueType.Hosts or ValueType.Text,
                    "=" or "!=" => left == right,
                    _ => left is ValueType.Number && right is ValueType.Number,
                };
                if (!fits)
                {
                    faults.Add(new Fault("condition-type", compare.At, field, $"'{compare.Operator}' cannot compare these two.")
                    {
                        Found = $"{Words(left.Value)} {compare.Operator} {Words(right.Value)}",
                        Expected = compare.Operator switch
                        {
                            "in" => "hosts in hosts",
                            "=" or "!=" => "two of the same type",
                            _ => "two numbers",
                        },
                    });
                }

                return ValueType.YesNo;
            default:
                throw new InvalidOperationException($"Unknown condition {condition.GetType().Name}.");
        }

        void Expect(Condition inner, ValueType wanted)
        {
            if (Check(inner, names, field, faults) is not { } found || found == wanted) return;
            faults.Add(new Fault("condition-type", inner.At, field, "This part of the condition is of the wrong type.")
            {
                Found = Words(found),
                Expected = Words(wanted),
            });
        }
    }

    private static string Words(ValueType type) => type switch
    {
        ValueType.YesNo => "a yes or no",
        ValueType.Number => "a number",
        ValueType.Text => "a text",
        ValueType.Hosts => "hosts",
    };
}
