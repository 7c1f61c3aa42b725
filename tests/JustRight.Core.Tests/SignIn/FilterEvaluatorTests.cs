using JustRight.Core.SignIn.Filters;
using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Tests.SignIn;

/// <summary>Whom a filter finds, row by row; each row holds on the real servers that the filters are compared with elsewhere.</summary>
public sealed class FilterEvaluatorTests
{
    private static readonly ObjectTable Contractors = new(
        PeopleSchemas.InetOrgPerson,
        [
            One(
                "uid=anna,ou=People,dc=x", ("objectClass", "inetOrgPerson"), ("uid", "anna"), ("cn", "Anna  Reed"),
                ("sn", "Reed"), ("mail", "anna@X.example"), ("telephoneNumber", "+1 22-33"), ("memberOf", "cn=g1,dc=x")),
            One(
                "uid=ben,ou=People,dc=x", ("objectClass", "inetOrgPerson"), ("objectClass", "posixAccount"), ("uid", "ben"),
                ("cn", "Ben Möller"), ("sn", "Möller"), ("uidNumber", "10"), ("cn;lang-de-at", "Bene"), ("x121Address", "12 34"),
                ("entryUUID", "0AB7BE6A-0000-4000-8000-00000000000f"), ("createTimestamp", "20261130120000Z"),
                ("seeAlso", "cn=Ida+sn=Lake,dc=x")),
            One("cn=g1,dc=x", ("objectClass", "groupOfNames"), ("cn", "g1"), ("member", "uid=anna,ou=People,dc=x")),
            One("cn=Ida+sn=Lake,dc=x", ("objectClass", "device"), ("cn", "Ida"), ("sn", "Lake")),
        ]);

    private static readonly ObjectTable Staff = new(
        PeopleSchemas.AdLike,
        [
            One(
                "CN=Anna,DC=x", ("objectClass", "top"), ("objectClass", "person"), ("objectClass", "user"),
                ("objectCategory", "CN=Person,CN=Schema,DC=x"), ("sAMAccountName", "anna"), ("userAccountControl", "514"),
                ("memberOf", "CN=g1,DC=x")),
            One(
                "CN=pc,DC=x", ("objectClass", "person"), ("objectClass", "user"), ("objectClass", "computer"),
                ("objectCategory", "CN=Computer,CN=Schema,DC=x"), ("sAMAccountName", "pc$"), ("userAccountControl", "4096")),
            One(
                "CN=g1,DC=x", ("objectClass", "group"), ("objectCategory", "CN=Group,CN=Schema,DC=x"), ("sAMAccountName", "g1"),
                ("groupType", "-2147483646"), ("memberOf", "CN=g2,DC=x"), ("member", "CN=Anna,DC=x")),
            One(
                "CN=g2,DC=x", ("objectClass", "group"), ("objectCategory", "CN=Group,CN=Schema,DC=x"), ("sAMAccountName", "g2"),
                ("groupType", "2"), ("memberOf", "CN=g1,DC=x"), ("member", "CN=g1,DC=x")),
        ]);

    [Theory]
    [InlineData("(&)", "anna ben g1 Ida+sn=Lake")]
    [InlineData("(|)", "")]
    [InlineData("(!(|))", "anna ben g1 Ida+sn=Lake")]
    [InlineData("(objectClass=2.5.6.6)", "anna ben")]
    [InlineData("(objectClass=2.5.6.9)", "g1")]
    [InlineData("(!(objectClass=2.5.6.99))", "")]
    [InlineData("(cn=bene)", "ben")]
    [InlineData("(cn;lang-de-at=bene)", "ben")]
    [InlineData("(CN;Lang-DE-=bene)", "ben")]
    [InlineData("(name;lang-de-at=*)", "ben")]
    [InlineData("(cn;lang-de=bene)", "")]
    [InlineData("(!(cn;lang-fr=*))", "anna ben g1 Ida+sn=Lake")]
    [InlineData("(!(cn;x-none=*))", "")]
    [InlineData("(cn;lang-de-at:dn:=g1)", "")]
    [InlineData("(cn:CASEEXACTMATCH:=g1)", "g1")]
    [InlineData("(mail:caseIgnoreIA5Match:=ANNA@x.example)", "anna")]
    [InlineData("(!(cn:integerMatch:=10))", "")]
    [InlineData("(!(mail:caseIgnoreMatch:=anna@x.example))", "")]
    [InlineData("(uidNumber:2.5.13.14:=10)", "ben")]
    [InlineData("(seeAlso=SN=lake + CN=ida, DC=X)", "ben")]
    [InlineData("(sn:dn:=lake)", "Ida+sn=Lake")]
    [InlineData("(x121Address=1234)", "ben")]
    [InlineData("(x121Address=1 2*4)", "ben")]
    [InlineData("(!(x121Address=12a))", "")]
    [InlineData("(entryUUID=0ab7be6a-0000-4000-8000-00000000000F)", "ben")]
    [InlineData("(!(entryUUID=0ab7be6a))", "")]
    [InlineData("(createTimestamp=202611301200Z)", "ben")]
    [InlineData("(createTimestamp=20261130133000+0130)", "ben")]
    [InlineData("(createTimestamp=2026113011.0-01)", "ben")]
    [InlineData("(createTimestamp>=20261130115959.5Z)", "ben")]
    [InlineData("(!(createTimestamp=20261131120000Z))", "")]
    [InlineData("(!(telephoneNumber=*\\2a*))", "")]
    [InlineData("(uid=ANNA)", "anna")]
    [InlineData("(uid=\\20anna)", "anna")]
    [InlineData("(userid=anna)", "anna")]
    [InlineData("(0.9.2342.19200300.100.1.1=anna)", "anna")]
    [InlineData("(cn= anna   REED )", "anna")]
    [InlineData("(cn=anna*reed)", "anna")]
    [InlineData("(cn=*a r*)", "anna")]
    [InlineData("(cn=ben m\\c3\\96ller)", "ben")]
    [InlineData("(cn=Ben Moller)", "")]
    [InlineData("(cn:caseExactMatch:=Ben Möller)", "ben")]
    [InlineData("(cn:caseExactMatch:=ben möller)", "")]
    [InlineData("(name=reed)", "anna")]
    [InlineData("(:caseIgnoreMatch:=reed)", "anna")]
    [InlineData("(ou:dn:=people)", "anna ben")]
    [InlineData("(mail=ANNA@x.example)", "anna")]
    [InlineData("(telephoneNumber=+12233)", "anna")]
    [InlineData("(telephoneNumber=*2-2*)", "anna")]
    [InlineData("(objectClass=person)", "anna ben")]
    [InlineData("(objectClass=inet*)", "")]
    [InlineData("(uidNumber=010)", "")]
    [InlineData("(uidNumber>=9)", "ben")]
    [InlineData("(uidNumber<=9)", "")]
    [InlineData("(uidNumber:1.2.840.113556.1.4.803:=2)", "ben")]
    [InlineData("(cn>=a)", "")]
    [InlineData("(memberOf=CN=G1, DC=x)", "anna")]
    [InlineData("(memberOf=cn=g*)", "")]
    [InlineData("(member=userid=ANNA,ou=people,dc=X)", "g1")]
    [InlineData("(!(mail=*))", "ben g1 Ida+sn=Lake")]
    [InlineData("(!(mail=x))", "anna ben g1 Ida+sn=Lake")]
    [InlineData("(!(mail=Groß))", "")]
    [InlineData("(!(mail=Groß*))", "")]
    [InlineData("(nosuch=x)", "")]
    [InlineData("(!(nosuch=x))", "")]
    [InlineData("(!(memberOf=garbage))", "")]
    [InlineData("(!(objectClass=nosuchclass))", "")]
    [InlineData("(|(nosuch=x)(uid=anna))", "anna")]
    [InlineData("(!(&(nosuch=x)(uid=zzz)))", "anna ben g1 Ida+sn=Lake")]
    [InlineData("(!(|(nosuch=x)(uid=anna)))", "")]
    [InlineData("(memberOf:1.2.840.113556.1.4.1941:=cn=g1,dc=x)", "")]
    [InlineData("(uid=)", "")]
    public void On_a_directory_of_inetOrgPerson(string filter, string found) => Found(filter, Contractors).ShouldBe(found);

    [Theory]
    [InlineData("(objectClass=user)", "Anna pc")]
    [InlineData("(&(objectClass=user)(objectCategory=person))", "Anna")]
    [InlineData("(objectCategory=user)", "Anna")]
    [InlineData("(objectCategory=CN=Person,CN=Schema,DC=x)", "Anna")]
    [InlineData("(userAccountControl:1.2.840.113556.1.4.803:=2)", "Anna")]
    [InlineData("(!(userAccountControl:1.2.840.113556.1.4.803:=2))", "pc g1 g2")]
    [InlineData("(userAccountControl:1.2.840.113556.1.4.804:=4098)", "Anna pc")]
    [InlineData("(groupType:1.2.840.113556.1.4.803:=2147483648)", "g1")]
    [InlineData("(memberOf=CN=g2,DC=x)", "g1")]
    [InlineData("(memberOf:1.2.840.113556.1.4.1941:=CN=g2,DC=x)", "Anna g1 g2")]
    [InlineData("(member:1.2.840.113556.1.4.1941:=CN=Anna,DC=x)", "g1 g2")]
    [InlineData("(memberOf:1.2.840.113556.1.4.1941:=nothing)", "")]
    [InlineData("(sAMAccountName~=ANNA)", "Anna")]
    [InlineData("(cn:caseExactMatch:=Anna)", "")]
    [InlineData("(groupType>=0)", "g2")]
    public void On_an_AD_like_directory(string filter, string found) => Found(filter, Staff).ShouldBe(found);

    [Theory]
    [InlineData("(uid~=ana)", "(uid~=ana)")]
    [InlineData("(&(uid=anna)(description=x)(!(nosuch=1)))", "(description=x)")]
    [InlineData("(&(uid=anna)(cn=a*))", "")]
    public void What_only_the_directory_can_judge_is_said(string filter, string parts) =>
        string.Join(
            ' ',
            FilterEvaluator.NotJudged(
                FilterParser.Parse(filter), new ObjectTable(PeopleSchemas.InetOrgPerson, Contractors.Objects, ["uid", "cn"]))
                .Select(f => f.Text))
            .ShouldBe(parts);

    [Fact]
    public void The_order_of_text_is_the_controllers_own()
    {
        FilterEvaluator.NotJudged(FilterParser.Parse("(|(sAMAccountName>=b)(userAccountControl<=3)(anr=x))"), Staff)
            .Select(f => f.Text).ShouldBe(["(sAMAccountName>=b)", "(anr=x)"]);
    }

    [Fact]
    public void A_ring_of_groups_ends()
    {
        Found("(memberOf:1.2.840.113556.1.4.1941:=CN=g1,DC=x)", Staff).ShouldBe("Anna g1 g2");
    }

    private static string Found(string filter, ObjectTable table) =>
        string.Join(
            ' ',
            FilterEvaluator.Matching(FilterParser.Parse(filter), table)
                .Select(o => o.Dn[(o.Dn.IndexOf('=', StringComparison.Ordinal) + 1)..].Split(',')[0]));

    private static PeopleObject One(string dn, params (string Attribute, string Value)[] values) =>
        new(
            dn,
            values.GroupBy(v => v.Attribute)
                .ToDictionary(
                    v => v.Key, v => (IReadOnlyList<string>)[.. v.Select(x => x.Value)], StringComparer.OrdinalIgnoreCase));
}
