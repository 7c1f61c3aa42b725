namespace JustRight.Core.Conditions;

/// <summary>
/// Evaluates a well-typed condition. A name without a value (a release the estate does not state) makes the answer unknown
/// unless the other side settles it: <c>no and unknown</c> is no, <c>yes or unknown</c> is yes.
/// </summary>
public static class ConditionEvaluator
{
    /// <summary>True, false, or null when it hangs on a value that is not known.</summary>
    /// <param name="condition">A condition that passed <see cref="ConditionTypes.Check"/>.</param>
    /// <param name="value">The value of a name, or null when it is not known.</param>
    public static bool? Evaluate(Condition condition, Func<string, ConditionValue?> value) => Value(condition, value)?.YesNo;

    /// <summary>The value of any expression, or null when it is not known.</summary>
    public static ConditionValue? Value(Condition condition, Func<string, ConditionValue?> value) => condition switch
    {
        Condition.Literal literal => literal.Value,
        Condition.Name name => value(name.Text),
        Condition.Not not => Evaluate(not.Inner, value) is { } inner ? ConditionValue.Of(!inner) : null,
        Condition.And and => (Evaluate(and.Left, value), Evaluate(and.Right, value)) switch
        {
            (false, _) or (_, false) => ConditionValue.Of(false),
            (true, true) => ConditionValue.Of(true),
            _ => null,
        },
        Condition.Or or => (Evaluate(or.Left, value), Evaluate(or.Right, value)) switch
        {
            (true, _) or (_, true) => ConditionValue.Of(true),
            (false, false) => ConditionValue.Of(false),
            _ => null,
        },
        Condition.Compare compare => Value(compare.Left, value) is { } left && Value(compare.Right, value) is { } right
            ? ConditionValue.Of(Compare(left, compare.Operator, right))
            : null,
        _ => throw new InvalidOperationException($"Unknown condition {condition.GetType().Name}."),
    };

    private static bool Compare(ConditionValue left, string op, ConditionValue right) => op switch
    {
        "in" => (left.Type == ValueType.Text ? [left.Text] : left.Hosts)
            .All(h => right.Hosts.Contains(h, StringComparer.OrdinalIgnoreCase)),
        "=" => Same(left, right),
        "!=" => !Same(left, right),
        "<" => left.Number < right.Number,
        "<=" => left.Number <= right.Number,
        ">" => left.Number > right.Number,
        ">=" => left.Number >= right.Number,
        _ => throw new InvalidOperationException($"Unknown comparison {op}."),
    };

    private static bool Same(ConditionValue a, ConditionValue b) => a.Type switch
    {
        ValueType.YesNo => a.YesNo == b.YesNo,
        ValueType.Number => a.Number == b.Number,
        ValueType.Text => string.Equals(a.Text, b.Text, StringComparison.OrdinalIgnoreCase),
        ValueType.Hosts => a.Hosts.ToHashSet(StringComparer.OrdinalIgnoreCase).SetEquals(b.Hosts),
    };
}
