using System.Net;
using System.Net.Sockets;

namespace JustRight.Tests.Shared;

/// <summary>Ports on loopback.</summary>
public static class Loopback
{
    /// <summary>
    /// Below those that the system gives to whoever asks for any: nobody comes between finding a port and listening on it.
    /// </summary>
    private const int First = 15_000, EachProgram = 1_000, ProgramsAtOnce = 17;

    private static readonly (FileStream Lock, int First) Own = TakeRange();

    private static int _given;

    /// <summary>
    /// A port that nobody listens on, and that no other call gives: not here, and not in another part that runs beside.
    /// </summary>
    public static int FreePort()
    {
        while (true)
        {
            var port = Own.First + (Interlocked.Increment(ref _given) % EachProgram);
            try
            {
                using var listener = new TcpListener(IPAddress.Loopback, port);
                listener.Start();
                return port;
            }
            catch (SocketException)
            {
                // Somebody listens there: the next one.
            }
        }
    }

    /// <summary>
    /// A range of ports for this program alone. Its file is locked until the program ends, however it ends: a number made from
    /// the process id would be the same for two programs now and then.
    /// </summary>
    private static (FileStream Lock, int First) TakeRange()
    {
        var folder = Directory.CreateDirectory(Path.Combine(Path.GetTempPath(), "justright-ports")).FullName;
        for (var range = 0; range < ProgramsAtOnce; range++)
        {
            var first = First + (range * EachProgram);
            var file = Path.Combine(folder, $"{first}");
            try
            {
                return (new FileStream(file, FileMode.OpenOrCreate, FileAccess.Write, FileShare.None), first);
            }
            catch (IOException)
            {
                // Another program has this range.
            }
        }

        throw new InvalidOperationException($"{ProgramsAtOnce} programs that use ports run at once: wait for one to end.");
    }

    /// <summary>Whether something takes connections at a port.</summary>
    /// <param name="address">The address, when it is not the usual one.</param>
    public static async Task<bool> AnswersAsync(int port, string address = "127.0.0.1")
    {
        try
        {
            using var probe = new TcpClient();
            await probe.ConnectAsync(IPAddress.Parse(address), port);
            return true;
        }
        catch (SocketException)
        {
            return false;
        }
    }
}
