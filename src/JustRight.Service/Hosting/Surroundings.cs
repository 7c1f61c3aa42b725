namespace JustRight.Service.Hosting;

/// <summary>What the service has from the process that it runs in.</summary>
/// <param name="Output">Where it prints its sign-in links and its warnings.</param>
/// <param name="Error">Where it says why it does not start.</param>
/// <param name="Time">The clock.</param>
/// <param name="Stop">Tells it to stop, besides the signals that a process gets.</param>
public sealed record Surroundings(TextWriter Output, TextWriter Error, TimeProvider Time, CancellationToken Stop)
{
    /// <summary>A process of its own.</summary>
    public static Surroundings Process { get; } = new(Console.Out, Console.Error, TimeProvider.System, CancellationToken.None);
}
