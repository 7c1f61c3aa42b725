using System.Globalization;
using JustRight.Service.Platform.Faults;

namespace JustRight.Service.Hosting;

/// <summary>
/// Keeps a data folder for one service: two on one folder would carry out the same job twice. The lock ends with the process,
/// however it ends.
/// </summary>
internal sealed class DataFolderLock : IDisposable
{
    private readonly FileStream _file;

    private DataFolderLock(FileStream file) => _file = file;

    /// <summary>Takes the folder.</summary>
    /// <exception cref="StartFault">Another service has it; the message says which.</exception>
    public static DataFolderLock Take(string folder)
    {
        var who = Path.Combine(folder, "in-use-by");
        FileStream file;
        try
        {
            file = new FileStream(Path.Combine(folder, "in-use"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException e)
        {
            throw StartFault.IsFull(e) ? StartFault.Of(e)! : new StartFault(
                StartFault.Folder, $"The data folder {folder} is in use by {Holder(who)}: stop that service first.");
        }

        File.WriteAllText(who, string.Create(
            CultureInfo.InvariantCulture,
            $"process {Environment.ProcessId} on {Environment.MachineName} since {DateTimeOffset.UtcNow:u}"));
        return new DataFolderLock(file);
    }

    /// <inheritdoc/>
    public void Dispose() => _file.Dispose();

    private static string Holder(string who)
    {
        try
        {
            return File.ReadAllText(who) is { Length: > 0 } text ? text : "another process";
        }
        catch (IOException)
        {
            return "another process";
        }
    }
}
