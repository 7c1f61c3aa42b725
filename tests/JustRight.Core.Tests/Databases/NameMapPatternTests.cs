using JustRight.Core.Engines.PostgreSql;

namespace JustRight.Core.Tests.Databases;

/// <summary>
/// Patterns of name maps: what is read means what the engine's own expressions mean (a real server judges thousands of them in
/// the tests of the databases); what might mean something else is not read.
/// </summary>
public sealed class NameMapPatternTests
{
    /// <summary>A pattern, a name, and what its first group took; "-" where it matches without a group, null where not.</summary>
    public static TheoryData<string, string, string?> Read => new()
    {
        { "svc", "a-svc-b", "-" },
        { "svc", "a-sv", null },
        { "^svc", "svc-b", "-" },
        { "^svc", "a-svc", null },
        { "svc$", "a-svc", "-" },
        { "svc$", "svc-b", null },
        { "svc$", "svc\n", null },
        { "^svc$", "a\nsvc", null },
        { "^(.*)@FENN$", "svc@FENN", "svc" },
        { "^(.*)@FENN$", "svc@FENNS", null },
        { "^(.*)@(.*)$", "svc@FENN", "svc" },
        { "^(.)(.)$", "ab", "a" },
        { "^a.c$", "a\nc", "-" },
        { "^a.c$", "ac", null },
        { "^ab*c$", "abbc", "-" },
        { "^ab*c$", "ac", "-" },
        { "^ab+c$", "ac", null },
        { "^ab?c$", "abbc", null },
        { "^ab?c$", "ac", "-" },
        { @"^a\.c$", "a.c", "-" },
        { @"^a\.c$", "abc", null },
        { @"^a\.+c$", "a..c", "-" },
        { @"^a\\c$", @"a\c", "-" },
        { "^[a-c]+$", "abc", "-" },
        { "^[a-c]+$", "abd", null },
        { "^[^a-c]+$", "xyz", "-" },
        { "^[^a-c]+$", "xya", null },
        { "^[A-Z0-9]+$", "FM01", "-" },
        { "^[A-Z0-9]+$", "fm01", null },
        { "^[-a]+$", "-a", "-" },
        { "^[a-]+$", "a-", "-" },
        { "^[a_.@]+$", "a_.@", "-" },
        { "^[a-cx-z]+$", "axcz", "-" },
        { "^([a-z]+)@FENN$", "svc@FENN", "svc" },
        { "^ä+$", "ää", "-" },
        { "", "anything", "-" },
        { "a-b", "a-b", "-" },
    };

    [Theory]
    [MemberData(nameof(Read))]
    public void What_is_read_matches_as_it_says(string pattern, string name, string? first)
    {
        var (matches, taken) = NameMapPattern.TryParse(pattern).ShouldNotBeNull().On(name);
        (matches, matches ? taken ?? "-" : null).ShouldBe((first is not null, first));
    }

    [Theory]
    [InlineData("a|b")]
    [InlineData("a{2}")]
    [InlineData("(a")]
    [InlineData("a)")]
    [InlineData("(?:a)")]
    [InlineData("^(*a)$")]
    [InlineData("^(+a)$")]
    [InlineData("^()$")]
    [InlineData("(a)")] // what a group takes is the same for both only of a whole name
    [InlineData("^(a)")]
    [InlineData("(a)$")]
    [InlineData("^(a)*$")]
    [InlineData("a**")]
    [InlineData("a*?")]
    [InlineData("a+?")]
    [InlineData("a?+")]
    [InlineData("a+{2}")]
    [InlineData(@"\d")]
    [InlineData(@"\w+")]
    [InlineData(@"a\")]
    [InlineData(@"\ä")]
    [InlineData("*a")]
    [InlineData("a$b")]
    [InlineData("a^b")]
    [InlineData("^(")]
    [InlineData("[a")]
    [InlineData("[]")]
    [InlineData("[^]")]
    [InlineData("[[:alpha:]]")]
    [InlineData(@"[a\]")]
    [InlineData("[a b]")]
    [InlineData("[z-a]")]
    [InlineData("[a-Z]")]
    [InlineData("[A-z]")]
    [InlineData("[0-a]")]
    [InlineData("[a-0]")]
    [InlineData("[a-c-e]")]
    [InlineData("[_-a]")]
    [InlineData("a]")]
    [InlineData("\ud83d\ude00")]
    public void What_the_engine_may_take_otherwise_is_not_read(string pattern) =>
        NameMapPattern.TryParse(pattern).ShouldBeNull();
}
