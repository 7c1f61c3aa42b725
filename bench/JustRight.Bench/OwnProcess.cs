using System.Globalization;
using JustRight.Tests.Shared;

namespace JustRight.Bench;

/// <summary>
/// Measures something in a process of its own, so that its peak memory is its own and nothing is warm from before.
/// </summary>
internal static class OwnProcess
{
    /// <summary>Runs this program again, shows the line that it prints, and returns the number in one of its columns.</summary>
    /// <param name="column">Which word of the line is the figure, counted from 0.</param>
    /// <param name="arguments">What is measured.</param>
    public static Task<double> MeasureAsync(int column, params string[] arguments) =>
        MeasureAsync(Environment.ProcessPath!, column, arguments);

    /// <summary>The same with another program.</summary>
    public static async Task<double> MeasureAsync(string program, int column, params string[] arguments)
    {
        var line = (await Programs.MustRunAsync(program, arguments)).Trim();
        Console.WriteLine(line);
        return double.Parse(line.Split(' ', StringSplitOptions.RemoveEmptyEntries)[column], CultureInfo.InvariantCulture);
    }
}
