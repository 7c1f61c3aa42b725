using JustRight.Core.Hosts;
using JustRight.Core.Surveys;

namespace JustRight.Core.Tests.Hosts;

public sealed class ServiceOrderTests
{
    [Theory]
    [InlineData("a=auto>b b=auto", "a", "")]
    [InlineData("a=auto>b b=disabled", "a", "it waits for b, which is disabled")]
    [InlineData("a=auto>b b=auto>c c=disabled", "a", "it waits for c, which is disabled")]
    [InlineData("a=auto>gone", "a", "it waits for gone, which is not on this host")]
    [InlineData("a=auto>+group", "a", "")]
    [InlineData("a=auto>A2 a2=auto", "a", "")]
    [InlineData("a=auto>b b=auto>a", "a", "b waits for a waits for b: a circular dependency")]
    [InlineData("a=auto>b b=auto>c c=auto>b", "a", "b waits for c waits for b: a circular dependency")]
    [InlineData("a=auto>a", "a", "a waits for a: a circular dependency")]
    public void What_stands_in_the_way(string services, string of, string first) =>
        (Order(services).ObstaclesOf(of).FirstOrDefault()?.Words ?? "").ShouldBe(first);

    [Theory]
    [InlineData("a=auto", "a", StartOrder.Automatic)]
    [InlineData("a=delayed", "a", StartOrder.AutomaticDelayed)]
    [InlineData("a=manual", "a", StartOrder.Manual)]
    [InlineData("a=system", "a", StartOrder.WithTheSystem)]
    [InlineData("a=disabled", "a", null)]
    [InlineData("a=auto>b b=delayed", "b", StartOrder.Automatic)] // what others wait for starts with them
    [InlineData("a=auto>b b=manual>c c=manual", "c", StartOrder.Automatic)]
    [InlineData("a=delayed>b b=manual", "b", StartOrder.AutomaticDelayed)]
    [InlineData("a=manual>b b=delayed", "b", StartOrder.AutomaticDelayed)]
    public void What_starts_when(string services, string of, StartOrder? order) => Order(services).OrderOf(of).ShouldBe(order);

    private static ServiceOrder Order(string services) => new([
        .. services.Split(' ').Select(s =>
        {
            var (name, rest) = (s.Split('=')[0], s.Split('=')[1].Split('>'));
            var start = rest[0] switch { "auto" => ServiceStart.Automatic, "delayed" => ServiceStart.AutomaticDelayed, "manual" => ServiceStart.Manual, "system" => ServiceStart.System, _ => ServiceStart.Disabled };
            return new HostService(name, "LocalSystem", start, true, [.. rest.Skip(1)]);
        }),
    ]);
}
