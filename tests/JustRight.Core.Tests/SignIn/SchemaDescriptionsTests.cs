using JustRight.Core.Directory;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Tests.SignIn;

public sealed class SchemaDescriptionsTests
{
    [Theory]
    [InlineData("surname", "sn", ValueRule.CaseIgnore, false, true)]
    [InlineData("2.5.4.3", "cn", ValueRule.CaseIgnore, false, true)]
    [InlineData("UIDNUMBER", "uidNumber", ValueRule.WholeNumber, true, false)]
    [InlineData("member", "member", ValueRule.Name, false, false)]
    [InlineData("objectClass", "objectClass", ValueRule.Class, false, false)]
    [InlineData("telephoneNumber", "telephoneNumber", ValueRule.Telephone, false, true)]
    public void Rules_come_from_the_attribute_or_from_the_one_above(
        string name, string first, ValueRule rule, bool ordered, bool parts)
    {
        var kind = PeopleSchemas.InetOrgPerson.Attribute(name).ShouldNotBeNull();
        (kind.Name, kind.Rule, kind.Ordered, kind.Parts, kind.Equal).ShouldBe((first, rule, ordered, parts, true));
    }

    [Fact]
    public void An_attribute_without_a_rule_cannot_be_asked_for() =>
        PeopleSchemas.InetOrgPerson.Attribute("jpegPhoto")!.Equal.ShouldBeFalse();

    [Fact]
    public void An_AD_like_directory_compares_by_syntax()
    {
        PeopleSchemas.AdLike.Attribute("userAccountControl")!.Rule.ShouldBe(ValueRule.WholeNumber);
        PeopleSchemas.AdLike.Attribute("memberof")!.Rule.ShouldBe(ValueRule.Name);
        PeopleSchemas.AdLike.Attribute("nothing").ShouldBeNull();
    }

    [Fact]
    public void Classes_know_those_above_them_and_a_ring_ends()
    {
        PeopleSchemas.InetOrgPerson.ClassAndAbove("inetorgperson")
            .ShouldBe(["inetOrgPerson", "organizationalPerson", "person", "top"]);
        var ring = SchemaDescriptions.Read(
            DirectoryFamily.InetOrgPerson, ["( 1.1 NAME 'a' SUP b )", "( 1.2 NAME 'b' SUP a )"],
            ["( 1.3 NAME 'x' SUP y )", "( 1.4 NAME 'y' SUP x )"]);
        ring.ClassAndAbove("x").ShouldBe(["x", "y"]);
        ring.Attribute("a")!.Equal.ShouldBeFalse();
        ring.WithKindsBelow(ring.Attribute("a")!).Count().ShouldBe(2);
    }

    [Theory]
    [InlineData("")]
    [InlineData("nonsense")]
    [InlineData("( 1.2.3 )")]
    [InlineData("( 1.2.3 NAME ( ) )")]
    [InlineData("( 1.2.3 NAME )")]
    public void What_cannot_be_read_is_left_out(string text) =>
        SchemaDescriptions.Read(DirectoryFamily.InetOrgPerson, [text], [text]).AttributeNames.ShouldBeEmpty();
}
