using System.Xml.Linq;

namespace JustRight.Structure.Tests;

/// <summary>The rooms and the direction in which they may know of one another.</summary>
public sealed class ReferenceTests
{
    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["JustRight.Core"] = [],
        ["JustRight.Formats"] = ["JustRight.Core"],
        ["JustRight.Connectors"] = ["JustRight.Formats"],
        ["JustRight.Simulation"] = ["JustRight.Connectors"],
        ["JustRight.SimulatedInstance"] = ["JustRight.Simulation"],
        ["JustRight.Contracts"] = [],
        ["JustRight.Service"] = ["JustRight.Contracts", "JustRight.Simulation"],
        ["JustRight.Cli"] = ["JustRight.Contracts"],
    };

    [Fact]
    public void References_point_one_way()
    {
        var projects = Directory.GetFiles(Path.Combine(Checkout.Top, "src"), "*.csproj", SearchOption.AllDirectories);
        projects.Length.ShouldBe(Allowed.Count);
        foreach (var project in projects)
        {
            var references = XDocument.Load(project).Descendants("ProjectReference")
                .Select(r => Path.GetFileNameWithoutExtension(((string)r.Attribute("Include")!).Replace('\\', '/')));
            references.Order().ShouldBe(Allowed[Path.GetFileNameWithoutExtension(project)].Order(), project);
        }
    }

    [Fact]
    public void The_core_references_the_framework_only()
    {
        var project = XDocument.Load(Path.Combine(Checkout.Top, "src", "JustRight.Core", "JustRight.Core.csproj"));
        project.Descendants("PackageReference").ShouldBeEmpty();
        typeof(Core.Plans.Planner).Assembly.GetReferencedAssemblies().Select(a => a.Name!)
            .ShouldAllBe(name => name.StartsWith("System.", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData("System.IO.File")]
    [InlineData("System.Net")]
    [InlineData("System.Console")]
    [InlineData("DateTimeOffset.UtcNow")]
    [InlineData("DateTime.Now")]
    public void The_core_does_not_touch_the_world(string word) =>
        Directory.GetFiles(Path.Combine(Checkout.Top, "src", "JustRight.Core"), "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains("/obj/", StringComparison.Ordinal))
            .ShouldAllBe(f => !File.ReadAllText(f).Contains(word, StringComparison.Ordinal));
}
