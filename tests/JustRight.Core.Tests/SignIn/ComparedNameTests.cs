using JustRight.Core.SignIn.Objects;

namespace JustRight.Core.Tests.SignIn;

/// <summary>Names as directories compare them [RFC 4514, RFC 4517 4.2.15].</summary>
public sealed class ComparedNameTests
{
    [Theory]
    [InlineData("cn=anna,ou=people,dc=fennmoor", "CN=Anna, OU=People , DC=FENNMOOR")]
    [InlineData("cn=anna", "commonName=anna")]
    [InlineData("cn=anna", "2.5.4.3=anna")]
    [InlineData("cn=anna", "OID.2.5.4.3=anna")]
    [InlineData("uid=anna", "userId=ANNA")]
    [InlineData("uid=anna", "0.9.2342.19200300.100.1.1=anna")]
    [InlineData(@"cn=Brandt\, Anna", @"cn=Brandt\2c Anna")]
    [InlineData(@"cn=Brandt\, Anna", @"cn=Brandt\2C  Anna")]
    [InlineData(@"cn=\c3\a9lan", "cn=\u00c9lan")]
    [InlineData("cn=a b", "cn=a   b")]
    [InlineData(@"cn=\ a", "cn=a")]
    [InlineData("cn=anna", "cn=#0c04416e6e61")]
    [InlineData("cn=anna", "cn=#1304616e6e61")]
    [InlineData("cn=anna+uid=a.brandt,dc=x", "UID=A.Brandt+CN=Anna,DC=x")]
    public void Two_spellings_of_a_name_are_one(string one, string other)
    {
        ComparedName.KeyOf(other).ShouldBe(ComparedName.KeyOf(one));
        Read(one).Equals(Read(other)).ShouldBeTrue();
        Read(one).GetHashCode().ShouldBe(Read(other).GetHashCode());
        Read(one).IsAtOrBelow(Read(other)).ShouldBeTrue();
    }

    [Theory]
    [InlineData("cn=anna", "uid=anna")]
    [InlineData("cn=anna,dc=x", "cn=anna+uid=a,dc=x")]
    [InlineData("cn=a b", "cn=ab")]
    [InlineData(@"cn=a\,dc=x", "cn=a,dc=x")]
    [InlineData("cn=#04016e", "cn=n")]
    public void Two_names_are_two(string one, string other) => Read(one).Equals(Read(other)).ShouldBeFalse();

    [Theory]
    [InlineData("cn=anna,ou=People,dc=x", "OU=people, DC=x", true)]
    [InlineData("cn=anna,ou=People,dc=x", "dc=x", true)]
    [InlineData("cn=anna,ou=People,dc=x", "", true)]
    [InlineData("ou=People,dc=x", "cn=anna,ou=People,dc=x", false)]
    [InlineData(@"cn=a\,ou=People,dc=x", "ou=People,dc=x", false)]
    [InlineData("cn=anna,ou=XPeople,dc=x", "ou=People,dc=x", false)]
    [InlineData("nothing", "dc=x", false)]
    public void A_name_is_at_or_below_another(string name, string above, bool below) =>
        ComparedName.IsAtOrBelow(name, above).ShouldBe(below);

    [Theory]
    [InlineData("anna")]
    [InlineData("=anna")]
    [InlineData("cn=")]
    [InlineData("cn=anna+")]
    [InlineData("cn=#zz")]
    [InlineData("cn=#0c")]
    [InlineData(@"cn=a\")]
    [InlineData("cn=anna,,dc=x")]
    public void What_is_no_name_is_none_and_is_its_own_key(string text)
    {
        ComparedName.TryRead(text, out _).ShouldBeFalse();
        ComparedName.KeyOf(text).ShouldBe(text);
    }

    private static ComparedName Read(string text)
    {
        ComparedName.TryRead(text, out var name).ShouldBeTrue(text);
        return name!;
    }
}
