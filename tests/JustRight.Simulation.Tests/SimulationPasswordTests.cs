using JustRight.Connectors;

namespace JustRight.Simulation.Tests;

/// <summary>Passwords of the simulation as a real directory treats them: counted when wrong, forgotten after a while, locked when there were too many.</summary>
public sealed class SimulationPasswordTests
{
    private const string Account = "svc-curd-cards";

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Wrong_ones_count_for_half_an_hour_and_five_of_them_lock()
    {
        using var simulation = new DemoSimulation();
        var clock = new Clock();
        var directory = new SimulationDirectory(simulation.File, clock);
        await WrongAsync(4);
        (await directory.ReadPasswordAsync(Account, Cancel)).WhyNotTried(clock.GetUtcNow()).ShouldNotBeNull();
        clock.Now += TimeSpan.FromMinutes(31);
        (await directory.ReadPasswordAsync(Account, Cancel)).WhyNotTried(clock.GetUtcNow()).ShouldBeNull();
        await WrongAsync(4); // the earlier ones are over
        (await directory.TryPasswordAsync(
            Account, new NewPassword(SimulationPasswords.SimulatedOf(Account)), Cancel)).Works.ShouldBe(true);
        await WrongAsync(5);
        (await directory.TryPasswordAsync(
            Account, new NewPassword(SimulationPasswords.SimulatedOf(Account)), Cancel)).Words.ShouldContain("it is locked");

        async Task WrongAsync(int times)
        {
            for (var i = 0; i < times; i++)
                (await directory.TryPasswordAsync(
                    Account, new NewPassword("a wrong one"), Cancel)).Words.ShouldContain("wrong password");
        }
    }

    private sealed class Clock : TimeProvider
    {
        public DateTimeOffset Now { get; set; } = new(2026, 11, 26, 12, 0, 0, TimeSpan.Zero);

        public override DateTimeOffset GetUtcNow() => Now;
    }
}
