using CsCheck;
using JustRight.Core.Conditions;

namespace JustRight.Core.Tests;

public sealed class DottedNumberTests
{
    private static readonly Gen<string> Any = Gen.Int[0, 99].Array[1, 8].Select(parts => string.Join('.', parts));

    [Theory]
    [InlineData("13", "13.0", 0)]
    [InlineData("13.0.0", "13", 0)]
    [InlineData("9.2", "10", -1)]
    [InlineData("15.0.2000.5", "15.0.2000", 1)]
    [InlineData("15.10", "15.9", 1)]
    [InlineData("0", "0.0", 0)]
    [InlineData("0", "0.1", -1)]
    public void Releases_compare_part_by_part(string a, string b, int sign)
    {
        Math.Sign(Of(a).CompareTo(Of(b))).ShouldBe(sign);
        (Of(a) < Of(b)).ShouldBe(sign < 0);
        (Of(a) >= Of(b)).ShouldBe(sign >= 0);
        (Of(a) == Of(b)).ShouldBe(sign == 0);
    }

    [Theory]
    [InlineData("")]
    [InlineData(null)]
    [InlineData(".")]
    [InlineData("1.")]
    [InlineData("1..2")]
    [InlineData("-1")]
    [InlineData("+1")]
    [InlineData(" 1")]
    [InlineData("1a")]
    [InlineData("99999999999")]
    [InlineData("1.2.3.4.5.6.7.8.9")]
    public void What_is_no_release_is_refused(string? text) => DottedNumber.TryParse(text, out _).ShouldBeFalse();

    [Fact]
    public void The_order_is_total_and_equal_numbers_have_equal_hashes() => Gen.Select(Any, Any, Any).Sample((a, b, c) =>
    {
        var (x, y, z) = (Of(a), Of(b), Of(c));
        x.CompareTo(y).ShouldBe(-y.CompareTo(x));
        if (x <= y && y <= z) (x <= z).ShouldBeTrue();
        if (x == y) x.GetHashCode().ShouldBe(y.GetHashCode());
        Of(x.ToString()).ShouldBe(x);
    });

    private static DottedNumber Of(string text)
    {
        DottedNumber.TryParse(text, out var number).ShouldBeTrue(text);
        return number;
    }
}
