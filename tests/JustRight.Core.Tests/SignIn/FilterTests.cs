using System.Text;
using CsCheck;
using JustRight.Core.SignIn.Filters;

namespace JustRight.Core.Tests.SignIn;

/// <summary>Filters as text, and in words.</summary>
public sealed class FilterTests
{
    private static readonly Gen<FilterValue> AnyValue = Gen.OneOf(
        Gen.Byte.Array[1, 8].Select(o => new FilterValue(o)),
        Gen.OneOfConst(
            "*", "(", ")", "\\", ",", "+", "\"", "<", ">", ";", "=", "#", " x", "x ", " ", "\0", "Müller", "名前", "🧀", "a*b",
            "admin)(|(uid=*", "\\2a")
            .Select(FilterValue.Of));

    private static readonly Gen<string> AnyAttribute = Gen.OneOfConst(
        "cn", "mail", "sAMAccountName", "2.5.4.3", "userCertificate;binary");

    private static Gen<Filter> AnyFilter(int depth) => Gen.OneOf(
        AnyAttribute.Select(a => (Filter)new Filter.Present(a)),
        Gen.Select(AnyAttribute, AnyValue).Select((a, v) => (Filter)new Filter.Same(a, v)),
        Gen.Select(AnyAttribute, AnyValue).Select((a, v) => (Filter)new Filter.AtLeast(a, v)),
        Gen.Select(AnyAttribute, AnyValue).Select((a, v) => (Filter)new Filter.AtMost(a, v)),
        Gen.Select(AnyAttribute, AnyValue).Select((a, v) => (Filter)new Filter.About(a, v)),
        Gen.Select(AnyAttribute, AnyValue, AnyValue.List[0, 2], AnyValue)
            .Select((a, s, m, e) => (Filter)new Filter.Like(a, s, m, e)),
        Gen.Select(AnyAttribute, AnyValue.List[1, 2]).Select((a, m) => (Filter)new Filter.Like(a, null, m, null)),
        Gen.Select(AnyAttribute, Gen.Bool, AnyValue).Select((a, n, v) => (Filter)new Filter.ByRule(a, MatchingRules.Chain, n, v)),
        Gen.Select(Gen.Bool, AnyValue).Select((n, v) => (Filter)new Filter.ByRule(null, "caseExactMatch", n, v)),
        depth == 0 ? AnyAttribute.Select(a => (Filter)new Filter.Present(a)) : Gen.OneOf(
            AnyFilter(depth - 1).List[1, 3].Select(p => (Filter)new Filter.And(p)),
            AnyFilter(depth - 1).List[1, 3].Select(p => (Filter)new Filter.Or(p)),
            AnyFilter(depth - 1).Select(p => (Filter)new Filter.Not(p))));

    [Fact]
    public void What_is_written_is_read_as_it_was() =>
        AnyFilter(3).Sample(f => FilterParser.Parse(f.Text).Text == f.Text, iter: 20_000);

    [Fact]
    public void A_value_stays_one_value_whatever_it_holds() =>
        AnyValue.Sample(
            v => FilterParser.Parse(
                $"(&(objectClass=person)(uid={v.Escaped}))") is Filter.And
            {
                Parts: [
                    Filter.Same, Filter.Same { Value: var read }]
            }
                && read.Equals(v),
            iter: 20_000);

    [Fact]
    public void No_text_breaks_the_reader_and_what_it_takes_it_takes_again() =>
        Gen.Select(
            Gen.Int[0, 30],
            Gen.OneOfConst(
                "(", ")", "&", "|", "!", "=", "*", "\\", "\\2", ":", "dn", ">", "<", "~", "a", " ", "cn", "\ud83e", "é", "5c",
                "1.2", "\0").List[0, 30])
            .Select((_, parts) => string.Concat(parts))
            .Sample(
                text =>
                {
                    if (!FilterParser.TryParse(text, out var filter, out var fault))
                        return fault.Position >= 0 && fault.Position <= text.Length && fault.Expected.Length > 0;
                    return FilterParser.Parse(filter.Text).Text == filter.Text;
                },
                iter: 50_000);

    [Theory]
    [InlineData("(cn=Babs Jensen)", "(cn=Babs Jensen)")] // the examples of RFC 4515 4
    [InlineData("(!(cn=Tim Howes))", "(!(cn=Tim Howes))")]
    [InlineData("(&(objectClass=Person)(|(sn=Jensen)(cn=Babs J*)))", "(&(objectClass=Person)(|(sn=Jensen)(cn=Babs J*)))")]
    [InlineData("(o=univ*of*mich*)", "(o=univ*of*mich*)")]
    [InlineData("(seeAlso=)", "(seeAlso=)")]
    [InlineData("(cn:caseExactMatch:=Fred Flintstone)", "(cn:caseExactMatch:=Fred Flintstone)")]
    [InlineData("(cn:=Betty Rubble)", "(cn:=Betty Rubble)")]
    [InlineData("(sn:dn:2.4.6.8.10:=Barney Rubble)", "(sn:dn:2.4.6.8.10:=Barney Rubble)")]
    [InlineData("(o:dn:=Ace Industry)", "(o:dn:=Ace Industry)")]
    [InlineData("(:1.2.3:=Wilma Flintstone)", "(:1.2.3:=Wilma Flintstone)")]
    [InlineData("(:DN:2.4.6.8.10:=Dino)", "(:dn:2.4.6.8.10:=Dino)")]
    [InlineData(
        @"(o=Parens R Us \28for all your parenthetical needs\29)", @"(o=Parens R Us \28for all your parenthetical needs\29)")]
    [InlineData(@"(cn=*\2A*)", @"(cn=*\2a*)")]
    [InlineData(@"(filename=C:\5cMyFile)", @"(filename=C:\5cMyFile)")]
    [InlineData(@"(bin=\00\00\00\04)", @"(bin=\00\00\00\04)")]
    [InlineData(@"(sn=Lu\c4\8di\c4\87)", @"(sn=Lu\c4\8di\c4\87)")]
    [InlineData("(sn=Lučić)", @"(sn=Lu\c4\8di\c4\87)")]
    [InlineData("(1.3.6.1.4.1.1466.0=\\04\\02\\48\\69)", @"(1.3.6.1.4.1.1466.0=\04\02Hi)")]
    [InlineData("( & (objectClass=user)\n   (mail=*) )", "(&(objectClass=user)(mail=*))")] // as people lay them out
    [InlineData("(cn=x )", @"(cn=x\20)")] // a space at the end counts, and shows
    public void A_filter_is_read(string text, string written) => FilterParser.Parse(text).Text.ShouldBe(written);

    [Theory]
    [InlineData("", 0, "'('")]
    [InlineData("cn=x", 0, "'('")]
    [InlineData("(cn=x", 5, "')'")]
    [InlineData("(cn=x))", 6, "one filter, in parentheses")]
    [InlineData("(&(cn=x)cn=y)", 8, "')'")]
    [InlineData("(cn=a(b)", 5, @"\28")]
    [InlineData(@"(cn=a\b)", 5, @"two hexadecimal digits after it, such as \5c for a backslash")]
    [InlineData(@"(cn=DOMAIN\svc)", 10, @"two hexadecimal digits after it, such as \5c for a backslash")]
    [InlineData("(cn>=a*)", 6, @"\2a")]
    [InlineData("(cn=a**b)", 8, @"one asterisk, or \2a for a literal asterisk")]
    [InlineData("(=x)", 1, "a name such as mail, or a number such as 2.5.4.3")]
    [InlineData("(c n=x)", 1, "a name such as mail, or a number such as 2.5.4.3")]
    [InlineData("(cn)", 3, "=, >=, <=, ~= or :=")]
    [InlineData("(:=x)", 1, "an attribute, a rule, or both")]
    [InlineData("(cn:two words:=x)", 4, "a rule such as 1.2.840.113556.1.4.803")]
    [InlineData("(!(cn=x)(cn=y))", 8, "')'")]
    public void What_is_no_filter_is_refused_with_the_place_and_what_would_do(string text, int position, string expected)
    {
        FilterParser.TryParse(text, out _, out var fault).ShouldBeFalse();
        (fault!.Position, fault.Expected).ShouldBe((position, expected), fault.ToString());
    }

    [Fact]
    public void Nesting_has_an_end()
    {
        FilterParser.TryParse(string.Concat(Enumerable.Repeat("(!", 100)) + "(a=b)" + new string(')', 100), out _, out _)
            .ShouldBeTrue();
        FilterParser.TryParse(string.Concat(Enumerable.Repeat("(!", 100_000)), out _, out var fault).ShouldBeFalse();
        fault!.Message.ShouldBe("This is nested too deep.");
    }

    [Fact]
    public void A_value_that_is_no_text_is_kept_as_octets()
    {
        var value = new FilterValue([0xff, 0x41]);
        value.Text.ShouldBeNull();
        value.ToString().ShouldBe(@"\ffA");
        Should.Throw<ArgumentException>(() => FilterValue.Of("\ud83e"));
        FilterValue.Of("🧀").Octets.ToArray().ShouldBe(Encoding.UTF8.GetBytes("🧀"));
    }

    [Theory]
    [InlineData("(mail=*)", "have mail")]
    [InlineData(
        "(&(objectCategory=person)(objectClass=user)(!(userAccountControl:1.2.840.113556.1.4.803:=2)))",
        "have objectCategory 'person' and are of class user and are not disabled")]
    [InlineData(
        "(memberOf:1.2.840.113556.1.4.1941:=CN=app-portal,DC=x)", "are in CN=app-portal,DC=x, directly or through other groups")]
    [InlineData("(memberOf=CN=app-portal,DC=x)", "are directly in CN=app-portal,DC=x")]
    [InlineData(
        "(&(objectClass=group)(|(cn=app-*)(cn=*-portal)(cn=a*b*c)))",
        "are of class group and (have cn that begins with 'app-' or have cn that ends with '-portal' or have cn that begins with 'a' and contains 'b' and ends with 'c')")]
    [InlineData("(!(|(objectClass=computer)(mail=*)))", "do not (are of class computer or have mail)")]
    [InlineData("(!(mail=*))", "have no mail")]
    [InlineData(
        "(userAccountControl:1.2.840.113556.1.4.803:=66048)", "are an ordinary account and with a password that never expires")]
    [InlineData("(userAccountControl:1.2.840.113556.1.4.803:=1)", "have all bits of 1 set in userAccountControl")]
    [InlineData("(groupType:1.2.840.113556.1.4.804:=6)", "have a bit of 6 set in groupType")]
    [InlineData("(|(uid=mferris)(uid=))", "have uid 'mferris' or have an empty uid")]
    [InlineData("(&(cn=x))", "have cn 'x'")]
    [InlineData("(whenCreated>=20260101000000.0Z)", "have whenCreated '20260101000000.0Z' or after")]
    [InlineData("(cn:dn:caseExactMatch:=X)", "have cn that matches 'X' by the rule caseExactMatch, or that in their name")]
    public void A_filter_is_said_in_words(string filter, string words) =>
        FilterWords.Of(FilterParser.Parse(filter)).ShouldBe(words);
}
