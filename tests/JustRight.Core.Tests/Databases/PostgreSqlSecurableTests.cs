using JustRight.Core.Engines.PostgreSql;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Databases;

/// <summary>Names of what privileges are on: read and written alike, whatever they hold.</summary>
public sealed class PostgreSqlSecurableTests
{
    [Theory]
    [InlineData("SCHEMA::sales", "SCHEMA::sales")]
    [InlineData("schema::Sales", "SCHEMA::Sales")]
    [InlineData("OBJECT::sales.orders", "OBJECT::sales.orders")]
    [InlineData("OBJECT::\"a.b\".c", "OBJECT::\"a.b\".c")]
    [InlineData("OBJECT::\"plain\".c", "OBJECT::plain.c")]
    [InlineData("OBJECT::a.\"say \"\"no\"\"\"", "OBJECT::a.\"say \"\"no\"\"\"")]
    [InlineData("COLUMN::s.t.c", "COLUMN::s.t.c")]
    [InlineData("ROUTINE::s.f(integer,text)", "ROUTINE::s.f(integer, text)")]
    [InlineData("ROUTINE::s.\"f(\"()", "ROUTINE::s.\"f(\"()")]
    [InlineData("FOREIGN SERVER::x", "FOREIGN SERVER::x")]
    [InlineData("OBJECT::orders", null)]
    [InlineData("OBJECT::a.b.c", null)]
    [InlineData("OBJECT::a.\"b", null)]
    [InlineData("OBJECT::a.\"b\"c", null)]
    [InlineData("OBJECT::a.", null)]
    [InlineData("ROUTINE::s.f", null)]
    [InlineData("SCHEMA::a.b", null)]
    [InlineData("TABLE::a.b", null)]
    [InlineData("sales", null)]
    public void Words_are_read(string text, string? read) =>
        (PostgreSqlSecurable.TryParse(text)?.Words).ShouldBe(read);

    [Fact]
    public void What_is_written_is_read_again()
    {
        var random = new Random(1);
        for (var i = 0; i < 5_000; i++)
        {
            var kind = Enum.GetValues<SecurableClass>()[random.Next(Enum.GetValues<SecurableClass>().Length)];
            var hasSchema = kind is SecurableClass.Relation or SecurableClass.Column or SecurableClass.Routine
                or SecurableClass.Type;
            var thing = new PostgreSqlSecurable(
                kind, hasSchema ? Any() : null, Any(),
                kind == SecurableClass.Column ? Any() : kind == SecurableClass.Routine ? "integer, text[]" : null);
            PostgreSqlSecurable.TryParse(thing.Words).ShouldBe(thing, thing.Words);
        }

        string Any() => string.Concat(Enumerable.Range(0, random.Next(1, 5)).Select(_ => "ab.\"() A:"[random.Next(9)]));
    }

    [Theory]
    [InlineData("TEMP", "TEMPORARY")]
    [InlineData("select on object::S.T", "SELECT on OBJECT::S.T")]
    [InlineData("owner on schema::s", "OWNER on SCHEMA::s")]
    [InlineData("SELECT on NOTHING::x", "SELECT on NOTHING::x")]
    public void A_need_says_what_it_is_on(string need, string words) =>
        DatabasePrivilegeRight.Parse("p", "Store", need).Words.ShouldBe(words);

    [Fact]
    public void Names_that_differ_by_case_are_different_rights()
    {
        var right = new DatabasePrivilegeRight("P", "Store", "select", "OBJECT::s.t");
        right.ShouldBe(new DatabasePrivilegeRight("p", "Store", "SELECT", "object::s.t"));
        right.ShouldNotBe(new DatabasePrivilegeRight("p", "Store", "SELECT", "OBJECT::s.T"));
        right.ShouldNotBe(new DatabasePrivilegeRight("p", "store", "SELECT", "OBJECT::s.t"));
    }
}
