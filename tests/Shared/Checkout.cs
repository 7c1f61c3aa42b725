namespace JustRight.Tests.Shared;

/// <summary>Where the checkout lies that the tests belong to.</summary>
public static class Checkout
{
    /// <summary>Its top folder.</summary>
    public static string Top { get; } = Find();

    private static string Find()
    {
        var folder = AppContext.BaseDirectory;
        while (!File.Exists(Path.Combine(folder, "global.json"))) folder = Path.GetDirectoryName(folder)!;
        return folder;
    }
}
