using JustRight.Core.Estates;

namespace JustRight.Formats.Tests.Estates;

/// <summary>Two estates share a system where they have an address in common, and only there.</summary>
public sealed class SharedSystemsTests
{
    [Fact]
    public void What_two_estates_share_in_words_and_by_address_is_the_same()
    {
        var demo = DemoFiles.Estate(DemoFiles.Text("estates/fennmoor.yaml")).Estate!;
        var random = new Random(27);
        var (shared, apart) = (0, 0);
        for (var i = 0; i < 2_000; i++)
        {
            var (one, other) = (Made(), Made());
            var overlap = SharedSystems.AddressesOf(one).Overlaps(SharedSystems.AddressesOf(other));
            (SharedSystems.Of(one, other) is not null).ShouldBe(overlap);
            if (overlap) shared++;
            else apart++;
        }

        Math.Min(shared, apart).ShouldBeGreaterThan(300, "both were tried");

        Estate Made() => demo with
        {
            Domain = demo.Domain with { DnsName = Name("d", 6) + ".example", ShortName = Name("S", 6) },
            Directory = demo.Directory with
            {
                Controller = Name("dc", 8),
                MoreControllers = random.Next(3) == 0 ? [Name("dc", 8)] : [],
            },
            Hosts = [.. Enumerable.Range(0, random.Next(3)).Select(n => demo.Hosts[n] with { Name = Name("fm-h", 9) })],
            Instances = [.. Enumerable.Range(0, random.Next(2)).Select(n => demo.Instances[n] with { Name = Name("fm-i", 5) })],
        };

        string Name(string kind, int of) =>
            random.Next(2) == 0 ? $"{kind}{random.Next(of)}" : $"{kind.ToUpperInvariant()}{random.Next(of)}";
    }
}
