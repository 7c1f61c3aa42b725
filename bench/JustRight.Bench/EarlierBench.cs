using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>Holds planning and judging of today against those of an earlier commit, which is built beside it.</summary>
internal static class EarlierBench
{
    private const int Runs = 3;

    // Seconds is the sixth word of the line that a measure prints.
    private const int SecondsColumn = 5;

    /// <summary>
    /// Builds the commit and measures both in turn, each in a process of its own; the quickest of some runs counts.
    /// </summary>
    public static async Task<int> RunAsync(string commit)
    {
        var program = await BuildAsync(commit);
        foreach (var measured in new[] { "fit", "hosts", "database", "closure" })
        {
            double now = double.MaxValue, then = double.MaxValue;
            for (var run = 0; run < Runs; run++)
            {
                now = Math.Min(now, await OwnProcess.MeasureAsync(SecondsColumn, "measure", measured, "1"));
                then = Math.Min(then, await OwnProcess.MeasureAsync(program, SecondsColumn, "measure", measured, "1"));
            }

            Console.WriteLine($"{measured,-9} seconds now to those of {commit}: {now / then:0.00} (the mark is 1.10)");
        }

        return 0;
    }

    private static async Task<string> BuildAsync(string commit)
    {
        var folder = Path.Combine(Checkout.Top, ".build", "earlier", commit);
        if (!Directory.Exists(folder))
            await Programs.MustRunAsync("git", "-C", Checkout.Top, "worktree", "add", "--detach", folder, commit);
        var project = Path.Combine(folder, "bench", "JustRight.Bench");
        var program = Path.Combine(folder, ".build", "bench");
        await Programs.MustRunAsync("dotnet", "build", project, "-c", "Release", "-v", "q", "-o", program);
        return Path.Combine(program, "JustRight.Bench");
    }
}
