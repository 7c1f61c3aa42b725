using JustRight.Core.Directory;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Core.Tests.SignIn;

public sealed class SignInJudgementTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 26, 2, 0, 0, TimeSpan.Zero);
    private static readonly CertificateLook Good = new(
        "CN=fm-dc01", "CN=authority", ["fm-dc01"], Now.AddDays(-10), Now.AddDays(100.5), [], null);
    private static readonly ConnectionLook Look = new(
        "fm-dc01", 636, WireSecurity.Tls, [new AddressLook("10.0.0.1", TimeSpan.FromMilliseconds(2), null)],
        new TlsLook("TLS 1.3", "X", TimeSpan.Zero, Good), null);

    [Fact]
    public void A_good_way_passes_and_may_be_trusted()
    {
        Verdicts(Look).ShouldBe("resolve Pass, connect Pass, protection Pass, certificate Pass");
        Look.IsTrusted.ShouldBeTrue();
        ConnectionChecks.Of(Look, null, Now).Last().Fact.ShouldContain("100 days left");
    }

    [Fact]
    public void A_name_without_an_address_ends_the_looking()
    {
        Verdicts(Look with { Addresses = [], Tls = null, Failure = "x" }).ShouldBe("resolve Fail");
    }

    [Fact]
    public void One_silent_address_of_two_is_a_fault_though_the_other_answers()
    {
        var look = Look with
        {
            Addresses = [new AddressLook("10.0.0.1", null, "refused"), new AddressLook("10.0.0.2", TimeSpan.Zero, null)],
        };
        Verdicts(look).ShouldBe("resolve Pass, connect Fail, protection Pass, certificate Pass");
        look.IsTrusted.ShouldBeTrue();
    }

    [Fact]
    public void When_no_address_answers_nothing_more_is_said()
    {
        var look = Look with { Addresses = [new AddressLook("10.0.0.1", null, "refused")], Tls = null, Failure = "x" };
        Verdicts(look).ShouldBe("resolve Pass, connect Fail");
        look.IsTrusted.ShouldBeFalse();
    }

    [Fact]
    public void Plain_text_fails_unless_the_estate_says_why()
    {
        var look = Look with { Security = WireSecurity.Plain, Tls = null };
        Verdicts(look).ShouldBe("resolve Pass, connect Pass, protection Fail");
        Verdicts(look, "a simulation").ShouldBe("resolve Pass, connect Pass, protection Pass");
        look.IsTrusted.ShouldBeTrue();
    }

    [Theory]
    [InlineData("TLS 1.2", CheckVerdict.Pass)]
    [InlineData("TLS 1.1", CheckVerdict.Fail)]
    [InlineData("TLS 1.0", CheckVerdict.Fail)]
    public void Old_versions_fail(string version, CheckVerdict verdict) =>
        ConnectionChecks.Of(Look with { Tls = Look.Tls! with { Version = version } }, null, Now)
            .Single(c => c.Id == "protection").Verdict.ShouldBe(verdict);

    [Theory]
    [InlineData(30, null, CheckVerdict.Pass, false)]
    [InlineData(29.9, null, CheckVerdict.Pass, true)]
    [InlineData(-0.1, "it has expired", CheckVerdict.Fail, true)]
    public void A_certificate_that_ends_soon_is_worth_a_word(double days, string? problem, CheckVerdict verdict, bool fix)
    {
        var look = Look with
        {
            Tls = Look.Tls! with { Certificate = Good with { NotAfter = Now.AddDays(days), Problem = problem } },
        };
        var check = ConnectionChecks.Of(look, null, Now).Last();
        check.Verdict.ShouldBe(verdict);
        (check.Fix is not null).ShouldBe(fix);
        look.IsTrusted.ShouldBe(problem is null);
    }

    [Fact]
    public void Lists_are_compared_by_name_and_numbers_by_number()
    {
        var compared = FoundAndExpected.Compare(null, ["Anna", "ben", "cleo"], ["anna", "dora", "ben"], n => n + " is away");
        (compared.Expected, compared.Found, compared.Agrees).ShouldBe((3, 3, false));
        compared.Missing.ShouldBe([new NamedDifference("cleo", "cleo is away")]);
        compared.Extra.ShouldBe([new NamedDifference("dora", null)]);
        FoundAndExpected.Compare(2, [], ["anna", "ben"], _ => null).Agrees.ShouldBe(true);
        FoundAndExpected.Compare(3, [], ["anna", "ben"], _ => null).Agrees.ShouldBe(false);
        FoundAndExpected.Compare(null, [], ["anna"], _ => null).Agrees.ShouldBeNull();
    }

    [Fact]
    public void A_sign_in_test_is_summed_up_in_a_line()
    {
        SignInCheck Check(CheckVerdict verdict) => new("x", "?", verdict, "");
        SignInTest SignInTest(params CheckVerdict[] verdicts) =>
            new("i", "d", Now, Now, false, [.. verdicts.Select(Check)], null, null, []);
        SignInTest(CheckVerdict.Pass, CheckVerdict.Pass).Words.ShouldBe("2 of 2 checks pass");
        SignInTest(CheckVerdict.Pass, CheckVerdict.Fail, CheckVerdict.Unseen).Words.ShouldBe(
            "1 of 3 checks pass, 1 fail, 1 unseen");
    }

    private static string Verdicts(ConnectionLook look, string? because = null) =>
        string.Join(", ", ConnectionChecks.Of(look, because, Now).Select(c => $"{c.Id} {c.Verdict}"));
}
