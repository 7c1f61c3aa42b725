using JustRight.Cli.Output;
using JustRight.Contracts;
using Spectre.Console;

namespace JustRight.Cli.Tests;

/// <summary>The balance and the verdicts as text: sign and word, the same width whatever is on it.</summary>
public sealed class BalanceTests
{
    [Theory]
    [InlineData(0, 0, 0, 0, 0, 0, "·····●·····")]
    [InlineData(2, 0, 0, 1, 0, 0, "···◁◁┃▷····")]
    [InlineData(1, 2, 0, 0, 0, 0, "··‹‹◁┃·····")]
    [InlineData(9, 3, 0, 9, 9, 0, "◁◁◁◁◁┃▶▶▶▶▶")] // the words say how many
    [InlineData(0, 3, 0, 0, 0, 0, "··‹‹‹●·····")] // what setup gives is not counted as missing
    [InlineData(0, 0, 1, 0, 0, 0, "·····○·····")] // as far as seen
    [InlineData(0, 0, 0, 0, 0, 2, "·····○·····")]
    [InlineData(0, 0, 0, 1, 1, 0, "·····┃▶▷···")]
    public void The_sign_says_what_the_fit_says(
        int missing, int pending, int unseen, int excess, int forbidden, int unread, string sign)
    {
        var text = Markup.Remove(
            Balance.Sign(new FitCountsView(0, missing, pending, unseen, excess, forbidden, unread, "words")));
        text.ShouldBe(sign);
        text.Length.ShouldBe(11);
    }

    [Theory]
    [InlineData("met", "● met")]
    [InlineData("missing", "◁ missing")]
    [InlineData("pending", "‹ pending")]
    [InlineData("unseen", "? unseen")]
    [InlineData("excess", "▷ excess")]
    [InlineData("forbidden", "▶ forbidden")]
    [InlineData("done", "– done")]
    public void A_verdict_is_sign_and_word(string verdict, string text) => Markup.Remove(Balance.Verdict(verdict)).ShouldBe(text);

    [Fact]
    public void Words_with_brackets_are_text_and_not_markup() =>
        Markup.Remove(Balance.Words(new FitCountsView(0, 1, 0, 0, 0, 0, 0, "[1] missing"))).ShouldEndWith("[1] missing");

    [Fact]
    public void Times_carry_their_zone() =>
        Times.Exact(new DateTimeOffset(2026, 11, 25, 1, 2, 3, TimeSpan.Zero))
            .ShouldMatch(@"^2026-11-2\d \d\d:\d\d:03 [+-]\d\d:\d\d$");
}
