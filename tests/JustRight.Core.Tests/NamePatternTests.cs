using CsCheck;
using JustRight.Core.Estates;

namespace JustRight.Core.Tests;

public sealed class NamePatternTests
{
    [Theory]
    [InlineData("thermo", "poller", "svc-thermo-poller")]
    [InlineData("thermograph", "poller", "svc-thermogra-poller")] // 22 characters would be too many: the longer part gives way
    [InlineData("thermograph", "document-reader", "svc-thermog-document")]
    [InlineData("a", "b", "svc-a-b")]
    [InlineData("milk line", "feed/er", "svc-milkline-feeder")] // what a logon name may not hold is left out
    public void Names_fit_and_stay_readable(string product, string account, string expected) =>
        Make(product, account).ShouldBe(expected);

    [Fact]
    public void A_taken_name_gives_way_to_the_next_number_within_the_length()
    {
        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase) { "SVC-THERMOGRA-POLLER", "svc-thermogr-poller2" };
        Make("thermograph", "poller", taken.Contains).ShouldBe("svc-thermogr-poller3");
    }

    [Theory]
    [InlineData("svc-ok", null)]
    [InlineData("", "at least one")]
    [InlineData("...", "at least one")]
    [InlineData("svc-x.", "end in a dot")]
    [InlineData("svc,x", "','")]
    [InlineData("svc-a-name-of-21-char", "21 characters")]
    public void Wrong_names_are_told_apart(string name, string? wrong)
    {
        if (wrong is null) NamePattern.WhatIsWrong(name, 20).ShouldBeNull();
        else NamePattern.WhatIsWrong(name, 20).ShouldNotBeNull().ShouldContain(wrong);
    }

    [Fact]
    public void Every_made_name_is_right_and_free() =>
        Gen.Select(Gen.String[Gen.Char.AlphaNumeric, 1, 40], Gen.String[Gen.Char.AlphaNumeric, 1, 40])
            .Sample((product, account) =>
    {
        var first = Make(product, account);
        var second = Make(product, account, n => n == first);
        NamePattern.WhatIsWrong(first, 20).ShouldBeNull();
        NamePattern.WhatIsWrong(second, 20).ShouldBeNull();
        second.ShouldNotBe(first);
    });

    private static string Make(string product, string account, Func<string, bool>? isTaken = null) => NamePattern.Make(
        "svc-{product}-{account}", new Dictionary<string, string> { ["product"] = product, ["account"] = account }, NamePattern.AccountLength, isTaken
            ?? (_ => false));
}
