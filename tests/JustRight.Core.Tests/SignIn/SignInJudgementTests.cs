using JustRight.Core.Directory;
using JustRight.Core.SignIn.SignInTests;

namespace JustRight.Core.Tests.SignIn;

public sealed class SignInJudgementTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 26, 2, 0, 0, TimeSpan.Zero);
    private static readonly CertificateLook Good = new(
        "CN=fm-dc01", "CN=authority", ["fm-dc01"], Now.AddDays(-10), Now.AddDays(100.5), [], null);
    private static readonly TlsLook Tls = new("TLS 1.3", "X", TimeSpan.Zero, Good);
    private static readonly AddressLook First = new("10.0.0.1", TimeSpan.FromMilliseconds(2), Tls, null);
    private static readonly AddressLook Silent = new("10.0.0.2", null, null, new WayTrouble(SignInCause.Silent, "refused"));
    private static readonly ConnectionLook Look = new("fm-dc01", 636, WireSecurity.Tls, [First], null);

    [Fact]
    public void A_good_way_passes_and_may_be_trusted()
    {
        Verdicts(Look).ShouldBe("resolve Pass, connect Pass, protection Pass, certificate Pass");
        Look.WhyNotTrusted(null).ShouldBeNull();
        ConnectionChecks.Of(Look, null, Now).Last().Fact.ShouldContain("100 days left");
    }

    [Theory]
    [InlineData(SignInCause.NameUnknown, "this machine's DNS")]
    [InlineData(SignInCause.NotAllowedThere, "Let an owner allow this network")]
    public void A_name_without_an_address_ends_the_looking(SignInCause cause, string fix)
    {
        var look = Look with { Addresses = [], Trouble = new WayTrouble(cause, "x") };
        Verdicts(look).ShouldBe("resolve Fail");
        var check = ConnectionChecks.Of(look, null, Now).Single();
        (check.Cause, check.Fact).ShouldBe((cause, "x."));
        check.Fix.ShouldNotBeNull().ShouldContain(fix);
        look.WhyNotTrusted("why").ShouldNotBeNull().Cause.ShouldBe(cause);
    }

    [Fact]
    public void One_silent_address_of_two_is_a_fault_though_the_other_answers()
    {
        var look = Look with { Addresses = [Silent, First] };
        Verdicts(look).ShouldBe("resolve Pass, connect Fail, protection Pass, certificate Pass");
        ConnectionChecks.Of(look, null, Now).ElementAt(1).Cause.ShouldBe(SignInCause.AddressSilent);
        look.WhyNotTrusted(null).ShouldBeNull();
    }

    [Fact]
    public void When_no_address_answers_nothing_more_is_said()
    {
        var look = Look with { Addresses = [Silent] };
        Verdicts(look).ShouldBe("resolve Pass, connect Fail");
        ConnectionChecks.Of(look, null, Now).Last().Cause.ShouldBe(SignInCause.Silent);
        look.WhyNotTrusted(null).ShouldNotBeNull().Cause.ShouldBe(SignInCause.Silent);
    }

    [Fact]
    public void Plain_text_fails_unless_the_estate_says_why_and_no_password_goes_that_way()
    {
        var look = Look with { Security = WireSecurity.Plain, Addresses = [First with { Tls = null }] };
        Verdicts(look).ShouldBe("resolve Pass, connect Pass, protection Fail");
        Verdicts(look, "a simulation").ShouldBe("resolve Pass, connect Pass, protection Pass");
        look.WhyNotTrusted(null).ShouldNotBeNull().Cause.ShouldBe(SignInCause.Unprotected);
        look.WhyNotTrusted("a simulation").ShouldBeNull();
    }

    [Theory]
    [InlineData(SignInCause.PlainPort, "Ask for StartTLS on this port")]
    [InlineData(SignInCause.TlsPort, "Ask for TLS from the start")]
    [InlineData(SignInCause.StartTlsRefused, "Give the directory a certificate")]
    [InlineData(SignInCause.NotADirectory, "Check the port in the estate")]
    [InlineData(SignInCause.TooSlow, "keeps it from answering")]
    [InlineData(SignInCause.TlsFailed, "versions of TLS")]
    public void A_port_that_is_another_kind_of_port_has_a_remedy_of_its_own(SignInCause cause, string fix)
    {
        var odd = First with { Address = "10.0.0.9", Tls = null, Trouble = new WayTrouble(cause, "the port is odd") };
        var look = Look with { Addresses = [First, odd] };
        Verdicts(look).ShouldBe("resolve Pass, connect Pass, protection Fail");
        var check = ConnectionChecks.Of(look, null, Now).Last();
        (check.Cause, check.Fact).ShouldBe((cause, "10.0.0.9: the port is odd."));
        check.Fix.ShouldNotBeNull().ShouldContain(fix);
        look.WhyNotTrusted("why").ShouldNotBeNull().Cause.ShouldBe(cause, "a client takes whichever address it likes");
        ConnectionChecks.Of(Look with { Addresses = [odd] }, null, Now).Last().Fact.ShouldBe("The port is odd.");
    }

    [Theory]
    [InlineData("TLS 1.2", CheckVerdict.Pass)]
    [InlineData("TLS 1.1", CheckVerdict.Fail)]
    [InlineData("TLS 1.0", CheckVerdict.Fail)]
    public void Old_versions_fail_at_whichever_address(string version, CheckVerdict verdict)
    {
        var old = First with { Tls = Tls with { Version = version } };
        ConnectionChecks.Of(Look with { Addresses = [First, old] }, null, Now)
            .Single(c => c.Id == "protection").Verdict.ShouldBe(verdict);
    }

    [Theory]
    [InlineData(30, null, CheckVerdict.Pass, null)]
    [InlineData(29.9, null, CheckVerdict.Pass, "It expires soon")]
    [InlineData(-0.1, SignInCause.CertificateExpired, CheckVerdict.Fail, "Renew the certificate of fm-dc01")]
    [InlineData(60, SignInCause.CertificateNotYetValid, CheckVerdict.Fail, "Check the clocks")]
    [InlineData(60, SignInCause.CertificateName, CheckVerdict.Fail, "a certificate for fm-dc01")]
    [InlineData(60, SignInCause.CertificateAuthority, CheckVerdict.Fail, "into the estate's ca-folder")]
    [InlineData(60, SignInCause.CertificateOther, CheckVerdict.Fail, "from an authority in the estate's ca-folder")]
    public void A_certificate_is_judged(double days, SignInCause? problem, CheckVerdict verdict, string? fix)
    {
        var shown = Good with
        {
            NotAfter = Now.AddDays(days),
            Problem = problem is { } cause ? new WayTrouble(cause, "it is bad") : null,
        };
        var bad = First with { Tls = Tls with { Certificate = shown } };
        var look = Look with { Addresses = [bad] };
        var check = ConnectionChecks.Of(look, null, Now).Last();
        (check.Verdict, check.Cause).ShouldBe((verdict, problem));
        if (fix is null) check.Fix.ShouldBeNull();
        else check.Fix.ShouldNotBeNull().ShouldContain(fix);
        var trouble = look.WhyNotTrusted("why");
        (trouble?.Cause).ShouldBe(problem);
        if (problem is null) return;
        var other = Look with { Addresses = [First, bad with { Address = "10.0.0.7" }] };
        var alone = ConnectionChecks.Of(other, null, Now).Last();
        alone.Cause.ShouldBe(SignInCause.AddressCertificate);
        alone.Fact.ShouldContain("10.0.0.7 shows another one");
        other.WhyNotTrusted(null).ShouldNotBeNull();
    }

    [Fact]
    public void Lists_are_compared_by_name_and_numbers_by_number()
    {
        var compared = FoundAndExpected.Compare(
            null, ["Anna", "ben", "cleo"], ["anna", "dora", "ben"], n => new WhyAbsent(SignInCause.NotInGroup, n + " is away"));
        (compared.Expected, compared.Found, compared.Agrees).ShouldBe((3, 3, false));
        compared.Missing.ShouldBe([new NamedDifference("cleo", new WhyAbsent(SignInCause.NotInGroup, "cleo is away"))]);
        compared.Extra.ShouldBe([new NamedDifference("dora", null)]);
        FoundAndExpected.Compare(2, [], ["anna", "ben"], _ => null).Agrees.ShouldBe(true);
        FoundAndExpected.Compare(3, [], ["anna", "ben"], _ => null).Agrees.ShouldBe(false);
        FoundAndExpected.Compare(null, [], ["anna"], _ => null).Agrees.ShouldBeNull();
    }

    [Fact]
    public void A_sign_in_test_is_summed_up_in_a_line()
    {
        SignInCheck Check(CheckVerdict verdict) => new("x", "?", verdict, null, "", null);
        SignInTest SignInTest(params CheckVerdict[] verdicts) =>
            new("i", "d", Now, Now, false, [.. verdicts.Select(Check)], null, null, []);
        SignInTest(CheckVerdict.Pass, CheckVerdict.Pass).Words.ShouldBe("2 of 2 checks pass");
        SignInTest(CheckVerdict.Pass, CheckVerdict.Fail, CheckVerdict.Unseen).Words.ShouldBe(
            "1 of 3 checks pass, 1 fail, 1 unseen");
        SignInTest(CheckVerdict.Pass, CheckVerdict.Caution).Words.ShouldBe("1 of 2 checks pass, 1 to mind");
    }

    private static string Verdicts(ConnectionLook look, string? because = null) =>
        string.Join(", ", ConnectionChecks.Of(look, because, Now).Select(c => $"{c.Id} {c.Verdict}"));
}
