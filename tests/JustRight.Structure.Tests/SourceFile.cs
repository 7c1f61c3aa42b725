namespace JustRight.Structure.Tests;

/// <summary>A C# file of the checkout, with its path from the top.</summary>
internal sealed record SourceFile(string Path, string Text)
{
    private static readonly string[] Written = ["src", "tests", "bench"];

    /// <summary>The files somebody wrote, by path: without what a build or the database tool generated.</summary>
    public static IReadOnlyList<SourceFile> All { get; } =
    [
        .. Written.Select(folder => System.IO.Path.Combine(Checkout.Top, folder))
            .SelectMany(folder => Directory.GetFiles(folder, "*.cs", SearchOption.AllDirectories))
            .Select(file => System.IO.Path.GetRelativePath(Checkout.Top, file).Replace('\\', '/'))
            .Where(path => !path.Split('/').Any(part => part is "obj" or "bin" or "Migrations"))
            .Order(StringComparer.Ordinal)
            .Select(path => new SourceFile(path, File.ReadAllText(System.IO.Path.Combine(Checkout.Top, path)))),
    ];

    /// <summary>The files of one source project.</summary>
    public static IReadOnlyList<SourceFile> Of(string project) =>
        [.. All.Where(file => file.Path.StartsWith($"src/{project}/", StringComparison.Ordinal))];
}
