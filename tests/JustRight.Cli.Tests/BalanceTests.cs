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
    [InlineData(0, 3, 0, 0, 0, 0, "··‹‹‹●·····")] // what setup gives does not lean
    [InlineData(0, 0, 1, 0, 0, 0, "·····○·····")] // as far as seen
    [InlineData(0, 0, 0, 0, 0, 2, "·····○·····")]
    [InlineData(0, 0, 0, 1, 1, 0, "·····┃▶▷···")]
    public void The_sign_leans_as_the_fit_does(int missing, int later, int unseen, int spare, int barred, int unread, string sign)
    {
        var text = Markup.Remove(Balance.Sign(new LeaningView(0, missing, later, unseen, spare, barred, unread, "words")));
        text.ShouldBe(sign);
        text.Length.ShouldBe(11);
    }

    [Theory]
    [InlineData("met", "● met")]
    [InlineData("unmet", "◁ unmet")]
    [InlineData("later", "‹ later")]
    [InlineData("unseen", "? unseen")]
    [InlineData("spare", "▷ spare")]
    [InlineData("barred", "▶ barred")]
    [InlineData("done", "– done")]
    public void A_verdict_is_sign_and_word(string verdict, string text) => Markup.Remove(Balance.Verdict(verdict)).ShouldBe(text);

    [Fact]
    public void Words_with_brackets_are_text_and_not_markup() =>
        Markup.Remove(Balance.Words(new LeaningView(0, 1, 0, 0, 0, 0, 0, "[1] missing"))).ShouldEndWith("[1] missing");

    [Fact]
    public void Times_carry_their_zone() =>
        Times.Exact(new DateTimeOffset(2026, 11, 25, 1, 2, 3, TimeSpan.Zero)).ShouldMatch(@"^2026-11-2\d \d\d:\d\d:03 [+-]\d\d:\d\d$");
}
