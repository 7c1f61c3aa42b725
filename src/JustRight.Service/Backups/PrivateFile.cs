namespace JustRight.Service.Backups;

/// <summary>Files and folders that nobody but their owner may read.</summary>
internal static class PrivateFile
{
    private const UnixFileMode ReadWrite = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    /// <summary>How a file is opened that is made, and must not be there yet.</summary>
    /// <param name="options">Such as that it goes when it is closed.</param>
    public static FileStreamOptions New(FileOptions options = FileOptions.None)
    {
        var made = new FileStreamOptions { Mode = FileMode.CreateNew, Access = FileAccess.Write, Options = options };
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

/// <summary>Names of files of one level.</summary>
internal static class PlainFile
{
    /// <summary>
    /// Whether a name is a file's, in the very folder that it is put in: letters, digits, <c>-</c>, <c>_</c> and dots
    /// between.
    /// </summary>
    public static bool IsName(string name) => name.Length is > 0 and <= 200 && name[0] != '.'
        && name.All(c => char.IsAsciiLetterOrDigit(c) || c is '-' or '_' or '.');
}
