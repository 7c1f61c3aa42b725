using JustRight.Service.Jobs.Queue;

namespace JustRight.Service.Tests;

/// <summary>Two jobs never change one place at once; who only reads shares it with others who read.</summary>
public sealed class PlaceLocksTests
{
    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Many_at_random_never_change_what_another_has_and_all_get_their_turn()
    {
        var (locks, random) = (new PlaceLocks(), new Random(27));
        var users = new int[6];
        var turns = Enumerable.Range(0, 400).Select(_ => (
            Places: Enumerable.Range(0, users.Length).Where(_ => random.Next(3) == 0).ToArray(), Alone: random.Next(2) == 0))
                .ToList();
        var clashes = 0;
        await Task.WhenAll(turns.Select(async turn =>
        {
            using var taken = await locks.TakeAsync(turn.Places.Select(p => $"host {p}"), turn.Alone, Cancel);
            // whoever changes a place counts a thousand: with anybody beside it the sum is no longer its own
            foreach (var place in turn.Places)
                if (Interlocked.Add(ref users[place], turn.Alone ? 1000 : 1) is var sum
                    && (turn.Alone ? sum != 1000 : sum >= 1000))
                    Interlocked.Increment(ref clashes);
            await Task.Delay(1, Cancel);
            foreach (var place in turn.Places) Interlocked.Add(ref users[place], turn.Alone ? -1000 : -1);
        }));
        clashes.ShouldBe(0);
        users.ShouldAllBe(u => u == 0);
    }

    [Fact]
    public async Task Who_reads_goes_beside_others_who_read_and_behind_who_came_before_to_change()
    {
        var locks = new PlaceLocks();
        var one = await locks.TakeAsync(["host FM-A01"], alone: false, Cancel);
        using var two = await locks.TakeAsync(["host fm-a01", "host fm-a02"], alone: false, Cancel);
        var change = locks.TakeAsync(["host fm-a01"], alone: true, Cancel);
        var three = locks.TakeAsync(["host fm-a01"], alone: false, Cancel);
        using var elsewhere = await locks.TakeAsync(["host fm-a03"], alone: true, Cancel);
        change.IsCompleted.ShouldBeFalse();
        three.IsCompleted.ShouldBeFalse("a stream of readers would keep out whoever changes it");
        one.Dispose();
        change.IsCompleted.ShouldBeFalse();
        two.Dispose();
        (await change).Dispose();
        (await three).Dispose();
    }

    [Fact]
    public async Task Who_no_longer_waits_is_in_nobodys_way()
    {
        var locks = new PlaceLocks();
        var held = await locks.TakeAsync(["host a"], alone: true, Cancel);
        using var ended = new CancellationTokenSource();
        var waits = locks.TakeAsync(["host a", "host b"], alone: true, ended.Token);
        var behind = locks.TakeAsync(["host b"], alone: true, Cancel);
        behind.IsCompleted.ShouldBeFalse();
        await ended.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => waits);
        (await behind).Dispose();
        held.Dispose();
    }
}
