using JustRight.Cli.Api;

namespace JustRight.Cli.Commands;

/// <summary>Files that a person names on the command line.</summary>
internal static class InputFile
{
    /// <summary>The text of one.</summary>
    /// <exception cref="ClientException">It cannot be read; the message says why.</exception>
    public static async Task<string> TextAsync(string file, CancellationToken cancel)
    {
        try
        {
            return await File.ReadAllTextAsync(file, cancel);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            throw new ClientException(ExitCode.BadInput, $"{file} cannot be read: {e.Message}");
        }
    }
}
