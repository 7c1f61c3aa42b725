using JustRight.Core.Faults;

namespace JustRight.Core.Conditions;

/// <summary>The types a condition works with. A <see cref="Hosts"/> value is the set of hosts a place stands on.</summary>
public enum ValueType
{
    /// <summary>True or false.</summary>
    YesNo,

    /// <summary>A dotted number such as <c>13</c> or <c>15.0.4</c>; missing parts count as zero.</summary>
    Number,

    /// <summary>Text, compared without regard to case.</summary>
    Text,

    /// <summary>One host, or several.</summary>
    Hosts,
}

/// <summary>A parsed condition. A closed hierarchy: the nested records are all there are.</summary>
public abstract record Condition(Origin At)
{
    /// <summary>A literal.</summary>
    public sealed record Literal(ConditionValue Value, Origin At) : Condition(At);

    /// <summary>A fact, a question, a place, or a property of a place (<c>store.release</c>).</summary>
    public sealed record Name(string Text, Origin At) : Condition(At);

    /// <summary>Negation.</summary>
    public sealed record Not(Condition Inner, Origin At) : Condition(At);

    /// <summary>Both.</summary>
    public sealed record And(Condition Left, Condition Right, Origin At) : Condition(At);

    /// <summary>Either.</summary>
    public sealed record Or(Condition Left, Condition Right, Origin At) : Condition(At);

    /// <summary>A comparison; <paramref name="Operator"/> is one of <c>= != &lt; &lt;= &gt; &gt;= in</c>.</summary>
    public sealed record Compare(Condition Left, string Operator, Condition Right, Origin At) : Condition(At);
}

/// <summary>A value of one of the four types.</summary>
public sealed record ConditionValue(ValueType Type, bool YesNo, DottedNumber Number, string Text, IReadOnlyList<string> Hosts)
{
    /// <summary>A yes or no.</summary>
    public static ConditionValue Of(bool value) => new(ValueType.YesNo, value, default, "", []);

    /// <summary>A dotted number.</summary>
    public static ConditionValue Of(DottedNumber value) => new(ValueType.Number, false, value, "", []);

    /// <summary>Text.</summary>
    public static ConditionValue Of(string value) => new(ValueType.Text, false, default, value, []);

    /// <summary>A set of hosts.</summary>
    public static ConditionValue Of(IReadOnlyList<string> hosts) => new(ValueType.Hosts, false, default, "", hosts);
}
