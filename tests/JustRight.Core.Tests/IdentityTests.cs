using CsCheck;
using JustRight.Core.Directory;
using JustRight.Core.Faults;

namespace JustRight.Core.Tests;

/// <summary>SIDs and distinguished names: round trips, equality, refusals.</summary>
public sealed class IdentityTests
{
    private static readonly Gen<string> SidText = Gen.Select(
        Gen.ULong[0, 0xFFFF_FFFF_FFFF], Gen.UInt.Array[1, 15]).Select((authority, subs) =>
        $"S-1-{(authority > uint.MaxValue ? $"0x{authority:X12}" : authority.ToString(System.Globalization.CultureInfo.InvariantCulture))}-{string.Join('-', subs)}");

    [Fact]
    public void Sids_survive_text_and_bytes() => SidText.Sample(text =>
    {
        var sid = Sid.Parse(text);
        sid.ToString().ShouldBe(text);
        Sid.TryFromBytes(sid.ToBytes(), out var again).ShouldBeTrue();
        again.ShouldBe(sid);
        again.GetHashCode().ShouldBe(sid.GetHashCode());
    });

    [Fact]
    public void Any_bytes_are_read_or_refused() => Gen.Byte.Array[0, 80].Sample(bytes =>
    {
        if (Sid.TryFromBytes(bytes, out var sid)) sid.ToBytes().ShouldBe(bytes);
    });

    [Theory]
    [InlineData("")]
    [InlineData("S-1-5")]
    [InlineData("S-2-5-18")]
    [InlineData("S-1-5-18x")]
    [InlineData("S-1-5--18")]
    [InlineData("S-1-4294967296-1")] // an authority above 32 bits is written in hex
    [InlineData("S-1-5-1-2-3-4-5-6-7-8-9-10-11-12-13-14-15-16")]
    [InlineData("S-1-5-4294967296")]
    public void Wrong_sids_are_refused(string text) => Sid.TryParse(text, out _).ShouldBeFalse();

    [Fact]
    public void Sids_are_ordered_without_overflow() =>
        (Sid.Parse("S-1-5-4294967295") > Sid.Parse("S-1-5-1")).ShouldBeTrue();

    [Theory]
    [InlineData("CN=a,DC=x", "cn=A, dc=X")]
    [InlineData(@"CN=a\,b,DC=x", @"CN=a\2Cb,DC=x")]
    [InlineData(@"CN=\ a\ ,DC=x", @"CN=\20a\20,DC=x")]
    [InlineData("CN=ä,DC=x", @"CN=\C3\A4,DC=x")]
    public void Names_written_differently_are_the_same(string a, string b) =>
        DistinguishedName.Parse(a).ShouldBe(DistinguishedName.Parse(b));

    [Theory]
    [InlineData("")]
    [InlineData("CN")]
    [InlineData("CN=")]
    [InlineData("=a")]
    [InlineData("CN=a,,DC=x")]
    [InlineData("CN=a+OU=b")]
    [InlineData(@"CN=a\")]
    [InlineData("CN=#04024869")]
    [InlineData("C N=a")]
    public void Wrong_names_are_refused(string text) => DistinguishedName.TryParse(text, out _).ShouldBeFalse();

    [Fact]
    public void Any_value_survives_escaping() => Gen.String[1, 30].Where(s => !s.Any(char.IsSurrogate)).Sample(value =>
    {
        var name = DistinguishedName.Parse("DC=example").Child("CN", value);
        DistinguishedName.Parse(name.Text).Parts[0].Value.ShouldBe(value);
        name.Parent.ShouldBe(DistinguishedName.Parse("DC=example"));
    });

    [Fact]
    public void Below_means_below_and_not_merely_ending_alike()
    {
        var branch = DistinguishedName.Parse("OU=Svc,DC=x");
        DistinguishedName.Parse("CN=a,OU=svc,DC=X").IsAtOrBelow(branch).ShouldBeTrue();
        branch.IsAtOrBelow(branch).ShouldBeTrue();
        DistinguishedName.Parse("CN=a,OU=NotSvc,DC=x").IsAtOrBelow(branch).ShouldBeFalse();
    }

    [Theory]
    [InlineData("sysadmn", "sysadmin")]
    [InlineData("consloe-server", "console-server")]
    [InlineData("zebra", null)]
    public void The_nearest_spelling_is_offered_only_when_it_is_near(string word, string? nearest) =>
        Spelling.Nearest(word, ["sysadmin", "console-server", "poller"]).ShouldBe(nearest);
}
