using JustRight.Cli.Api;

namespace JustRight.Cli.Output;

/// <summary>
/// Files whose names a service gives: each is one level below the folder that was asked for, and no link is followed to
/// elsewhere.
/// </summary>
internal static class SafeFile
{
    /// <summary>Makes a folder below another, or finds it there.</summary>
    /// <exception cref="ClientException">The name leads elsewhere, a link stands there, or it cannot be made.</exception>
    public static string Folder(string below, string name)
    {
        var path = Path.Combine(below, OneLevel(name));
        return Doing(path, () =>
        {
            Directory.CreateDirectory(below);
            if (Path.Exists(path) && IsLink(path)) throw Link(path);
            Directory.CreateDirectory(path);
            return path;
        });
    }

    /// <summary>Writes a file into a folder, in place of the one that is there.</summary>
    /// <returns>Its path.</returns>
    /// <exception cref="ClientException">The name leads elsewhere, a link stands there, or it cannot be written.</exception>
    public static string Write(string folder, string name, byte[] content)
    {
        var path = Path.Combine(folder, OneLevel(name));
        return Doing(path, () =>
        {
            Directory.CreateDirectory(folder);
            if (IsLink(path)) throw Link(path);
            var fresh = Path.Combine(folder, $".{Guid.NewGuid():N}");
            File.WriteAllBytes(fresh, content);
            File.Move(fresh, path, overwrite: true); // takes the place of a link that came in between, and never follows it
            return path;
        });
    }

    private static string OneLevel(string name) =>
        name.Length is > 0 and <= 200 && name is not ("." or "..") && !name.Any(c => c is '/' or '\\' or ':' || PlainText.Acts(c))
            ? name
            : throw new ClientException(ExitCode.Unread,
                $"The service names a file '{PlainText.Of(name)}', which is no plain name: nothing is written.");

    private static bool IsLink(string path) =>
        new FileInfo(path).LinkTarget is not null || new DirectoryInfo(path).LinkTarget is not null;

    private static ClientException Link(string path) =>
        new(ExitCode.BadInput, $"{path} is a link: it is not followed.", "Remove it, or name another folder.");

    private static string Doing(string path, Func<string> act)
    {
        try
        {
            return act();
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{path} cannot be written: {e.Message}");
        }
    }
}
