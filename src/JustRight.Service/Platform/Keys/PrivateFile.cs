namespace JustRight.Service.Platform.Keys;

/// <summary>Files and folders that nobody but their owner may read.</summary>
internal static class PrivateFile
{
    private const UnixFileMode ReadWrite = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    /// <summary>How a file is opened that is made, and must not be there yet.</summary>
    public static FileStreamOptions New()
    {
        var made = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows()) made.UnixCreateMode = ReadWrite;
        return made;
    }

    /// <summary>Makes a folder where there is none.</summary>
    public static void MakeFolder(string folder)
    {
        if (OperatingSystem.IsWindows()) Directory.CreateDirectory(folder);
        else Directory.CreateDirectory(folder, ReadWrite | UnixFileMode.UserExecute);
    }
}
