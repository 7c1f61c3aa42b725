namespace JustRight.Formats.Hosts;

/// <summary>The two scripts that run on a host, as they are handed over and as a connection runs them.</summary>
public static class HostScripts
{
    /// <summary>The file name of the script that reads.</summary>
    public const string CollectName = "collect-host-facts.ps1";

    /// <summary>The file name of the script that changes.</summary>
    public const string ChangeName = "make-host-changes.ps1";

    /// <summary>The script that reads host facts and changes nothing.</summary>
    public static string Collect { get; } = Load(CollectName);

    /// <summary>The script that makes a list of changes.</summary>
    public static string Change { get; } = Load(ChangeName);

    private static string Load(string name)
    {
        using var stream = typeof(HostScripts).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The script {name} is missing from the program.");
        using var reader = new StreamReader(stream);
        return reader.ReadToEnd();
    }
}
