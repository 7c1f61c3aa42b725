using System.Text.RegularExpressions;

namespace JustRight.Structure.Tests;

/// <summary>The page on security names the test that holds each line; every one of them exists.</summary>
public sealed partial class NamedTestsTests
{
    [Fact]
    public void Every_test_that_the_page_on_security_names_exists()
    {
        var page = File.ReadAllText(Path.Combine(Checkout.Top, "docs", "security.md"));
        var named = TestName().Matches(page).Select(m => m.Groups[1].Value).Distinct().ToList();
        named.Count.ShouldBeGreaterThan(10);
        var sources = Directory.GetFiles(Path.Combine(Checkout.Top, "tests"), "*Tests.cs", SearchOption.AllDirectories);
        named.Except(sources.Select(Path.GetFileNameWithoutExtension)).ShouldBeEmpty();
    }

    [GeneratedRegex("`([A-Za-z]+Tests)`")]
    private static partial Regex TestName();
}
