using System.Text.Json;
using System.Text.Json.Serialization;

namespace JustRight.Cli.Api;

/// <summary>Where the service is and the tokens for it, kept in a file that only its owner can read.</summary>
internal sealed class ClientSettings
{
    public const string DefaultAddress = "http://127.0.0.1:5820";

    /// <summary>Tokens by address.</summary>
    public Dictionary<string, string> Tokens { get; set; } = [];

    private static string File =>
        Environment.GetEnvironmentVariable("JUSTRIGHT_SETTINGS") is { Length: > 0 } file
            ? file
            : Path.Combine(
                Environment.GetFolderPath(Environment.SpecialFolder.ApplicationData, Environment.SpecialFolderOption.DoNotVerify),
                "justright", "client.json");

    public static ClientSettings Load()
    {
        try
        {
            return JsonSerializer.Deserialize(System.IO.File.ReadAllText(File), SettingsJson.Default.ClientSettings)
                ?? new ClientSettings();
        }
        catch (Exception e) when (e is FileNotFoundException or DirectoryNotFoundException)
        {
            return new ClientSettings();
        }
        catch (JsonException)
        {
            throw new ClientException(
                ExitCode.BadInput, $"{File} is not readable as settings.", "Delete it and claim a token again.");
        }
    }

    public string Save()
    {
        Directory.CreateDirectory(Path.GetDirectoryName(File)!);
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows()) options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        using var file = new FileStream(File, options);
        JsonSerializer.Serialize(file, this, SettingsJson.Default.ClientSettings);
        return File;
    }
}

[JsonSourceGenerationOptions(WriteIndented = true)]
[JsonSerializable(typeof(ClientSettings))]
internal sealed partial class SettingsJson : JsonSerializerContext;
