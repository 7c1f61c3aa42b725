using System.Globalization;
using System.Runtime.InteropServices;
using JustRight.Connectors.Directories;
using JustRight.Connectors.Directories.Ldap;

namespace JustRight.Connectors.Tests;

/// <summary>
/// A process gets signals: of each program that it started and that ended, and of its runtime. A connection that waits for an
/// answer meanwhile waits on.
/// </summary>
public sealed partial class SignalTests(Controller controller)
{
    private const int ChildEnded = 17; // SIGCHLD, which the runtime handles once a program was started

    private const int Readings = 40;

    private static CancellationToken Cancel => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_signal_while_an_answer_is_awaited_is_no_server_that_went_away()
    {
        LdapLibrary.WaitThroughSignals().ShouldBeTrue();
        var directory = new LdapDirectory(controller.Target, new DirectorySchemas(), TimeProvider.System);
        using var done = new CancellationTokenSource();
        var sent = 0;
        var storm = new Thread(() =>
        {
            while (!done.IsCancellationRequested)
            {
                foreach (var thread in Threads()) sent += SendSignal(Environment.ProcessId, thread, ChildEnded) == 0 ? 1 : 0;
                Thread.Sleep(1);
            }
        });
        storm.Start();
        try
        {
            for (var i = 0; i < Readings; i++)
                (await directory.NamesInUseAsync(["Administrator"], Cancel)).ShouldHaveSingleItem();
        }
        finally
        {
            await done.CancelAsync();
            storm.Join();
        }

        sent.ShouldBeGreaterThan(Readings * 10, "there were signals enough");
    }

    private static IEnumerable<int> Threads() =>
        Directory.GetDirectories("/proc/self/task").Select(t => int.Parse(Path.GetFileName(t), CultureInfo.InvariantCulture));

    [LibraryImport("libc", EntryPoint = "tgkill")]
    private static partial int SendSignal(int process, int thread, int signal);
}
