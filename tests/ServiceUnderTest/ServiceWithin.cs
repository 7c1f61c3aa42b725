using System.Globalization;
using System.Text;
using JustRight.Service.Hosting;

namespace JustRight.Tests.ServiceUnderTest;

/// <summary>
/// The service within the tests' own process: the same parts, and real requests to a real port, but code that is compiled once
/// for all tests, where a process compiles it anew at each start. It cannot be killed.
/// </summary>
internal sealed class ServiceWithin : IServiceRun
{
    private readonly CancellationTokenSource _stop = new();
    private readonly Task<int> _running;

    static ServiceWithin() =>
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture; // as the service's own process has it

    private ServiceWithin(string[] arguments, LineWriter output, TimeProvider time)
    {
        var surroundings = new Surroundings(output, output, time, _stop.Token);
        _running = Task.Run(() => ServiceHost.RunAsync(arguments, surroundings));
    }

    /// <inheritdoc/>
    public bool HasEnded => _running.IsCompleted;

    /// <summary>Starts it.</summary>
    /// <param name="said">Takes each line that it prints.</param>
    public static ServiceWithin Start(IEnumerable<string> arguments, Action<string?> said, TimeProvider time) =>
        new([.. arguments], new LineWriter(said), time);

    /// <inheritdoc/>
    public async Task<int> StopAsync()
    {
        await _stop.CancelAsync();
        return await _running;
    }

    /// <inheritdoc/>
    public Task KillAsync() =>
        throw new InvalidOperationException("A service within the tests' process cannot be killed: start it as a process.");

    /// <inheritdoc/>
    public async ValueTask DisposeAsync()
    {
        await StopAsync();
        _stop.Dispose();
    }

    /// <summary>Gives on what is written line by line.</summary>
    private sealed class LineWriter(Action<string?> said) : TextWriter
    {
        private readonly StringBuilder _line = new();

        public override Encoding Encoding => Encoding.UTF8;

        public override void Write(char value)
        {
            lock (_line)
            {
                if (value != '\n')
                {
                    _line.Append(value);
                    return;
                }

                said(_line.ToString());
                _line.Clear();
            }
        }
    }
}
