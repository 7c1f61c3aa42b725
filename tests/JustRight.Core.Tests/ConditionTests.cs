using CsCheck;
using JustRight.Core.Conditions;
using JustRight.Core.Faults;

namespace JustRight.Core.Tests;

public sealed class ConditionTests
{
    private static readonly Dictionary<string, Conditions.ValueType> Names = new()
    {
        ["web"] = Conditions.ValueType.Hosts,
        ["store.host"] = Conditions.ValueType.Hosts,
        ["store.release"] = Conditions.ValueType.Number,
        ["store.engine"] = Conditions.ValueType.Text,
        ["jobs"] = Conditions.ValueType.YesNo,
        ["unstated.release"] = Conditions.ValueType.Number,
    };

    [Theory]
    [InlineData("jobs", true)]
    [InlineData("not jobs", false)]
    [InlineData("store.release >= 13", true)]
    [InlineData("store.release >= 15.0.1", false)]
    [InlineData("store.release = 15", true)] // 15.0 is 15
    [InlineData("store.release != 15", false)]
    [InlineData("store.release < 16 and jobs", true)]
    [InlineData("no or store.release > 14", true)]
    [InlineData("not (jobs and no)", true)]
    [InlineData("store.engine = 'SQLServer'", true)]
    [InlineData("store.host in web", false)]
    [InlineData("store.host not in web", true)]
    [InlineData("'fm-web01' in web", true)]
    [InlineData("no and unstated.release > 1", false)] // settled by the other side
    [InlineData("jobs or unstated.release > 1", true)]
    [InlineData("unstated.release > 1", null)]
    [InlineData("not unstated.release > 1", null)]
    [InlineData("not not jobs", true)]
    public void Conditions_come_out(string text, bool? expected)
    {
        var condition = Parse(text);
        var faults = new List<Fault>();
        ConditionTypes.Check(condition, Names, "when", faults);
        faults.ShouldBeEmpty();
        ConditionEvaluator.Evaluate(condition, Value).ShouldBe(expected);
    }

    [Theory]
    [InlineData("jobs and", 9, "the end")]
    [InlineData("jobs jobs", 6, "'j'")]
    [InlineData("(jobs", 6, "the end")]
    [InlineData("store.release >", 16, "the end")]
    [InlineData("'open", 1, "'''")]
    [InlineData("and", 1, "'and'")]
    [InlineData("jobs $ no", 6, "'$'")]
    [InlineData("", 1, "the end")]
    public void Faults_of_form_stand_where_they_are(string text, int column, string found)
    {
        ConditionParser.TryParse(text, new Origin("s.yaml", 4, 1), "when", out _, out var fault).ShouldBeFalse();
        fault!.At.ShouldBe(new Origin("s.yaml", 4, column));
        fault.Found.ShouldBe(found);
    }

    [Theory]
    [InlineData("job", "undeclared-name", "jobs")]
    [InlineData("store.release", null, null)]
    [InlineData("store.release > 'x'", "condition-type", null)]
    [InlineData("jobs > 1", "condition-type", null)]
    [InlineData("web in 3", "condition-type", null)]
    [InlineData("web = jobs", "condition-type", null)]
    [InlineData("jobs and web", "condition-type", null)]
    public void Faults_of_type_are_found(string text, string? code, string? nearest)
    {
        var faults = new List<Fault>();
        var type = ConditionTypes.Check(Parse(text), Names, "when", faults);
        if (code is null)
        {
            faults.ShouldBeEmpty();
            type.ShouldBe(Conditions.ValueType.Number);
            return;
        }

        faults.ShouldHaveSingleItem().Code.ShouldBe(code);
        if (nearest is not null) faults[0].Nearest.ShouldBe(nearest);
    }

    [Fact]
    public void Deep_nesting_is_refused_not_followed() =>
        ConditionParser.TryParse(new string('(', 500) + "jobs" + new string(')', 400), Origin.None, "when", out _, out _)
            .ShouldBeFalse();

    [Fact]
    public void Any_text_either_parses_or_gives_one_fault() => Gen.String[Gen.Char["ab .'()<>=!in ot1\n"], 0, 60].Sample(text =>
        ConditionParser.TryParse(text, Origin.None, "when", out var condition, out var fault)
            .ShouldBe(condition is not null && fault is null));

    private static Condition Parse(string text)
    {
        ConditionParser.TryParse(text, Origin.None, "when", out var condition, out var fault).ShouldBeTrue(fault?.ToString());
        return condition!;
    }

    private static ConditionValue? Value(string name) => name switch
    {
        "web" => ConditionValue.Of(["fm-web01", "fm-web02"]),
        "store.host" => ConditionValue.Of(["fm-sql01"]),
        "store.release" => DottedNumber.TryParse("15.0", out var n) ? ConditionValue.Of(n) : null,
        "store.engine" => ConditionValue.Of("sqlserver"),
        "jobs" => ConditionValue.Of(true),
        _ => null,
    };
}
